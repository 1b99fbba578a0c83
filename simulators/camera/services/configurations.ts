import { xml } from '../../../core/formats/onvif/xml.ts'
import type { Channel } from '../channel.ts'
import { text, type Served } from './handler.ts'

/** Pictures a second. */
const RATE = 6
const BITRATE = 4096

export const sizeOf = ({ scene }: Channel): { width: number; height: number } => ({
  width: scene.play.scene.width,
  height: scene.play.scene.height
})

const named = (name: string): string[] => [text('tt:Name', name), text('tt:UseCount', 1)]

const resolution = (channel: Channel, name = 'tt:Resolution'): string => {
  const { width, height } = sizeOf(channel)
  return xml(name, {}, text('tt:Width', width), text('tt:Height', height))
}

/**
 * Configurations of a channel, alike in Media 1 and Media 2 but for the encoder's. Source: ONVIF schema `onvif.xsd`
 * (from memory).
 */
export const sourceConfiguration = (channel: Channel, name: string): string =>
  xml(
    name,
    { token: `source-${channel.token}` },
    ...named(channel.model.name),
    text('tt:SourceToken', `source-${channel.token}`),
    xml('tt:Bounds', { x: 0, y: 0, ...sizeOf(channel) })
  )

/** Nothing where the device has no analytics, as its metadata are of that. */
export const analyticsConfiguration = (device: Served, channel: Channel, name: string): string =>
  device.has('analytics') ? xml(name, { token: channel.token }, ...named(channel.model.name)) : ''

export const metadataConfiguration = (device: Served, { token }: Channel, name: string): string =>
  device.has('analytics')
    ? xml(
        name,
        { token: `metadata-${token}` },
        ...named('Targets'),
        text('tt:Analytics', !device.state.silent.includes(token)),
        multicast,
        text('tt:SessionTimeout', 'PT60S')
      )
    : ''

const multicast = xml(
  'tt:Multicast',
  {},
  xml('tt:Address', {}, text('tt:Type', 'IPv4'), text('tt:IPv4Address', '0.0.0.0')),
  text('tt:Port', 0),
  text('tt:TTL', 1),
  text('tt:AutoStart', false)
)

const encodingOf = ({ streams }: Served): 'H264' | 'JPEG' => (streams === null ? 'JPEG' : 'H264')

export const encoderConfiguration = (device: Served, channel: Channel, name: string): string =>
  xml(
    name,
    { token: `encoder-${channel.token}` },
    ...named('Encoder'),
    text('tt:Encoding', encodingOf(device)),
    resolution(channel),
    text('tt:Quality', 4),
    xml(
      'tt:RateControl',
      {},
      text('tt:FrameRateLimit', RATE),
      text('tt:EncodingInterval', 1),
      text('tt:BitrateLimit', BITRATE)
    ),
    encodingOf(device) === 'H264'
      ? xml('tt:H264', {}, text('tt:GovLength', RATE), text('tt:H264Profile', 'Baseline'))
      : '',
    multicast,
    text('tt:SessionTimeout', 'PT60S')
  )

export const encoder2Configuration = (device: Served, channel: Channel, name: string): string =>
  xml(
    name,
    { token: `encoder-${channel.token}`, GovLength: RATE, Profile: 'Baseline' },
    ...named('Encoder'),
    text('tt:Encoding', encodingOf(device)),
    resolution(channel),
    xml(
      'tt:RateControl',
      { ConstantBitRate: false },
      text('tt:FrameRateLimit', RATE),
      text('tt:BitrateLimit', BITRATE)
    ),
    text('tt:Quality', 4)
  )

const range = (name: string, min: number, max: number): string =>
  xml(name, {}, text('tt:Min', min), text('tt:Max', max))

/** It encodes in one way alone. */
export const encoderOptions = (device: Served, channel: Channel, name: string): string =>
  xml(
    name,
    {},
    range('tt:QualityRange', 4, 4),
    xml(
      `tt:${encodingOf(device)}`,
      {},
      resolution(channel, 'tt:ResolutionsAvailable'),
      encodingOf(device) === 'H264' ? range('tt:GovLengthRange', RATE, RATE) : '',
      range('tt:FrameRateRange', RATE, RATE),
      range('tt:EncodingIntervalRange', 1, 1),
      encodingOf(device) === 'H264' ? text('tt:H264ProfilesSupported', 'Baseline') : ''
    )
  )

export const encoder2Options = (device: Served, channel: Channel, name: string): string =>
  xml(
    name,
    { GovLengthRange: `${RATE} ${RATE}`, FrameRatesSupported: RATE, ProfilesSupported: 'Baseline' },
    text('tt:Encoding', encodingOf(device)),
    range('tt:QualityRange', 4, 4),
    resolution(channel, 'tt:ResolutionsAvailable'),
    range('tt:BitrateRange', BITRATE, BITRATE)
  )

export const videoSource = (channel: Channel, name: string): string =>
  xml(name, { token: `source-${channel.token}` }, text('tt:Framerate', RATE), resolution(channel))
