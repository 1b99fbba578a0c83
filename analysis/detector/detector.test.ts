import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import fc from 'fast-check'
import type { Box } from '../../core/geometry/shapes.ts'
import { errorWords } from '../../core/messages/errorWords.ts'
import type { FrameSize } from '../frames.ts'
import { needOf, type Told } from './asking.ts'
import { Detector } from './inWorker.ts'
import { match } from './matching.ts'
import { loadModel } from './model.ts'
import { SEEN_SIZE, type Detected } from './objects.ts'
import { boxInPicture, cutTiles, layOut, squareAround, tileOf } from './tiles.ts'

const samples = '/usr/share/doc/opencv-doc/examples/data'

/** A picture's bytes: blue, green, red. */
function pixels(file: string, { width, height }: FrameSize, at?: number): Uint8Array {
  const found = execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', ...(at === undefined ? [] : ['-ss', String(at)])],
      ...['-i', file, '-frames:v', '1'],
      ...['-vf', `scale=${width}:${height}:flags=area`, '-pix_fmt', 'bgr24', '-f', 'rawvideo', '-']
    ],
    { maxBuffer: 1e8 }
  )
  expect(found.length).toBe(width * height * 3)
  return found
}

describe('the trained detector', () => {
  let detector: Detector
  beforeAll(async () => (detector = await Detector.start()))
  afterAll(() => detector.close())

  /** What is seen in the whole of a picture, as shares of it. */
  async function seenIn(file: string, size: FrameSize, at?: number): Promise<Detected[]> {
    const side = Math.max(size.width, size.height)
    const from = { x: (size.width - side) / 2, y: (size.height - side) / 2, side }
    const tiles = layOut([from], SEEN_SIZE)
    const seen = await detector.look({ picture: pixels(file, size, at), size, tiles })
    return seen.map((one) => {
      const { x, y, w, h } = boxInPicture(one, tiles[0]!)
      const [width, height] = [size.width, size.height]
      return { ...one, x: x / width, y: y / height, w: w / width, h: h / height }
    })
  }
  const holds = ({ x, y, w, h }: Box, [px, py]: readonly [number, number]): boolean =>
    px > x && px < x + w && py > y && py < y + h

  // Photographs of Debian's opencv-doc; what is in them, and where, was read off by eye.
  test('sees two people in a room, without any colour', async () => {
    const seen = await seenIn(`${samples}/basketball1.png`, { width: 640, height: 480 })
    expect(seen.map(({ cls }) => cls)).toEqual(['person', 'person'])
    for (const place of [
      [0.13, 0.5],
      [0.88, 0.5]
    ] as const)
      expect(seen.some((one) => holds(one, place))).toBe(true)
  })
  test('sees the player before a blurred crowd', async () => {
    const [best] = await seenIn(`${samples}/messi5.jpg`, { width: 548, height: 342 })
    expect(best).toMatchObject({ cls: 'person' })
    expect(holds(best!, [0.45, 0.5])).toBe(true)
  })
  test('sees the parked van and the car on a campus, in a tile around them', async () => {
    const size = { width: 768, height: 576 }
    const picture = pixels(`${samples}/vtest.avi`, size, 51.5)
    const tiles = layOut([{ x: 628, y: 0, side: 140 }], SEEN_SIZE)
    const seen = await detector.look({ picture, size, tiles })
    const inPicture = seen.map((one) => ({ ...one, ...boxInPicture(one, tiles[0]!) }))
    for (const place of [
      [685, 70],
      [750, 70]
    ] as const)
      expect(inPicture.some((one) => one.cls === 'vehicle' && holds(one, place))).toBe(true)
  })
  test('sees a walker on a campus, where he is', async () => {
    const seen = await seenIn(`${samples}/vtest.avi`, { width: 768, height: 576 }, 51.5)
    expect(
      seen.some((one) => one.cls === 'person' && holds(one, [0.335, 0.38]) && one.likelihood > 0.4)
    ).toBe(true)
  })
  test('sees no target in a drawing of a chessboard, in fruit, and in an empty street', async () => {
    for (const file of ['chessboard.png', 'fruits.jpg', 'leuvenA.jpg'])
      expect([file, await seenIn(`${samples}/${file}`, { width: 512, height: 512 })]).toEqual([
        file,
        []
      ])
  })
  test('takes nothing that is painted in the demo for a vehicle or an animal', async () => {
    const clip = fileURLToPath(new URL('../../demo/clips/slipway-morning.mp4', import.meta.url))
    const seen = await seenIn(clip, { width: 640, height: 360 }, 39)
    expect(seen.filter(({ cls }) => cls !== 'person')).toEqual([])
  })

  test('says of targets what the package’s own network says, which works out all labels', () => {
    const looks = JSON.parse(
      execFileSync(
        process.execPath,
        ['scripts/run.mjs', 'analysis/detector/testing/ownNetwork.mts'],
        { encoding: 'utf8' }
      )
    ) as { own: Detected[]; used: Detected[] }[]
    expect(looks.flatMap(({ own }) => own).length).toBeGreaterThan(20)
    for (const { own, used } of looks) {
      expect(used).toHaveLength(own.length)
      own.forEach((one, i) => {
        expect(used[i]!.cls).toBe(one.cls)
        for (const figure of ['x', 'y', 'w', 'h'] as const)
          expect(Math.abs(used[i]![figure] - one[figure])).toBeLessThan(0.1)
        expect(Math.abs(used[i]!.likelihood - one.likelihood)).toBeLessThan(0.001)
      })
    }
  })

  test('a thread that ends tells whoever waits', async () => {
    const other = await Detector.start()
    const size = { width: 64, height: 64 }
    const tiles = layOut([{ x: 0, y: 0, side: 64 }], SEEN_SIZE)
    const asked = other.look({ picture: new Uint8Array(64 * 64 * 3), size, tiles })
    await Promise.all([expect(asked).rejects.toThrow('the detector ended'), other.close()])
  })
  test('names the files that are missing', async () => {
    await expect(loadModel('none-such')).rejects.toThrow()
    const words = await loadModel('none-such').catch((error: unknown) => errorWords(error as never))
    expect(words).toContain('The files of the trained detector (none-such) are missing.')
  })
})

