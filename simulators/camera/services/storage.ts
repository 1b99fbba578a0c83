import { xml } from '../../../core/formats/onvif/xml.ts'
import { text, type Handler } from './handler.ts'

const CARD = 'card-1'
/** Seconds that a device keeps before an event, and after it. */
const [BEFORE, AFTER] = [5, 10]

/**
 * Where a device records to. Source: ONVIF Core Specification (storage configuration) and Recording Control Service
 * Specification (from memory). How large it is and what happens when it is full are docs/device-extension.md.
 */
export const storageHandlers: Record<string, Handler> = {
  GetStorageConfigurations: (device) => {
    return xml(
      'tds:GetStorageConfigurationsResponse',
      {},
      device.model.storage
        ? xml(
            'tds:StorageConfigurations',
            { token: CARD },
            xml('tds:Data', { type: 'LocalStorage' }, text('tds:LocalPath', '/card'))
          )
        : ''
    )
  },
  GetRecordings: (device) => {
    return xml(
      'trc:GetRecordingsResponse',
      {},
      ...(device.model.storage ? device.channels : []).map(({ token, model }) =>
        xml(
          'trc:RecordingItem',
          {},
          text('tt:RecordingToken', `recording-${token}`),
          xml(
            'tt:Configuration',
            {},
            xml(
              'tt:Source',
              {},
              text('tt:SourceId', `source-${token}`),
              text('tt:Name', model.name),
              text('tt:Location', ''),
              text('tt:Description', model.name),
              text('tt:Address', device.address)
            ),
            text('tt:Content', model.name),
            text('tt:MaximumRetentionTime', 'PT0S')
          ),
          xml(
            'tt:Tracks',
            {},
            xml(
              'tt:Track',
              {},
              text('tt:TrackToken', `video-${token}`),
              xml(
                'tt:Configuration',
                {},
                text('tt:TrackType', 'Video'),
                text('tt:Description', model.name)
              )
            )
          )
        )
      )
    )
  },
  GetStorage: (device) => {
    const { storage } = device.model
    return xml(
      'wo:GetStorageResponse',
      {},
      storage
        ? xml(
            'wo:Storage',
            { token: CARD },
            text('wo:Size', storage.megabytes),
            text('wo:Free', storage.free),
            text('wo:WhenFull', storage.whenFull),
            text('wo:OutsideEvents', storage.outsideEvents),
            text('wo:Before', `PT${BEFORE}S`),
            text('wo:After', `PT${AFTER}S`)
          )
        : ''
    )
  }
}
