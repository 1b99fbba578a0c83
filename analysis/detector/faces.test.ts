import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { execFileSync } from 'node:child_process'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Box } from '../../core/geometry/shapes.ts'
import type { FrameSize } from '../frames.ts'
import { FACES_SIZE, type SeenFace } from './faces.ts'
import { Detector } from './inWorker.ts'
import { layOut } from './tiles.ts'

/**
 * The picture that shows what the package's own demo extracted: 108 faces of many people, in 6 rows of 18. It is the
 * reference for what is to be found; since the same weights chose these faces, it says nothing of faces that they miss.
 */
const picture = join(
  dirname(createRequire(import.meta.url).resolve('@vladmandic/human')),
  '../assets/screenshot-facematch.jpg'
)
const WIDTH = 1920
const HEIGHT = 954
/** Where the faces are, by eye, with some of what is around. */
const cells = Array.from({ length: 108 }, (_, i) => ({
  x: 2.5 + (i % 18) * 106.6,
  y: 284 + Math.floor(i / 18) * 112.2,
  w: 104,
  h: 108
}))

interface Picture {
  bytes: Uint8Array
  size: FrameSize
  scale: number
}

function pixels(file: string, size: FrameSize, grey = false): Uint8Array {
  const filters = `scale=${size.width}:${size.height}:flags=area${grey ? ',hue=s=0' : ''}`
  const raw = ['-frames:v', '1', '-vf', filters, '-pix_fmt', 'bgr24', '-f', 'rawvideo', '-']
  const found = execFileSync('ffmpeg', ['-v', 'error', '-i', file, ...raw], { maxBuffer: 1e8 })
  return new Uint8Array(found)
}

/** The faces, as small as that; with colour or without, as in infra-red. */
function faces(scale: number, grey = false): Picture {
  const size = { width: Math.round(WIDTH * scale), height: Math.round(HEIGHT * scale) }
  return { bytes: pixels(picture, size, grey), size, scale }
}

