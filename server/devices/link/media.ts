import { coded, said } from '../../../core/messages/said.ts'
import type { LiveFrame } from '../../../core/devices/views.ts'
import { readMetadata } from '../../../core/formats/onvif/metadata.ts'
import {
  MAX_XML,
  child,
  content,
  textAt,
  xml,
  type Element
} from '../../../core/formats/onvif/xml.ts'
import { DeviceError, ifOffered, isAway } from './deviceError.ts'
import { channelsOf, profiles2Of, profilesOf, type LinkChannel } from './profiles.ts'
import { rtspMetadata } from './rtspMetadata.ts'
import { partsOf } from './streams.ts'
import type { DeviceWire } from './wire.ts'

/** Whatever prefix the device gives its namespace. */
const METADATA_BEGIN = /<(?:[\w.-]+:)?MetadataStream[\s>]/
const METADATA_END = /<\/(?:[\w.-]+:)?MetadataStream\s*>/

/** The pictures of a device and the targets in them: what there is, and how they come. */
export class DeviceMedia {
  private readonly wire: DeviceWire
  private readonly snapshotUris = new Map<string, string>()

  constructor(wire: DeviceWire) {
    this.wire = wire
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
      if (uri) return this.wire.own(uri, said('places.picture'))
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
    return this.wire.own(
      textAt(answer, coded('places.deviceAnswer'), 'MediaUri', 'Uri'),
      said('places.picture')
    )
  }
}
