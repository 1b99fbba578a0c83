import * as v from 'valibot'
import { number } from '../../schema/parts.ts'
import { common } from '../parts.ts'

export const SignalLossDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('signalLoss'),
  delaySeconds: v.optional(number(0.5, 600, ' s'), 5)
})

export type SignalLossDetection = v.InferOutput<typeof SignalLossDetectionSchema>
