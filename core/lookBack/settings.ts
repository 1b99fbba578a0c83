import * as v from 'valibot'
import { coded, type Said } from '../messages/said.ts'
import { id } from '../schema/parts.ts'

/** What a site keeps of what its cameras report, and for how long. */
export const LookBackSettingsSchema = v.strictObject({
  days: v.pipe(
    v.number(coded('server.mustBeAWholeNumber')),
    v.integer(coded('server.mustBeAWholeNumber')),
    v.minValue(1, coded('server.mustBeAWholeNumber')),
    v.maxValue(3650, coded('server.mustBeAWholeNumber'))
  ),
  gigabytes: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.minValue(0.1, coded('server.mustBeAtLeast01')),
    v.maxValue(10_000, coded('input.mustBeAtMost10000'))
  ),
  /** Cameras of which nothing is kept. */
  without: v.array(id),
  /** Cameras whose pictures are analysed here, where their devices do not report what is in them. */
  analysed: v.optional(v.array(id), [])
})
export type LookBackSettings = v.InferOutput<typeof LookBackSettingsSchema>

export const DEFAULT_LOOK_BACK: LookBackSettings = {
  days: 14,
  gigabytes: 5,
  without: [],
  analysed: []
}

export const SaveLookBackSchema = v.strictObject({
  version: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.integer(coded('input.mustBeAWholeNumber')),
    v.minValue(0, coded('input.mustBe0OrMore'))
  ),
  lookBack: LookBackSettingsSchema
})

/** How the analysis of a camera's pictures goes. */
export interface AnalysisView {
  camera: string
  state:
    | 'running'
    /** It begins with the next picture. */
    | 'starting'
    /** This machine can do no more at once. */
    | 'waiting'
    /** Its device reports targets: these are kept. */
    | 'reports'
    /** No device that can be reached shows it. */
    | 'away'
    /** Its device gives single pictures alone. */
    | 'noStream'
    | 'failed'
  /** Pictures a second that are analysed; null: none. */
  rate: number | null
  /** Why it failed. */
  why: Said | string | null
}

export interface LookBackSettingsView {
  /** Of the cameras that are analysed here, in their order. */
  analyses: AnalysisView[]
  /** So many can be analysed at once on this machine. */
  most: number
  lookBack: LookBackSettings
  version: number
  changedAt: number
  /** What is there now, of all cameras of the site. */
  bytes: number
  /** The first instant of which anything is there; null: nothing is. */
  since: number | null
}
