import { describe, expect, test } from '@jest/globals'
import { tracksFromRows, type TargetRow } from '../targets/tracks.ts'
import type { CameraPose } from './camera.ts'
import { measureScene } from './marks.ts'
import { peopleOf } from './peopleOf.ts'
import { openCvSees } from './testing/openCvSees.ts'

const pose: CameraPose = { height: 4.2, tilt: 14, fieldOfView: 40, aspect: 16 / 9 }

/** Somebody of 1.75 m who comes nearer, and a van and a dog, as OpenCV sees them. */
function clip(noise = 0) {
  const rows: TargetRow[] = []
  const frames = 60
  const seen = openCvSees(
    pose,
    Array.from({ length: frames }, (_, i) => i).flatMap((i): [number, number, number][] => {
      const [x, z] = [-2 + 0.06 * i, 20 - 0.2 * i]
      return [
        [x, 0, z],
        [x, 1.75, z]
      ]
    })
  )
  for (let i = 0; i < frames; i++) {
    const [[fx, fy], [, hy]] = [seen[2 * i]!, seen[2 * i + 1]!]
    const off = noise * Math.sin(i * 12.9898)
    rows.push({
      frame: i + 1,
      id: 1,
      x: fx - 0.02,
      y: hy + off,
      w: 0.04,
      h: fy - hy,
      cls: 'person',
      confidence: 1
    })
    rows.push({
      frame: i + 1,
      id: 2,
      x: 0.6,
      y: 0.6,
      w: 0.2,
      h: 0.15,
      cls: 'vehicle',
      confidence: 1
    })
    rows.push({
      frame: i + 1,
      id: 3,
      x: 0.2,
      y: 0.7,
      w: 0.06,
      h: 0.05,
      cls: 'animal',
      confidence: 1
    })
  }
  return tracksFromRows(rows, 10)
}

describe('people of a clip as marks', () => {
  test('takes whole persons inside the picture, far to near', () => {
    const people = peopleOf(clip(), 1.75)
    expect(people.length).toBeGreaterThanOrEqual(8)
    expect(people.every((p) => p.metres === 1.75 && p.head[1] < p.foot[1])).toBe(true)
    for (let i = 1; i < people.length; i++)
      expect(people[i]!.foot[1]).toBeGreaterThan(people[i - 1]!.foot[1])
    expect(people.every((p) => p.foot[1] < 0.99)).toBe(true)
  })

  test('calibrate the scene OpenCV projected them with', () => {
    const { pose: found } = measureScene({
      from: 'people',
      aspect: pose.aspect,
      fieldOfView: 40,
      people: peopleOf(clip(0.002), 1.75)
    })
    expect(Math.abs(found.height - 4.2)).toBeLessThan(0.25)
    expect(Math.abs(found.tilt - 14)).toBeLessThan(1.2)
  })

  test('are none in a clip without people', () =>
    expect(peopleOf(tracksFromRows([], 10), 1.75)).toEqual([]))
})
