import * as v from 'valibot'
import { motion } from '../parts.ts'

export const MotionDetectionSchema = v.strictObject({
  ...motion,
  kind: v.literal('motion')
})

export type MotionDetection = v.InferOutput<typeof MotionDetectionSchema>
