import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import { connect as connectTcp, type Socket } from 'node:net'
import { connect as connectTls } from 'node:tls'
import { authorization, readChallenge } from '../../../core/formats/onvif/httpDigest.ts'
import { said } from '../../../core/messages/said.ts'
import { DeviceError, deviceErrorOf } from './deviceError.ts'
import { SILENT_MS } from './rtsp.ts'

/** Sessions end when nothing is said for as long as the device gives; most give a minute. */
const KEEP_ALIVE_MS = 25_000
const MAX_HEAD = 64 * 1024
const INTERLEAVED = 0x24
const CHANNEL = 0

interface Answer {
  status: number
  headers: ReadonlyMap<string, string>
  body: string
}

/**
 * The payloads of a stream's metadata, as they come: RTSP over TCP, interleaved. Pictures are left to ffmpeg; the text of
 * the targets needs no process of its own for each camera.
 * Source: RFC 2326, RFC 3550 (5.1), ONVIF Streaming Specification (5.2.2), from memory.
 *
 * @param uri with its account @throws DeviceError
 */
export async function* rtspMetadata(
  uri: string,
  signal: AbortSignal,
  silentMs = SILENT_MS
): AsyncGenerator<Buffer> {
  const session = new Session(uri, silentMs)
  const stop = (): void => session.end()
  signal.addEventListener('abort', stop)
  try {
    signal.throwIfAborted()
    await session.play()
    yield* session.payloads()
  } catch (error) {
    if (!signal.aborted) throw deviceErrorOf(error, silentMs)
  } finally {
    signal.removeEventListener('abort', stop)
    session.end()
  }
}

class Session {
  private readonly url: URL
  private readonly account: { username: string; password: string }
  private readonly socket: Socket
  private bytes: Buffer = Buffer.alloc(0)
  private sequence = 0
  private digests = 0
  private challenge = ''
  private id = ''
  private aggregate: string
  private timer: NodeJS.Timeout | undefined
  private readonly arriving: AsyncIterator<Buffer>

  constructor(uri: string, silentMs: number) {
    this.url = new URL(uri)
    this.account = {
      username: decodeURIComponent(this.url.username),
      password: decodeURIComponent(this.url.password)
    }
    this.url.username = ''
    this.url.password = ''
    this.aggregate = this.url.href
    const isTls = this.url.protocol === 'rtsps:'
    const at = {
      host: this.url.hostname.replace(/^\[|\]$/g, ''),
      port: Number(this.url.port) || (isTls ? 322 : 554)
    }
    this.socket = isTls ? connectTls({ ...at, rejectUnauthorized: false }) : connectTcp(at)
    this.socket.setTimeout(silentMs, () =>
      this.socket.destroy(new DeviceError('slow', said('devices.streamSilent', silentMs / 1000)))
    )
    this.arriving = (this.socket as AsyncIterable<Buffer>)[Symbol.asyncIterator]()
  }

  end(): void {
    clearInterval(this.timer)
    this.socket.destroy()
  }

  /** Opens the metadata alone of what the stream has, and starts it. */
  async play(): Promise<void> {
    await once(this.socket, 'connect')
    const described = await this.ask('DESCRIBE', this.url.href, ['Accept: application/sdp'])
    const base = described.headers.get('content-base') ?? this.url.href
    const control = metadataControl(described.body)
    if (control === null) throw new DeviceError('refused', said('devices.noTargets'))
    this.aggregate = base
    const setUp = await this.ask('SETUP', absolute(control, base), [
      `Transport: RTP/AVP/TCP;unicast;interleaved=${CHANNEL}-${CHANNEL + 1}`
    ])
    this.id = (setUp.headers.get('session') ?? '').split(';')[0]!.trim()
    await this.ask('PLAY', this.aggregate, ['Range: npt=0.000-'])
    this.timer = setInterval(() => this.send('OPTIONS', this.aggregate, []), KEEP_ALIVE_MS)
  }

  async *payloads(): AsyncGenerator<Buffer> {
    for (;;) {
      const part = await this.next()
      if (Buffer.isBuffer(part)) yield part
    }
  }

  private send(method: string, url: string, headers: readonly string[]): void {
    const challenge = this.challenge ? readChallenge(this.challenge) : null
    this.socket.write(
      [
        `${method} ${url} RTSP/1.0`,
        `CSeq: ${++this.sequence}`,
        ...(challenge
          ? [
              `Authorization: ${authorization(challenge, {
                method,
                uri: url,
                ...this.account,
                cnonce: randomBytes(12).toString('hex'),
                // A digest is good once: each has its number.
                count: ++this.digests
              })}`
            ]
          : []),
        ...(this.id ? [`Session: ${this.id}`] : []),
        ...headers,
        '',
        ''
      ].join('\r\n')
    )
  }