const size = fc.record({
  width: fc.integer({ min: 32, max: 2000 }),
  height: fc.integer({ min: 32, max: 2000 })
})
/** A box within a picture. */
const within = ({ width, height }: FrameSize): fc.Arbitrary<Box> =>
  fc
    .tuple(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0.01, max: 1, noNaN: true }),
      fc.double({ min: 0.01, max: 1, noNaN: true })
    )
    .map(([x, y, w, h]) => ({
      w: w * width,
      h: h * height,
      x: x * (width - w * width),
      y: y * (height - h * height)
    }))

describe('tiles', () => {
  test('hold the box that they are cut around', () => {
    fc.assert(
      fc.property(
        size.chain((s) => fc.tuple(fc.constant(s), within(s))),
        ([s, box]) => {
          const { x, y, side } = squareAround(box, s)
          expect(box.x).toBeGreaterThanOrEqual(x - 1e-6)
          expect(box.y).toBeGreaterThanOrEqual(y - 1e-6)
          expect(box.x + box.w).toBeLessThanOrEqual(x + side + 1e-6)
          expect(box.y + box.h).toBeLessThanOrEqual(y + side + 1e-6)
        }
      )
    )
  })
  test('lie beside each other, and what is seen in one goes back to where it came from', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.integer({ min: -50, max: 900 }),
            y: fc.integer({ min: -50, max: 900 }),
            side: fc.integer({ min: 48, max: 600 })
          }),
          { minLength: 1, maxLength: 9 }
        ),
        (squares) => {
          const tiles = layOut(squares, SEEN_SIZE)
          for (const { to, from } of tiles) {
            expect(to.x + to.side).toBeLessThanOrEqual(SEEN_SIZE)
            expect(to.y + to.side).toBeLessThanOrEqual(SEEN_SIZE)
            const middle = {
              x: to.x + to.side / 4,
              y: to.y + to.side / 4,
              w: to.side / 2,
              h: to.side / 2
            }
            expect(tileOf(middle, tiles)!.to).toEqual(to)
            const back = boxInPicture(middle, { from, to })
            expect(back.x).toBeCloseTo(from.x + from.side / 4, 6)
            expect(back.h).toBeCloseTo(from.side / 2, 6)
          }
        }
      )
    )
  })
  test('have the colours of the picture, red first, and grey beyond its edge', () => {
    const [width, height] = [40, 30]
    const picture = new Uint8Array(width * height * 3)
    for (let i = 0; i < width * height; i++) picture.set([10, 20, 200], 3 * i)
    const tiles = layOut([{ x: -40, y: 0, side: 80 }], 64)
    const out = cutTiles(picture, { width, height }, tiles, 64)
    const at = (x: number, y: number) => [...out.subarray(3 * (y * 64 + x), 3 * (y * 64 + x) + 3)]
    expect(at(48, 10)).toEqual([200, 20, 10])
    expect(at(10, 10)).toEqual([114, 114, 114])
    expect(at(48, 60)).toEqual([114, 114, 114])
  })
})

