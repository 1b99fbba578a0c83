import * as v from 'valibot'
import { ZoneSchema } from '../../schema/parts.ts'
import { gates } from '../parts.ts'

export const ExitDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('exit'),
  zone: ZoneSchema
})

export type ExitDetection = v.InferOutput<typeof ExitDetectionSchema>
