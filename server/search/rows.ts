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

/** Words that stand in the comments of more alarms than these are common. */
const COMMON = 2000

/** Words to look for, each perhaps only begun, divided as the database divides what is written (migration 011). */
const beginningsOf = (text: string): string[] => [...new Set(text.split(/[^\p{L}\p{M}\p{N}]+/u).filter(Boolean))].map((word) => `${word.slice(0, 40)}%`)

/** Whether the alarm of a row of `table` has a word; asked of each row, not gathered for all of them first. */
const hasWord = (table: string): string => `(SELECT 1 FROM alarm_word w WHERE w.alarm_id = ${table}.alarm_id AND w.word LIKE ? LIMIT 1) = 1`

/**
 * Which triggers belong to alarms whose comments have all these words. Where such alarms are few, they are gathered
 * first. Where they are many, each trigger that comes up is asked for its words instead: a page is full soon, and
 * nobody waits for all of them to be gathered.
 *
 * @param everything whether all triggers of such alarms will be read, not only the newest or those of other filters
 * @returns null: no alarm has them
 */
async function wordsCondition(sql: Sql, beginnings: readonly string[], everything: boolean): Promise<{ where: string; values: Value[]; gathered: boolean } | null> {
  const counted = await Promise.all(beginnings.map(async (word) => ({ word, n: Number((await sql.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM (SELECT 1 FROM alarm_word WHERE word LIKE ? LIMIT ${COMMON + 1}) some`, [word]))[0].n) })))
  const [rarest, ...others] = counted.sort((a, b) => a.n - b.n).map(({ word }) => word)
  const having = `SELECT DISTINCT alarm_id FROM alarm_word rarest WHERE word LIKE ?${others.map(() => ` AND ${hasWord('rarest')}`).join('')}`
  const values = [rarest, ...others]
  const alarms = await sql.rows<{ alarm_id: number }>(`${having} LIMIT ${COMMON + 1}`, values)
  if (!alarms.length) return null
  if (alarms.length <= COMMON) return { where: `alarm_id IN (${alarms.map((a) => Number(a.alarm_id)).join()})`, values: [], gathered: true }
  if (everything) return { where: `alarm_id IN (${having})`, values, gathered: true }
  return { where: beginnings.map(() => hasWord('fired_trigger')).join(' AND '), values: [...beginnings], gathered: false }
}

/**
 * The index to go through: each begins with one filter, goes on with the time, and holds all others (migration 011). Of
 * several the one that is likely to leave least; the database's own guess of it is at times to read the whole table.
 */
function indexFor(s: Search): string {
  if (s.alarm !== undefined) return 'by_alarm'
  if (s.acknowledged === 'no') return 'by_acknowledged'
  if (s.way !== undefined) return 'by_way'
  if (s.class !== undefined) return 'by_class'
  if (s.camera !== undefined) return 'by_camera'
  if (s.kind !== undefined) return 'by_kind'
  if (s.direction !== undefined) return 'by_direction'
  return 'by_time'
}

interface Conditions {
  /** The table, with the index to be gone through. */
  from: string
  where: string[]
  values: Value[]
}

/** The conditions of a search; null: nothing can match. */
async function conditionsOf(sql: Sql, s: Search, all: boolean): Promise<Conditions | null> {
  const where: string[] = []
  const values: Value[] = []
  let index = indexFor(s)
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
  const beginnings = beginningsOf(s.words ?? '')
  if (beginnings.length) {
    const words = await wordsCondition(sql, beginnings, all && where.length === 0)
    if (!words) return null
    where.push(words.where)
    values.push(...words.values)
    if (words.gathered) index = 'by_alarm'
  }
  return { from: `fired_trigger FORCE INDEX (${index})`, where, values }
}

/** One page, newest first, by key: the same however far it is gone on, and whatever comes in meanwhile. */
export async function findTriggers(sql: Sql, search: Search, after: string | undefined, limit: number): Promise<SearchView> {
  const conditions = await conditionsOf(sql, search, false)
  if (!conditions) return { triggers: [], next: null }
  const { from, where, values } = conditions
  if (after !== undefined) {
    const [at, id] = after.split('.').map(Number)
    where.push('(fired_at < ? OR (fired_at = ? AND id < ?))')
    values.push(at, at, id)
  }
  // The ids first, from an index alone; then only the rows of this page.
  const ids = (await sql.rows<{ id: number }>(`SELECT id FROM ${from} ${where.length ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY fired_at DESC, id DESC LIMIT ${limit + 1}`, values)).map((r) => Number(r.id))
  if (!ids.length) return { triggers: [], next: null }
  const page = ids.slice(0, limit)
  const rows = await sql.rows<Row>(`SELECT id, camera_id, detection_id, kind, class, direction, way, cause, severity, fired_at, fired_with, alarm_id, acknowledged, run_id FROM fired_trigger WHERE id IN (${page.join()}) ORDER BY fired_at DESC, id DESC`)
  const last = rows[rows.length - 1]
  return { triggers: rows.map(foundOf), next: ids.length > limit ? `${last.fired_at}.${last.id}` : null }
}

const HOUR = 3600_000
const STEPS = [HOUR / 60, HOUR / 4, HOUR, 6 * HOUR, 24 * HOUR, 7 * 24 * HOUR, 30 * 24 * HOUR]
const MOST_BUCKETS = 80

/** Spans up to this are counted trigger by trigger; longer ones are added up from the tally of each hour (migration 012). */
const EACH_MS = MOST_BUCKETS * (HOUR / 4)

/** How many there are over time. */
export async function countTriggers(sql: Sql, search: Search): Promise<CountsView> {
  return (await countByTally(sql, search)) ?? countEach(sql, search)
}

/** @returns null where the tally cannot tell: for alarms and words, and for short spans */
async function countByTally(sql: Sql, s: Search): Promise<CountsView | null> {
  if (s.alarm !== undefined || beginningsOf(s.words ?? '').length) return null
  const where: string[] = ['n > 0']
  const values: Value[] = []
  const add = (text: string, value: Value | undefined): void => {
    if (value === undefined) return
    where.push(text)
    values.push(value)
  }
  add('camera_id = ?', s.camera)
  add('detection_id = ?', s.detection)
  add('kind = ?', s.kind)
  add('class = ?', s.class)
  add('direction = ?', s.direction)
  add('way = ?', s.way)
  add('acknowledged = ?', s.acknowledged === undefined ? undefined : s.acknowledged === 'yes')
  // Whole hours; what the first and the last have besides is counted each.
  const [firstWhole, lastWhole] = [s.from === undefined ? undefined : Math.ceil(s.from / HOUR), s.to === undefined ? undefined : Math.floor(s.to / HOUR)]
  add('hour >= ?', firstWhole)
  add('hour < ?', lastWhole)
  const hours = await sql.rows<{ hour: number; n: number }>(`SELECT hour, SUM(n) AS n FROM trigger_tally WHERE ${where.join(' AND ')} GROUP BY hour ORDER BY hour`, values)
  if (!hours.length || (hours[hours.length - 1].hour - hours[0].hour) * HOUR <= EACH_MS) return null
  const edges = [
    ...(s.from !== undefined && s.from < firstWhole! * HOUR ? [{ from: s.from, to: firstWhole! * HOUR }] : []),
    ...(s.to !== undefined && s.to > lastWhole! * HOUR ? [{ from: lastWhole! * HOUR, to: s.to }] : [])
  ]
  const counts = new Map(hours.map(({ hour, n }) => [hour, Number(n)]))
  for (const edge of edges) {
    const conditions = (await conditionsOf(sql, { ...s, ...edge }, true))!
    const [{ n }] = await sql.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${conditions.from} WHERE ${conditions.where.join(' AND ')}`, conditions.values)
    if (Number(n)) counts.set(Math.floor(edge.from / HOUR), Number(n))
  }
  const all = [...counts.keys()]
  const step = stepFor((Math.max(...all) - Math.min(...all)) * HOUR)
  const buckets = new Map<number, number>()
  for (const [hour, n] of counts) {
    const at = Math.floor((hour * HOUR) / step) * step
    buckets.set(at, (buckets.get(at) ?? 0) + n)
  }
  return { step, buckets: [...buckets].sort(([a], [b]) => a - b).map(([at, n]) => ({ at, n })), total: [...counts.values()].reduce((sum, n) => sum + n, 0) }
}

const stepFor = (span: number): number => STEPS.find((s) => span / s <= MOST_BUCKETS) ?? STEPS[STEPS.length - 1]

async function countEach(sql: Sql, search: Search): Promise<CountsView> {
  const conditions = await conditionsOf(sql, search, true)
  const none: CountsView = { step: HOUR, buckets: [], total: 0 }
  if (!conditions) return none
  const { from, values } = conditions
  const where = conditions.where.length ? `WHERE ${conditions.where.join(' AND ')}` : ''
  const [span] = await sql.rows<{ first: number | null; last: number | null }>(`SELECT MIN(fired_at) AS first, MAX(fired_at) AS last FROM ${from} ${where}`, values)
  if (span.first === null || span.last === null) return none
  const step = stepFor(span.last - span.first)
  const rows = await sql.rows<{ bucket: number; n: number }>(`SELECT fired_at DIV ${step} AS bucket, COUNT(*) AS n FROM ${from} ${where} GROUP BY bucket ORDER BY bucket`, values)
  return { step, buckets: rows.map((r) => ({ at: Number(r.bucket) * step, n: Number(r.n) })), total: rows.reduce((sum, r) => sum + Number(r.n), 0) }
}

/** What can be asked for: names of sides that have been crossed. */
export async function knownWays(sql: Sql): Promise<string[]> {
  return (await sql.rows<{ way: string }>('SELECT DISTINCT way FROM trigger_tally WHERE way <> \'\' AND n > 0 ORDER BY way LIMIT 100')).map((r) => r.way)
}
