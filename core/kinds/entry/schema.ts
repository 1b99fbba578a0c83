import * as v from 'valibot'
import { ZoneSchema } from '../../schema/parts.ts'
import { gates } from '../parts.ts'

export const EntryDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('entry'),
  zone: ZoneSchema
})

export type EntryDetection = v.InferOutput<typeof EntryDetectionSchema>
