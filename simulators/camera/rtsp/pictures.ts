import { spawn, type ChildProcess } from 'node:child_process'
import { createSocket, type Socket } from 'node:dgram'
import type { Media } from './server.ts'

const PAYLOAD_TYPE = 96
/** Some six pictures a second. */
const PICTURE_MS = 160
/** Nobody looks any more: the encoder goes on for so long. */
const LINGER_MS = 5000
/** RTCP's sender report (RFC 3550, 6.4.1), where a packet of RTP has its payload type. */
const SENDER_REPORT = 200

type Take = (packet: Buffer) => void

/**
 * A camera's pictures as H.264 in packets of RTP (RFC 6184), for all who look: ffmpeg encodes and packs them, and gives
 * them to a port of this process. It runs only while somebody looks.
 */
export class PictureEncoder {
  private readonly picture: () => Buffer | null
  private readonly viewers = new Set<{ rtp: Take; rtcp: Take }>()
  private running: Promise<Running> | null = null
  private stopped = new AbortController()
  private timer: NodeJS.Timeout | undefined

  /** @param picture the next one, as JPEG; null: none comes from the sensor */
  constructor(picture: () => Buffer | null) {
    this.picture = picture
  }

  /** The pictures as a part of a stream; begins to encode, as its description names what decoders need. */
  async media(): Promise<Media> {
    const { format } = await (this.running ??= this.begin())
    this.linger()
    return {
      kind: 'video',
      payloadType: PAYLOAD_TYPE,
      attributes: [
        `rtpmap:${PAYLOAD_TYPE} H264/90000`,
        `fmtp:${PAYLOAD_TYPE} ${format}`,
        `framerate:${1000 / PICTURE_MS}`
      ],
      play: (rtp, rtcp) => {
        const viewer = { rtp, rtcp }
        this.viewers.add(viewer)
        return () => {
          this.viewers.delete(viewer)
          this.linger()
        }
      }
    }
  }

  async close(): Promise<void> {
    clearTimeout(this.timer)
    // Also one that still waits for its first picture.
    this.stopped.abort()
    await (
      await this.running?.catch(() => null)
    )?.ended
  }

  private begin(): Promise<Running> {
    this.stopped = new AbortController()
    const running = start(this.picture, this.viewers, this.stopped.signal)
    const forget = (): void => {
      if (this.running === running) this.running = null
    }
    running.then(({ ended }) => void ended.then(forget), forget)
    return running
  }

  private linger(): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => {
      if (!this.viewers.size) void this.close()
    }, LINGER_MS)
  }
}

interface Running {
  /** Of the pictures, as a description names it (RFC 6184, 8.1). */
  format: string
  ended: Promise<void>
}

async function start(
  picture: () => Buffer | null,
  viewers: ReadonlySet<{ rtp: Take; rtcp: Take }>,
  signal: AbortSignal
): Promise<Running> {
  const socket = createSocket('udp4')
  await new Promise<void>((resolve, reject) => {
    socket.once('error', reject)
    socket.bind(0, '127.0.0.1', resolve)
  })
  socket.on('message', (packet) => {
    const isReport = packet[1] === SENDER_REPORT
    for (const { rtp, rtcp } of viewers) (isReport ? rtcp : rtp)(packet)
  })
  const child = encode(socket.address().port, signal)
  const feed = setInterval(() => {
    // An encoder that is behind misses some.
    if (child.stdin!.writableLength) return
    const next = picture()
    if (next) child.stdin!.write(next)
  }, PICTURE_MS)
  const ended = new Promise<void>((resolve) => {
    child.on('close', () => resolve())
    child.on('error', () => resolve())
  }).then(() => end(feed, socket))
  const format = await Promise.race([formatOf(child), ended.then(() => null)])
  if (format === null) throw new Error('ffmpeg has ended')
  return { format, ended }
}

function end(feed: NodeJS.Timeout, socket: Socket): void {
  clearInterval(feed)
  socket.close()
}

function encode(port: number, signal: AbortSignal): ChildProcess {
  const child = spawn(
    'ffmpeg',
    [
      ...['-hide_banner', '-nostats', '-loglevel', 'error'],
      ...['-probesize', '32', '-analyzeduration', '0', '-fflags', 'nobuffer'],
      ...['-f', 'mjpeg', '-framerate', String(1000 / PICTURE_MS), '-i', 'pipe:0'],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-tune', 'zerolatency'],
      ...['-threads', '1', '-pix_fmt', 'yuv420p', '-profile:v', 'baseline', '-crf', '26'],
      // Whoever begins to look has a whole picture within a second.
      ...['-g', '6', '-flags', '+global_header', '-bsf:v', 'dump_extra=freq=keyframe'],
      ...['-f', 'rtp', '-payload_type', String(PAYLOAD_TYPE)],
      `rtp://127.0.0.1:${port}?rtcpport=${port}&pkt_size=1200`
    ],
    { stdio: ['pipe', 'pipe', 'ignore'], signal, killSignal: 'SIGKILL' }
  )
  child.stdin.on('error', () => {})
  return child
}

/** What ffmpeg's own description says of the pictures; it comes with the first of them. */
async function formatOf(child: ChildProcess): Promise<string> {
  let text = ''
  for await (const bytes of child.stdout as AsyncIterable<Buffer>) {
    text += bytes.toString()
    const format = new RegExp(`^a=fmtp:${PAYLOAD_TYPE} (.*)$`, 'm').exec(text)?.[1]
    if (format) return format.trim()
  }
  throw new Error('ffmpeg has not described its pictures')
}
