import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { number, oneOf } from '../../schema/parts.ts'
import { SEVERITIES, common, sensitivity } from '../parts.ts'

export const TAMPER_CAUSES = ['covered', 'dark', 'washedOut', 'outOfFocus', 'moved'] as const
export const TamperDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('tamper'),
  sensitivity,
  causes: v.optional(
    v.pipe(
      v.array(oneOf(TAMPER_CAUSES), coded('kinds.mustBeAListOf3')),
      v.minLength(1, coded('kinds.mustNameAtLeastOne', TAMPER_CAUSES.join(', ')))
    ),
    () => [...TAMPER_CAUSES]
  ),
  delaySeconds: v.optional(number(0, 600, ' s'), 3),
  severity: v.optional(oneOf(SEVERITIES), 'major')
})

export type TamperDetection = v.InferOutput<typeof TamperDetectionSchema>
export type TamperCause = (typeof TAMPER_CAUSES)[number]
