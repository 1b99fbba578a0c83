import { child, xml } from '../../../core/formats/onvif/xml.ts'
import { PULSE_SECONDS } from '../outputs.ts'
import { Refusal } from '../refusal.ts'
import { secondsOf, text, type Handler } from './handler.ts'

/**
 * Inputs and relays of the standard (device management and Device IO, from memory), and the other outputs of
 * docs/device-extension.md.
 */
export const outputHandlers: Record<string, Handler> = {
  GetRelayOutputs: ({ outputs }) => xml('tds:GetRelayOutputsResponse', {}, ...outputs.list.filter(({ kind }) => kind === 'relay').map(({ token }) => xml('tds:RelayOutputs', { token }, xml('tt:Properties', {}, text('tt:Mode', 'Monostable'), text('tt:DelayTime', `PT${PULSE_SECONDS}S`), text('tt:IdleState', 'open'))))),
  SetRelayOutputState: ({ outputs, now }, action) => {
    const token = child(action, 'RelayOutputToken')?.text ?? ''
    if (!outputs.list.some((o) => o.token === token && o.kind === 'relay')) throw new Refusal('ter:RelayToken', `there is no relay ${token}`)
    if (child(action, 'LogicalState')?.text === 'active') outputs.activate(token, now(), PULSE_SECONDS)
    else outputs.release(token)
    return xml('tds:SetRelayOutputStateResponse')
  },
  GetDigitalInputs: ({ model }) => xml('tmd:GetDigitalInputsResponse', {}, ...model.inputs.map(({ token }) => xml('tmd:DigitalInputs', { token }))),
  GetOutputs: ({ outputs, now }) => xml('wo:GetOutputsResponse', {}, ...outputs.list.map(({ token, kind, name }) => xml('wo:Output', { token, Kind: kind, Name: name, Active: outputs.isActive(token, now()) }))),
  TestOutput: ({ outputs, now }, action) => {
    outputs.activate(child(action, 'OutputToken')?.text ?? '', now(), secondsOf(child(action, 'Time')?.text ?? '', PULSE_SECONDS))
    return xml('wo:TestOutputResponse')
  }
}
