import { oneOf } from '../../schema/parts.ts'
import * as v from 'valibot'
import { ofDevice, whole } from './parts.ts'

export const STROBE_PATTERNS = ['slow', 'medium', 'fast', 'steady'] as const

/** Ranges: docs/references.md, facts of the trade (common practice, no source). */
export const StrobeSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('strobe'),
  seconds: whole(1, 60, ' s'),
  pattern: oneOf(STROBE_PATTERNS)
})

/** What it does when it runs, as a device's items (docs/device-extension.md). */
export const strobeSettings = ({
  seconds,
  pattern
}: v.InferOutput<typeof StrobeSchema>): Record<string, string> => ({
  Time: `PT${seconds}S`,
  Pattern: pattern
})
