import { child, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import type { Channel } from '../channel.ts'
import { text, type Handler, type Served } from './handler.ts'

const RATE = 5
const size = ({ scene }: Channel): { width: number; height: number } => ({
  width: scene.play.scene.width,
  height: scene.play.scene.height
})

const profile = (channel: Channel): string => {
  const { width, height } = size(channel)
  const { token } = channel
  return xml(
    'trt:Profiles',
    { token: `main-${token}`, fixed: true },
    text('tt:Name', channel.model.name),
    xml(
      'tt:VideoSourceConfiguration',
      { token: `source-${token}` },
      text('tt:Name', channel.model.name),
      text('tt:UseCount', 1),
      text('tt:SourceToken', `source-${token}`),
      xml('tt:Bounds', { x: 0, y: 0, width, height })
    ),
    xml(
      'tt:VideoEncoderConfiguration',
      { token: `encoder-${token}` },
      text('tt:Name', 'Encoder'),
      text('tt:UseCount', 1),
      text('tt:Encoding', 'JPEG'),
      xml('tt:Resolution', {}, text('tt:Width', width), text('tt:Height', height)),
      text('tt:Quality', 4),
      xml(
        'tt:RateControl',
        {},
        text('tt:FrameRateLimit', RATE),
        text('tt:EncodingInterval', 1),
        text('tt:BitrateLimit', 4096)
      ),
      text('tt:SessionTimeout', 'PT60S')
    ),
    xml(
      'tt:VideoAnalyticsConfiguration',
      { token },
      text('tt:Name', channel.model.name),
      text('tt:UseCount', 1)
    ),
    xml(
      'tt:MetadataConfiguration',
      { token: `metadata-${token}` },
      text('tt:Name', 'Targets'),
      text('tt:UseCount', 1),
      text('tt:Analytics', true),
      text('tt:SessionTimeout', 'PT60S')
    )
  )
}

/** The channel of a profile; the first one where none is named. */
const of = (device: Served, action: Element): Channel =>
  device.channel(
    child(action, 'ProfileToken')?.text.replace(/^main-/, '') ?? device.channels[0]!.token
  )

const uri = (name: string, address: string): string =>
  xml(
    name,
    {},
    xml(
      'trt:MediaUri',
      {},
      text('tt:Uri', address),
      text('tt:InvalidAfterConnect', false),
      text('tt:InvalidAfterReboot', false),
      text('tt:Timeout', 'PT60S')
    )
  )

/** Media service. Source: ONVIF Media Service Specification, media.wsdl (from memory). */
export const mediaHandlers: Record<string, Handler> = {
  GetProfiles: ({ channels }) => xml('trt:GetProfilesResponse', {}, ...channels.map(profile)),
  GetVideoSources: ({ channels }) =>
    xml(
      'trt:GetVideoSourcesResponse',
      {},
      ...channels.map((c) =>
        xml(
          'trt:VideoSources',
          { token: `source-${c.token}` },
          text('tt:Framerate', RATE),
          xml(
            'tt:Resolution',
            {},
            text('tt:Width', size(c).width),
            text('tt:Height', size(c).height)
          )
        )
      )
    ),
  GetSnapshotUri: (device, action) =>
    uri('trt:GetSnapshotUriResponse', `${device.address}/snapshot/${of(device, action).token}`),
  // Pictures as Motion JPEG over HTTP; with wo:Metadata the targets, as parts of XML.
  GetStreamUri: (device, action) =>
    uri(
      'trt:GetStreamUriResponse',
      `${device.address}/${child(action, 'Metadata') ? 'metadata' : 'stream'}/${of(device, action).token}`
    )
}
