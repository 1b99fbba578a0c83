import { coded, said, type Said } from '../../core/messages/said.ts'
import { OUTPUT_KINDS, type OutputKind } from '../../core/formats/actions.ts'
import { isOneOf } from '../../core/isOneOf.ts'
import type { OutputSetting } from '../../core/devices/outputs.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { type AnalysisMode, type RuleAbility, type Rule } from '../../core/formats/onvif/rule.ts'
import { readMetadata } from '../../core/formats/onvif/metadata.ts'
import { readRule, ruleXml } from '../../core/formats/onvif/ruleXml.ts'
import {
  MAX_XML,
  child,
  children,
  content,
  down,
  textAt,
  xml,
  type Element
} from '../../core/formats/onvif/xml.ts'
import { channelsOf, profiles2Of, profilesOf, type LinkChannel } from './profiles.ts'
import { rtspMetadata } from './rtspMetadata.ts'
import { partsOf } from './streams.ts'
import { DeviceError, ifOffered, isAway } from './deviceError.ts'
import { DeviceUpkeep } from './upkeep.ts'
import { DeviceWire, type Credentials } from './wire.ts'
import { ruleType } from '../../core/kinds/rules.ts'

export interface Information {
  manufacturer: string
  model: string
  firmware: string
  serial: string
}

export interface DeviceEvent {
  topic: string
  /** Whether it has changed, or is only told to who begins to listen. */
  initial: boolean
  /** Milliseconds of UTC, on the device's clock. */
  at: number
  /** The rule, or the input or output, that it is of. */
  rule: string
  /** The analysis that it is of; empty: none. */
  channel: string
  data: Record<string, string>
}

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

/** What it takes to speak with a device. */
export interface Access {
  address: string
  account: { username: string; password: string } | null
  /** SHA-256 of the one that it must show over TLS; null: any. */
  certificate: string | null
}

/** A recording has begun to come within this. */
const FILM_WITHIN_MS = 60_000
/** Whatever prefix the device gives its namespace. */
const METADATA_BEGIN = /<(?:[\w.-]+:)?MetadataStream[\s>]/
const METADATA_END = /<\/(?:[\w.-]+:)?MetadataStream\s*>/

/** Speaks the open standard with one device. Every call ends: with an answer, or with a DeviceError that says why not. */
export class DeviceLink {
  /** Clock, network, night picture and account. */
  readonly upkeep: DeviceUpkeep
  private readonly wire: DeviceWire
  private readonly snapshotUris = new Map<string, string>()

  /**
   * @param address such as http://192.0.2.4 or https://127.0.0.1:8081
   * @param certificate SHA-256 of the one that it must show over TLS; null: any
   * @throws InputError for what is no address
   */
  constructor(
    address: string,
    credentials: Credentials | null,
    withinMs?: number,
    certificate: string | null = null
  ) {
    this.wire = new DeviceWire(address, credentials, withinMs, certificate)
    this.upkeep = new DeviceUpkeep(this.wire)
  }

  /** SHA-256 of the certificate that the device has shown; null: none. */
  get certificate(): string | null {
    return this.wire.certificate
  }

  get address(): string {
    return this.wire.address
  }

  /** By how many seconds the device's clock is ahead of this one; null where it does not say. */
  clockAhead(): Promise<number | null> {
    return this.wire.clockAhead()
  }

  async information(): Promise<Information> {
    const answer = await ifOffered(this.wire.call('device', xml('tds:GetDeviceInformation')))
    const part = (name: string): string => child(answer, name)?.text ?? ''
    return {
      manufacturer: part('Manufacturer'),
      model: part('Model'),
      firmware: part('FirmwareVersion'),
      serial: part('SerialNumber')
    }
  }

