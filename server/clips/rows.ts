import type { ClipView } from '../../core/api.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'

interface Row {
  id: string
  camera_id: string
  name: string
  state: 'analysing' | 'ready' | 'stopped'
  start_at: number
  fps: number
  width: number
  height: number
  frames: number
  target_count: number
  row_count: number
  bytes: number
}

const clipOf = (row: Row): ClipView => ({
  id: row.id,
  camera: row.camera_id,
  name: row.name,
  state: row.state,
  start: row.start_at,
  fps: row.fps,
  width: row.width,
  height: row.height,
  frames: row.frames,
  targets: row.target_count,
  rows: row.row_count,
  bytes: row.bytes,
  progress: null,
  error: null
})

const select = 'SELECT id, camera_id, name, state, start_at, fps, width, height, frames, target_count, row_count, bytes FROM clip'

export async function listClips(sql: Sql, cameraId: string): Promise<ClipView[]> {
  return (await sql.rows<Row>(`${select} WHERE camera_id = ? ORDER BY created_at DESC`, [cameraId])).map(clipOf)
}

export async function findClip(sql: Sql, id: string): Promise<ClipView | null> {
  const [row] = await sql.rows<Row>(`${select} WHERE id = ?`, [id])
  return row ? clipOf(row) : null
}

export async function readClip(sql: Sql, id: string): Promise<ClipView> {
  const clip = await findClip(sql, id)
  if (!clip) throw notFound(`clip ${id.slice(0, 64)}`)
  return clip
}

export async function unfinishedClips(sql: Sql): Promise<ClipView[]> {
  return (await sql.rows<Row>(`${select} WHERE state = 'analysing' ORDER BY created_at`)).map(clipOf)
}

export async function clipIds(sql: Sql): Promise<string[]> {
  return (await sql.rows<{ id: string }>('SELECT id FROM clip')).map((row) => row.id)
}

export async function insertClip(sql: Sql, clip: ClipView, now: number): Promise<void> {
  await sql.run("INSERT INTO clip (id, camera_id, name, state, start_at, fps, width, height, bytes, created_at) VALUES (?, ?, ?, 'analysing', ?, ?, ?, ?, ?, ?)", [
    clip.id, clip.camera, clip.name, clip.start, clip.fps, clip.width, clip.height, clip.bytes, now
  ])
}

export async function finishClip(sql: Sql, id: string, frames: number, targets: number, rows: number): Promise<void> {
  await sql.run("UPDATE clip SET state = 'ready', frames = ?, target_count = ?, row_count = ? WHERE id = ?", [frames, targets, rows, id])
}

export async function setClipState(sql: Sql, id: string, state: 'analysing' | 'stopped'): Promise<void> {
  await sql.run('UPDATE clip SET state = ? WHERE id = ?', [state, id])
}

export async function changeClip(sql: Sql, id: string, name: string, start: number): Promise<void> {
  await sql.run('UPDATE clip SET name = ?, start_at = ? WHERE id = ?', [name, start, id])
}

export async function removeClip(sql: Sql, id: string): Promise<void> {
  await sql.run('DELETE FROM clip WHERE id = ?', [id])
}
