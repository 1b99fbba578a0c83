/* eslint-disable wardoptic/english -- lines of RTSP and SDP, which programs read */
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'

/** One part of a stream: pictures, or what the analysis sees in them. */
export interface Media {
  kind: 'video' | 'application'
  payloadType: number
  /** Its attributes in the description (RFC 4566): `rtpmap`, `fmtp`. */
  attributes: readonly string[]
  /**
   * Gives packets until what it returns is called.
   * @param rtp takes packets of RTP @param rtcp takes reports on them
   */
  play: (rtp: (packet: Buffer) => void, rtcp: (packet: Buffer) => void) => () => void
}

export interface Streams {
  /** The parts of the stream at a path; null: there is no such stream. */
  media: (path: string) => Promise<readonly Media[] | null>
  /** Whether a request names an account that may look. */
  mayLook: (method: string, authorization: string | undefined) => boolean
  /** What one that does not is asked: the value of `WWW-Authenticate`. */
  question: () => string
}

const METHODS = 'OPTIONS, DESCRIBE, SETUP, PLAY, GET_PARAMETER, SET_PARAMETER, TEARDOWN'
const MAX_REQUEST = 16 * 1024
/** A client that says nothing for so long has gone. */
const SESSION_SECONDS = 60
/** Packets for a client that does not read them are left out above this. */
const MAX_UNSENT = 1 << 20

interface Request {
  method: string
  url: string
  headers: ReadonlyMap<string, string>
}

/**
 * Streams over RTSP on a loopback port of their own, interleaved on the connection that asks for them. Source: RFC 2326
 * (sections 10 and 12) and ONVIF Streaming Specification, from memory.
 */
export class RtspServer {
  private readonly streams: Streams
  private readonly server: Server
  private readonly connections = new Set<Connection>()

  constructor(streams: Streams) {
    this.streams = streams
    this.server = createServer((socket) => {
      const connection = new Connection(socket, this.streams)
      this.connections.add(connection)
      socket.on('close', () => this.connections.delete(connection))
    })
  }

  async start(port = 0): Promise<this> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', resolve)
    })
    return this
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port
  }

  async close(): Promise<void> {
    for (const connection of this.connections) connection.end()
    await new Promise((resolve) => this.server.close(resolve))
  }
}

/** What one client is told and given. */
class Connection {
  private readonly socket: Socket
  private readonly streams: Streams
  private bytes = Buffer.alloc(0)
  private answering = Promise.resolve()
  private readonly session = String(Math.floor(1e8 + Math.random() * 9e8))
  /** Parts that were set up, with their channels: of packets, and of reports. */
  private readonly set = new Map<Media, readonly [number, number]>()
  private stops: (() => void)[] = []

  constructor(socket: Socket, streams: Streams) {
    this.socket = socket
    this.streams = streams
    socket.setTimeout(SESSION_SECONDS * 1000 * 1.5, () => this.end())
    socket.on('error', () => {})
    socket.on('close', () => this.stop())
    socket.on('data', (bytes) => this.take(bytes))
  }

  end(): void {
    this.socket.destroy()
  }

  private stop(): void {
    for (const stop of this.stops.splice(0)) stop()
  }

  private take(bytes: Buffer): void {
    this.bytes = Buffer.concat([this.bytes, bytes])
    for (let request; (request = this.next()) !== null;) {
      const asked = request
      this.answering = this.answering.then(() => this.answer(asked)).catch(() => this.end())
    }
    if (this.bytes.length > MAX_REQUEST) this.end()
  }

  /** The next request that has come whole; reports of the client on what it got are passed over. */
  private next(): Request | null {
    while (this.bytes[0] === 0x24 && this.bytes.length >= 4) {
      const length = 4 + this.bytes.readUInt16BE(2)
      if (this.bytes.length < length) return null
      this.bytes = this.bytes.subarray(length)
    }
    const end = this.bytes.indexOf('\r\n\r\n')
    if (this.bytes[0] === 0x24 || end < 0) return null
    const [first = '', ...lines] = this.bytes.toString('utf8', 0, end).split('\r\n')
    const headers = new Map(
      lines.map((line): [string, string] => {
        const colon = line.indexOf(':')
        return [line.slice(0, colon).trim().toLowerCase(), line.slice(colon + 1).trim()]
      })
    )
    const length = end + 4 + (Number(headers.get('content-length')) || 0)
    if (this.bytes.length < length) return null
    this.bytes = this.bytes.subarray(length)
    const [method = '', url = ''] = first.split(' ')
    return { method, url, headers }
  }

