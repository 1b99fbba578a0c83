import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { id, number } from '../../schema/parts.ts'
import { common } from '../parts.ts'

export const ContactDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('contact'),
  /** The input of the device; set means that its contact is closed. */
  input: id,
  normally: v.optional(v.picklist(['open', 'closed'], coded('kinds.mustBeOpenOrClosed')), 'open'),
  debounceSeconds: v.optional(number(0, 60, ' s'), 0.1)
})

export type ContactDetection = v.InferOutput<typeof ContactDetectionSchema>
