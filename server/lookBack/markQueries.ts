import { MARK_WITHIN_SECONDS } from '../../core/marks/judge.ts'
import type { MarkKind, MarkReason } from '../../core/marks/marks.ts'
import type { MarkView, NuisanceView } from '../../core/marks/views.ts'
import type { Sql } from '../database.ts'
import type { Author } from '../history/queries.ts'

interface Row {
  id: number
  detection_id: string
  clip_id: string | null
  target: number | null
  at: number
  mark: MarkKind
  reason: MarkReason | null
  made_by: string
  made_at: number
}

const viewOf = (row: Row): MarkView => ({
  id: row.id,
  detection: row.detection_id,
  clip: row.clip_id,
  target: row.target,
  at: row.at,
  mark: row.mark,
  reason: row.reason,
  by: row.made_by,
  madeAt: row.made_at
})

const COLUMNS = 'id, detection_id, clip_id, target, at, mark, reason, made_by, made_at'

/** In order of time. */
export async function listMarks(sql: Sql, camera: string): Promise<MarkView[]> {
  const rows = await sql.rows<Row>(
    `SELECT ${COLUMNS} FROM mark WHERE camera_id = ? ORDER BY at, id`,
    [camera]
  )
  return rows.map(viewOf)
}

export interface NewMark {
  site: string
  camera: string
  detection: string
  clip: string | null
  target: number | null
  at: number
  mark: MarkKind
  reason: MarkReason | null
}

/** As near to a trigger as a mark belongs to it (core/marks/judge.ts). */
const SAME_MS = 1000 * MARK_WITHIN_SECONDS

/** What is said anew of the same target, at about the same moment, takes the place of what was said. */
export async function saveMark(
  sql: Sql,
  { site, camera, detection, clip, target, at, mark, reason }: NewMark,
  author: Author,
  now: number
): Promise<number> {
  await sql.run(
    'DELETE FROM mark WHERE camera_id = ? AND detection_id = ? AND clip_id <=> ? AND target <=> ? AND at BETWEEN ? AND ?',
    [camera, detection, clip, target, at - SAME_MS, at + SAME_MS]
  )
  const { insertId } = await sql.run(
    'INSERT INTO mark (site_id, camera_id, detection_id, clip_id, target, at, mark, reason, made_by, made_by_id, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [site, camera, detection, clip, target, at, mark, reason, author.by, author.byId, now]
  )
  return insertId
}

/** @returns whether there was one */
export async function deleteMark(sql: Sql, camera: string, id: number): Promise<boolean> {
  return (
    (await sql.run('DELETE FROM mark WHERE camera_id = ? AND id = ?', [camera, id])).affectedRows >
    0
  )
}

/** Marks each trigger of an alarm; what was said of one before is said anew. @returns how many */
export async function markAlarm(
  sql: Sql,
  alarm: number,
  mark: MarkKind,
  reason: MarkReason | null,
  author: Author,
  now: number
): Promise<number> {
  await sql.run(
    `INSERT INTO mark (site_id, camera_id, detection_id, clip_id, target, at, mark, reason, trigger_id, made_by, made_by_id, made_at)
     SELECT camera.site_id, t.camera_id, t.detection_id, run.clip_id, t.target,
            IF(run.clip_id IS NULL, t.fired_at, ROUND(1000 * t.clip_seconds)), ?, ?, t.id, ?, ?, ?
     FROM fired_trigger t JOIN camera ON camera.id = t.camera_id LEFT JOIN run ON run.id = t.run_id
     WHERE t.alarm_id = ?
     ON DUPLICATE KEY UPDATE mark = VALUES(mark), reason = VALUES(reason), made_by = VALUES(made_by),
       made_by_id = VALUES(made_by_id), made_at = VALUES(made_at)`,
    [mark, reason, author.by, author.byId, now, alarm]
  )
  const [row] = await sql.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM fired_trigger WHERE alarm_id = ?',
    [alarm]
  )
  return Number(row?.n ?? 0)
}

/** The detections of a site by how many nuisances they had since an instant, the worst first. */
export async function countNuisances(
  sql: Sql,
  site: string,
  since: number
): Promise<NuisanceView[]> {
  return (
    await sql.rows<NuisanceView>(
      `SELECT mark.camera_id AS camera, camera.name AS cameraName, mark.detection_id AS detection,
              JSON_UNQUOTE(JSON_EXTRACT(detection.body, '$.name')) AS name,
              SUM(mark.mark = 'nuisance') AS nuisances, SUM(mark.mark = 'wanted') AS wanted
       FROM mark JOIN camera ON camera.id = mark.camera_id
         JOIN detection ON detection.camera_id = mark.camera_id AND detection.id = mark.detection_id
       WHERE mark.site_id = ? AND mark.clip_id IS NULL AND mark.at >= ? AND NOT detection.deleted
       GROUP BY mark.camera_id, mark.detection_id HAVING nuisances > 0
       ORDER BY nuisances DESC, camera.name, name LIMIT 50`,
      [site, since]
    )
  ).map((row) => ({ ...row, nuisances: Number(row.nuisances), wanted: Number(row.wanted) }))
}
