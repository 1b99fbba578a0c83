import { setTimeout as wait } from 'node:timers/promises'
import { said } from '../../core/messages/said.ts'
import { PartReader } from '../../core/watch/frames.ts'
import type { ChannelRow } from './channelQueries.ts'
import { DeviceError, ifOffered } from './link/deviceError.ts'
import type { DeviceLink } from './link/link.ts'
import type { DeviceRow } from './queries.ts'
import { rtspPictures } from './link/rtsp.ts'
import { partsOf } from './link/streams.ts'

/** A stream that nobody looks at any more goes on for so long: whoever comes back has a picture at once. */
const LINGER_MS = 10_000
/** Between two snapshots of a device that has no stream. */
const SNAPSHOT_MS = 1000

export interface ShownChannel {
  row: DeviceRow
  channel: Pick<ChannelRow, 'device' | 'token' | 'profile' | 'picture' | 'hasMetadata' | 'camera'>
}

interface Viewer {
  picture: (jpeg: Buffer) => void
  end: (error: unknown) => void
}

/** One stream of a device, for all who look at it. */
class Source {
  readonly viewers = new Set<Viewer>()
  last: Buffer | null = null
  lingering: NodeJS.Timeout | undefined
  readonly stopped = new AbortController()
}

/**
 * Live pictures of cameras, each as JPEG: by RTSP where the device has it, else by Motion JPEG over HTTP, else snapshot by
 * snapshot. A stream of RTSP is read once, by one process, for all who look at it, and ended some seconds after nobody does.
 */
export class LivePictures {
  private readonly linkTo: (row: DeviceRow) => DeviceLink
  private readonly sources = new Map<string, Source>()
  private readonly lingerMs: number

  constructor(linkTo: (row: DeviceRow) => DeviceLink, lingerMs = LINGER_MS) {
    this.linkTo = linkTo
    this.lingerMs = lingerMs
  }

  close(): void {
    for (const source of this.sources.values()) {
      clearTimeout(source.lingering)
      source.stopped.abort()
    }
    this.sources.clear()
  }

  /** How many streams are being read by a process. */
  get running(): number {
    return this.sources.size
  }

  /** A channel's pictures, until told to end; who takes them too slowly misses some. @throws DeviceError */
  async *frames(shown: ShownChannel, signal: AbortSignal): AsyncGenerator<Buffer> {
    yield* (
      (await this.stream(shown, signal)) ?? this.snapshots(this.linkTo(shown.row), shown, signal)
    )
  }

  /**
   * The same; null where a channel gives single pictures alone.
   * @param lingerMs so long it goes on once nobody looks at it any more @throws DeviceError
   */
  async stream(
    { row, channel }: ShownChannel,
    signal: AbortSignal,
    lingerMs = this.lingerMs
  ): Promise<AsyncGenerator<Buffer> | null> {
    const link = this.linkTo(row)
    const uri = await ifOffered(link.media.streamUri(channel.picture))
    if (uri === undefined) return null
    return uri.startsWith('rtsp')
      ? this.shared(await link.media.withAccount(uri), signal, lingerMs)
      : motionJpeg(link, uri, signal)
  }

  /** What a channel shows now. @param lingerMs as of `stream`, where it takes no snapshots @throws DeviceError */
  async snapshot(shown: ShownChannel, lingerMs = this.lingerMs): Promise<Buffer> {
    const link = this.linkTo(shown.row)
    const snapshot = await ifOffered(link.media.snapshot(shown.channel.profile))
    if (snapshot) return snapshot
    // It takes no snapshots: the next picture of its stream stands for one.
    const ended = new AbortController()
    try {
      const stream = await this.stream(shown, ended.signal, lingerMs)
      if (!stream) throw new DeviceError('refused', said('devices.noPicture'))
      for await (const picture of stream) return picture
    } finally {
      ended.abort()
    }
    throw new DeviceError('broken', said('devices.streamEnded'))
  }

  private async *snapshots(
    link: DeviceLink,
    { channel }: ShownChannel,
    signal: AbortSignal
  ): AsyncGenerator<Buffer> {
    while (!signal.aborted) {
      yield await link.media.snapshot(channel.profile)
      await wait(SNAPSHOT_MS, undefined, { signal }).catch(() => {})
    }
  }

  private async *shared(
    uri: string,
    signal: AbortSignal,
    lingerMs: number
  ): AsyncGenerator<Buffer> {
    const source = this.sources.get(uri) ?? this.begin(uri)
    clearTimeout(source.lingering)
    let newest = source.last
    let ended: { error: unknown } | null = null
    let wake = (): void => {}
    const viewer: Viewer = {
      picture: (jpeg) => {
        newest = jpeg
        wake()
      },
      end: (error) => {
        ended = { error }
        wake()
      }
    }
    const stop = (): void => wake()
    source.viewers.add(viewer)
    signal.addEventListener('abort', stop)
    try {
      while (!signal.aborted) {
        if (newest) {
          const jpeg = newest
          newest = null
          yield jpeg
          continue
        }
        // What has come is given before why nothing more does.
        const over = ended as { error: unknown } | null
        if (over) throw over.error
        await new Promise<void>((resolve) => (wake = resolve))
      }
    } finally {
      signal.removeEventListener('abort', stop)
      source.viewers.delete(viewer)
      if (source.viewers.size === 0 && this.sources.get(uri) === source)
        source.lingering = setTimeout(() => source.stopped.abort(), lingerMs)
    }
  }

  private begin(uri: string): Source {
    const source = new Source()
    this.sources.set(uri, source)
    const read = async (): Promise<void> => {
      let why: unknown = new DeviceError('broken', said('devices.streamEnded'))
      try {
        for await (const jpeg of rtspPictures(uri, source.stopped.signal)) {
          source.last = jpeg
          for (const viewer of source.viewers) viewer.picture(jpeg)
        }
      } catch (error) {
        why = error
      }
      if (this.sources.get(uri) === source) this.sources.delete(uri)
      clearTimeout(source.lingering)
      for (const viewer of source.viewers) viewer.end(why)
    }
    void read()
    return source
  }
}

async function* motionJpeg(
  link: DeviceLink,
  uri: string,
  signal: AbortSignal
): AsyncGenerator<Buffer> {
  const answer = await link.media.motionJpeg(uri, signal)
  const type = answer.headers.get('content-type') ?? ''
  if (!/^multipart\/x-mixed-replace/.test(type)) {
    await answer.body?.cancel()
    throw new DeviceError('broken', said('devices.theDevicesStreamIsNot'))
  }
  const reader = new PartReader(type)
  for await (const part of partsOf(answer, signal)) {
    const newest = reader.push(part).at(-1)
    if (newest) yield Buffer.from(newest.buffer, newest.byteOffset, newest.byteLength)
  }
}
