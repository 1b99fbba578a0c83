import * as v from 'valibot'
import { SEVERITIES } from '../../kinds/parts.ts'
import { whole, common } from './parts.ts'

export const StationSchema = v.strictObject({
  ...common,
  kind: v.literal('station'),
  host: v.pipe(
    v.string('must be a host'),
    v.trim(),
    v.regex(/^[\w.:-]{1,200}$/, 'must be a host such as station.example.org')
  ),
  port: whole(1, 65535),
  /**
   * The account under which the station knows this site. Source: ANSI/SIA DC-09 (from memory): 3 to
   * 16 hexadecimal digits.
   */
  account: v.pipe(
    v.string('must be the account'),
    v.regex(
      /^[0-9A-Fa-f]{3,16}$/,
      (issue) => `is "${String(issue.input).slice(0, 20)}"; must be 3 to 16 hexadecimal digits`
    ),
    v.toUpperCase()
  ),
  /** The lowest severity that the station accepts. */
  accepts: v.picklist(SEVERITIES, `must be one of ${SEVERITIES.join(', ')}`),
  /** How often the station is told that the site is there; 0: never. */
  heartbeatSeconds: v.union(
    [v.literal(0), whole(10, 86400, ' s')],
    'must be 0, or from 10 to 86400 s'
  )
})
