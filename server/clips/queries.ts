import { said } from '../../core/messages/said.ts'
import type { ClipView } from '../../core/api.ts'
import type { Play } from '../../simulation/script.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import { parsed } from '../columns.ts'
import type { Found, Stretch } from './reported.ts'

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
  script: string | null
  inputs: string
  learn_anew: string
  reported: string | null
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
  made: row.script !== null,
  reported: row.reported !== null,
  inputs: parsed(row.inputs),
  learnAnewAt: parsed(row.learn_anew),
  progress: null,
  error: null
})

const select =
  'SELECT id, camera_id, name, state, start_at, fps, width, height, frames, target_count, row_count, bytes, script, inputs, learn_anew, reported FROM clip'

export async function listClips(sql: Sql, cameraId: string): Promise<ClipView[]> {
  return (
    await sql.rows<Row>(`${select} WHERE camera_id = ? ORDER BY created_at DESC`, [cameraId])
  ).map(clipOf)
}

export async function findClip(sql: Sql, id: string): Promise<ClipView | null> {
  const [row] = await sql.rows<Row>(`${select} WHERE id = ?`, [id])
  return row ? clipOf(row) : null
}

export async function readClip(sql: Sql, id: string): Promise<ClipView> {
  const clip = await findClip(sql, id)
  if (!clip) throw notFound(said('things.clip', id.slice(0, 64)))
  return clip
}

export async function unfinishedClips(sql: Sql): Promise<ClipView[]> {
  return (await sql.rows<Row>(`${select} WHERE state = 'analysing' ORDER BY created_at`)).map(
    clipOf
  )
}

export async function readyClips(sql: Sql, site?: string): Promise<ClipView[]> {
  return (
    await sql.rows<Row>(
      `${select} WHERE state = 'ready'${site === undefined ? '' : ' AND camera_id IN (SELECT id FROM camera WHERE site_id = ?)'}`,
      site === undefined ? [] : [site]
    )
  ).map(clipOf)
}

export async function clipIds(sql: Sql): Promise<string[]> {
  return (await sql.rows<{ id: string }>('SELECT id FROM clip')).map((row) => row.id)
}

/** Where a clip comes from. */
interface Origin {
  /** What a made clip is to be painted from. */
  play?: Play
  /** When that was, of a clip of reports. */
  reported?: Stretch
  /** It was recorded here from its camera's stream. */
  recorded?: boolean
}

export async function insertClip(
  sql: Sql,
  clip: ClipView,
  now: number,
  { play, reported, recorded = false }: Origin
): Promise<void> {
  await sql.run(
    "INSERT INTO clip (id, camera_id, name, state, start_at, fps, width, height, bytes, created_at, script, inputs, reported, recorded) VALUES (?, ?, ?, 'analysing', ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
    [
      clip.id,
      clip.camera,
      clip.name,
      clip.start,
      clip.fps,
      clip.width,
      clip.height,
      clip.bytes,
      now,
      play ? JSON.stringify(play) : null,
      JSON.stringify(clip.inputs),
      reported ? JSON.stringify(reported) : null,
      recorded
    ]
  )
}

/** When what a clip shows was reported; null: it is of pictures. */
export async function readReported(sql: Sql, id: string): Promise<Stretch | null> {
  const [row] = await sql.rows<{ reported: string | null }>(
    'SELECT reported FROM clip WHERE id = ?',
    [id]
  )
  return row?.reported ? parsed<Stretch>(row.reported) : null
}

/** What a made clip is painted from; null for one that was sent. */
export async function readPlay(sql: Sql, id: string): Promise<Play | null> {
  const [row] = await sql.rows<{ script: string | null }>('SELECT script FROM clip WHERE id = ?', [
    id
  ])
  return row?.script ? parsed<Play>(row.script) : null
}

export async function setLearnAnew(
  sql: Sql,
  id: string,
  seconds: readonly number[]
): Promise<void> {
  await sql.run("UPDATE clip SET learn_anew = ?, state = 'analysing' WHERE id = ?", [
    JSON.stringify(seconds),
    id
  ])
}

export async function finishClip(
  sql: Sql,
  id: string,
  { width, height, frames, targets, rows }: Found,
  sizes: Readonly<Record<string, number>>
): Promise<void> {
  await sql.run(
    "UPDATE clip SET state = 'ready', width = ?, height = ?, frames = ?, target_count = ?, row_count = ?, file_sizes = ? WHERE id = ?",
    [width, height, frames, targets, rows, JSON.stringify(sizes), id]
  )
}

/** How large the files of an analysed clip are, in bytes; null: it was analysed before that was kept. */
export async function readFileSizes(sql: Sql, id: string): Promise<Record<string, number> | null> {
  const [row] = await sql.rows<{ file_sizes: unknown }>(
    'SELECT file_sizes FROM clip WHERE id = ?',
    [id]
  )
  return row?.file_sizes ? parsed(row.file_sizes) : null
}

export async function setClipState(
  sql: Sql,
  id: string,
  state: 'analysing' | 'stopped'
): Promise<void> {
  await sql.run('UPDATE clip SET state = ? WHERE id = ?', [state, id])
}

export async function changeClip(
  sql: Sql,
  { id, start: before, inputs }: ClipView,
  name: string,
  start: number
): Promise<void> {
  // What contacts did is on the clip's clock and moves with it.
  const moved = Object.fromEntries(
    Object.entries(inputs).map(([input, changes]) => [
      input,
      changes.map(({ at, set }) => ({ at: at + start - before, set }))
    ])
  )
  await sql.run('UPDATE clip SET name = ?, start_at = ?, inputs = ? WHERE id = ?', [
    name,
    start,
    JSON.stringify(moved),
    id
  ])
}

export async function removeClip(sql: Sql, id: string): Promise<void> {
  // Deleted explicitly: a cascade would leave the tally wrong.
  await sql.run(
    'DELETE FROM fired_trigger WHERE run_id IN (SELECT id FROM run WHERE clip_id = ?)',
    [id]
  )
  await sql.run('DELETE FROM clip WHERE id = ?', [id])
}
