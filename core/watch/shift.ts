import * as v from 'valibot'
import { filled } from '../schema/parts.ts'

/** What one shift leaves to the next. Instants are milliseconds of UTC. */

/** The alarms of a shift, those with a trigger since it began. */
export interface ShiftCounts {
  /** When it began: at the note before, but no longer ago than a day; without one, half a day ago. */
  since: number
  alarms: number
  /** Of these, closed ones. */
  closed: number
  /** Of these, marked as nuisance. */
  nuisance: number
  /** Of all alarms, those that nobody has acknowledged. */
  active: number
}

export interface ShiftNote {
  id: number
  words: string
  counts: ShiftCounts
  by: string
  at: number
  /** Who of the next shift has read it; null: nobody yet. */
  readBy: string | null
  readAt: number | null
}

export interface ShiftView {
  /** Who is signed in with a role at the site and has asked for something within some minutes, by name. */
  signedIn: { name: string; since: number }[]
  /** The newest note; null: there was none yet. */
  note: ShiftNote | null
  /** Of the shift that goes on. */
  counts: ShiftCounts
}

const DAY_MS = 24 * 60 * 60_000

/** When a shift began. @param noteAt of the note before it; null: there is none */
export const shiftSince = (noteAt: number | null, now: number): number =>
  noteAt === null ? now - DAY_MS / 2 : Math.max(noteAt, now - DAY_MS)

export const ShiftNoteSchema = v.strictObject({ words: filled(2000) })
