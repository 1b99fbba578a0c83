import { oneOf } from '../../schema/parts.ts'
import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { SEVERITIES } from '../../kinds/parts.ts'
import { whole, common } from './parts.ts'

export const StationSchema = v.strictObject({
  ...common,
  kind: v.literal('station'),
  host: v.pipe(
    v.string(coded('input.mustBeAHost')),
    v.trim(),
    v.regex(/^[\w.:-]{1,200}$/, coded('actions.mustBeAHostSuch'))
  ),
  port: whole(1, 65535),
  /**
   * The account under which the station knows this site. Source: ANSI/SIA DC-09 (from memory): 3 to
   * 16 hexadecimal digits.
   */
  account: v.pipe(
    v.string(coded('actions.mustBeTheAccount')),
    v.regex(/^[0-9A-Fa-f]{3,16}$/, (issue) =>
      coded('actions.isMustBe2', String(issue.input).slice(0, 20))
    ),
    v.toUpperCase()
  ),
  /** The lowest severity that the station accepts. */
  accepts: oneOf(SEVERITIES),
  /** How often the station is told that the site is there; 0: never. */
  heartbeatSeconds: v.union([v.literal(0), whole(10, 86400, ' s')], coded('actions.mustBe0OrFrom'))
})