  private async ask(method: string, url: string, headers: readonly string[]): Promise<Answer> {
    for (const again of [true, false]) {
      this.send(method, url, headers)
      let answer: Answer | Buffer
      do answer = await this.next()
      while (Buffer.isBuffer(answer))
      const { status } = answer
      if (status === 401 && again && this.account.username) {
        this.challenge = answer.headers.get('www-authenticate') ?? ''
        continue
      }
      if (status === 401)
        throw new DeviceError(
          this.account.username ? 'wrong-password' : 'no-account',
          said('devices.theDeviceDoesNotAccept')
        )
      if (status === 404) throw new DeviceError('broken', said('devices.streamNotFound'))
      if (status !== 200)
        throw new DeviceError('broken', said('devices.streamUnreadable', `RTSP ${status}`))
      return answer
    }
    throw new DeviceError('wrong-password', said('devices.theDeviceDoesNotAccept'))
  }

  /** The next answer, or the next payload of the metadata. */
  private async next(): Promise<Answer | Buffer> {
    for (;;) {
      const part = this.take()
      if (part) return part
      const { done, value } = await this.arriving.next()
      if (done) throw new DeviceError('broken', said('devices.streamEnded'))
      this.bytes = Buffer.concat([this.bytes, value])
      if (this.bytes.length > MAX_HEAD + 0xffff)
        throw new DeviceError('broken', said('devices.theDevicesMetadataDoesNot'))
    }
  }

  private take(): Answer | Buffer | null {
    while (this.bytes.length >= 4 && this.bytes[0] === INTERLEAVED) {
      const length = this.bytes.readUInt16BE(2)
      if (this.bytes.length < 4 + length) return null
      const [channel, packet] = [this.bytes[1], this.bytes.subarray(4, 4 + length)]
      this.bytes = this.bytes.subarray(4 + length)
      const payload = channel === CHANNEL ? payloadOf(packet) : null
      if (payload) return payload
    }
    if (this.bytes[0] === INTERLEAVED) return null
    const end = this.bytes.indexOf('\r\n\r\n')
    if (end < 0) return null
    const [first = '', ...lines] = this.bytes.toString('latin1', 0, end).split('\r\n')
    const headers = new Map<string, string>()
    for (const line of lines) {
      const [name = '', ...value] = line.split(':')
      const key = name.trim().toLowerCase()
      // Of several ways to say who asks, the digest is taken.
      if (!headers.has(key) || /^ *digest/i.test(value.join(':')))
        headers.set(key, value.join(':').trim())
    }
    const length = Number(headers.get('content-length') ?? 0) || 0
    if (this.bytes.length < end + 4 + length) return null
    const body = this.bytes.toString('utf8', end + 4, end + 4 + length)
    this.bytes = this.bytes.subarray(end + 4 + length)
    return { status: Number(/^RTSP\/1\.\d (\d{3})/.exec(first)?.[1] ?? 0), headers, body }
  }
}

/** Where the metadata of a description is asked for; null: it has none. Source: RFC 4566. */
function metadataControl(description: string): string | null {
  const media = description
    .split(/\r?\n(?=m=)/)
    .slice(1)
    .find((part) => /^m=application\b/.test(part) && /vnd\.onvif\.metadata/i.test(part))
  return media ? (/^a=control:(.*)$/m.exec(media)?.[1]?.trim() ?? '*') : null
}

const absolute = (control: string, base: string): string =>
  /^rtsps?:/.test(control)
    ? control
    : control === '*'
      ? base
      : `${base.replace(/\/$/, '')}/${control}`

/** What a packet of RTP carries; null: nothing, or no packet. */
function payloadOf(packet: Buffer): Buffer | null {
  if (packet.length < 12 || packet[0]! >> 6 !== 2) return null
  let from = 12 + 4 * (packet[0]! & 0x0f)
  if (packet[0]! & 0x10) {
    if (packet.length < from + 4) return null
    from += 4 + 4 * packet.readUInt16BE(from + 2)
  }
  const padding = packet[0]! & 0x20 ? packet.at(-1)! : 0
  return from < packet.length - padding ? packet.subarray(from, packet.length - padding) : null
}
