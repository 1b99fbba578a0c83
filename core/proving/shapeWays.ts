import type { Said } from '../messages/said.ts'
import type { Direction } from '../detections/types.ts'
import type { Gap } from './drafts.ts'
import type { Way } from './stage.ts'

/** What a walk on a shape is to do, as a way that can be walked; null: it cannot. */
export interface Ways {
  /** Those that count, with the direction of a line where it has two. */
  counts: { way: Way; key: string; name: Said; direction?: Direction }[]
  /** The wrong way. */
  wrong: { way: Way; name: Said }[]
  beside: Way | null
  deep: Way | null
  shallow: Way | null
  gaps: Gap[]
}
