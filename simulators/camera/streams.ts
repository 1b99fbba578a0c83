import type { ServerResponse } from 'node:http'
import type { LiveFrame } from '../../core/devices/views.ts'
import { metadataXml } from '../../core/formats/onvif/metadata.ts'

const BOUNDARY = 'wardoptic-part'
/** Six pictures a second. */
const PICTURE_MS = 160
const METADATA_MS = 100

/** Says part after part of a multipart answer, for as long as somebody reads. Source: RFC 2046, section 5.1. */
function stream(
  response: ServerResponse,
  kind: 'x-mixed-replace' | 'mixed',
  type: string,
  everyMs: number,
  make: () => Buffer | null
): void {
  response.writeHead(200, {
    'content-type': `multipart/${kind}; boundary=${BOUNDARY}`,
    'cache-control': 'no-store'
  })
  const say = (): void => {
    // Who reads too slowly misses some.
    if (response.writableNeedDrain) return
    const body = make()
    if (!body) return
    response.write(
      `--${BOUNDARY}\r\nContent-Type: ${type}\r\nContent-Length: ${body.length}\r\n\r\n`
    )
    response.write(body)
    response.write('\r\n')
  }
  const timer = setInterval(say, everyMs)
  response.on('close', () => clearInterval(timer))
  say()
}

/** Motion JPEG over HTTP; nothing is said while there is no picture. */
export const streamPictures = (response: ServerResponse, picture: () => Buffer | null): void =>
  stream(response, 'x-mixed-replace', 'image/jpeg', PICTURE_MS, picture)

/** Metadata frames of the standard over HTTP. */
export const streamMetadata = (response: ServerResponse, frame: () => LiveFrame): void =>
  stream(response, 'mixed', 'application/xml', METADATA_MS, () => Buffer.from(metadataXml(frame())))
