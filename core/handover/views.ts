import * as v from 'valibot'
import type { Said } from '../messages/said.ts'
import type { Finding } from '../readiness/index.ts'
import { coded } from '../messages/said.ts'
import { bool, filled, noLongerThan, oneOf } from '../schema/parts.ts'
import { SignatureSchema, type Change, type Signature, type SiteRecord } from './record.ts'

/** What the server and the browser say to each other about records. Instants are milliseconds of UTC. */

export const PAPERS = ['a4', 'letter'] as const
export type Paper = (typeof PAPERS)[number]

export interface RecordView {
  /** Of the site, from 1. */
  number: number
  kind: SiteRecord['kind']
  digest: string
  /** Issues that were open. */
  open: number
  accepted: number
  paper: Paper
  madeAt: number
  by: string
  signatures: Signature[]
}

export const STEPS = ['devices', 'checks', 'pictures', 'pages', 'files'] as const
export type Step = (typeof STEPS)[number]

/** A record that is being made, or what became of the last one. */
export interface JobView {
  kind: SiteRecord['kind']
  state: 'running' | 'made' | 'failed'
  step: Step
  done: number
  of: number
  /** Of the record that was made. */
  number: number | null
  error: Said | string | null
}

export interface VisitView {
  /** The number of the record that the site is compared with. */
  record: number
  startedAt: number
  by: string
}

export interface HandoverView {
  records: RecordView[]
  /** What stands in the way of a clean record, worst first. */
  open: Finding[]
  accepted: { key: string; sentence: string; reason: string; by: string; at: number }[]
  hints: Finding[]
  job: JobView | null
  visit:
    | (VisitView & {
        walked: { passed: number; of: number }
        outputs: { tested: number; of: number }
      })
    | null
  /** What the last record said, to begin with. */
  last: { client: string; installer: string; note: string } | null
}

/** What an operator sees of it. */
export interface RecordsView {
  records: RecordView[]
}

export interface ChangesView {
  number: number
  madeAt: number
  changes: Change[]
}

const text = (most: number) =>
  v.pipe(v.string(coded('input.mustBeAText')), v.trim(), noLongerThan(most))
export const MakeRecordSchema = v.strictObject({
  client: text(200),
  installer: text(200),
  note: text(4000),
  paper: oneOf(PAPERS),
  /** Checks that are out of date are run first. */
  runChecks: bool,
  /** Made although something stands in the way. */
  allowOpen: bool,
  /** The end of the service visit. */
  service: v.optional(bool, false)
})
export type MakeRecord = v.InferOutput<typeof MakeRecordSchema>

export const SignSchema = v.strictObject({
  name: SignatureSchema.entries.name,
  role: SignatureSchema.entries.role,
  digest: SignatureSchema.entries.digest,
  strokes: SignatureSchema.entries.strokes
})
export const AcceptIssueSchema = v.strictObject({ key: filled(600), reason: filled(400) })
export const IssueKeySchema = v.strictObject({ key: filled(600) })
export const StartVisitSchema = v.strictObject({
  record: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.integer(coded('input.mustBeAWholeNumber'))
  )
})
