import * as v from 'valibot'
import { ZoneSchema, number } from '../../schema/parts.ts'
import { atLeast, countFirstSeenInside, gates } from '../parts.ts'

export const LoiteringDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('loitering'),
  zone: ZoneSchema,
  dwellSeconds: number(1, 3600, ' s'),
  graceSeconds: v.optional(number(0, 120, ' s'), 10),
  countFirstSeenInside,
  atLeast
})

export type LoiteringDetection = v.InferOutput<typeof LoiteringDetectionSchema>
