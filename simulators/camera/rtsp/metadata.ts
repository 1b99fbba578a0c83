import { randomBytes } from 'node:crypto'
import type { Media } from './server.ts'

/** What fits into a packet, as networks have it. */
const PACKET = 1200
const PAYLOAD_TYPE = 107
const EVERY_MS = 100

/**
 * Documents of metadata as they are now, ten times a second, each cut into as many packets as it needs, the last one
 * marked. Source: RFC 3550 (5.1) and ONVIF Streaming Specification (5.2.2), from memory.
 *
 * @param document the next one, as XML
 */
export const metadataMedia = (document: () => string): Media => ({
  kind: 'application',
  payloadType: PAYLOAD_TYPE,
  attributes: [`rtpmap:${PAYLOAD_TYPE} vnd.onvif.metadata/90000`],
  play(rtp) {
    const source = randomBytes(4)
    const began = Date.now()
    let sequence = randomBytes(2).readUInt16BE()
    const send = (): void => {
      const bytes = Buffer.from(document())
      for (let at = 0; at < bytes.length; at += PACKET) {
        const head = Buffer.alloc(12)
        head[0] = 0x80
        head[1] = PAYLOAD_TYPE | (at + PACKET >= bytes.length ? 0x80 : 0)
        head.writeUInt16BE((sequence = (sequence + 1) & 0xffff), 2)
        head.writeUInt32BE(((Date.now() - began) * 90) >>> 0, 4)
        source.copy(head, 8)
        rtp(Buffer.concat([head, bytes.subarray(at, at + PACKET)]))
      }
    }
    const timer = setInterval(send, EVERY_MS)
    return () => clearInterval(timer)
  }
})
