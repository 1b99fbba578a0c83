import { server as msg } from '../../core/messages/en/codes/server.ts'
import { Readable } from 'node:stream'
import {
  PageSchema,
  SearchSchema,
  type FoundTrigger,
  type Search
} from '../../core/watch/search.ts'
import { SIGNED_IN, allow, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { namesOf, readSiteAlone } from '../sites/queries.ts'
import { wallText } from '../../core/arming/zone.ts'
import { countTriggers } from './counts.ts'
import { findTriggers, knownWays, type SiteSearch } from './queries.ts'

const PAGE = 48
const CSV_PAGE = 2000
/** A spreadsheet takes about a million rows. */
const MAX_CSV = 1_000_000

/** A field of CSV (RFC 4180); what a spreadsheet would take for a formula begins with an apostrophe. */
const field = (value: string | number | null): string => {
  const text = value === null ? '' : String(value)
  const safe = /^[=+@\t\r-]/.test(text) && typeof value === 'string' ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}

export function searchRoutes(app: Api, database: Database): void {
  /** The same search of a site's cameras alone, deleted ones too. Where there is one site, all are its own. */
  const within = async (site: string, search: Search): Promise<SiteSearch> => {
    const rows = await database.rows<{ id: string; site_id: string }>(
      'SELECT id, site_id FROM camera ORDER BY id'
    )
    const own = rows.filter((r) => r.site_id === site)
    return own.length === rows.length ? search : { ...search, cameras: own.map((r) => r.id) }
  }
  app.get('/triggers', allow(SIGNED_IN, { querystring: PageSchema }), async ({ query, site }) => {
    const { after, ...search } = query
    return findTriggers(database, await within(site, search), after, PAGE)
  })
  app.get(
    '/triggers/counts',
    allow(SIGNED_IN, { querystring: SearchSchema }),
    async ({ query, site }) => countTriggers(database, await within(site, query))
  )
  app.get('/triggers/ways', allow(SIGNED_IN), async ({ site }) =>
    knownWays(database, (await within(site, {})).cameras)
  )

  app.get(
    '/triggers.csv',
    allow(SIGNED_IN, { querystring: SearchSchema }),
    async (request, reply) => {
      const site = await readSiteAlone(database, request.site)
      const search = await within(site.id, request.query)
      const names = await namesOf(database, site.id)
      const line = (t: FoundTrigger): string =>
        [
          wallText(t.at, site.timeZone).replace('T', ' '),
          new Date(t.at).toISOString(),
          names.get(t.camera) ?? t.camera,
          t.name,
          t.kind,
          t.class,
          t.way ?? t.direction,
          t.cause,
          t.severity,
          t.acknowledged ? msg.yes : msg.no,
          t.clip ? msg.clip : msg.live,
          t.alarm
        ]
          .map(field)
          .join(',')
      async function* lines(): AsyncGenerator<string> {
        yield `${msg.csvHead}\r\n`
        let after: string | undefined
        for (let n = 0; n < MAX_CSV; n += CSV_PAGE) {
          const { triggers, next } = await findTriggers(database, search, after, CSV_PAGE)
          if (triggers.length) yield `${triggers.map(line).join('\r\n')}\r\n`
          if (next === null) return
          after = next
        }
      }
      return reply
        .type('text/csv; charset=utf-8')
        .header('content-disposition', 'attachment; filename="triggers.csv"')
        .send(Readable.from(lines()))
    }
  )
}