describe('faces on public pictures', () => {
  let detector: Detector
  beforeAll(async () => (detector = await Detector.start()))
  afterAll(() => detector.close())

  const known = new Map<string, Promise<(SeenFace | null)[]>>()
  /** The faces of the whole picture, so small, looked for once. */
  function seenAt(scale: number, grey: boolean): Promise<(SeenFace | null)[]> {
    const key = `${scale} ${grey}`
    const seen = known.get(key) ?? seenIn(faces(scale, grey))
    known.set(key, seen)
    return seen
  }

  /** The face in each cell; null: none was seen. Four are looked at at once, as in a clip. */
  async function seenIn({ bytes, size, scale }: Picture): Promise<(SeenFace | null)[]> {
    const seen: (SeenFace | null)[] = []
    for (let i = 0; i < cells.length; i += 4) {
      const squares = cells.slice(i, i + 4).map(({ x, y }) => ({
        ...{ x: scale * (x - 15), y: scale * (y - 15), side: scale * 136 }
      }))
      const tiles = layOut(squares, FACES_SIZE)
      const found = await detector.faces({ picture: bytes, size, tiles })
      for (const { x, y, side } of squares)
        seen.push(
          found.find(
            (one) =>
              Math.abs(one.x + one.w / 2 - x - side / 2) < side / 3 &&
              Math.abs(one.y + one.h / 2 - y - side / 2) < side / 3
          ) ?? null
        )
    }
    return seen
  }
  const count = <T>(all: readonly T[], is: (one: T) => boolean): number => all.filter(is).length

  /** How bright the middle of a cell is, 0 to 255: cheeks, nose and mouth of its face. */
  function brightness({ bytes, size, scale }: Picture, { x, y, w, h }: Box): number {
    let [sum, n] = [0, 0]
    for (let py = Math.round(scale * (y + 0.4 * h)); py < scale * (y + 0.7 * h); py++)
      for (let px = Math.round(scale * (x + 0.35 * w)); px < scale * (x + 0.65 * w); px++) {
        const k = 3 * (py * size.width + px)
        sum += bytes[k]! + bytes[k + 1]! + bytes[k + 2]!
        n += 3
      }
    return sum / n
  }

  test.each([
    ['in colour', false],
    ['in grey, as in infra-red', true]
  ])(
    'finds the dark as it finds the fair, %s',
    async (_name, grey) => {
      const large = faces(1)
      const order = cells
        .map((cell, i) => ({ i, bright: brightness(large, cell) }))
        .sort((a, b) => a.bright - b.bright)
        .map(({ i }) => i)
      // A third each: the darkest, those between, the fairest. 38 pixels are a face about 5 m from a camera of 90°
      // and 1024 pixels across (by the camera of core/scene).
      for (const [scale, least] of [
        [0.5, 35],
        [0.3, 32]
      ] as const) {
        const seen = await seenAt(scale, grey)
        for (let third = 0; third < 3; third++) {
          const these = order.slice(36 * third, 36 * (third + 1)).map((i) => seen[i]!)
          expect(count(these, (face) => face !== null)).toBeGreaterThanOrEqual(
            grey ? least - 4 : least
          )
        }
      }
    },
    600_000
  )

  test('takes no bare face for a masked one, whatever the skin', async () => {
    for (const grey of [false, true]) {
      const seen = await seenAt(0.5, grey)
      expect(count(seen, (face) => face?.mask === true)).toBeLessThanOrEqual(2)
      expect(count(seen, (face) => face?.mask === false)).toBeGreaterThanOrEqual(grey ? 45 : 65)
    }
  }, 600_000)

  // Masks are painted: no public picture with one is at hand.
  test('masks of four colours are told, or said to be unsure', async () => {
    const colours = [
      [211, 190, 150],
      [228, 225, 222],
      [34, 30, 30],
      [45, 40, 150]
    ] // light blue, white, black, red; as blue, green, red
    const shown = faces(0.5)
    const bare = await seenAt(0.5, false)
    bare.forEach((face, i) => face && paintMask(shown, face, colours[i % 4]!))
    const seen = (await seenIn(shown)).filter((face) => face !== null)
    // With most of a face covered, fewer are found: about six in ten, of this size.
    expect(seen.length).toBeGreaterThanOrEqual(54)
    expect(count(seen, ({ mask }) => mask === true)).toBeGreaterThanOrEqual(0.7 * seen.length)
    expect(count(seen, ({ mask }) => mask === false)).toBeLessThanOrEqual(0.03 * seen.length)
  }, 600_000)

  test('sees no face in fruit, cards, a building or a monkey', async () => {
    for (const name of ['fruits.jpg', 'cards.png', 'building.jpg', 'baboon.jpg', 'board.jpg']) {
      const size = { width: 512, height: 480 }
      const bytes = pixels(`/usr/share/doc/opencv-doc/examples/data/${name}`, size)
      const squares = Array.from({ length: 16 }, (_, i) => ({
        ...{ x: (i % 4) * 128, y: Math.floor(i / 4) * 120, side: 128 }
      }))
      for (let i = 0; i < 16; i += 4) {
        const tiles = layOut(squares.slice(i, i + 4), FACES_SIZE)
        expect([name, await detector.faces({ picture: bytes, size, tiles })]).toEqual([name, []])
      }
    }
  }, 600_000)

  test('a head that is half outside the picture is no error', async () => {
    const { bytes, size } = faces(0.5)
    const tiles = layOut([{ x: -60, y: -60, side: 80 }], FACES_SIZE)
    expect(await detector.faces({ picture: bytes, size, tiles })).toEqual([])
  })
})

/** Paints over the lower half of a face: an oval from below the eyes to the chin, its folds a little darker. */
function paintMask({ bytes, size }: Picture, { x, y, w, h }: Box, colour: readonly number[]): void {
  for (let py = Math.floor(y + 0.52 * h); py < Math.min(size.height, y + 1.04 * h); py++)
    for (let px = Math.floor(x); px < x + w; px++) {
      const [across, down] = [(px - x - w / 2) / (0.5 * w), (py - y - 0.52 * h) / (0.54 * h)]
      if (across ** 2 + down ** 2 > 1) continue
      const fold = 1 - 0.06 * Math.abs(Math.sin(down * 9))
      for (let c = 0; c < 3; c++) bytes[3 * (py * size.width + px) + c] = colour[c]! * fold
    }
}