  /** Makes the first account of a device fresh from the box. */
  async createAccount({ username, password }: Credentials): Promise<void> {
    await this.wire.call(
      'device',
      xml(
        'tds:CreateUsers',
        {},
        xml(
          'tds:User',
          {},
          xml('tt:Username', {}, content(username)),
          xml('tt:Password', {}, content(password)),
          xml('tt:UserLevel', {}, 'Administrator')
        )
      )
    )
  }

  async hasAccount(): Promise<boolean> {
    return children(await this.wire.call('device', xml('tds:GetUsers')), 'User').length > 0
  }

  /** The device's pictures, each with what analyses it. Media 2 is asked where it is offered. */
  async channels(): Promise<LinkChannel[]> {
    const second = (await this.wire.has('media2'))
      ? await ifOffered(
          this.wire.call('media2', xml('tr2:GetProfiles', {}, xml('tr2:Type', {}, 'All')), true)
        )
      : undefined
    const profiles = second ? profiles2Of(second) : []
    if (profiles.length) return channelsOf(profiles)
    return channelsOf(profilesOf(await this.wire.call('media', xml('trt:GetProfiles'), true)))
  }

  /** What a channel can do: its supported rules, the ranges of their parameters, and how many rules in all. */
  async abilities(
    channel: string
  ): Promise<{ abilities: RuleAbility[]; mostRules: number | null }> {
    const supported = child(
      await ifOffered(this.ability('GetSupportedRules', channel)),
      'SupportedRules'
    )
    if (!supported) return { abilities: [], mostRules: null }
    const options = await ifOffered(this.ability('GetRuleOptions', channel))
    const abilities = children(supported, 'RuleDescription').map(
      ({ attributes, children: inner }) => {
        const type = ruleType(attributes.Name ?? '')
        const parameters = inner
          .flatMap((e) => children(e, 'SimpleItemDescription'))
          .map((item) => item.attributes.Name ?? '')
        const own = children(options, 'RuleOptions').filter(
          (o) => ruleType(o.attributes.RuleType ?? '') === type
        )
        const ranges = own.flatMap((o) => {
          const range = child(o, 'FloatRange') ?? child(o, 'IntRange')
          const [min, max] = [Number(child(range, 'Min')?.text), Number(child(range, 'Max')?.text)]
          return range && Number.isFinite(min) && Number.isFinite(max)
            ? [[o.attributes.Name ?? '', { min, max }] as const]
            : []
        })
        return {
          type,
          most: whole(attributes.maxInstances),
          parameters,
          ranges: Object.fromEntries(ranges)
        }
      }
    )
    return { abilities, mostRules: whole(supported.attributes.MostRules) }
  }

  /** Families of analysis; none where the device does not say what they run. */
  async modes(channel: string): Promise<AnalysisMode[]> {
    const supported = children(
      child(
        await ifOffered(this.ability('GetSupportedAnalyticsModules', channel)),
        'SupportedAnalyticsModules'
      ),
      'AnalyticsModuleDescription'
    ).filter(({ attributes }) => attributes.Runs !== undefined)
    if (!supported.length) return []
    const running = children(
      await this.analytics('GetAnalyticsModules', channel),
      'AnalyticsModule'
    ).map(({ attributes }) => attributes.Type)
    return supported.map(({ attributes }) => ({
      type: attributes.Name ?? '',
      runs: (attributes.Runs ?? '').split(/\s+/).filter(Boolean).map(ruleType),
      running: running.includes(attributes.Name ?? '')
    }))
  }

  /** Runs one family of analysis instead of another. When the new one is refused, the old one runs again. */
  async setMode(channel: string, from: string | null, to: string): Promise<void> {
    const create = (type: string): Promise<Element> =>
      this.analytics(
        'CreateAnalyticsModules',
        channel,
        xml('tan:AnalyticsModule', { Name: type, Type: type }, xml('tt:Parameters'))
      )
    if (from !== null)
      await this.analytics(
        'DeleteAnalyticsModules',
        channel,
        xml('tan:AnalyticsModuleName', {}, content(from))
      )
    try {
      await create(to)
    } catch (error) {
      if (from !== null) await create(from).catch(() => {})
      throw error
    }
  }

