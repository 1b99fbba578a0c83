import { afterEach, describe, expect, test } from '@jest/globals'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import type { LiveFrame } from '../../core/devices/views.ts'
import { metadataXml } from '../../core/formats/onvif/metadata.ts'
import { metadataMedia } from '../../simulators/camera/rtsp/metadata.ts'
import { RtspServer } from '../../simulators/camera/rtsp/server.ts'
import { picturesOnly } from '../testing/poorAnswers.ts'
import { PoorDevice } from '../testing/poorDevice.ts'
import { RtspCamera } from '../testing/rtspCamera.ts'
import { DeviceLink } from './link/link.ts'
import type { DeviceError } from './link/deviceError.ts'
import { JpegReader, listOf, rtspPictures } from './link/rtsp.ts'
import { rtspMetadata } from './link/rtspMetadata.ts'

// The camera is GStreamer's RTSP server, with its test picture of 640 × 360.
let camera: RtspCamera | undefined
afterEach(() => camera?.stop())

const taken = async (uri: string, n: number): Promise<Buffer[]> => {
  const ended = new AbortController()
  const pictures: Buffer[] = []
  for await (const picture of rtspPictures(uri, ended.signal)) {
    pictures.push(picture)
    if (pictures.length === n) break
  }
  return pictures
}
const failure = (uri: string, silentMs?: number): Promise<DeviceError> =>
  (async () => {
    for await (const _ of rtspPictures(uri, new AbortController().signal, silentMs)) void _
  })().then(
    () => {
      throw new Error('it did not fail')
    },
    (error: DeviceError) => error
  )

describe('pictures over RTSP', () => {
  test.each(['h264', 'h265', 'jpeg'] as const)('of %s come as JPEG', async (encoding) => {
    camera = await RtspCamera.start(encoding)
    const pictures = await taken(camera.uri, 3)
    for (const picture of pictures) {
      const image = await loadImage(picture)
      expect([image.width, image.height]).toEqual([640, 360])
    }
    // GStreamer's ball is white on black.
    const canvas = createCanvas(640, 360)
    const context = canvas.getContext('2d')
    context.drawImage(await loadImage(pictures[2]!), 0, 0)
    const { data } = context.getImageData(0, 0, 640, 360)
    const brightest = data.reduce(
      (most, level, i) => (i % 4 === 3 ? most : Math.max(most, level)),
      0
    )
    expect(brightest).toBeGreaterThan(150)
  })

  test('a password of any characters is sent by digest, and a wrong one is named', async () => {
    const account = { username: 'cam', password: 'p@ss w:rd/€' }
    camera = await RtspCamera.start('jpeg', account)
    const uri = new URL(camera.uri)
    uri.username = 'cam'
    uri.password = encodeURIComponent(account.password)
    expect(await taken(uri.href, 1)).toHaveLength(1)
    uri.password = 'wrong'
    expect((await failure(uri.href)).kind).toBe('wrong-password')
    expect((await failure(camera.uri)).kind).toBe('wrong-password')
  })

  test('names a stream that is cut, and one that cannot be reached', async () => {
    camera = await RtspCamera.start('jpeg')
    const { uri } = camera
    const ended = new AbortController()
    const pictures = rtspPictures(uri, ended.signal, 4000)
    expect((await pictures.next()).done).toBe(false)
    await camera.stop()
    await expect(
      (async () => {
        for await (const _ of pictures) void _
      })()
    ).rejects.toMatchObject({ kind: expect.stringMatching(/broken|slow|offline/) })
    expect((await failure(uri)).kind).toBe('offline')
    expect((await failure(uri.replace(/\/live$/, '/other'), 2000)).kind).not.toBe('wrong-password')
  })
})

test('an address that could end the list is refused, and its password is not told', () => {
  expect(() => listOf("rtsp://u:secret@h/'\nfile /etc/passwd")).toThrow()
  try {
    listOf('rtsp://u:secret@h/x\n')
  } catch (error) {
    expect(JSON.stringify((error as DeviceError).said)).not.toContain('secret')
  }
  // A quote, as a password may have one, ends nothing.
  expect(listOf("rtsp://u:it's@h/x")).toContain("file 'rtsp://u:it%27s@h/x'")
})

test('JPEG pictures come out whole however the bytes are cut', () => {
  const pictures = [3, 40, 7].map((n) =>
    Buffer.from([0xff, 0xd8, ...new Array<number>(n).fill(n), 0xff, 0xd9])
  )
  const all = Buffer.concat(pictures)
  for (const size of [1, 2, 5, 1000]) {
    const reader = new JpegReader()
    const found: Buffer[] = []
    for (let at = 0; at < all.length; at += size)
      found.push(...reader.push(all.subarray(at, at + size)))
    expect(found).toEqual(pictures)
  }
})

test('targets come over RTSP, of any prefix, however long their document is', async () => {
  let at = Date.UTC(2026, 10, 28, 6)
  const frames: LiveFrame[] = []
  const document = (): string => {
    const frame: LiveFrame = {
      at: (at += 200),
      // More than fits into one packet.
      targets: Array.from({ length: 40 }, (_, i) => ({
        id: i + 1,
        class: 'person',
        x: 0.01 * i,
        y: 0.25,
        w: 0.125,
        h: 0.5
      }))
    }
    frames.push(frame)
    // Another prefix than ours, and a declaration before each document.
    return `<?xml version="1.0" encoding="UTF-8"?>\n${metadataXml(frame).replaceAll('tt:', 'onvif:').replaceAll('xmlns:tt', 'xmlns:onvif')}\n`
  }
  const metadata = await new RtspServer({
    media: () => Promise.resolve([metadataMedia(document)]),
    mayLook: () => true,
    question: () => ''
  }).start()
  const device = await new PoorDevice(picturesOnly(`rtsp://10.0.0.9:${metadata.port}/live`)).start()
  const ended = new AbortController()
  try {
    const link = new DeviceLink(device.address, { username: 'admin', password: 'x' })
    const heard: LiveFrame[] = []
    for await (const frame of link.media.targets('main', ended.signal)) {
      heard.push(frame)
      if (heard.length === 3) break
    }
    const first = frames.findIndex((f) => f.at === heard[0]!.at)
    expect(first).toBeGreaterThanOrEqual(0)
    for (const [i, frame] of heard.entries()) {
      expect(frame.at).toBe(frames[first + i]!.at)
      expect(frame.targets).toHaveLength(40)
      for (const [k, target] of frame.targets.entries()) {
        const sent = frames[first + i]!.targets[k]!
        expect(target).toMatchObject({ id: sent.id, class: 'person' })
        expect(target.x).toBeCloseTo(sent.x, 3)
        expect(target.h).toBeCloseTo(sent.h, 3)
      }
    }
  } finally {
    ended.abort()
    await device.close()
    await metadata.close()
  }
})

test('metadata of a stream that has none is refused as such, and so is a wrong account', async () => {
  camera = await RtspCamera.start('jpeg', { username: 'cam', password: 'p@ss w:rd' })
  const asked = async (password: string): Promise<string> => {
    const uri = new URL(camera!.uri)
    uri.username = 'cam'
    uri.password = encodeURIComponent(password)
    try {
      for await (const _ of rtspMetadata(uri.href, new AbortController().signal)) void _
      return 'nothing'
    } catch (error) {
      return (error as DeviceError).kind
    }
  }
  expect(await asked('p@ss w:rd')).toBe('refused')
  expect(await asked('wrong')).toBe('wrong-password')
})
