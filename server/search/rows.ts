import type { Search, FoundTrigger, SearchView, CountsView } from '../../core/watch/search.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Sql, Value } from '../database.ts'
import { parsed } from '../sites/rows.ts'

interface Row {
  id: number
  camera_id: string
  detection_id: string
  kind: FoundTrigger['kind']
  class: FoundTrigger['class']
  direction: FoundTrigger['direction']
  way: string | null
  cause: FoundTrigger['cause']
  severity: FoundTrigger['severity']
  fired_at: number
  fired_with: unknown
  alarm_id: number | null
  acknowledged: number
  run_id: string | null
}

const foundOf = (row: Row): FoundTrigger => ({
  id: row.id,
  camera: row.camera_id,
  detection: row.detection_id,
  name: parsed<Detection>(row.fired_with).name,
  kind: row.kind,
  class: row.class,
  direction: row.direction,
  way: row.way,
  cause: row.cause,
  severity: row.severity,
  at: row.fired_at,
  alarm: row.alarm_id,
  acknowledged: row.acknowledged !== 0,
  clip: row.run_id !== null
})

/** Comments of more alarms than these are not looked through. */
const MOST_ALARMS = 2000

/** Words as a full-text search asks for them: all of them, the last one perhaps only begun. */
const wordsOf = (text: string): string =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((word) => `+${word}*`)
    .join(' ')

/** The conditions of a search on `fired_trigger`; null: nothing can match. */
async function conditionsOf(sql: Sql, s: Search): Promise<{ where: string[]; values: Value[] } | null> {
  const where: string[] = []
  const values: Value[] = []
  const add = (text: string, value: Value): void => {
    where.push(text)
    values.push(value)
  }
  if (s.camera !== undefined) add('camera_id = ?', s.camera)
  if (s.detection !== undefined) add('detection_id = ?', s.detection)
  if (s.alarm !== undefined) add('alarm_id = ?', s.alarm)
  if (s.kind !== undefined) add('kind = ?', s.kind)
  if (s.class !== undefined) add('class = ?', s.class)
  if (s.direction !== undefined) add('direction = ?', s.direction)
  if (s.way !== undefined) add('way = ?', s.way)
  if (s.from !== undefined) add('fired_at >= ?', s.from)
  if (s.to !== undefined) add('fired_at < ?', s.to)
  if (s.acknowledged !== undefined) add('acknowledged = ?', s.acknowledged === 'yes')
  const words = wordsOf(s.words ?? '')
  if (words) {
    const alarms = await sql.rows<{ alarm_id: number }>(`SELECT DISTINCT alarm_id FROM alarm_note WHERE MATCH (words) AGAINST (? IN BOOLEAN MODE) ORDER BY alarm_id DESC LIMIT ${MOST_ALARMS}`, [words])
    if (!alarms.length) return null
    where.push(`alarm_id IN (${alarms.map((a) => Number(a.alarm_id)).join()})`)
  }
  return { where, values }
}

/** One page, newest first, by key: the same however far it is gone on, and whatever comes in meanwhile. */
export async function findTriggers(sql: Sql, search: Search, after: string | undefined, limit: number): Promise<SearchView> {
  const conditions = await conditionsOf(sql, search)
  if (!conditions) return { triggers: [], next: null }
  const { where, values } = conditions
  if (after !== undefined) {
    const [at, id] = after.split('.').map(Number)
    where.push('(fired_at < ? OR (fired_at = ? AND id < ?))')
    values.push(at, at, id)
  }
  // The ids first, from an index alone; then only the rows of this page.
  const ids = (await sql.rows<{ id: number }>(`SELECT id FROM fired_trigger ${where.length ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY fired_at DESC, id DESC LIMIT ${limit + 1}`, values)).map((r) => Number(r.id))
  if (!ids.length) return { triggers: [], next: null }
  const page = ids.slice(0, limit)
  const rows = await sql.rows<Row>(`SELECT id, camera_id, detection_id, kind, class, direction, way, cause, severity, fired_at, fired_with, alarm_id, acknowledged, run_id FROM fired_trigger WHERE id IN (${page.join()}) ORDER BY fired_at DESC, id DESC`)
  const last = rows[rows.length - 1]
  return { triggers: rows.map(foundOf), next: ids.length > limit ? `${last.fired_at}.${last.id}` : null }
}

const HOUR = 3600_000
const STEPS = [HOUR / 60, HOUR / 4, HOUR, 6 * HOUR, 24 * HOUR, 7 * 24 * HOUR, 30 * 24 * HOUR]
const MOST_BUCKETS = 80

/** How many there are over time. */
export async function countTriggers(sql: Sql, search: Search): Promise<CountsView> {
  const conditions = await conditionsOf(sql, search)
  const none: CountsView = { step: HOUR, buckets: [], total: 0 }
  if (!conditions) return none
  const { values } = conditions
  const where = conditions.where.length ? `WHERE ${conditions.where.join(' AND ')}` : ''
  const [span] = await sql.rows<{ first: number | null; last: number | null }>(`SELECT MIN(fired_at) AS first, MAX(fired_at) AS last FROM fired_trigger ${where}`, values)
  if (span.first === null || span.last === null) return none
  const step = STEPS.find((s) => (span.last! - span.first!) / s <= MOST_BUCKETS) ?? STEPS[STEPS.length - 1]
  const rows = await sql.rows<{ bucket: number; n: number }>(`SELECT FLOOR(fired_at / ${step}) AS bucket, COUNT(*) AS n FROM fired_trigger ${where} GROUP BY bucket ORDER BY bucket`, values)
  return { step, buckets: rows.map((r) => ({ at: Number(r.bucket) * step, n: Number(r.n) })), total: rows.reduce((sum, r) => sum + Number(r.n), 0) }
}

/** What can be asked for: names of sides that have been crossed. */
export async function knownWays(sql: Sql): Promise<string[]> {
  return (await sql.rows<{ way: string }>('SELECT DISTINCT way FROM fired_trigger WHERE way IS NOT NULL ORDER BY way LIMIT 100')).map((r) => r.way)
}
