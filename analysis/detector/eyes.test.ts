import { describe, expect, test } from '@jest/globals'
import type { Blob } from '../foreground.ts'
import { Followed } from '../target.ts'
import { Tracker } from '../tracker.ts'
import { Eyes } from './eyes.ts'
import type { Looks, Shown } from './inWorker.ts'
import type { Detected } from './objects.ts'

const [FPS, SIZE, LARGE] = [10, { width: 320, height: 180 }, { width: 640, height: 360 }]
const patch = (x: number, y: number, w = 14, h = 40): Blob => ({
  ...{ x, y, w, h, area: w * h, colours: new Float32Array(48).fill(1 / 48) },
  wavers: false
})

const noFaces = (): Promise<[]> => Promise.resolve([])

/** A detector that sees a person in the middle of every tile, after as long as it is told. */
class Slow implements Looks {
  readonly questions: Shown[] = []
  readonly faces = noFaces
  private readonly turns: (n: number) => number
  constructor(turns: (n: number) => number) {
    this.turns = turns
  }
  async look(question: Shown): Promise<Detected[]> {
    this.questions.push(question)
    for (let n = this.turns(this.questions.length); n > 0; n--)
      await new Promise((resolve) => setImmediate(resolve))
    return question.tiles.map(({ to: { x, y, side } }) => ({
      x: x + 0.4 * side,
      y: y + 0.25 * side,
      w: 0.2 * side,
      h: 0.5 * side,
      cls: 'person' as const,
      likelihood: 0.6
    }))
  }
}

/** Ten walkers, one every two seconds, each for eight. */
async function walk(looks: Looks): Promise<{ targets: Followed[]; eyes: Eyes }> {
  const [tracker, eyes] = [new Tracker(FPS), new Eyes(looks, FPS, SIZE)]
  for (let frame = 1; frame <= 300; frame++) {
    const patches: Blob[] = []
    for (let i = 0; i < 10; i++) {
      const age = frame - 1 - 20 * i
      if (age >= 0 && age < 80) patches.push(patch(60 + 2 * age, 30 + 9 * i))
    }
    tracker.step(patches, frame)
    if (frame % 2) await eyes.next(frame, new Uint8Array(0), LARGE, tracker.following)
  }
  await eyes.finish()
  return { targets: tracker.finish(), eyes }
}
const told = (targets: readonly Followed[]) => targets.map((t) => [t.rows[0]!.frame, t.told])

describe('looking beside the tracker', () => {
  test('says the same however fast the detector is', async () => {
    const at = await walk(new Slow(() => 0))
    const late = await walk(new Slow((n) => 3 * (n % 7)))
    const later = await walk(new Slow(() => 40))
    expect(told(late.targets)).toEqual(told(at.targets))
    expect(told(later.targets)).toEqual(told(at.targets))
  })
  test('every walker is looked at within a second, and no more looks are spent than are allowed', async () => {
    const looks = new Slow(() => 0)
    const { targets, eyes } = await walk(looks)
    const walkers = targets.filter(({ seen }) => seen > 40)
    expect(walkers.length).toBeGreaterThanOrEqual(8)
    for (const { rows, told: answers } of walkers) {
      expect(answers[0]!.cls).toBe('person')
      expect(answers[0]!.frame - rows[0]!.frame).toBeLessThanOrEqual(FPS)
    }
    // Half a look a second, and six that were saved up.
    expect(eyes.count).toBe(looks.questions.length)
    expect(eyes.count).toBeLessThanOrEqual(300 / FPS / 2 + 6)
  })
  test('one that is half out of the picture is looked at once, not again and again', async () => {
    const looks = new Slow(() => 0)
    const [tracker, eyes] = [new Tracker(FPS), new Eyes(looks, FPS, SIZE)]
    for (let frame = 1; frame <= 60; frame++) {
      tracker.step([patch(-6, 60), patch(310, 150)], frame)
      await eyes.next(frame, new Uint8Array(0), LARGE, tracker.following)
    }
    await eyes.finish()
    // At first, and once more as too little was said of them.
    expect(eyes.count).toBeLessThanOrEqual(2)
  })
  test('an error of the detector reaches whoever analyses', async () => {
    const broken: Looks = { look: () => Promise.reject(new Error('no more')), faces: noFaces }
    await expect(walk(broken)).rejects.toThrow('no more')
  })
})
