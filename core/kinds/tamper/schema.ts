import * as v from 'valibot'
import { number } from '../../schema/parts.ts'
import { SEVERITIES, common, sensitivity } from '../parts.ts'

export const TAMPER_CAUSES = ['covered', 'dark', 'washedOut', 'outOfFocus', 'moved'] as const
export const TamperDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('tamper'),
  sensitivity,
  causes: v.optional(
    v.pipe(
      v.array(
        v.picklist(TAMPER_CAUSES, `must be one of ${TAMPER_CAUSES.join(', ')}`),
        'must be a list of causes'
      ),
      v.minLength(1, `must name at least one of ${TAMPER_CAUSES.join(', ')}`)
    ),
    () => [...TAMPER_CAUSES]
  ),
  delaySeconds: v.optional(number(0, 600, ' s'), 3),
  severity: v.optional(v.picklist(SEVERITIES, `must be one of ${SEVERITIES.join(', ')}`), 'major')
})

export type TamperDetection = v.InferOutput<typeof TamperDetectionSchema>
export type TamperCause = (typeof TAMPER_CAUSES)[number]
