import { coded, said } from '../../../core/messages/said.ts'
import { child, content, textAt, xml } from '../../../core/formats/onvif/xml.ts'
import type { DeviceWire } from './wire.ts'

/** A recording has begun to come within this. */
const FILM_WITHIN_MS = 60_000

/** What a device records itself, by our extension (docs/device-extension.md). */
export class DeviceRecordings {
  private readonly wire: DeviceWire

  constructor(wire: DeviceWire) {
    this.wire = wire
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
    return this.wire.own(
      textAt(answer, coded('places.deviceAnswer'), 'Uri'),
      said('places.recordingStream')
    )
  }

  /** A recording, as MP4; to be read with `partsOf`. A device may have to put it together first. */
  film(uri: string, signal: AbortSignal): Promise<Response> {
    return this.wire.open(uri, signal, FILM_WITHIN_MS)
  }
}
