import type { Detection } from '../formats/plan.ts'
import { judge, placeMarks } from '../marks/judge.ts'
import type { Mark } from '../marks/marks.ts'
import type { Scale } from './scales.ts'
import { nearShape, rowsOfTargets, triggersOfMany, type Place, type Stretch } from './stretches.ts'

/** How many triggers a detection would have with one value of a setting, by what marks say of them. */
export interface Swept {
  value: number
  wanted: number
  nuisance: number
  unmarked: number
}

/** The values of a sweep: those that are tried first, over the whole range, and the present one. */
export const sweepValues = (scale: Scale, d: Detection): number[] =>
  [...new Set([...scale.coarse, scale.get(d)])].sort((a, b) => a - b)

/**
 * Evaluates a detection with each value of one setting, the others as they are. No mark is needed: then all triggers are
 * unmarked.
 *
 * @param values ascending
 * @returns in order of value
 */
export function sweep(
  place: Place,
  detection: Detection,
  scale: Scale,
  values: readonly number[],
  stretches: readonly Stretch[],
  marks: readonly Mark[]
): Swept[] {
  const placed = placeMarks(
    marks,
    stretches.map(({ tracks }) => tracks)
  )
  // Of a setting that is a number the shape stays, and so what is away from it counts for no value.
  const parts = stretches.map((stretch, file) => {
    const near = nearShape(stretch.tracks, detection, 0)
    return {
      stretch: { ...stretch, tracks: rowsOfTargets(stretch.tracks, (id) => near.has(id)) },
      marks: placed.filter((mark) => mark.file === file)
    }
  })
  // All values in one pass over the rows: reading them costs as much as judging them.
  const many = values.map((value, i) => ({ ...scale.set(detection, value), id: String(i) }))
  const found: Swept[] = values.map((value) => ({ value, wanted: 0, nuisance: 0, unmarked: 0 }))
  for (const { stretch, marks } of parts)
    for (const [id, triggers] of triggersOfMany(place, many, stretch))
      for (const mark of judge(triggers, marks).ofTrigger)
        found[Number(id)]![mark?.mark ?? 'unmarked']++
  return found
}
