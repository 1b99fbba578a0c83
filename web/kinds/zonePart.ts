import type { Condition } from './Conditions.tsx'
import type { SentenceOf } from './sentence.ts'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'

/** What a kind of zone says in the sentence that all of them share. */
export interface ZonePart<D extends ZoneDetection> {
  /** What a target does in the zone. */
  verb: string
  /** Whether the share of the body that counts is that in the zone, or that out of it. */
  isInside: boolean
  /** How long they stay, how many there must be. */
  conditions: (props: SentenceOf<D>) => Condition[]
}
