import { describe, expect, test } from '@jest/globals'
import type { Box } from '../../core/geometry/shapes.ts'
import { Followed } from '../target.ts'
import type { Looks, Shown } from './inWorker.ts'
import type { Detected } from './objects.ts'
import { Standing } from './standing.ts'

const [FPS, SIZE, LARGE] = [10, { width: 320, height: 180 }, { width: 640, height: 360 }]
/** Something in the larger picture, while it is there, in frames. */
interface Thing extends Box {
  cls: Detected['cls']
  likelihood: number
  until?: number
}
const car: Thing = { x: 100, y: 200, w: 90, h: 50, cls: 'vehicle', likelihood: 0.7 }

/** A detector that sees things in every tile in which they lie, after as long as it is told. */
class Eye implements Looks {
  readonly shown: Shown[] = []
  frame = 1
  private readonly things: (frame: number) => Thing[]
  private readonly turns: number
  constructor(things: (frame: number) => Thing[], turns = 0) {
    this.things = things
    this.turns = turns
  }
  readonly faces = (): Promise<[]> => Promise.resolve([])
  async look(shown: Shown): Promise<Detected[]> {
    this.shown.push(shown)
    const things = this.things(this.frame).filter(({ until = Infinity }) => this.frame <= until)
    for (let n = this.turns; n > 0; n--) await new Promise((resolve) => setImmediate(resolve))
    return shown.tiles.flatMap(({ from, to }) => {
      const scale = to.side / from.side
      return things
        .filter(
          ({ x, y, w, h }) =>
            x >= from.x && y >= from.y && x + w <= from.x + from.side && y + h <= from.y + from.side
        )
        .map(({ x, y, w, h, cls, likelihood }) => ({
          ...{ x: to.x + (x - from.x) * scale, y: to.y + (y - from.y) * scale },
          ...{ w: w * scale, h: h * scale, cls, likelihood }
        }))
    })
  }
}

async function watch(eye: Eye, seconds: number, targets: (frame: number) => Followed[] = () => []) {
  const standing = new Standing(eye, FPS, SIZE)
  for (let frame = 1; frame <= seconds * FPS; frame++) {
    eye.frame = frame
    if (frame % 2) await standing.next(frame, new Uint8Array(0), LARGE, targets(frame))
  }
  await standing.finish()
  return standing.found
}

describe('what stands still from the first picture on', () => {
  test('is found once, where it is, with the mean of its likelihoods, to the end of the clip', async () => {
    const [found, ...more] = await watch(new Eye(() => [car]), 30)
    expect(more).toEqual([])
    expect(found).toMatchObject({ cls: 'vehicle', from: 1, to: Infinity })
    expect(found!.likelihood).toBeCloseTo(0.7, 6)
    for (const side of ['x', 'y', 'w', 'h'] as const)
      expect(found![side]).toBeCloseTo(car[side] / 2, 6)
  })

  test('is the same however slow the detector is', async () => {
    const things = (frame: number) => [car, { ...car, x: 300 + 3 * frame, cls: 'person' as const }]
    const at = await watch(new Eye(things), 40)
    expect(at).toHaveLength(1)
    expect(await watch(new Eye(things, 30), 40)).toEqual(at)
  })

  test('not what the detector is not sure of, nor what came later or has gone within two seconds', async () => {
    expect(await watch(new Eye(() => [{ ...car, likelihood: 0.38 }]), 10)).toEqual([])
    expect(await watch(new Eye((frame) => (frame > 5 ? [car] : [])), 10)).toEqual([])
    expect(await watch(new Eye(() => [{ ...car, until: 15 }]), 10)).toEqual([])
    expect(await watch(new Eye((frame) => [{ ...car, x: 100 + 5 * frame }]), 10)).toEqual([])
  })

  test('is known again when it is seen, and so is a part of it; what stands beside it is not', async () => {
    const standing = new Standing(new Eye(() => [car]), FPS, SIZE)
    for (const frame of [1, 23]) await standing.next(frame, new Uint8Array(0), LARGE, [])
    await standing.finish()
    expect(standing.holds(car)).toBe(true)
    expect(standing.holds({ ...car, y: car.y + 2, h: 20 })).toBe(true)
    expect(standing.holds({ ...car, cls: 'person' })).toBe(false)
    expect(standing.holds({ ...car, x: car.x + car.w })).toBe(false)
  })

  test('not what is followed already', async () => {
    const box = { x: car.x / 2, y: car.y / 2, w: car.w / 2, h: car.h / 2 }
    const patch = { ...box, area: 1000, colours: new Float32Array(48), wavers: false }
    const followed = new Followed(patch, 1)
    expect(await watch(new Eye(() => [car]), 10, () => [followed])).toEqual([])
  })

  test('ends where it was last seen, once two looks in a row have missed it', async () => {
    const [found] = await watch(new Eye(() => [{ ...car, until: 140 }]), 60)
    // Looks at 0, 2, 12 s saw it; those at 22 and 32 s did not.
    expect(found!.to).toBe(121)
    const [once] = await watch(new Eye((frame) => (frame > 200 && frame < 230 ? [] : [car])), 60)
    expect(once!.to).toBe(Infinity)
  })

  test('asks little: two looks at first, then one every ten seconds; none more of an empty place', async () => {
    const eye = new Eye(() => [car])
    await watch(eye, 60)
    expect(eye.shown.length).toBeLessThanOrEqual(2 + 1 + 6)
    const empty = new Eye(() => [])
    await watch(empty, 60)
    expect(empty.shown).toHaveLength(2)
  })
})
