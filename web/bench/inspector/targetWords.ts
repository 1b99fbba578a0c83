import { targetName } from '../../../core/messages/en/common.ts'
import { classes } from '../../../core/messages/en/codes/conditions.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'

/** What a target is called, by the class that it has in its clip. */
export const targetWords = (spans: readonly TargetSpan[], id: number): string =>
  targetName(classes[spans.find((s) => s.id === id)?.cls ?? 'unknown'], id)
