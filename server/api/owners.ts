import { said } from '../../core/messages/said.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'

/** Which site a thing in an address belongs to: what is another site's is not there. */

export type Params = Readonly<Record<string, string | undefined>>

interface Owner {
  /** The parameter that names the thing. */
  param: string
  /** Gives the site of it. */
  query: string
}

/** Things whose ids are one series for all sites, by how their addresses begin. */
const OWNERS: Readonly<Record<string, Owner>> = {
  cameras: { param: 'camera', query: 'SELECT site_id FROM camera WHERE id = ?' },
  clips: {
    param: 'id',
    query: 'SELECT site_id FROM clip JOIN camera ON camera.id = camera_id WHERE clip.id = ?'
  },
  runs: {
    param: 'id',
    query:
      'SELECT site_id FROM run JOIN clip ON clip.id = clip_id JOIN camera ON camera.id = camera_id WHERE run.id = ?'
  },
  'proving/runs': { param: 'id', query: 'SELECT site_id FROM proof_run WHERE id = ?' },
  devices: { param: 'id', query: 'SELECT site_id FROM device WHERE id = ?' },
  alarms: { param: 'id', query: 'SELECT site_id FROM alarm WHERE id = ?' },
  triggers: {
    param: 'id',
    query:
      'SELECT site_id FROM fired_trigger JOIN camera ON camera.id = camera_id WHERE fired_trigger.id = ?'
  },
  deliveries: {
    param: 'id',
    query: 'SELECT site_id FROM delivery JOIN alarm ON alarm.id = alarm_id WHERE delivery.id = ?'
  }
}
/** Things that each site numbers for itself, or that hold their site themselves. */
const OF_EACH_SITE = [
  'endpoints',
  'schedules',
  'phrases',
  'voices',
  'settings',
  'sendings',
  'mailbox',
  'records',
  'shift'
]

const PREFIX = '/api/sites/:site/'

/**
 * @param url the pattern of a route of a site @returns null: it names nothing that could be another site's
 * @throws Error for a route of which nobody has said whose its things are
 */
export function ownerOf(url: string): Owner | null {
  const rest = url.slice(PREFIX.length)
  if (!rest.includes(':') || OF_EACH_SITE.includes(rest.split('/')[0]!)) return null
  const owner = OWNERS[rest.split('/:')[0]!]
  if (!owner || !rest.split('/').includes(`:${owner.param}`))
    throw new Error(`${url} does not say whose its things are (server/api/owners.ts)`)
  return owner
}

/**
 * Asked before every request about a site, in one question.
 *
 * @throws ApiError when the site is not there, or the thing that an address names is another site's; what is nowhere is
 * left to the route
 */
export async function refuseForeign(
  sql: Sql,
  site: string,
  url: string,
  params: Params
): Promise<void> {
  const owner = ownerOf(url)
  const id = (owner && params[owner.param]) ?? null
  const [row] = await sql.rows<{ owner: string | null }>(
    `SELECT ${owner && id !== null ? `(${owner.query})` : 'NULL'} AS owner FROM site WHERE id = ? AND NOT removed`,
    [...(id === null ? [] : [id]), site]
  )
  if (!row) throw notFound(said('things.site'))
  if (row.owner !== null && row.owner !== site)
    throw notFound(said('things.thing', String(id).slice(0, 64)))
}
