import * as v from 'valibot'
import { ZoneSchema } from '../../schema/parts.ts'
import { atLeast, countFirstSeenInside, dwellSeconds, gates } from '../parts.ts'

export const IntrusionDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('intrusion'),
  zone: ZoneSchema,
  dwellSeconds: v.optional(dwellSeconds, 0),
  countFirstSeenInside,
  atLeast
})

export type IntrusionDetection = v.InferOutput<typeof IntrusionDetectionSchema>
