import * as v from 'valibot'
import type { Direction } from '../detections/index.ts'
import {
  DETECTION_KINDS,
  DIRECTIONS,
  type DetectionKind,
  type TamperCause
} from '../formats/plan.ts'
import { CLASSES, type TargetClass } from '../targets/classes.ts'
import type { Severity } from '../kinds/parts.ts'

/** Looking triggers up again. */

const id = v.pipe(v.string('must be a text'), v.maxLength(64, 'is longer than 64 characters'))
const instant = v.pipe(
  v.string('must be an instant'),
  v.regex(/^\d{1,13}$/, 'must be an instant in milliseconds'),
  v.transform(Number)
)

/** What is looked for; as it stands in an address, so that a search can be kept and sent. */
export const SearchSchema = v.object({
  camera: v.optional(id),
  detection: v.optional(id),
  alarm: v.optional(
    v.pipe(
      v.string('must be a number'),
      v.regex(/^\d{1,15}$/, 'must be the number of an alarm'),
      v.transform(Number)
    )
  ),
  kind: v.optional(v.picklist(DETECTION_KINDS, `must be one of ${DETECTION_KINDS.join(', ')}`)),
  class: v.optional(v.picklist(CLASSES, `must be one of ${CLASSES.join(', ')}`)),
  direction: v.optional(
    v.picklist(
      DIRECTIONS.filter((d) => d !== 'both'),
      'must be leftToRight or rightToLeft'
    )
  ),
  /** Between named sides, `Water → Land`. */
  way: v.optional(
    v.pipe(v.string('must be a text'), v.maxLength(90, 'is longer than 90 characters'))
  ),
  /** At or after, and before. */
  from: v.optional(instant),
  to: v.optional(instant),
  acknowledged: v.optional(v.picklist(['yes', 'no'], 'must be yes or no')),
  /** Words of comments; the last one may be begun only. */
  words: v.optional(
    v.pipe(v.string('must be a text'), v.maxLength(200, 'is longer than 200 characters'))
  )
})
export type Search = v.InferOutput<typeof SearchSchema>

/** Where a page begins: after the trigger of this instant and id. */
export const PageSchema = v.object({
  ...SearchSchema.entries,
  after: v.optional(
    v.pipe(
      v.string('must be a place'),
      v.regex(/^\d{1,13}\.\d{1,15}$/, 'must be the place that the last page gave')
    )
  )
})

export interface FoundTrigger {
  id: number
  camera: string
  detection: string
  name: string
  kind: DetectionKind
  class: TargetClass | null
  direction: Direction | null
  way: string | null
  cause: TamperCause | null
  severity: Severity | null
  at: number
  alarm: number | null
  acknowledged: boolean
  /** From a run of a clip. */
  clip: boolean
}

export interface SearchView {
  triggers: FoundTrigger[]
  /** Where the next page begins; null: there is none. */
  next: string | null
}

export interface CountsView {
  /** Milliseconds that one bucket takes. */
  step: number
  buckets: { at: number; n: number }[]
  total: number
}
