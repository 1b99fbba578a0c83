import { OUTPUT_KINDS, type OutputKind } from '../../../core/formats/actions.ts'
import { isOneOf } from '../../../core/isOneOf.ts'
import type { OutputSetting } from '../../../core/devices/outputs.ts'
import { child, children, content, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import { ifOffered } from './deviceError.ts'
import type { DeviceWire } from './wire.ts'

export interface LinkOutput {
  token: string
  kind: OutputKind
  name: string
  active: boolean
  /** How it is set on the device; null: it does not say, or nobody has set it. */
  held: OutputSetting | null
  /** It can be set up so that the device switches it by itself. */
  keeps: boolean
}

/** A device's contacts, and what it can switch. */
export class InputsAndOutputs {
  private readonly wire: DeviceWire

  constructor(wire: DeviceWire) {
    this.wire = wire
  }

  /** Contacts of the device, by their tokens; none for a device without that service. */
  async inputs(): Promise<string[]> {
    if (!(await this.wire.has('deviceIO'))) return []
    return children(
      await ifOffered(this.wire.call('deviceIO', xml('tmd:GetDigitalInputs'))),
      'DigitalInputs'
    ).flatMap(({ attributes }) => attributes.token ?? [])
  }

  /** What the device can switch: relays of the standard, and the outputs of docs/device-extension.md. */
  async outputs(): Promise<LinkOutput[]> {
    if (await this.wire.has('outputs')) {
      return children(await this.wire.call('outputs', xml('wo:GetOutputs')), 'Output').flatMap(
        (o) => {
          const { attributes: a } = o
          const kind = a.Kind ?? ''
          return a.token && isOneOf(OUTPUT_KINDS, kind)
            ? [
                {
                  token: a.token,
                  kind,
                  name: a.Name || a.token,
                  active: a.Active === 'true',
                  held: heldOf(o),
                  keeps: true
                }
              ]
            : []
        }
      )
    }
    return children(
      await ifOffered(this.wire.call('device', xml('tds:GetRelayOutputs'))),
      'RelayOutputs'
    ).flatMap(({ attributes: { token } }) =>
      token
        ? [{ token, kind: 'relay' as const, name: token, active: false, held: null, keeps: false }]
        : []
    )
  }

  /**
   * Switches an output, as it is set up (`core/devices/outputs.ts`). A device that has relays of the standard alone
   * closes them for the time that it has.
   */
  async activate(
    token: string,
    settings: Readonly<Record<string, string>>,
    voice: Buffer | null
  ): Promise<void> {
    if (await this.wire.has('outputs'))
      await this.ofOutput('Activate', token, ...settingItems(settings), voiceItem(voice))
    else await this.relay(token, true)
  }

  async release(token: string): Promise<void> {
    if (await this.wire.has('outputs')) await this.ofOutput('Release', token)
    else await this.relay(token, false)
  }

  /** Sets an output up on the device itself. */
  async setOutput(
    token: string,
    { settings, hours, rules }: OutputSetting,
    voice: Buffer | null
  ): Promise<void> {
    await this.ofOutput(
      'SetOutput',
      token,
      ...settingItems(settings),
      xml('wo:Hours', {}, content(hours)),
      xml('wo:Rules', {}, content(rules.join(' '))),
      voiceItem(voice)
    )
  }

  /** Something asked of one output, by our extension. */
  private ofOutput(action: string, token: string, ...more: string[]): Promise<Element> {
    return this.wire.call(
      'outputs',
      xml(`wo:${action}`, {}, xml('wo:OutputToken', {}, content(token)), ...more)
    )
  }

  private async relay(token: string, active: boolean): Promise<void> {
    await this.wire.call(
      'device',
      xml(
        'tds:SetRelayOutputState',
        {},
        xml('tds:RelayOutputToken', {}, content(token)),
        xml('tds:LogicalState', {}, active ? 'active' : 'inactive')
      )
    )
  }
}

const settingItems = (settings: Readonly<Record<string, string>>): string[] =>
  Object.entries(settings).map(([Name, Value]) => xml('tt:SimpleItem', { Name, Value }))

const voiceItem = (voice: Buffer | null): string =>
  voice ? xml('wo:Voice', {}, voice.toString('base64')) : ''

function heldOf(output: Element): OutputSetting | null {
  const items = children(output, 'SimpleItem')
  if (!items.length) return null
  return {
    settings: Object.fromEntries(items.map(({ attributes: a }) => [a.Name ?? '', a.Value ?? ''])),
    hours: child(output, 'Hours')?.text ?? '',
    rules: (child(output, 'Rules')?.text ?? '').split(/\s+/).filter(Boolean)
  }
}
