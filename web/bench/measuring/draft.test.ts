import { describe, expect, test } from '@jest/globals'
import { openCvSees } from '../../../core/scene/testing/openCvSees.ts'
import { draftOf, judge, offOf, withPoint, withoutLast } from './draft.ts'

const pose = { height: 4.2, tilt: 13, fieldOfView: 36, aspect: 16 / 9 }
const seen = openCvSees(
  pose,
  [
    [-2, 7],
    [1.5, 9],
    [-1, 13],
    [2.5, 18]
  ].flatMap(([x, z]): [number, number, number][] => [
    [x!, 0, z!],
    [x!, 1.75, z!]
  ])
)

describe('marks for calibration', () => {
  test('takes clicks from foot to head or head to foot; removes them one by one', () => {
    let draft = draftOf(null)
    for (const at of seen) draft = withPoint(draft, at)
    expect(draft.people).toHaveLength(4)
    const down = withPoint(withPoint(draftOf(null), seen[1]!), seen[0]!)
    expect(down.people).toEqual(draft.people.slice(0, 1))
    draft = withPoint(draft, [0.5, 0.5])
    expect(withoutLast(draft)).toMatchObject({ foot: null, people: { length: 4 } })
    expect(withoutLast(withoutLast(draft)).people).toHaveLength(3)
  })

  test('calibrates what OpenCV projected, and reports a wrong height per person', () => {
    let draft = draftOf(null)
    for (const at of seen) draft = withPoint(draft, at)
    const exact = judge(draft, pose.aspect)
    if (!('measured' in exact)) throw new Error(exact.fault)
    expect(exact.measured.pose.height).toBeCloseTo(4.2, 2)
    expect(offOf(draft, exact.measured).every((off) => Math.abs(off!) < 0.01)).toBe(true)
    const wrong = {
      ...draft,
      fieldOfView: 36,
      people: draft.people.map((p, i) => (i === 2 ? { ...p, metres: 1.4 } : p))
    }
    const told = judge(wrong, pose.aspect)
    if (!('measured' in told)) throw new Error(told.fault)
    const off = offOf(wrong, told.measured).map((o) => Math.abs(o!))
    expect(off.indexOf(Math.max(...off))).toBe(2)
  })

  test('names what is missing', () => {
    const one = withPoint(withPoint(draftOf(null), [0.5, 0.9]), [0.5, 0.6])
    expect(judge(one, 1)).toEqual({
      fault: 'Mark at least 3 people, nearer and farther away; 1 marked so far.'
    })
    expect(judge({ ...one, from: 'rectangle' }, 1)).toEqual({
      fault: 'Mark four corners, in order around the rectangle; 0 marked so far.'
    })
    const flat = {
      ...one,
      people: [0, 1, 2].map(() => ({
        foot: [0.5, 0.9] as const,
        head: [0.5, 0.9] as const,
        metres: 1.75
      }))
    }
    expect(judge(flat, 1)).toEqual({
      fault: 'Person 1 has its head at or below its foot; mark the foot first, then the head.'
    })
  })
})