  async rules(channel: string): Promise<Rule[]> {
    return children(await this.analytics('GetRules', channel), 'Rule').map(readRule)
  }

  createRule(channel: string, rule: Rule): Promise<Element> {
    return this.analytics('CreateRules', channel, ruleXml(rule))
  }

  modifyRule(channel: string, rule: Rule): Promise<Element> {
    return this.analytics('ModifyRules', channel, ruleXml(rule))
  }

  deleteRule(channel: string, name: string): Promise<Element> {
    return this.analytics('DeleteRules', channel, xml('tan:RuleName', {}, content(name)))
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
      await this.wire.call(
        'outputs',
        xml(
          'wo:Activate',
          {},
          xml('wo:OutputToken', {}, content(token)),
          ...settingItems(settings),
          voice ? xml('wo:Voice', {}, voice.toString('base64')) : ''
        )
      )
    else await this.relay(token, true)
  }

  async release(token: string): Promise<void> {
    if (await this.wire.has('outputs'))
      await this.wire.call(
        'outputs',
        xml('wo:Release', {}, xml('wo:OutputToken', {}, content(token)))
      )
    else await this.relay(token, false)
  }

  /** Sets an output up on the device itself. */
  async setOutput(
    token: string,
    { settings, hours, rules }: OutputSetting,
    voice: Buffer | null
  ): Promise<void> {
    await this.wire.call(
      'outputs',
      xml(
        'wo:SetOutput',
        {},
        xml('wo:OutputToken', {}, content(token)),
        ...settingItems(settings),
        xml('wo:Hours', {}, content(hours)),
        xml('wo:Rules', {}, content(rules.join(' '))),
        voice ? xml('wo:Voice', {}, voice.toString('base64')) : ''
      )
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

  /** Has the device record a channel around this moment. @returns the recording's token */
  async record(channel: string, beforeSeconds: number, afterSeconds: number): Promise<string> {
    const answer = await this.wire.call(
      'outputs',
      xml(
        'wo:Record',
        {},
        xml('wo:ConfigurationToken', {}, content(channel)),
        xml('wo:Before', {}, `PT${beforeSeconds.toFixed(1)}S`),
        xml('wo:After', {}, `PT${afterSeconds.toFixed(1)}S`)
      )
    )
    return textAt(answer, coded('places.deviceAnswer'), 'RecordingToken')
  }

  /** Where what the device has recorded is; or for how many seconds it still records. */
  async recording(token: string): Promise<string | number> {
    const answer = await this.wire.call(
      'outputs',
      xml('wo:GetRecordingUri', {}, xml('wo:RecordingToken', {}, content(token)))
    )
    const left = child(answer, 'SecondsLeft')
    if (left) return Math.max(0, Number(left.text) || 0)
    return this.own(
      textAt(answer, coded('places.deviceAnswer'), 'Uri'),
      said('places.recordingStream')
    )
  }

  /** A recording, as MP4; to be read with `partsOf`. A device may have to put it together first. */
  film(uri: string, signal: AbortSignal): Promise<Response> {
    return this.wire.open(uri, signal, FILM_WITHIN_MS)
  }

  /** The picture of some seconds ago; null where the device keeps none. */
  async pictureAgo(profile: string, seconds: number): Promise<Buffer | null> {
    if (!(await this.wire.has('outputs'))) return null
    const uri = new URL(await this.mediaUri('GetSnapshotUri', profile))
    uri.searchParams.set('ago', seconds.toFixed(1))
    return this.wire.picture(uri.href)
  }

  async snapshot(profile: string): Promise<Buffer> {
    const known = this.snapshotUris.get(profile)
    if (known !== undefined)
      try {
        return await this.wire.picture(known)
      } catch (error) {
        // The address may hold for some time only; a device that is away is not asked for another one.
        if (isAway(error)) throw error
        this.snapshotUris.delete(profile)
      }
    const uri = await this.mediaUri('GetSnapshotUri', profile)
    const picture = await this.wire.picture(uri)
    this.snapshotUris.set(profile, uri)
    return picture
  }

  /** Motion JPEG as it comes. @param uri of `streamUri` */
  motionJpeg(uri: string, signal: AbortSignal): Promise<Response> {
    return this.wire.open(uri, signal)
  }

  /** An address of RTSP with the account that it asks for. @throws DeviceError when another device answers there */
  async withAccount(uri: string): Promise<string> {
    const stream = new URL(uri)
    if (stream.protocol === 'rtsps:') await this.wire.checkStream(stream)
    const { username, password } = this.wire.account ?? { username: '', password: '' }
    stream.username = encodeURIComponent(username)
    stream.password = encodeURIComponent(password)
    return stream.href
  }

  /** Targets as the device says them, until it ends or is told to. @throws DeviceError */
  async *targets(profile: string, signal: AbortSignal): AsyncGenerator<LiveFrame> {
    let text = ''
    const utf8 = new TextDecoder()
    for await (const part of this.metadata(profile, signal)) {
      text += utf8.decode(part, { stream: true })
      if (text.length > MAX_XML)
        throw new DeviceError('broken', said('devices.theDevicesMetadataDoesNot'))
      for (let end; (end = METADATA_END.exec(text));) {
        const to = end.index + end[0].length
        const begin = METADATA_BEGIN.exec(text)
        const frame = begin && begin.index < end.index ? text.slice(begin.index, to) : null
        text = text.slice(to)
        if (frame !== null) yield readMetadata(frame)
      }
    }
  }

  /** The bytes of the metadata: over RTSP where the device has it, else over HTTP by our extension. */
  private async *metadata(profile: string, signal: AbortSignal): AsyncGenerator<Uint8Array> {
    const uri = await this.streamUri(profile)
    if (uri.startsWith('rtsp')) return yield* rtspMetadata(await this.withAccount(uri), signal)
    const own = await this.mediaUri('GetStreamUri', profile, xml('wo:Metadata'))
    yield* partsOf(await this.wire.open(own, signal), signal)
  }

  /** Starts to listen; the address of the pull point. */
  async subscribe(): Promise<string> {
    const answer = await this.wire.call(
      'events',
      xml('tev:CreatePullPointSubscription', {}, xml('tev:InitialTerminationTime', {}, 'PT60S'))
    )
    return this.own(
      textAt(answer, coded('places.deviceAnswer'), 'SubscriptionReference', 'Address'),
      said('places.pullPoint')
    )
  }

  /** What has happened since; waits up to `seconds` for something. */
  async pull(address: string, seconds: number): Promise<DeviceEvent[]> {
    const answer = await this.wire.ask(
      address,
      xml(
        'tev:PullMessages',
        {},
        xml('tev:Timeout', {}, `PT${seconds}S`),
        xml('tev:MessageLimit', {}, '100')
      ),
      true,
      this.wire.withinMs + seconds * 1000
    )
    return children(answer, 'NotificationMessage').map((notification) => {
      const message = down(notification, 'Message', 'Message')
      const items = (group: string): Record<string, string> =>
        Object.fromEntries(
          children(child(message, group), 'SimpleItem').map(({ attributes }) => [
            attributes.Name ?? '',
            attributes.Value ?? ''
          ])
        )
      const source = items('Source')
      return {
        topic: child(notification, 'Topic')?.text ?? '',
        initial: message?.attributes.PropertyOperation === 'Initialized',
        at: Date.parse(message?.attributes.UtcTime ?? ''),
        rule: source.Rule ?? source.InputToken ?? source.OutputToken ?? source.RelayToken ?? '',
        channel: source.VideoAnalyticsConfigurationToken ?? '',
        data: items('Data')
      }
    })
  }

  /** Keeps a pull point for another minute. */
  async renew(address: string): Promise<void> {
    await this.wire.ask(
      address,
      xml('wsnt:Renew', {}, xml('wsnt:TerminationTime', {}, 'PT60S')),
      true
    )
  }

  async unsubscribe(address: string): Promise<void> {
    await this.wire.ask(address, xml('wsnt:Unsubscribe'), true)
  }

  private analytics(
    action: string,
    channel: string,
    body = '',
    isCacheable = false
  ): Promise<Element> {
    return this.wire.call(
      'analytics',
      xml(`tan:${action}`, {}, xml('tan:ConfigurationToken', {}, content(channel)), body),
      isCacheable
    )
  }

  /** Something that a channel's analysis can do. */
  private ability(action: string, channel: string): Promise<Element> {
    return this.analytics(action, channel, '', true)
  }

  /**
   * Where a profile's pictures come from: RTSP where the device has it, else Motion JPEG over HTTP.
   *
   * @throws DeviceError
   */
  async streamUri(profile: string): Promise<string> {
    if (await this.wire.has('media2')) {
      const answer = await ifOffered(
        this.wire.call(
          'media2',
          xml(
            'tr2:GetStreamUri',
            {},
            xml('tr2:Protocol', {}, 'RTSP'),
            xml('tr2:ProfileToken', {}, content(profile))
          )
        )
      )
      const uri = child(answer, 'Uri')?.text
      if (uri) return this.own(uri, said('places.picture'))
    }
    return this.mediaUri('GetStreamUri', profile)
  }

  private async mediaUri(
    action: 'GetSnapshotUri' | 'GetStreamUri',
    profile: string,
    more = ''
  ): Promise<string> {
    const ask = (protocol: 'RTSP' | 'HTTP' | null): Promise<Element> =>
      this.wire.call(
        'media',
        xml(
          `trt:${action}`,
          {},
          protocol
            ? xml(
                'trt:StreamSetup',
                {},
                xml('tt:Stream', {}, 'RTP-Unicast'),
                xml('tt:Transport', {}, xml('tt:Protocol', {}, protocol))
              )
            : '',
          xml('trt:ProfileToken', {}, content(profile)),
          more
        )
      )
    const answer =
      action === 'GetSnapshotUri'
        ? await ask(null)
        : ((await ifOffered(ask('RTSP'))) ?? (await ask('HTTP')))
    return this.own(
      textAt(answer, coded('places.deviceAnswer'), 'MediaUri', 'Uri'),
      said('places.picture')
    )
  }

  /**
   * A device must not send this server elsewhere. Behind a translation of addresses it does not know its own, so that of
   * an address of RTSP only its port and path are taken.
   */
  private own(uri: string, what: Said): string {
    if (URL.canParse(uri) && /^rtsps?:$/.test(new URL(uri).protocol)) {
      const stream = new URL(uri)
      stream.hostname = new URL(this.address).hostname
      stream.username = ''
      stream.password = ''
      return stream.href
    }
    if (!URL.canParse(uri) || new URL(uri).origin !== this.address)
      throw new DeviceError('broken', said('devices.theSAddressIsNot', what, uri.slice(0, 80)))
    return uri
  }
}

/** A whole number of an attribute, or null when it says none. */
const whole = (text: string | undefined): number | null =>
  text !== undefined && /^\d+$/.test(text) ? Number(text) : null

const settingItems = (settings: Readonly<Record<string, string>>): string[] =>
  Object.entries(settings).map(([Name, Value]) => xml('tt:SimpleItem', { Name, Value }))

function heldOf(output: Element): OutputSetting | null {
  const items = children(output, 'SimpleItem')
  if (!items.length) return null
  return {
    settings: Object.fromEntries(items.map(({ attributes: a }) => [a.Name ?? '', a.Value ?? ''])),
    hours: child(output, 'Hours')?.text ?? '',
    rules: (child(output, 'Rules')?.text ?? '').split(/\s+/).filter(Boolean)
  }
}