  private async answer({ method, url, headers }: Request): Promise<void> {
    const say = (status: string, more: readonly string[] = [], body = ''): void =>
      void this.socket.write(
        [
          `RTSP/1.0 ${status}`,
          `CSeq: ${headers.get('cseq') ?? '0'}`,
          ...more,
          ...(body ? [`Content-Length: ${Buffer.byteLength(body)}`] : []),
          '',
          body
        ].join('\r\n')
      )
    if (method === 'OPTIONS') return say('200 OK', [`Public: ${METHODS}`])
    if (!METHODS.split(', ').includes(method)) return say('501 Not Implemented')
    if (!this.streams.mayLook(method, headers.get('authorization')))
      return say('401 Unauthorized', [`WWW-Authenticate: ${this.streams.question()}`])
    const session = [`Session: ${this.session};timeout=${SESSION_SECONDS}`]
    const named = headers.get('session')?.split(';')[0]?.trim()
    if (named !== undefined && named !== this.session) return say('454 Session Not Found')
    if (method.endsWith('_PARAMETER')) return say('200 OK', session)
    if (method === 'TEARDOWN') {
      this.stop()
      say('200 OK', session)
      return void this.socket.end()
    }
    if (method === 'PLAY') {
      if (!this.set.size) return say('455 Method Not Valid in This State')
      say('200 OK', [...session, 'Range: npt=now-'])
      this.stop()
      for (const [media, [rtp, rtcp]] of this.set)
        this.stops.push(
          media.play(
            (packet) => this.send(rtp, packet),
            (packet) => this.send(rtcp, packet)
          )
        )
      return
    }
    const [, path, control] = /^(.*?)(?:\/(track\d+))?$/.exec(pathOf(url))!
    const media = await this.streams.media(path!)
    if (!media) return say('404 Not Found')
    if (method === 'DESCRIBE')
      return say(
        '200 OK',
        ['Content-Type: application/sdp', `Content-Base: ${url.replace(/\/*$/, '/')}`],
        describe(media)
      )
    const one = media[Number(/\d+/.exec(control ?? 'track0'))]
    if (!one) return say('404 Not Found')
    const channels = /RTP\/AVP\/TCP.*interleaved=(\d+)-(\d+)/i.exec(headers.get('transport') ?? '')
    if (!channels) return say('461 Unsupported Transport')
    for (const known of this.set.keys()) if (known.kind === one.kind) this.set.delete(known)
    this.set.set(one, [Number(channels[1]), Number(channels[2])])
    say('200 OK', [
      ...session,
      `Transport: RTP/AVP/TCP;unicast;interleaved=${channels[1]}-${channels[2]}`
    ])
  }

  private send(channel: number, packet: Buffer): void {
    if (this.socket.destroyed || this.socket.writableLength > MAX_UNSENT) return
    const head = Buffer.from([0x24, channel, 0, 0])
    head.writeUInt16BE(packet.length, 2)
    this.socket.write(Buffer.concat([head, packet]))
  }
}

const pathOf = (url: string): string =>
  URL.canParse(url) ? new URL(url).pathname.replace(/\/+$/, '') : url

const describe = (media: readonly Media[]): string =>
  [
    ...['v=0', 'o=- 1 1 IN IP4 127.0.0.1', 's=Camera', 'c=IN IP4 0.0.0.0', 't=0 0'],
    ...['a=control:*', 'a=range:npt=now-'],
    ...media.flatMap(({ kind, payloadType, attributes }, n) => [
      `m=${kind} 0 RTP/AVP ${payloadType}`,
      ...attributes.map((attribute) => `a=${attribute}`),
      `a=control:track${n}`
    ]),
    ''
  ].join('\r\n')
