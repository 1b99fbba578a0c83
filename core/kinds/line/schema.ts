import * as v from 'valibot'
import { LineSchema, oneOf, text } from '../../schema/parts.ts'
import { gates } from '../parts.ts'

export const DIRECTIONS = ['leftToRight', 'rightToLeft', 'both'] as const

export const LineDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('line'),
  line: LineSchema,
  direction: v.optional(oneOf(DIRECTIONS), 'both'),
  sides: v.optional(v.strictObject({ left: v.optional(text(40)), right: v.optional(text(40)) }))
})

export type LineDetection = v.InferOutput<typeof LineDetectionSchema>
