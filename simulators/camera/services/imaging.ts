import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { child, down, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler, type Served } from './handler.ts'

const MODES = ['AUTO', 'ON', 'OFF']

/** The channel whose video source an action names. */
const of = (device: Served, action: Element): string =>
  device.channel((child(action, 'VideoSourceToken')?.text ?? '').replace(/^source-/, '')).token

/** Imaging service: the infra-red filter. Source: ONVIF Imaging Service Specification (from memory). */
export const imagingHandlers: Record<string, Handler> = {
  GetImagingSettings: (device, action) =>
    xml(
      'timg:GetImagingSettingsResponse',
      {},
      xml(
        'timg:ImagingSettings',
        {},
        text('tt:IrCutFilter', device.state.filters[of(device, action)] ?? 'AUTO')
      )
    ),
  SetImagingSettings: (device, action) => {
    const mode = down(action, 'ImagingSettings', 'IrCutFilter')?.text ?? ''
    if (!MODES.includes(mode)) throw new Refusal('ter:SettingsInvalid', msg.noSuchFilter(mode))
    device.state.filters[of(device, action)] = mode
    device.save()
    return xml('timg:SetImagingSettingsResponse')
  }
}
