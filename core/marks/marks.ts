import * as v from 'valibot'
import { InputError } from '../errors.ts'
import { readJsonLines } from '../formats/lines.ts'
import { coded, said } from '../messages/said.ts'
import { number, oneOf } from '../schema/parts.ts'

/** What somebody says of a trigger, or of a target that should have made one (docs/look-back.md, *Marks*). */
export const MARKS = ['wanted', 'nuisance'] as const
export type MarkKind = (typeof MARKS)[number]

/** Why a trigger is a nuisance, or what it was of. */
export const MARK_REASONS = [
  'foliage',
  'animal',
  'weather',
  'light',
  'passerBy',
  'ownStaff',
  'vehicleLights',
  'other'
] as const
export type MarkReason = (typeof MARK_REASONS)[number]

/** A mark belongs to a target and its moment, not to the settings that held then. */
export interface Mark {
  /** Which of the stretches that are looked at, from 0. */
  file: number
  /** Seconds from the start of that stretch. */
  time: number
  /** Null: of what has no target, such as a covered lens. */
  target: number | null
  mark: MarkKind
}

const whole = (most: number) =>
  v.pipe(number(0, most), v.integer(coded('input.mustBeAWholeNumber')))
const LineSchema = v.strictObject({
  time: number(0, Number.MAX_SAFE_INTEGER, ' s'),
  target: v.optional(v.nullable(whole(2 ** 31 - 1)), null),
  mark: oneOf(MARKS),
  file: v.optional(whole(9999), 0)
})

/**
 * Reads marks from JSON lines: `{"time":12.3,"target":7,"mark":"wanted"}`, time in seconds of its file, `"file":1` for
 * the second file.
 *
 * @param files how many files there are
 * @throws InputError naming the line and what would be right
 */
export function readMarks(text: string, files: number): Mark[] {
  return readJsonLines(text, LineSchema, ({ file }) => {
    if (file >= files) throw new InputError('file', said('marks.noSuchFile', file, files))
  })
}
