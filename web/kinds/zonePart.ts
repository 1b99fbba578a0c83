import type { ReactNode } from 'react'
import type { SentenceOf } from './sentence.ts'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'

/** What a kind of zone says in the sentence that all of them share. */
export interface ZonePart<D extends ZoneDetection> {
  /** How many of them. */
  before: (props: SentenceOf<D>) => ReactNode
  /** What a target does in the zone. */
  verb: string
  /** Where the share of the body must be. */
  where: 'in' | 'out of'
  /** How long they stay. */
  after: (props: SentenceOf<D>) => ReactNode
}
