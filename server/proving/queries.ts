import { said, type Said, saidOf } from '../../core/messages/said.ts'
import type { Trigger } from '../../core/detections/index.ts'
import type { Check } from '../../core/formats/check.ts'
import type { Verdict } from '../../core/proving/judge.ts'
import type { NamedCheck } from '../../core/proving/views.ts'
import type { Sql } from '../database.ts'
import { deleteVersion, writeVersion } from '../versioned.ts'
import { versionConflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { parsed } from '../columns.ts'

interface CheckRow {
  camera_id: string
  id: string
  body: unknown
  version: number
  changed_at: number
  deleted: number
}

export interface StoredCheck {
  camera: string
  check: Check
  version: number
  changedAt: number
}

const keptOf = (row: CheckRow): StoredCheck => ({
  camera: row.camera_id,
  check: parsed<Check>(row.body),
  version: row.version,
  changedAt: row.changed_at
})

/** All checks of a site, in the order of cameras, rails and names. Those of deleted detections are left out. */
export async function readChecks(sql: Sql, siteId: string): Promise<StoredCheck[]> {
  const rows = await sql.rows<CheckRow>(
    `SELECT c.camera_id, c.id, c.body, c.version, c.changed_at, c.deleted FROM proof_check AS c
       JOIN camera ON camera.id = c.camera_id JOIN detection AS d ON d.camera_id = c.camera_id AND d.id = JSON_VALUE(c.body, '$.detection')
      WHERE camera.site_id = ? AND NOT camera.removed AND NOT c.deleted AND NOT d.deleted ORDER BY camera.position, camera.id, d.position, d.id, c.id`,
    [siteId]
  )
  return rows.map(keptOf)
}

/** Deleted proposals, as `camera check`: they are not proposed again as new. */
export async function readRefused(sql: Sql, siteId: string): Promise<Map<string, number>> {
  const rows = await sql.rows<{ camera_id: string; id: string; version: number }>(
    'SELECT c.camera_id, c.id, c.version FROM proof_check AS c JOIN camera ON camera.id = c.camera_id WHERE camera.site_id = ? AND c.deleted',
    [siteId]
  )
  return new Map(rows.map((row) => [`${row.camera_id} ${row.id}`, row.version]))
}

async function refuse(sql: Sql, camera: string, id: string, name: Said | string): Promise<never> {
  const [row] = await sql.rows<CheckRow>(
    'SELECT camera_id, id, body, version, changed_at, deleted FROM proof_check WHERE camera_id = ? AND id = ?',
    [camera, id]
  )
  if (!row) throw notFound(said('things.check', name))
  throw versionConflict(
    said('things.check', name),
    row.deleted ? { deleted: true, version: row.version, changedAt: row.changed_at } : keptOf(row)
  )
}

/** Saves over exactly the version named; 0 makes a new one; a deleted one comes back. */
export async function saveCheck(
  sql: Sql,
  camera: string,
  check: Check,
  version: number,
  now: number
): Promise<StoredCheck> {
  const isWritten = await writeVersion(
    sql,
    'proof_check',
    { camera_id: camera, id: check.id },
    { body: JSON.stringify(check), deleted: false },
    version,
    now
  )
  if (!isWritten) return refuse(sql, camera, check.id, check.name)
  return { camera, check, version: version + 1, changedAt: now }
}

export async function deleteCheck(
  sql: Sql,
  camera: string,
  id: string,
  version: number,
  now: number
): Promise<{ version: number }> {
  const isDeleted = await deleteVersion(sql, 'proof_check', { camera_id: camera, id }, version, now)
  if (!isDeleted) return refuse(sql, camera, id, id)
  return { version: version + 1 }
}

/** More edits between two runs name nothing any more. */
const MAX_EDITS = 2000

interface RunRow {
  id: number
  site_id: string
  state: 'running' | 'stopped' | 'finished'
  asked: unknown
  started_at: number
  ended_at: number | null
  made_by: string
}

export interface StoredRun {
  id: number
  site: string
  state: RunRow['state']
  asked: NamedCheck[]
  startedAt: number
  endedAt: number | null
  by: string
}

const runOf = (row: RunRow): StoredRun => ({
  id: row.id,
  site: row.site_id,
  state: row.state,
  asked: parsed<NamedCheck[]>(row.asked),
  startedAt: row.started_at,
  endedAt: row.ended_at,
  by: row.made_by
})
const runColumns = 'SELECT id, site_id, state, asked, started_at, ended_at, made_by FROM proof_run'

export async function insertRun(
  sql: Sql,
  siteId: string,
  asked: readonly NamedCheck[],
  { by, byId }: Author,
  now: number
): Promise<number> {
  return (
    await sql.run(
      "INSERT INTO proof_run (site_id, state, asked, started_at, made_by, made_by_id) VALUES (?, 'running', ?, ?, ?, ?)",
      [siteId, JSON.stringify(asked), now, by, byId]
    )
  ).insertId
}

export async function setRunState(
  sql: Sql,
  id: number,
  state: RunRow['state'],
  now: number | null
): Promise<void> {
  await sql.run('UPDATE proof_run SET state = ?, ended_at = ? WHERE id = ?', [state, now, id])
}

/** Runs that an end of the server cut off can be gone on with. */
export async function stopRunsLeftRunning(sql: Sql, now: number): Promise<void> {
  await sql.run("UPDATE proof_run SET state = 'stopped', ended_at = ? WHERE state = 'running'", [
    now
  ])
}

export async function lastRun(sql: Sql, siteId: string): Promise<StoredRun | null> {
  const [row] = await sql.rows<RunRow>(`${runColumns} WHERE site_id = ? ORDER BY id DESC LIMIT 1`, [
    siteId
  ])
  return row ? runOf(row) : null
}

export async function readRun(sql: Sql, id: number): Promise<StoredRun> {
  const [row] = await sql.rows<RunRow>(`${runColumns} WHERE id = ?`, [id])
  if (!row) throw notFound(said('things.run', id))
  return runOf(row)
}

export async function insertResult(
  sql: Sql,
  run: number,
  camera: string,
  check: Check,
  settings: string,
  verdict: Verdict,
  now: number
): Promise<void> {
  await sql.run(
    'REPLACE INTO proof_result (run_id, camera_id, check_id, detection_id, passed, settings, verdict, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      run,
      camera,
      check.id,
      check.detection,
      verdict.outcome === 'passed',
      settings,
      JSON.stringify({ check, verdict }),
      now
    ]
  )
}

