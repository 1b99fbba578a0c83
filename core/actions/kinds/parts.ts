import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { noLongerThan, id, name } from '../../schema/parts.ts'

/** Parts that the schemas of several kinds of endpoint share. */

/** A number out of range is refused with what it was and the range; it is never cut. */
export const within = (min: number, max: number, unit = '') => {
  const right = coded('input.mustBeANumberFrom', min, max, unit)
  const said = (issue: { input: number }): string =>
    coded('input.isMustBeFrom', issue.input, min, max, unit)
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, said), v.maxValue(max, said))
}
export const whole = (min: number, max: number, unit = '') =>
  v.pipe(
    within(min, max, unit),
    v.integer((issue) => coded('actions.isMustBeA', issue.input, min, max, unit))
  )
const token = v.pipe(
  v.string(coded('actions.mustBeTheTokenOf')),
  v.minLength(1, coded('input.mustNotBeEmpty')),
  noLongerThan(64)
)
export const address = v.pipe(
  v.string(coded('actions.mustBeAnEMailAddress')),
  v.trim(),
  noLongerThan(254),
  v.email((issue) => coded('actions.isMustBe', String(issue.input).slice(0, 60)))
)

/** What every endpoint has: who it is, and its own hours; without, it may act at any time. */
export const common = { id, name, schedule: v.optional(id) }
/** An output of a device. */
export const ofDevice = { ...common, device: id, output: token }

/** Pictures around the event's own: how many before and after, and how far apart. */
export const pictures = {
  before: v.optional(whole(0, 5), 0),
  after: v.optional(whole(0, 5), 0),
  stepSeconds: v.optional(within(0.5, 10, ' s'), 1)
}
