import { noLongerThan } from '../schema/parts.ts'
import { coded, type Said } from '../messages/said.ts'
import * as v from 'valibot'
import type { Versioned } from '../api.ts'
import { CheckSchema, type About, type Check } from '../formats/check.ts'
import type { Verdict, totals } from './judge.ts'
import type { Coverage } from './standing.ts'

/** What the server and the browser say to each other about proving. Instants are milliseconds of UTC. */

/** What became of a check when it was last run. */
export interface ResultView {
  run: number
  passed: boolean
  /** Under the settings as they are now; otherwise it is out of date. */
  current: boolean
  sentence: Said | string
  at: number
}

export interface SavedCheck extends Versioned {
  camera: string
  check: Check
  last: ResultView | null
}

export interface ProvingView {
  checks: SavedCheck[]
  /** Proposed and not kept, or kept otherwise (`replaces`: its version). */
  proposals: { camera: string; check: Check; replaces: number | null }[]
  /** Detections whose checks are still being worked out. */
  proposing: number
  /** Detections whose checks nobody has asked to be worked out yet. */
  unasked: number
  gaps: {
    camera: string
    detection: string
    about: About
    side: 'inside' | 'outside'
    words: Said
  }[]
  coverage: { camera: string; detection: string; gates: Coverage[] }[]
  /** Of the results that are not out of date; null: there are none. */
  totals: ReturnType<typeof totals> | null
  run: ProofRunView | null
  /**
   * By camera, where walks are walked: a simulated scene, or bare ground under a measured camera.
   * Left out: neither is there.
   */
  scenes: Record<string, { scene: unknown; painted: boolean }>
}

/** A check that went another way than the time before, and what was changed in between. */
export interface Turn {
  camera: string
  check: string
  name: Said | string
  /** Newest first. */
  since: { label: Said | string; by: string; at: number }[]
}

export interface ProofRunView {
  id: number
  state: 'running' | 'stopped' | 'finished'
  asked: number
  done: number
  passed: number
  failed: number
  startedAt: number
  endedAt: number | null
  by: string
  better: Turn[]
  worse: Turn[]
}

/** One result, whole: the check as it was then. */
export interface ProofResultView {
  run: number
  at: number
  settings: string
  check: Check
  verdict: Verdict
}

const version = v.pipe(
  v.number(coded('input.mustBeANumber')),
  v.integer(coded('input.mustBeAWholeNumber')),
  v.minValue(0, coded('input.mustBe0OrMore'))
)
export const SaveCheckSchema = v.strictObject({ version, check: CheckSchema })
const named = v.array(
  v.strictObject({
    camera: v.pipe(v.string(coded('proving.mustBeTheIdOf')), noLongerThan(64)),
    check: v.pipe(v.string(coded('proving.mustBeTheIdOf2')), noLongerThan(120))
  }),
  coded('proving.mustBeAListOf')
)
/** Left out: all. */
export const NamedChecksSchema = v.strictObject({ checks: v.optional(named) })
export type NamedCheck = v.InferOutput<typeof named>[number]