export interface StoredResult {
  id: number
  run: number
  camera: string
  check: string
  detection: string
  passed: boolean
  settings: string
  at: number
  sentence: Said | string
  hits: number
  misses: number
  false: number
}

interface ResultRow {
  id: number
  run_id: number
  camera_id: string
  check_id: string
  detection_id: string
  passed: number
  settings: string
  made_at: number
  sentence: string
  hits: string
  misses: string
  more: string
}

const resultOf = (row: ResultRow): StoredResult => ({
  id: row.id,
  run: row.run_id,
  camera: row.camera_id,
  check: row.check_id,
  detection: row.detection_id,
  passed: row.passed === 1,
  settings: row.settings,
  at: row.made_at,
  sentence: JSON.parse(row.sentence) as Said | string,
  hits: Number(row.hits),
  misses: Number(row.misses),
  false: Number(row.more)
})
const resultColumns = `r.id, r.run_id, r.camera_id, r.check_id, r.detection_id, r.passed, r.settings, r.made_at, CONCAT(JSON_EXTRACT(verdict, '$.verdict.sentence'), '') AS sentence,
  JSON_VALUE(verdict, '$.verdict.hits') AS hits, JSON_VALUE(verdict, '$.verdict.misses') AS misses, JSON_VALUE(verdict, '$.verdict.false') AS more`

