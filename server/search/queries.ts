import type { Search, FoundTrigger, SearchView } from '../../core/watch/search.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Sql, Value } from '../database.ts'
import { parsed } from '../columns.ts'

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
export const beginningsOf = (text: string): string[] =>
  [...new Set(text.split(/[^\p{L}\p{M}\p{N}]+/u).filter(Boolean))].map(
    (word) => `${word.slice(0, 40)}%`
  )

/** Whether the alarm of a row of `table` has a word; asked of each row, not gathered for all of them first. */
const hasWord = (table: string): string =>
  `(SELECT 1 FROM alarm_word w WHERE w.alarm_id = ${table}.alarm_id AND w.word LIKE ? LIMIT 1) = 1`

/** The alarms whose comments have all these words, as a query of their ids, each once. */
export const alarmsWithWords = (beginnings: readonly string[]): string =>
  beginnings
    .map(() => 'SELECT DISTINCT alarm_id FROM alarm_word WHERE word LIKE ?')
    .join(' INTERSECT ')

/** Alarms whose comments have all these words. @returns null: there may be more than are gathered first */
export async function fewAlarmsWithWords(
  sql: Sql,
  beginnings: readonly string[]
): Promise<number[] | null> {
  const counted = await Promise.all(
    beginnings.map(async (word) => ({
      word,
      n: Number(
        (
          await sql.rows<{ n: number }>(
            `SELECT COUNT(*) AS n FROM (SELECT 1 FROM alarm_word WHERE word LIKE ? LIMIT ${COMMON + 1}) some`,
            [word]
          )
        )[0]!.n
      )
    }))
  )
  const [rarest, ...others] = counted.sort((a, b) => a.n - b.n) as [
    { word: string; n: number },
    { word: string; n: number }
  ]
  if (rarest.n > COMMON && !others.length) return null
  // From a rare word each alarm is asked for the others; common ones are laid over each other.
  const query =
    rarest.n <= COMMON
      ? `SELECT DISTINCT alarm_id FROM alarm_word rarest WHERE word LIKE ?${others.map(() => ` AND ${hasWord('rarest')}`).join('')}`
      : alarmsWithWords(beginnings)
  const alarms = await sql.rows<{ alarm_id: number }>(
    `SELECT alarm_id FROM (${query}) found LIMIT ${COMMON + 1}`,
    [rarest.word, ...others.map((o) => o.word)]
  )
  return alarms.length > COMMON ? null : alarms.map((a) => Number(a.alarm_id))
}

/**
 * The index to go through: each begins with one filter, goes on with the time, and holds all others (migration 011). Of
 * several the one that is likely to leave least; the database's own guess of it is at times to read the whole table.
 */
export function indexFor(s: Search): string {
  if (s.alarm !== undefined) return 'by_alarm'
  if (s.acknowledged === 'no') return 'by_acknowledged'
  if (s.way !== undefined) return 'by_way'
  if (s.class !== undefined) return 'by_class'
  if (s.camera !== undefined) return 'by_camera'
  if (s.kind !== undefined) return 'by_kind'
  if (s.direction !== undefined) return 'by_direction'
  return 'by_time'
}

/** Those of the conditions for which there is a value. */
export function given(conditions: readonly [string, Value | undefined][]): {
  where: string[]
  values: Value[]
} {
  const kept = conditions.filter((c): c is [string, Value] => c[1] !== undefined)
  return { where: kept.map(([text]) => text), values: kept.map(([, value]) => value) }
}
export const whereText = (where: readonly string[]): string =>
  where.length ? `WHERE ${where.join(' AND ')}` : ''
export const acknowledgedOf = ({ acknowledged }: Search): boolean | undefined =>
  acknowledged && acknowledged === 'yes'

/** A search of one of several sites. */
export interface SiteSearch extends Search {
  /** The ids of the site's cameras; left out: there is no other site. */
  cameras?: readonly string[]
}

/** The conditions of a search, all but its words. */
export function plainConditions(s: SiteSearch): { where: string[]; values: Value[] } {
  const { where, values } = given([
    ['camera_id = ?', s.camera],
    ['detection_id = ?', s.detection],
    ['alarm_id = ?', s.alarm],
    ['kind = ?', s.kind],
    ['class = ?', s.class],
    ['direction = ?', s.direction],
    ['way = ?', s.way],
    ['fired_at >= ?', s.from],
    ['fired_at < ?', s.to],
    ['acknowledged = ?', acknowledgedOf(s)]
  ])
  if (!s.cameras) return { where, values }
  return { where: [...where, amongCameras(s.cameras)], values: [...values, ...s.cameras] }
}

