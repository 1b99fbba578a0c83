import { type FieldNames, problemWords } from '../../../core/messages/errorWords.ts'
import { draft as msg } from '../../../core/messages/en/bench/measuring.ts'
import { InputError } from '../../../core/errors.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { heightsSeen, type Measured, type PersonMark } from '../../../core/scene/measure.ts'
import { SceneMarksSchema, measureScene, type SceneMarks } from '../../../core/scene/marks.ts'
import { parseWith } from '../../../core/schema/parse.ts'

export type DraftPerson = PersonMark

/** Marks on their way to a calibrated scene. */
export interface Draft {
  from: 'people' | 'rectangle'
  people: DraftPerson[]
  /** Degrees, where the lens is known. */
  fieldOfView: number | null
  corners: Point[]
  width: number
  depth: number
  foot: Point | null
}

/** How tall a person is taken to be until somebody says otherwise. */
export const USUAL_HEIGHT = 1.75

export function draftOf(marks: SceneMarks | null): Draft {
  const empty: Draft = {
    from: 'people',
    people: [],
    fieldOfView: null,
    corners: [],
    width: 5,
    depth: 2.5,
    foot: null
  }
  if (!marks) return empty
  if (marks.from === 'people')
    return { ...empty, people: marks.people, fieldOfView: marks.fieldOfView ?? null }
  return {
    ...empty,
    from: 'rectangle',
    corners: marks.corners,
    width: marks.width,
    depth: marks.depth
  }
}

export const marksOf = (
  { from, people, fieldOfView, corners, width, depth }: Draft,
  aspect: number
): SceneMarks =>
  from === 'people'
    ? { from, aspect, people, ...(fieldOfView !== null && { fieldOfView }) }
    : { from, aspect, corners, width, depth }

/**
 * A lens of 4 mm before a sensor of 1/2.8 inch sees so much up and down, in degrees (its picture is
 * 2.9 mm high); common practice.
 */
export const USUAL_LENS = 40

/** What the marks so far tell, or why they do not. */
export function judge(
  draft: Draft,
  aspect: number
): { measured: Measured; marks: SceneMarks } | { fault: string } {
  try {
    const marks = marksOf(draft, aspect)
    const measured = measureScene(marks)
    return { measured, marks: parseWith(SceneMarksSchema, marks) }
  } catch (error) {
    if (error instanceof InputError) return { fault: problemWords(error, namesOf(error.place)) }
    throw error
  }
}

/** A person or a corner is called by its number in the list, which counts from 1. */
function namesOf(place: string): FieldNames {
  const [, list, index] = /^(marks|corners)\[(\d+)\]/.exec(place) ?? []
  if (index === undefined) return {}
  const n = Number(index) + 1
  return list === 'marks' ? { marks: msg.person(n) } : { corners: msg.corner(n) }
}

/** How many metres taller (or shorter, negative) the fit sees each person than is said. */
export const offOf = (draft: Draft, measured: Measured | null): (number | null)[] =>
  draft.from !== 'people' || !measured
    ? draft.people.map(() => null)
    : heightsSeen(draft.people, measured.pose).map((seen, i) =>
        seen === null ? null : seen - draft.people[i]!.metres
      )

/** A click: a foot, then the head above it; or a corner. */
export function withPoint(draft: Draft, at: Point): Draft {
  if (draft.from === 'rectangle')
    return draft.corners.length < 4 ? { ...draft, corners: [...draft.corners, at] } : draft
  if (!draft.foot) return { ...draft, foot: at }
  // From head to foot or from foot to head: the lower one is the foot.
  const [foot, head] = draft.foot[1] >= at[1] ? [draft.foot, at] : [at, draft.foot]
  return { ...draft, foot: null, people: [...draft.people, { foot, head, metres: USUAL_HEIGHT }] }
}

export function withoutLast(draft: Draft): Draft {
  if (draft.foot) return { ...draft, foot: null }
  return draft.from === 'people'
    ? { ...draft, people: draft.people.slice(0, -1) }
    : { ...draft, corners: draft.corners.slice(0, -1) }
}
