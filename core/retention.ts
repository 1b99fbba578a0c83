import { coded } from './messages/said.ts'
import * as v from 'valibot'

/** How long what a site gathers is kept. What an open alarm needs is kept for as long as it is open. */

const days = (right: string) =>
  v.pipe(v.number(right), v.integer(right), v.minValue(1, right), v.maxValue(3650, right))
const daysRight = coded('server.mustBeAWholeNumber')

export const RetentionSchema = v.strictObject({
  /** What devices say of themselves. */
  eventDays: days(daysRight),
  /** Closed alarms with their triggers, deliveries, notes, evidence and pictures. */
  alarmDays: days(daysRight),
  /** Steps of the history; how everything is now stays in any case. */
  editDays: days(daysRight),
  /** The audit log. */
  auditDays: days(daysRight),
  /** Evidence and pictures on the disk; the oldest of closed alarms go first. */
  evidenceGigabytes: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.minValue(0.1, coded('server.mustBeAtLeast01')),
    v.maxValue(10_000, coded('input.mustBeAtMost10000'))
  )
})
export type Retention = v.InferOutput<typeof RetentionSchema>

export const DEFAULT_RETENTION: Retention = {
  eventDays: 90,
  alarmDays: 365,
  editDays: 1095,
  auditDays: 365,
  evidenceGigabytes: 20
}

const version = v.pipe(
  v.number(coded('input.mustBeANumber')),
  v.integer(coded('input.mustBeAWholeNumber')),
  v.minValue(0, coded('input.mustBe0OrMore'))
)
export const SaveRetentionSchema = v.strictObject({ version, retention: RetentionSchema })

export interface RetentionView {
  retention: Retention
  version: number
  changedAt: number
  /** How much there is of each now. */
  now: {
    events: number
    alarms: number
    triggers: number
    deliveries: number
    edits: number
    audit: number
    evidenceBytes: number
    freeBytes: number
  }
  /** When something was last taken away, and how much; null: not since the start. */
  last: { at: number; removed: number } | null
}
