import { child, down, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import type { Channel } from '../channel.ts'
import { Refusal } from '../refusal.ts'
import {
  analyticsConfiguration,
  encoderConfiguration,
  encoderOptions,
  metadataConfiguration,
  sourceConfiguration,
  videoSource
} from './configurations.ts'
import { text, type Handler, type Served } from './handler.ts'

const profile = (device: Served, channel: Channel, name: string): string =>
  xml(
    name,
    { token: `main-${channel.token}`, fixed: true },
    text('tt:Name', channel.model.name),
    sourceConfiguration(channel, 'tt:VideoSourceConfiguration'),
    encoderConfiguration(device, channel, 'tt:VideoEncoderConfiguration'),
    analyticsConfiguration(device, channel, 'tt:VideoAnalyticsConfiguration'),
    metadataConfiguration(device, channel, 'tt:MetadataConfiguration')
  )

/** The channel of a profile or of one of its configurations; the first one where none is named. */
export const channelNamed = (device: Served, action: Element): Channel => {
  const token = (child(action, 'ProfileToken') ?? child(action, 'ConfigurationToken'))?.text
  return device.channel(
    token?.replace(/^(main|source|encoder|metadata)-/, '') ?? device.channels[0]!.token
  )
}

/** Keeps whether the metadata of a channel names what its analysis sees. */
export const keepMetadata = (device: Served, action: Element): void => {
  const configuration = child(action, 'Configuration')
  const token = (configuration?.attributes.token ?? '').replace(/^metadata-/, '')
  device.channel(token)
  const others = device.state.silent.filter((one) => one !== token)
  const isSilent = child(configuration, 'Analytics')?.text === 'false'
  device.state.silent = isSilent ? [...others, token] : others
  device.save()
}

/** @throws Refusal by a device that has no snapshots */
export const snapshotUri = (device: Served, action: Element): string => {
  if (!device.has('snapshot'))
    throw new Refusal('ter:ActionNotSupported', msg.isNotSupported('GetSnapshotUri'))
  return `${device.address}/snapshot/${channelNamed(device, action).token}`
}

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
  GetProfiles: (device) =>
    xml(
      'trt:GetProfilesResponse',
      {},
      ...device.channels.map((c) => profile(device, c, 'trt:Profiles'))
    ),
  GetProfile: (device, action) =>
    xml('trt:GetProfileResponse', {}, profile(device, channelNamed(device, action), 'trt:Profile')),
  GetVideoSources: ({ channels }) =>
    xml(
      'trt:GetVideoSourcesResponse',
      {},
      ...channels.map((c) => videoSource(c, 'trt:VideoSources'))
    ),
  GetVideoSourceConfigurations: ({ channels }) =>
    xml(
      'trt:GetVideoSourceConfigurationsResponse',
      {},
      ...channels.map((c) => sourceConfiguration(c, 'trt:Configurations'))
    ),
  GetVideoEncoderConfigurations: (device) =>
    xml(
      'trt:GetVideoEncoderConfigurationsResponse',
      {},
      ...device.channels.map((c) => encoderConfiguration(device, c, 'trt:Configurations'))
    ),
  GetVideoEncoderConfigurationOptions: (device, action) =>
    xml(
      'trt:GetVideoEncoderConfigurationOptionsResponse',
      {},
      encoderOptions(device, channelNamed(device, action), 'trt:Options')
    ),
  GetMetadataConfigurations: (device) =>
    xml(
      'trt:GetMetadataConfigurationsResponse',
      {},
      ...device.channels.map((c) => metadataConfiguration(device, c, 'trt:Configurations'))
    ),
  SetMetadataConfiguration: (device, action) => {
    keepMetadata(device, action)
    return xml('trt:SetMetadataConfigurationResponse')
  },
  GetSnapshotUri: (device, action) =>
    uri('trt:GetSnapshotUriResponse', snapshotUri(device, action)),
  // Over HTTP pictures are Motion JPEG; with wo:Metadata it is the targets, as parts of XML.
  GetStreamUri: (device, action) => {
    const { token } = channelNamed(device, action)
    const protocol = down(action, 'StreamSetup', 'Transport', 'Protocol')?.text
    if (child(action, 'Metadata'))
      return uri('trt:GetStreamUriResponse', `${device.address}/metadata/${token}`)
    if (protocol !== undefined && protocol !== 'HTTP') {
      if (device.streams === null)
        throw new Refusal('ter:InvalidStreamSetup', msg.noStreamOver(protocol))
      return uri('trt:GetStreamUriResponse', `${device.streams}/${token}`)
    }
    return uri('trt:GetStreamUriResponse', `${device.address}/stream/${token}`)
  }
}
