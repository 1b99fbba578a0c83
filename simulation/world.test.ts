import { describe, expect, test } from '@jest/globals'
import { createCanvas } from '@napi-rs/canvas'
import { slipwayMorning } from '../demo/slipway.ts'
import type { Painter2D } from './figures.ts'
import { paint } from './painter.ts'
import { randomFrom } from './random.ts'
import { poseAt, truth, type Actor } from './world.ts'

const walker: Actor = { id: 1, kind: 'adult', from: 2, speed: 2, height: 1.8, colours: { top: '#000', legs: '#000', hair: '#000' }, way: [{ x: 0, z: 10 }, { x: 4, z: 10, pause: 1 }, { x: 4, z: 16 }] }

describe('actors', () => {
  test('walk their way at their speed, pause, and are gone at its end', () => {
    expect(poseAt(walker, 1.9)).toBeNull()
    expect(poseAt(walker, 3)).toMatchObject({ at: { x: 2, z: 10 }, heading: [1, 0], moving: true, walked: 2 })
    expect(poseAt(walker, 4.5)).toMatchObject({ at: { x: 4, z: 10 }, moving: false, walked: 4 })
    expect(poseAt(walker, 6)).toMatchObject({ at: { x: 4, z: 12 }, heading: [0, 1], moving: true })
    expect(poseAt(walker, 8.1)).toBeNull()
  })

  test('the true box stands on the ground and shrinks with the distance', () => {
    const script = { ...slipwayMorning, actors: [{ ...walker, way: [{ x: 0, z: 8 }, { x: 0, z: 30 }], from: 0 }] }
    const boxes = [0, 3, 6, 9].map((t) => truth(script, t)[0].box)
    for (let i = 1; i < boxes.length; i++) {
      expect(boxes[i].h).toBeLessThan(boxes[i - 1].h)
      expect(boxes[i].y + boxes[i].h).toBeLessThan(boxes[i - 1].y + boxes[i - 1].h)
    }
  })
})

describe('painting', () => {
  const picture = (seconds: number, script = slipwayMorning) => {
    const canvas = createCanvas(script.width, script.height)
    const g = canvas.getContext('2d')
    paint(g as unknown as Painter2D, script, seconds)
    return g.getImageData(0, 0, script.width, script.height).data
  }
  const differences = (a: Uint8ClampedArray, b: Uint8ClampedArray, box: { x: number; y: number; w: number; h: number }) => {
    const { width, height } = slipwayMorning
    let inside = 0
    let outside = 0
    for (let i = 0; i < a.length; i += 4) {
      if (Math.abs(a[i] - b[i]) + Math.abs(a[i + 1] - b[i + 1]) + Math.abs(a[i + 2] - b[i + 2]) < 30) continue
      const [x, y] = [((i / 4) % width) / width, Math.floor(i / 4 / width) / height]
      if (x >= box.x - 0.03 && x <= box.x + box.w + 0.03 && y >= box.y - 0.03 && y <= box.y + box.h + 0.03) inside++
      else outside++
    }
    return { inside, outside }
  }

  test('is the same for the same moment', () => {
    expect(Buffer.compare(Buffer.from(picture(10)), Buffer.from(picture(10)))).toBe(0)
  })

  test('an actor is painted where the truth says it is', () => {
    const empty = { ...slipwayMorning, actors: [] }
    for (const actor of slipwayMorning.actors.filter((a) => a.kind !== 'gull')) {
      const alone = { ...slipwayMorning, actors: [actor] }
      const moment = actor.from + 4
      const [target] = truth(alone, moment)
      const { inside, outside } = differences(picture(moment, alone), picture(moment, empty), target.box)
      expect(inside).toBeGreaterThan(0.15 * target.box.w * target.box.h * slipwayMorning.width * slipwayMorning.height)
      expect(outside).toBe(0)
    }
  })

  test('random numbers are the same for a seed, spread over 0 to 1, and others for another', () => {
    const take = (seed: number) => Array.from({ length: 2000 }, randomFrom(seed))
    expect(take(7)).toEqual(take(7))
    expect(take(8)).not.toEqual(take(7))
    const values = take(7)
    expect(Math.abs(values.reduce((a, b) => a + b) / values.length - 0.5)).toBeLessThan(0.03)
    expect(Math.min(...values)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...values)).toBeLessThan(1)
  })
})