const amongCameras = (cameras: readonly string[]): string =>
  cameras.length ? `camera_id IN (${cameras.map(() => '?').join()})` : 'FALSE'

interface Conditions {
  /** The table, with the index to be gone through. */
  from: string
  where: string[]
  values: Value[]
}

/**
 * The conditions of a search for its newest triggers. Where alarms with its words are few, they are gathered first.
 * Where they are many, each trigger that comes up is asked for its words instead: a page is full soon, and nobody waits
 * for all of them to be gathered.
 *
 * @returns null: nothing can match
 */
async function conditionsOf(sql: Sql, s: SiteSearch): Promise<Conditions | null> {
  const { where, values } = plainConditions(s)
  const beginnings = beginningsOf(s.words ?? '')
  if (!beginnings.length)
    return { from: `fired_trigger FORCE INDEX (${indexFor(s)})`, where, values }
  const alarms = await fewAlarmsWithWords(sql, beginnings)
  if (alarms?.length === 0) return null
  if (alarms)
    return {
      from: 'fired_trigger FORCE INDEX (by_alarm)',
      where: [...where, `alarm_id IN (${alarms.join()})`],
      values
    }
  return {
    from: `fired_trigger FORCE INDEX (${indexFor(s)})`,
    where: [...where, ...beginnings.map(() => hasWord('fired_trigger'))],
    values: [...values, ...beginnings]
  }
}

/**
 * The cameras whose newest triggers are gathered one camera at a time, so that other sites' triggers are not gone
 * through; null: another index leads there.
 */
const eachCameraOf = (s: SiteSearch): readonly string[] | null =>
  s.cameras?.length && !s.words && indexFor(s) === 'by_time' ? s.cameras : null

/** One page, newest first, by key: the same however far it is gone on, and whatever comes in meanwhile. */
export async function findTriggers(
  sql: Sql,
  search: SiteSearch,
  after: string | undefined,
  limit: number
): Promise<SearchView> {
  const each = eachCameraOf(search)
  const conditions = await conditionsOf(sql, each ? { ...search, cameras: undefined } : search)
  if (!conditions) return { triggers: [], next: null }
  const { from, where, values } = conditions
  if (after !== undefined) {
    const [at, id] = after.split('.').map(Number) as [number, number]
    where.push('(fired_at < ? OR (fired_at = ? AND id < ?))')
    values.push(at, at, id)
  }
  const newest = `ORDER BY fired_at DESC, id DESC LIMIT ${limit + 1}`
  const ofOne = `(SELECT id, fired_at FROM fired_trigger FORCE INDEX (by_camera) ${whereText([...where, 'camera_id = ?'])} ${newest})`
  const found = each
    ? `(${each.map(() => ofOne).join(' UNION ')}) found`
    : `${from} ${whereText(where)}`
  // The ids first, from an index alone; then only the rows of this page.
  const ids = (
    await sql.rows<{ id: number }>(
      `SELECT id FROM ${found} ${newest}`,
      each ? each.flatMap((camera) => [...values, camera]) : values
    )
  ).map((r) => Number(r.id))
  if (!ids.length) return { triggers: [], next: null }
  const page = ids.slice(0, limit)
  const rows = await sql.rows<Row>(
    `SELECT id, camera_id, detection_id, kind, class, direction, way, cause, severity, fired_at, fired_with, alarm_id, acknowledged, run_id FROM fired_trigger WHERE id IN (${page.join()}) ORDER BY fired_at DESC, id DESC`
  )
  const last = rows[rows.length - 1]!
  return {
    triggers: rows.map(foundOf),
    next: ids.length > limit ? `${last.fired_at}.${last.id}` : null
  }
}

/** What can be asked for: names of sides that have been crossed. */
export async function knownWays(sql: Sql, cameras?: readonly string[]): Promise<string[]> {
  if (cameras)
    return (
      await sql.rows<{ way: string }>(
        `SELECT DISTINCT way FROM tally_group WHERE way IS NOT NULL AND ${amongCameras(cameras)} ORDER BY way LIMIT 100`,
        [...cameras]
      )
    ).map((r) => r.way)
  return (
    await sql.rows<{ way: string }>(
      'SELECT DISTINCT way FROM fired_trigger FORCE INDEX (by_way) WHERE way IS NOT NULL ORDER BY way LIMIT 100'
    )
  ).map((r) => r.way)
}
