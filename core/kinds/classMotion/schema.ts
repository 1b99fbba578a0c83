import * as v from 'valibot'
import { motion, targetGates } from '../parts.ts'

export const ClassMotionDetectionSchema = v.strictObject({
  ...motion,
  ...targetGates,
  kind: v.literal('classMotion')
})

export type ClassMotionDetection = v.InferOutput<typeof ClassMotionDetectionSchema>