describe('what is seen goes to targets', () => {
  const person: Detected = { x: 100, y: 100, w: 40, h: 100, cls: 'person', likelihood: 0.7 }
  test('by overlap, and to none that is elsewhere', () => {
    const car: Detected = { x: 300, y: 150, w: 120, h: 60, cls: 'vehicle', likelihood: 0.6 }
    expect(
      match(
        [
          { x: 305, y: 148, w: 110, h: 66 },
          { x: 98, y: 104, w: 38, h: 98 },
          { x: 500, y: 100, w: 40, h: 100 }
        ],
        [person, car]
      )
    ).toEqual([{ cls: 'vehicle', likelihood: 0.6 }, { cls: 'person', likelihood: 0.7 }, null])
  })
  test('a piece of somebody is that person; somebody is not what he stands before', () => {
    expect(match([{ x: 110, y: 170, w: 20, h: 28 }], [person])).toMatchObject([{ cls: 'person' }])
    const bus: Detected = { x: 0, y: 0, w: 400, h: 250, cls: 'vehicle', likelihood: 0.9 }
    expect(match([{ x: 100, y: 100, w: 40, h: 100 }], [bus])).toEqual([null])
    // A head over the roof of a parked car is no piece of the car; the same of one that drives may be.
    const [head, car] = [
      { x: 20, y: 10, w: 30, h: 30 },
      { ...bus, w: 80, h: 80 }
    ]
    expect(match([head], [car])).toMatchObject([{ cls: 'vehicle' }])
    expect(match([head], [car], (one) => one === car)).toEqual([null])
    // Nor is who stands half before it; what sets off in its place is the car.
    const [before, setsOff] = [
      { x: 40, y: 20, w: 50, h: 60 },
      { x: 8, y: 0, w: 80, h: 80 }
    ]
    expect(match([before], [car])).toMatchObject([{ cls: 'vehicle' }])
    expect(match([before, setsOff], [car], (one) => one === car)).toMatchObject([
      null,
      { cls: 'vehicle' }
    ])
  })
  test('a person on a cycle is a cycle, one who walks past it is a person', () => {
    const rider = { x: 100, y: 100, w: 70, h: 110 }
    const on: Detected = { ...person, x: 112, y: 100, w: 45, h: 90 }
    const cycle: Detected = { x: 100, y: 150, w: 70, h: 60, cls: 'cycle', likelihood: 0.5 }
    expect(match([rider], [on, cycle])).toEqual([{ cls: 'cycle', likelihood: 0.5 }])
    const parked: Detected = { ...cycle, x: 125, w: 100 }
    expect(match([{ x: 100, y: 100, w: 40, h: 100 }], [person, parked])).toMatchObject([
      { cls: 'person' }
    ])
  })
  test('never a class that was not seen', () => {
    const seen = within({ width: 500, height: 400 }).chain((box) =>
      fc
        .record({
          cls: fc.constantFrom('person' as const, 'vehicle' as const, 'animal' as const),
          likelihood: fc.double({ min: 0.3, max: 1, noNaN: true })
        })
        .map((more) => ({ ...box, ...more }))
    )
    fc.assert(
      fc.property(
        fc.array(within({ width: 500, height: 400 })),
        fc.array(seen),
        (targets, things) => {
          const opinions = match(targets, things)
          expect(opinions.length).toBe(targets.length)
          for (const opinion of opinions)
            if (opinion) expect(things).toContainEqual(expect.objectContaining({ ...opinion }))
        }
      )
    )
  })
})

describe('when it matters', () => {
  const target = (more: object = {}) => ({ seen: 20, side: 60, height: 60, told: [], ...more })
  const sure: Told[] = [
    { frame: 1, cls: 'person', likelihood: 0.7 },
    { frame: 9, cls: 'person', likelihood: 0.7 }
  ]
  const torn: Told[] = [sure[0]!, { ...sure[1]!, cls: 'animal' }]
  test('what was never looked at comes first, a small patch once it lasts', () => {
    expect(needOf(target({ seen: 2 }), undefined, 10, 10)).toBe('new')
    expect(needOf(target({ seen: 1 }), undefined, 10, 10)).toBe('beside')
    expect(needOf(target({ seen: 3, side: 12 }), undefined, 10, 10)).toBe('beside')
    expect(needOf(target({ seen: 4, side: 12 }), undefined, 10, 10)).toBe('small')
  })
  test('then when answers do not agree or it has grown; seldom when all is settled', () => {
    const asked = { frame: 10, height: 60 }
    const after = (seconds: number, more: object = {}) =>
      needOf(target(more), asked, 10 + 10 * seconds, 10)
    expect([after(0.2), after(1), after(4)]).toEqual(['none', 'beside', 'again'])
    expect([after(4, { told: sure }), after(12, { told: sure })]).toEqual(['beside', 'again'])
    expect(after(4, { told: torn })).toBe('again')
    expect(after(4, { told: sure, height: 90 })).toBe('again')
  })
})
