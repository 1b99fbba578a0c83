import { describe, expect, test } from '@jest/globals'
import type { Blob } from '../foreground.ts'
import { Tracker } from '../tracker.ts'
import type { SeenFace } from './faces.ts'
import { Heads } from './heads.ts'
import type { Looks, Shown } from './inWorker.ts'

const [FPS, SIZE, LARGE] = [10, { width: 320, height: 180 }, { width: 640, height: 360 }]

/** A detector that sees a face in the middle of every head, after as long as it is told. */
class Slow implements Looks {
  readonly shown: Shown[] = []
  readonly look = (): Promise<[]> => Promise.resolve([])
  private readonly turns: (n: number) => number
  constructor(turns: (n: number) => number) {
    this.turns = turns
  }
  async faces(shown: Shown): Promise<SeenFace[]> {
    this.shown.push(shown)
    for (let n = this.turns(this.shown.length); n > 0; n--)
      await new Promise((resolve) => setImmediate(resolve))
    return shown.tiles.map(({ from: { x, y, side } }) => ({
      ...{ x: x + 0.4 * side, y: y + 0.35 * side, w: 0.2 * side, h: 0.3 * side },
      ...{ likelihood: 1, mask: null }
    }))
  }
}

/** Six walkers of one height in analysed pixels, one every two seconds, each for eight. */
async function walk(looks: Looks, h: number) {
  const [tracker, heads] = [new Tracker(FPS), new Heads(looks, FPS, SIZE)]
  for (let frame = 1; frame <= 240; frame++) {
    const patches: Blob[] = []
    for (let i = 0; i < 6; i++) {
      const age = frame - 1 - 20 * i
      const [x, y, w] = [20 + 3 * age, 175 - h, h / 3]
      if (age >= 0 && age < 80)
        patches.push({
          ...{ x, y, w, h, area: w * h, colours: new Float32Array(48).fill(1 / 48) },
          wavers: false
        })
    }
    tracker.step(patches, frame)
    if (frame % 2) await heads.next(frame, new Uint8Array(0), LARGE, tracker.following)
  }
  await heads.finish()
  return tracker.finish().map(({ looked }) => looked)
}

describe('looking for faces beside the tracker', () => {
  test('says the same however fast the detector is', async () => {
    const at = await walk(new Slow(() => 0), 100)
    expect(at.flat().length).toBeGreaterThan(12)
    expect(await walk(new Slow((n) => 3 * (n % 7)), 100)).toEqual(at)
    expect(await walk(new Slow(() => 40), 100)).toEqual(at)
  })

  test('a face lies where the head was shown, in analysed pixels', async () => {
    const looks = new Slow(() => 0)
    const [first] = (await walk(looks, 100)).filter((looked) => looked.length)
    const { side, x, y } = looks.shown[0]!.tiles[0]!.from
    expect(first![0]!.face!.x).toBeCloseTo((x + 0.4 * side) / 2, 6)
    expect(first![0]!.face!.h).toBeCloseTo((0.3 * side) / 2, 6)
    expect(first![0]!.face!.y).toBeCloseTo((y + 0.35 * side) / 2, 6)
  })

  test('takes a look every other second at most, and none at small figures', async () => {
    const looks = new Slow(() => 0)
    await walk(looks, 100)
    expect(looks.shown.length).toBeLessThanOrEqual(3 + 24 / 2)
    expect(Math.max(...looks.shown.map(({ tiles }) => tiles.length))).toBeLessThanOrEqual(4)
    const none = new Slow(() => 0)
    await walk(none, 80)
    expect(none.shown).toEqual([])
  })

  test('an error of the detector comes to whoever waits', async () => {
    const broken: Looks = {
      look: () => Promise.resolve([]),
      faces: () => Promise.reject(new Error('the detector ended with code 1'))
    }
    await expect(walk(broken, 100)).rejects.toThrow('the detector ended with code 1')
  })
})
