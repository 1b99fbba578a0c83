import { onlyRow } from '../columns.ts'
import type { CountsView, Search } from '../../core/watch/search.ts'
import type { Sql, Value } from '../database.ts'
import {
  acknowledgedOf,
  alarmsWithWords,
  beginningsOf,
  fewAlarmsWithWords,
  given,
  indexFor,
  plainConditions,
  whereText,
  type SiteSearch
} from './queries.ts'

/**
 * How many triggers there are over time. Times of more than a day are added up from the tallies that the database keeps
 * (migration 013), so that a chart of a million triggers does not read a million rows.
 */

const HOUR = 3600_000
const DAY = 24 * HOUR
const STEPS = [HOUR / 60, HOUR / 4, HOUR, 6 * HOUR, DAY, 7 * DAY, 30 * DAY]
const MAX_BUCKETS = 80
const stepFor = (span: number): number =>
  STEPS.find((s) => span / s <= MAX_BUCKETS) ?? STEPS[STEPS.length - 1]!
/** A time that is longer than this is shown in steps of `unit` or more. */
const longFor = (unit: number): number => MAX_BUCKETS * STEPS[STEPS.indexOf(unit) - 1]!

const NONE: CountsView = { step: HOUR, buckets: [], total: 0 }

/** How many there are in each `unit` of time; what is not there counts nothing. */
interface Counts {
  unit: number
  of: Map<number, number>
}
/** The first and the last unit in which there are some. */
const endsOf = ({ of }: Counts): [number, number] =>
  [...of.keys()].reduce(
    ([first, last], at) => [Math.min(first, at), Math.max(last, at)],
    [Infinity, -Infinity]
  )
const spanOf = (counts: Counts): number => {
  const [first, last] = endsOf(counts)
  return (last - first) * counts.unit
}

/** The same search, where it finds something. */
function within(s: SiteSearch, counts: Counts): SiteSearch {
  const [first, last] = endsOf(counts)
  return {
    ...s,
    from: Math.max(first * counts.unit, s.from ?? 0),
    to: Math.min((last + 1) * counts.unit, s.to ?? Infinity)
  }
}

/** How many triggers a search finds, over time. */
export async function countTriggers(sql: Sql, search: SiteSearch): Promise<CountsView> {
  const words = beginningsOf(search.words ?? '')
  const counts =
    words.length || search.alarm !== undefined
      ? await countWords(sql, search, words)
      : await countTallies(sql, search)
  if (!counts.of.size) return NONE
  const step = stepFor(spanOf(counts))
  // So short that hours are too wide; the hours say where to look.
  if (step < counts.unit) return countShort(sql, within(search, counts), words)
  return folded(counts, step)
}

function folded({ unit, of }: Counts, step: number): CountsView {
  const buckets = new Map<number, number>()
  for (const [at, n] of of) {
    const start = Math.floor((at * unit) / step) * step
    buckets.set(start, (buckets.get(start) ?? 0) + n)
  }
  return {
    step,
    buckets: [...buckets].sort(([a], [b]) => a - b).map(([at, n]) => ({ at, n })),
    total: [...of.values()].reduce((sum, n) => sum + n, 0)
  }
}

/** By days where the time is long, by hours where it is not. */
async function countTallies(sql: Sql, s: SiteSearch): Promise<Counts> {
  const groups = await groupsOf(sql, s)
  const none = { unit: HOUR, of: new Map<number, number>() }
  if (groups?.length === 0) return none
  const days = await countTally(sql, s, DAY, groups)
  if (!days.of.size) return none
  if (spanOf(days) > longFor(DAY)) return days
  return countTally(sql, within(s, days), HOUR, groups)
}

/** Which groups of the tally a search asks for. @returns null: all */
async function groupsOf(sql: Sql, s: SiteSearch): Promise<number[] | null> {
  const { where, values } = plainConditions({
    camera: s.camera,
    detection: s.detection,
    kind: s.kind,
    class: s.class,
    direction: s.direction,
    way: s.way,
    cameras: s.cameras
  })
  if (!where.length) return null
  return (
    await sql.rows<{ id: number }>(
      `SELECT id FROM tally_group WHERE ${where.join(' AND ')}`,
      values
    )
  ).map(({ id }) => Number(id))
}

