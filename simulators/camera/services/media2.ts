import { child, children, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import type { Channel } from '../channel.ts'
import { Refusal } from '../refusal.ts'
import {
  analyticsConfiguration,
  encoder2Configuration,
  encoder2Options,
  metadataConfiguration,
  sourceConfiguration
} from './configurations.ts'
import { text, type Handler, type Served } from './handler.ts'
import { channelNamed, keepMetadata, snapshotUri } from './media.ts'

type Make = (device: Served, channel: Channel, name: string) => string
const source: Make = (_, channel, name) => sourceConfiguration(channel, name)

const PARTS: Record<string, Make> = {
  VideoSource: source,
  VideoEncoder: encoder2Configuration,
  Analytics: analyticsConfiguration,
  Metadata: metadataConfiguration
}

/** A profile with the configurations that were asked for. */
const profile = (device: Served, channel: Channel, asked: readonly string[]): string => {
  const parts = Object.entries(PARTS).filter(
    ([name]) => asked.includes('All') || asked.includes(name)
  )
  return xml(
    'tr2:Profiles',
    { token: `main-${channel.token}`, fixed: true },
    xml('tr2:Name', {}, channel.model.name),
    parts.length
      ? xml(
          'tr2:Configurations',
          {},
          ...parts.map(([name, make]) => make(device, channel, `tr2:${name}`))
        )
      : ''
  )
}

/** All channels, or the one that is named. */
const asked = (device: Served, action: Element): readonly Channel[] =>
  child(action, 'ConfigurationToken') || child(action, 'ProfileToken')
    ? [channelNamed(device, action)]
    : device.channels

const configurations =
  (name: string, make: Make): Handler =>
  (device, action) =>
    xml(
      `tr2:${name}Response`,
      {},
      ...asked(device, action).map((c) => make(device, c, 'tr2:Configurations'))
    )

/** Media 2 service. Source: ONVIF Media2 Service Specification, ver20 media.wsdl (from memory). */
export const media2Handlers: Record<string, Handler> = {
  GetProfiles: (device, action) => {
    const token = child(action, 'Token')?.text
    const types = children(action, 'Type').map((type) => type.text)
    return xml(
      'tr2:GetProfilesResponse',
      {},
      ...device.channels
        .filter((c) => token === undefined || token === `main-${c.token}`)
        .map((c) => profile(device, c, types))
    )
  },
  GetVideoSourceConfigurations: configurations('GetVideoSourceConfigurations', source),
  GetVideoEncoderConfigurations: configurations(
    'GetVideoEncoderConfigurations',
    encoder2Configuration
  ),
  GetVideoEncoderConfigurationOptions: (device, action) =>
    xml(
      'tr2:GetVideoEncoderConfigurationOptionsResponse',
      {},
      ...asked(device, action).map((c) => encoder2Options(device, c, 'tr2:Options'))
    ),
  GetMetadataConfigurations: configurations('GetMetadataConfigurations', metadataConfiguration),
  GetAnalyticsConfigurations: configurations('GetAnalyticsConfigurations', analyticsConfiguration),
  SetMetadataConfiguration: (device, action) => {
    keepMetadata(device, action)
    return xml('tr2:SetMetadataConfigurationResponse')
  },
  GetSnapshotUri: (device, action) =>
    xml('tr2:GetSnapshotUriResponse', {}, text('tr2:Uri', snapshotUri(device, action))),
  GetStreamUri: (device, action) => {
    const protocol = child(action, 'Protocol')?.text ?? ''
    if (protocol !== 'RTSP' || device.streams === null)
      throw new Refusal('ter:InvalidStreamSetup', msg.noStreamOver(protocol))
    return xml(
      'tr2:GetStreamUriResponse',
      {},
      text('tr2:Uri', `${device.streams}/${channelNamed(device, action).token}`)
    )
  }
}
