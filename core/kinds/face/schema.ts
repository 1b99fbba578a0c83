import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { NAME_MOST, text } from '../../schema/parts.ts'
import { FrameSizeSchema, common, targetGates } from '../parts.ts'

export const FaceDetectionSchema = v.strictObject({
  ...common,
  ...targetGates,
  kind: v.literal('face'),
  /** The smallest face frame. */
  faceMin: v.optional(FrameSizeSchema, () => ({ w: 0.02, h: 0.04 })),
  mask: v.optional(v.picklist(['any', 'with', 'without'], coded('kinds.mustBeAnyWithOr')), 'any'),
  list: v.optional(
    v.picklist(['any', 'listed', 'notListed'], coded('kinds.mustBeAnyListedOr')),
    'any'
  ),
  /** Names of the known faces. */
  faces: v.optional(v.array(text(NAME_MOST), coded('kinds.mustBeAListOf4')), [])
})

export type FaceDetection = v.InferOutput<typeof FaceDetectionSchema>