/** Of every check of a site its last result. */
export async function lastResults(sql: Sql, siteId: string): Promise<StoredResult[]> {
  return (
    await sql.rows<ResultRow>(
      `SELECT ${resultColumns} FROM proof_result AS r JOIN (SELECT MAX(p.id) AS id FROM proof_result AS p JOIN camera ON camera.id = p.camera_id WHERE camera.site_id = ? GROUP BY p.camera_id, p.check_id) AS last ON last.id = r.id`,
      [siteId]
    )
  ).map(resultOf)
}

export async function resultsOfRun(sql: Sql, run: number): Promise<StoredResult[]> {
  return (
    await sql.rows<ResultRow>(
      `SELECT ${resultColumns} FROM proof_result AS r WHERE r.run_id = ? ORDER BY r.id`,
      [run]
    )
  ).map(resultOf)
}

/** Of the checks of a run, how each went the time before. */
export async function resultsBefore(sql: Sql, run: number): Promise<StoredResult[]> {
  return (
    await sql.rows<ResultRow>(
      `SELECT ${resultColumns} FROM proof_result AS r JOIN (SELECT MAX(p.id) AS id FROM proof_result AS p JOIN proof_result AS q ON q.camera_id = p.camera_id AND q.check_id = p.check_id WHERE q.run_id = ? AND p.run_id < ? GROUP BY p.camera_id, p.check_id) AS last ON last.id = r.id`,
      [run, run]
    )
  ).map(resultOf)
}

export async function readResult(
  sql: Sql,
  camera: string,
  checkId: string
): Promise<{ run: number; at: number; settings: string; check: Check; verdict: Verdict }> {
  const [row] = await sql.rows<{
    run_id: number
    made_at: number
    settings: string
    verdict: unknown
  }>(
    'SELECT run_id, made_at, settings, verdict FROM proof_result WHERE camera_id = ? AND check_id = ? ORDER BY id DESC LIMIT 1',
    [camera, checkId]
  )
  if (!row) throw notFound(said('things.result', checkId.slice(0, 120)))
  return {
    run: row.run_id,
    at: row.made_at,
    settings: row.settings,
    ...parsed<{ check: Check; verdict: Verdict }>(row.verdict)
  }
}

/** Edits of a camera and of what its site shares, between two instants, newest first. */
export async function editsBetween(
  sql: Sql,
  siteId: string,
  from: number,
  to: number
): Promise<{ camera: string | null; label: Said | string; by: string; at: number }[]> {
  const rows = await sql.rows<{ camera: string | null; label: string; by: string; at: number }>(
    `SELECT camera_id AS camera, label, made_by AS \`by\`, made_at AS at FROM edit WHERE site_id = ? AND made_at > ? AND made_at <= ? ORDER BY id DESC LIMIT ${MAX_EDITS}`,
    [siteId, from, to]
  )
  return rows.map((row) => ({ ...row, label: saidOf(row.label) }))
}

/** A live trigger, as a walk test wants it; null: it is of a clip's run, or is not there. */
export async function readLiveTrigger(
  sql: Sql,
  id: number
): Promise<{
  camera: string
  detection: string
  name: string
  kind: Trigger['kind']
  target: number | null
  direction: Trigger['direction'] | null
  cause: Trigger['cause'] | null
} | null> {
  const [row] = await sql.rows<{
    camera_id: string
    detection_id: string
    name: string
    kind: Trigger['kind']
    target: number | null
    direction: Trigger['direction'] | null
    cause: Trigger['cause'] | null
  }>(
    "SELECT camera_id, detection_id, JSON_VALUE(fired_with, '$.name') AS name, kind, target, direction, cause FROM fired_trigger WHERE id = ? AND run_id IS NULL",
    [id]
  )
  return row
    ? {
        camera: row.camera_id,
        detection: row.detection_id,
        name: row.name,
        kind: row.kind,
        target: row.target,
        direction: row.direction,
        cause: row.cause
      }
    : null
}
