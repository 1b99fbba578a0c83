import { describe, expect, test } from '@jest/globals'
import { demoPlay } from '../demo/scenes.ts'
import { spansOf } from '../core/targets/tracks.ts'
import { armInputsOf, trueTracks } from './evidence.ts'
import { Noise, defocus } from './sensor.ts'

const gray = (
  width: number,
  height: number,
  at: (x: number, y: number) => number
): Uint8ClampedArray => {
  const pixels = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      pixels.set([at(x, y), at(x, y), at(x, y), 255], 4 * (y * width + x))
  return pixels
}
const values = (pixels: Uint8ClampedArray): number[] =>
  Array.from({ length: pixels.length / 4 }, (_, i) => pixels[4 * i]!)
const mean = (list: number[]): number => list.reduce((a, b) => a + b, 0) / list.length

describe('a sensor’s noise', () => {
  test('has its stated standard deviation, no bias, and is the same in all colours', () => {
    const pixels = gray(100, 100, () => 128)
    new Noise(5, 3).add(pixels)
    const list = values(pixels)
    expect(Math.abs(mean(list) - 128)).toBeLessThan(0.15)
    expect(Math.sqrt(mean(list.map((v) => (v - 128) ** 2)))).toBeCloseTo(3, 0)
    for (let i = 0; i < pixels.length; i += 4)
      expect([pixels[i + 1], pixels[i + 2], pixels[i + 3]]).toEqual([pixels[i], pixels[i], 255])
  })

  test('stays between black and white and leaves opacity alone', () => {
    const noiseOver = (rgba: number[]): Uint8ClampedArray => {
      const pixels = new Uint8ClampedArray(4 * 5000).map((_, i) => rgba[i % 4]!)
      new Noise(9, 3).add(pixels)
      return pixels
    }
    const grain = noiseOver([128, 128, 128, 255])
    const found = noiseOver([1, 127, 254, 200])
    for (let i = 0; i < found.length; i += 4) {
      const by = grain[i]! - 128
      expect([...found.subarray(i, i + 4)]).toEqual([
        Math.max(0, 1 + by),
        127 + by,
        Math.min(255, 254 + by),
        200
      ])
    }
  })

  test('differs by picture and repeats for the same seed', () => {
    const two = (seed: number): number[][] => {
      const noise = new Noise(seed, 3)
      return [0, 1].map(() => {
        const pixels = gray(20, 20, () => 100)
        noise.add(pixels)
        return values(pixels)
      })
    }
    const [first, second] = two(7)
    expect(first).not.toEqual(second)
    expect(two(7)).toEqual([first, second])
  })
})

describe('a lens out of focus', () => {
  test('keeps the mean and removes fine contrast', () => {
    const stripes = gray(64, 32, (x) => (x % 2 ? 200 : 50))
    defocus(stripes, 64, 32, 3)
    // The border repeats its own pixels; what is said of contrast holds within.
    const list = values(stripes).filter((_, i) => i % 64 >= 10 && i % 64 < 54)
    expect(Math.abs(mean(list) - 125)).toBeLessThan(3)
    expect(Math.max(...list) - Math.min(...list)).toBeLessThan(15)
  })

  test('spreads a point evenly to all sides', () => {
    const point = gray(41, 41, (x, y) => (x === 20 && y === 20 ? 255 : 0))
    for (let i = 0; i < 3; i++)
      point.set(gray(41, 41, (x, y) => (Math.abs(x - 20) < 4 && Math.abs(y - 20) < 4 ? 255 : 0)))
    defocus(point, 41, 41, 3)
    const at = (x: number, y: number): number => point[4 * (y * 41 + x)]!
    for (const d of [3, 6, 9])
      expect(new Set([at(20 + d, 20), at(20 - d, 20), at(20, 20 + d), at(20, 20 - d)]).size).toBe(1)
    expect(at(20, 20)).toBeGreaterThan(at(26, 20))
    expect(at(26, 20)).toBeGreaterThan(at(30, 20))
  })
})

describe('truth of a made clip', () => {
  test('has true targets with faces, one per actor', () => {
    const play = demoPlay('waiting-room', 'morning')
    const tracks = trueTracks(play)
    expect(spansOf(tracks).map((s) => s.cls)).toEqual(['person', 'person', 'person', 'person'])
    const faces = [...tracks.faces!.values()]
    expect(new Set(faces.map((f) => f.name))).toEqual(new Set(['Isla Brae', 'Rowan Skea', null]))
    expect(faces.some((f) => f.mask) && faces.some((f) => f.mask === false)).toBe(true)
  })

  test('has its contacts, relative to the clip’s start', () => {
    const inputs = armInputsOf(demoPlay('waiting-room', 'night'), 1_000_000)
    expect(inputs.door).toEqual([
      { at: 1_000_000, set: true },
      { at: 1_008_000, set: false },
      { at: 1_011_000, set: true }
    ])
    expect(inputs.panel).toEqual([{ at: 1_000_000, set: true }])
  })
})
