import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { secondsIn } from '../../../core/formats/onvif/durations.ts'
import type { Element } from '../../../core/formats/onvif/xml.ts'
import { child, children, content, xml } from '../../../core/formats/onvif/xml.ts'
import { PULSE_SECONDS } from '../outputs.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler } from './handler.ts'

const tokenOf = (action: Element): string => child(action, 'OutputToken')?.text ?? ''
const itemsOf = (action: Element): Record<string, string> =>
  Object.fromEntries(
    children(action, 'SimpleItem').map(({ attributes: a }) => [a.Name ?? '', a.Value ?? ''])
  )

/**
 * Inputs and relays of the standard (device management and Device IO, from memory), and the other outputs and the
 * recordings of docs/device-extension.md.
 */
export const outputHandlers: Record<string, Handler> = {
  GetRelayOutputs: ({ outputs }) =>
    xml(
      'tds:GetRelayOutputsResponse',
      {},
      ...outputs.list
        .filter(({ kind }) => kind === 'relay')
        .map(({ token }) =>
          xml(
            'tds:RelayOutputs',
            { token },
            xml(
              'tt:Properties',
              {},
              text('tt:Mode', 'Monostable'),
              text('tt:DelayTime', `PT${PULSE_SECONDS}S`),
              text('tt:IdleState', 'open')
            )
          )
        )
    ),
  SetRelayOutputState: ({ outputs, now }, action) => {
    const token = child(action, 'RelayOutputToken')?.text ?? ''
    if (!outputs.list.some((o) => o.token === token && o.kind === 'relay'))
      throw new Refusal('ter:RelayToken', msg.thereIsNoRelay(token))
    if (child(action, 'LogicalState')?.text === 'active')
      outputs.activate(token, now(), { Mode: 'pulse', Time: `PT${PULSE_SECONDS}S` }, null)
    else outputs.release(token, now())
    return xml('tds:SetRelayOutputStateResponse')
  },
  GetDigitalInputs: ({ model }) =>
    xml(
      'tmd:GetDigitalInputsResponse',
      {},
      ...model.inputs.map(({ token }) => xml('tmd:DigitalInputs', { token }))
    ),
  GetOutputs: ({ outputs, now }) =>
    xml(
      'wo:GetOutputsResponse',
      {},
      ...outputs.list.map(({ token, kind, name }) => {
        const kept = outputs.settingOf(token)
        return xml(
          'wo:Output',
          { token, Kind: kind, Name: name, Active: outputs.isActive(token, now()) },
          ...(kept
            ? [
                ...Object.entries(kept.settings).map(([Name, Value]) =>
                  xml('tt:SimpleItem', { Name, Value })
                ),
                xml('wo:Hours', {}, content(kept.hours)),
                xml('wo:Rules', {}, content(kept.rules.join(' ')))
              ]
            : [])
        )
      })
    ),
  Activate: ({ outputs, now }, action) => {
    const voice = child(action, 'Voice')?.text
    outputs.activate(
      tokenOf(action),
      now(),
      itemsOf(action),
      voice ? Buffer.from(voice, 'base64') : null
    )
    return xml('wo:ActivateResponse')
  },
  Release: ({ outputs, now }, action) => {
    outputs.release(tokenOf(action), now())
    return xml('wo:ReleaseResponse')
  },
  SetOutput: ({ outputs }, action) => {
    outputs.set(tokenOf(action), {
      settings: itemsOf(action),
      hours: child(action, 'Hours')?.text ?? '',
      rules: (child(action, 'Rules')?.text ?? '').split(/\s+/).filter(Boolean),
      voice: child(action, 'Voice')?.text || null
    })
    return xml('wo:SetOutputResponse')
  },
  GetSurroundings: (device, action) => {
    const { token, model } = device.channel(child(action, 'ConfigurationToken')?.text ?? '')
    return xml(
      'wo:GetSurroundingsResponse',
      {},
      model.surroundings.length
        ? xml(
            'wo:Surroundings',
            { Offered: model.surroundings.join(' ') },
            content(device.state.surroundings[token] ?? model.surroundings[0]!)
          )
        : ''
    )
  },
  SetSurroundings: (device, action) => {
    const { token, model } = device.channel(child(action, 'ConfigurationToken')?.text ?? '')
    const wanted = child(action, 'Surroundings')?.text ?? ''
    if (!model.surroundings.includes(wanted))
      throw new Refusal('ter:InvalidArgVal', msg.noSuchSurroundings(wanted.slice(0, 40)))
    device.state.surroundings[token] = wanted
    device.save()
    return xml('wo:SetSurroundingsResponse')
  },
  Record: (device, action) => {
    const channel = device.channel(child(action, 'ConfigurationToken')?.text ?? '')
    const token = device.recordings.begin(
      channel.token,
      device.moment(),
      secondsIn(child(action, 'Before')?.text ?? '') ?? 5,
      secondsIn(child(action, 'After')?.text ?? '') ?? 10
    )
    return xml('wo:RecordResponse', {}, xml('wo:RecordingToken', {}, content(token)))
  },
  GetRecordingUri: ({ recordings, moment, address }, action) => {
    const token = child(action, 'RecordingToken')?.text ?? ''
    const recording = recordings.find(token)
    if (!recording)
      throw new Refusal('ter:InvalidArgVal', msg.thereIsNoRecording(token.slice(0, 40)))
    const left = recording.to - moment()
    return xml(
      'wo:GetRecordingUriResponse',
      {},
      left > 0
        ? xml('wo:SecondsLeft', {}, left.toFixed(1))
        : xml('wo:Uri', {}, `${address}/recording/${recording.token}`)
    )
  }
}