/** From the tally of whole units; what the first and the last have besides is counted each. */
async function countTally(
  sql: Sql,
  s: SiteSearch,
  unit: number,
  groups: readonly number[] | null
): Promise<Counts> {
  const [first, last] = [
    s.from === undefined ? undefined : Math.ceil(s.from / unit),
    s.to === undefined ? undefined : Math.floor(s.to / unit)
  ]
  const plain = given([
    ['hours = ?', unit / HOUR],
    ['period >= ?', first],
    ['period < ?', last],
    ['acknowledged = ?', acknowledgedOf(s)]
  ])
  // As a list: joined, the database looks each row's group up, which takes three times as long.
  const where = [...plain.where, ...(groups ? [`group_id IN (${groups.join()})`] : [])]
  const rows = await sql.rows<{ period: number; n: number }>(
    `SELECT period, SUM(n) AS n FROM tally ${whereText(where)} GROUP BY period`,
    plain.values
  )
  const of = new Map(rows.filter((r) => Number(r.n)).map((r) => [Number(r.period), Number(r.n)]))
  for (const edge of edgesOf(s, unit)) {
    const part = plainConditions({ ...s, ...edge })
    const counted = await sql.rows<{ n: number }>(
      `SELECT COUNT(*) AS n FROM fired_trigger FORCE INDEX (${indexFor(s)}) ${whereText(part.where)}`,
      part.values
    )
    const n = Number(onlyRow(counted).n)
    if (n) of.set(Math.floor(edge.from / unit), n)
  }
  return { unit, of }
}

/** Parts of units at the ends of the time that is asked for. */
function edgesOf({ from = 0, to = 0 }: Search, unit: number): { from: number; to: number }[] {
  const [begin, end] = [Math.ceil(from / unit) * unit, Math.floor(to / unit) * unit]
  // Both ends within one unit.
  if (to && begin > end) return from < to ? [{ from, to }] : []
  return [{ from, to: begin }, ...(to ? [{ from: end, to }] : [])].filter(
    (edge) => edge.from < edge.to
  )
}

/** Where triggers are to be found whose alarms have these words, or by a search's other conditions alone. */
async function withWords(
  sql: Sql,
  s: SiteSearch,
  words: readonly string[]
): Promise<{ from: string; where: string[]; values: Value[] }> {
  const { where, values } = plainConditions(s)
  const few = words.length ? await fewAlarmsWithWords(sql, words) : null
  if (few)
    return {
      from: 'fired_trigger FORCE INDEX (by_alarm)',
      where: [...where, `alarm_id IN (${few.join() || 'NULL'})`],
      values
    }
  const table = `fired_trigger FORCE INDEX (${indexFor(s)})`
  return words.length
    ? {
        from: `${table} STRAIGHT_JOIN (${alarmsWithWords(words)}) found USING (alarm_id)`,
        where,
        values: [...words, ...values]
      }
    : { from: table, where, values }
}

/** By words alone from the tally of each alarm; with other conditions, or of one alarm, each is counted. */
async function countWords(sql: Sql, s: SiteSearch, words: readonly string[]): Promise<Counts> {
  const alone = words.length > 0 && !plainConditions(s).where.length
  const { from, where, values } = alone
    ? {
        from: `(${alarmsWithWords(words)}) found STRAIGHT_JOIN tally_of_alarm USING (alarm_id)`,
        where: ['n > 0'],
        values: [...words]
      }
    : await withWords(sql, s, words)
  const rows = await sql.rows<{ hour: number; n: number }>(
    alone
      ? `SELECT hour, SUM(n) AS n FROM ${from} ${whereText(where)} GROUP BY hour`
      : `SELECT fired_at DIV ${HOUR} AS hour, COUNT(*) AS n FROM ${from} ${whereText(where)} GROUP BY hour`,
    values
  )
  return { unit: HOUR, of: new Map(rows.map((r) => [Number(r.hour), Number(r.n)])) }
}

/** Within hours: each is counted. */
async function countShort(sql: Sql, s: SiteSearch, words: readonly string[]): Promise<CountsView> {
  const { from, where, values } = await withWords(sql, s, words)
  const minutes = await sql.rows<{ minute: number; n: number }>(
    `SELECT fired_at DIV ${STEPS[0]} AS minute, COUNT(*) AS n FROM ${from} ${whereText(where)} GROUP BY minute`,
    values
  )
  const counts = {
    unit: STEPS[0]!,
    of: new Map(minutes.map((r) => [Number(r.minute), Number(r.n)]))
  }
  return counts.of.size ? folded(counts, stepFor(spanOf(counts))) : NONE
}
