import { spawn } from 'node:child_process'
import { said } from '../../../core/messages/said.ts'
import { DeviceError } from './deviceError.ts'

/** Pictures a second, and how wide they are at most: what a screen with several of them needs. */
const RATE = 8
const WIDEST = 1280
const MAX_PICTURE = 4 * 2 ** 20
/** Nothing has come for so long: the device, or what is between, has gone away. */
export const SILENT_MS = 15_000

/**
 * What opens a stream: probing is kept short, so that the first picture comes soon. What has been probed is shown, not
 * dropped (`nobuffer` would wait for the next key picture), and 0 as the duration would stand for ffmpeg's 5 s.
 */
const QUICK = { probesize: 4096, analyzeduration: 1, fpsprobesize: 0 } as const

/**
 * An address with its password would be seen by everybody who lists the processes of this machine; it is given to ffmpeg
 * on its standard input instead, as a list of one entry.
 *
 * @throws DeviceError for an address that such a list cannot hold
 */
export function listOf(uri: string): string {
  if (/[\\\r\n]/.test(uri))
    throw new DeviceError(
      'broken',
      said('devices.isNoAddress', uri.replace(/\/\/[^@]*@/, '//').slice(0, 60))
    )
  return [
    'ffconcat version 1.0',
    `file '${uri.replaceAll("'", '%27')}'`,
    'option rtsp_transport tcp',
    'option allowed_media_types video',
    ...Object.entries(QUICK).map(([name, value]) => `option ${name} ${value}`),
    ''
  ].join('\n')
}

const READ = [
  ...['-hide_banner', '-nostats', '-loglevel', 'error', '-flags', 'low_delay'],
  ...Object.entries(QUICK).flatMap(([name, value]) => [`-${name}`, String(value)]),
  ...[
    '-safe',
    '0',
    '-protocol_whitelist',
    'pipe,rtsp,rtsps,rtp,tcp,udp,tls,crypto',
    '-f',
    'concat',
    '-i',
    'pipe:0'
  ]
]
/** JPEG after JPEG. */
const AS_JPEG = [
  ...['-map', '0:v:0', '-an', '-sn', '-dn'],
  ...['-vf', `fps=${RATE},scale='min(${WIDEST},iw)':-2,format=yuvj420p`],
  ...['-f', 'image2pipe', '-c:v', 'mjpeg', '-q:v', '5', '-flush_packets', '1', 'pipe:1']
]

/** What ffmpeg says of a stream that it cannot read, in the words of this product. */
function errorOf(text: string): DeviceError {
  const last = text.trim().split('\n').at(-1) ?? ''
  if (/\b401\b|unauthorized/i.test(text))
    return new DeviceError('wrong-password', said('devices.theDeviceDoesNotAccept'))
  if (/refused|timed out|unreachable|no route|connection reset/i.test(text))
    return new DeviceError('offline', said('devices.streamUnreachable'))
  if (/\b404\b|not found/i.test(text))
    return new DeviceError('broken', said('devices.streamNotFound'))
  return new DeviceError(
    'broken',
    last
      ? said('devices.streamUnreadable', last.replace(/rtsps?:\/\/\S*/g, 'RTSP').slice(0, 160))
      : said('devices.streamEnded')
  )
}

/** What ffmpeg makes of a stream, as it comes; ends it when told to. @throws DeviceError */
async function* readStream(
  uri: string,
  signal: AbortSignal,
  silentMs: number
): AsyncGenerator<Buffer> {
  const list = listOf(uri)
  signal.throwIfAborted()
  const child = spawn('ffmpeg', [...READ, ...AS_JPEG], { stdio: ['pipe', 'pipe', 'pipe'] })
  const stop = (): void => void child.kill('SIGKILL')
  let silent = false
  let timer: NodeJS.Timeout | undefined
  const wait = (): void => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      silent = true
      stop()
    }, silentMs)
  }
  let heard = ''
  let failed: Error | null = null
  child.on('error', (error) => (failed = error))
  child.stdin.on('error', () => {})
  child.stderr.on('data', (bytes: Buffer) => (heard = (heard + bytes.toString()).slice(-4000)))
  child.stdin.end(list)
  signal.addEventListener('abort', stop)
  wait()
  try {
    for await (const bytes of child.stdout as AsyncIterable<Buffer>) {
      wait()
      yield bytes
    }
  } finally {
    clearTimeout(timer)
    signal.removeEventListener('abort', stop)
    stop()
  }
  if (signal.aborted) return
  if (failed)
    throw new DeviceError(
      'broken',
      said('devices.streamUnreadable', (failed as Error).message),
      failed
    )
  throw silent
    ? new DeviceError('slow', said('devices.streamSilent', silentMs / 1000))
    : errorOf(heard)
}

const START = Buffer.from([0xff, 0xd8])
const END = Buffer.from([0xff, 0xd9])

/** JPEG pictures out of a row of them; within one, 0xff is never followed by what ends it (ITU-T T.81, B.1.1.2). */
export class JpegReader {
  private bytes: Buffer = Buffer.alloc(0)

  /** @returns the pictures that have become whole @throws DeviceError for one that does not end */
  push(part: Buffer): Buffer[] {
    this.bytes = this.bytes.length ? Buffer.concat([this.bytes, part]) : part
    const whole: Buffer[] = []
    for (;;) {
      const from = this.bytes.indexOf(START)
      const to = from < 0 ? -1 : this.bytes.indexOf(END, from + 2)
      if (to < 0) break
      whole.push(this.bytes.subarray(from, to + 2))
      this.bytes = this.bytes.subarray(to + 2)
    }
    if (this.bytes.length > MAX_PICTURE)
      throw new DeviceError(
        'broken',
        said('devices.theDevicesAnswerIsLarger', MAX_PICTURE / 2 ** 20)
      )
    return whole
  }
}

/** A stream's pictures as JPEG, of H.264, H.265 or JPEG over RTSP. @param uri with its account @throws DeviceError */
export async function* rtspPictures(
  uri: string,
  signal: AbortSignal,
  silentMs = SILENT_MS
): AsyncGenerator<Buffer> {
  const reader = new JpegReader()
  for await (const bytes of readStream(uri, signal, silentMs)) yield* reader.push(bytes)
}
