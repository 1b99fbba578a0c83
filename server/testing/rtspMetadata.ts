import { createServer, type Server, type Socket } from 'node:net'
import type { AddressInfo } from 'node:net'

/** What fits into a packet of RTP, as networks have it. */
const PACKET = 1200
const PAYLOAD_TYPE = 107

/**
 * The metadata of a camera over RTSP, interleaved on its connection: documents of XML, each cut into as many packets as
 * it needs, the last one marked. Source: RFC 2326 (10.12), RFC 3550 (5.1), ONVIF Streaming Specification (5.2.2), from memory.
 */
export class RtspMetadata {
  private readonly server: Server
  private readonly sockets = new Set<Socket>()
  private readonly documents: () => string

  /** @param documents what is sent next, five times a second */
  constructor(documents: () => string) {
    this.documents = documents
    this.server = createServer((socket) => {
      this.sockets.add(socket)
      socket.on('close', () => this.sockets.delete(socket))
      socket.on('error', () => {})
      let text = ''
      socket.on('data', (bytes) => {
        text += bytes.toString('latin1')
        for (let end; (end = text.indexOf('\r\n\r\n')) >= 0; text = text.slice(end + 4))
          this.answer(socket, text.slice(0, end))
      })
    })
  }

  async start(): Promise<this> {
    await new Promise<void>((resolve) => this.server.listen(0, '127.0.0.1', resolve))
    return this
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port
  }

  async stop(): Promise<void> {
    for (const socket of this.sockets) socket.destroy()
    await new Promise((resolve) => this.server.close(resolve))
  }

  private answer(socket: Socket, request: string): void {
    const method = /([A-Z_]+) rtsp:/.exec(request)?.[1]
    const sequence = /^CSeq: *(\d+)/im.exec(request)?.[1] ?? '0'
    const say = (headers: readonly string[], body = ''): void =>
      void socket.write(
        [
          'RTSP/1.0 200 OK',
          `CSeq: ${sequence}`,
          ...headers,
          ...(body ? [`Content-Length: ${body.length}`] : []),
          '',
          body
        ].join('\r\n')
      )
    if (method === 'OPTIONS') say(['Public: OPTIONS, DESCRIBE, SETUP, PLAY, TEARDOWN'])
    else if (method === 'DESCRIBE')
      say(
        ['Content-Type: application/sdp'],
        `${[
          ...['v=0', 'o=- 1 1 IN IP4 127.0.0.1', 's=camera', 't=0 0', 'a=control:*'],
          ...[`m=application 0 RTP/AVP ${PAYLOAD_TYPE}`, 'a=control:metadata'],
          `a=rtpmap:${PAYLOAD_TYPE} vnd.onvif.metadata/90000`
        ].join('\r\n')}\r\n`
      )
    else if (method === 'SETUP')
      say(['Transport: RTP/AVP/TCP;unicast;interleaved=0-1', 'Session: 1;timeout=60'])
    else if (method === 'PLAY') {
      say(['Session: 1'])
      this.play(socket)
    } else say([])
  }

  private play(socket: Socket): void {
    let sequence = 0
    const began = Date.now()
    const timer = setInterval(() => {
      const bytes = Buffer.from(this.documents())
      for (let at = 0; at < bytes.length; at += PACKET) {
        const part = bytes.subarray(at, at + PACKET)
        const head = Buffer.alloc(16)
        head.write('$', 0, 'latin1')
        head.writeUInt16BE(12 + part.length, 2)
        head.writeUInt8(0x80, 4)
        head.writeUInt8((at + PACKET >= bytes.length ? 0x80 : 0) | PAYLOAD_TYPE, 5)
        head.writeUInt16BE(sequence++ & 0xffff, 6)
        head.writeUInt32BE(((Date.now() - began) * 90) >>> 0, 8)
        head.writeUInt32BE(0x5741, 12)
        socket.write(Buffer.concat([head, part]))
      }
    }, 200)
    socket.on('close', () => clearInterval(timer))
  }
}
