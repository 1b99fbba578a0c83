import { noLongerThan, oneOf } from '../schema/parts.ts'
import { coded } from '../messages/said.ts'
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

const id = v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(64))
const instant = v.pipe(
  v.string(coded('watch.mustBeAnInstant')),
  v.regex(/^\d{1,13}$/, coded('input.mustBeAnInstantIn')),
  v.transform(Number)
)

/** What is looked for; as it stands in an address, so that a search can be kept and sent. */
export const SearchSchema = v.object({
  camera: v.optional(id),
  detection: v.optional(id),
  alarm: v.optional(
    v.pipe(
      v.string(coded('input.mustBeANumber')),
      v.regex(/^\d{1,15}$/, coded('watch.mustBeTheNumberOf')),
      v.transform(Number)
    )
  ),
  kind: v.optional(oneOf(DETECTION_KINDS)),
  class: v.optional(oneOf(CLASSES)),
  direction: v.optional(
    v.picklist(
      DIRECTIONS.filter((d) => d !== 'both'),
      coded('input.mustBeLefttorightOrRighttoleft')
    )
  ),
  /** Between named sides, `Water → Land`. */
  way: v.optional(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(90))),
  /** At or after, and before. */
  from: v.optional(instant),
  to: v.optional(instant),
  acknowledged: v.optional(v.picklist(['yes', 'no'], coded('watch.mustBeYesOrNo'))),
  /** Words of comments; the last one may be begun only. */
  words: v.optional(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(200)))
})
export type Search = v.InferOutput<typeof SearchSchema>

/** Where a page begins: after the trigger of this instant and id. */
export const PageSchema = v.object({
  ...SearchSchema.entries,
  after: v.optional(
    v.pipe(
      v.string(coded('watch.mustBeAPlace')),
      v.regex(/^\d{1,13}\.\d{1,15}$/, coded('watch.mustBeThePlaceThat'))
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
