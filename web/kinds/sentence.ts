import type { ComponentType } from 'react'
import type { Detection } from '../../core/formats/plan.ts'
import type { SeenSize } from '../../core/tuning/sizes.ts'
import type { ZoneStay } from '../../core/tuning/stays.ts'
import type { SiteInput } from '../../core/api.ts'
import type { BenchDocument } from '../bench/document.ts'
import type { Condition } from './Conditions.tsx'

/** What a kind's own part of the sentence is made from. */
export interface SentenceOf<D extends Detection = Detection> {
  detection: D
  document: BenchDocument
  inputs: readonly SiteInput[]
  /** How long the clip's targets stay in the detection's zone; null: no clip, or not known yet. */
  stays: readonly ZoneStay[] | null
  /** How large the clip's targets are; null: no clip, or not known yet. */
  sizes: readonly SeenSize[] | null
  /** The scene is measured: sizes can be in metres. */
  measured: boolean
}

/** A kind in the sentence: what must happen, and the conditions that may be left at their defaults. */
export interface KindSentence<D extends Detection> {
  What: ComponentType<SentenceOf<D>>
  conditions?: (props: SentenceOf<D>) => Condition[]
}
