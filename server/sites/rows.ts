import type { CameraSummary, KeptSchedule, SiteInput, SiteView } from '../../core/api.ts'
import type { Camera, Schedule } from '../../core/formats/plan.ts'
import type { Sql } from '../database.ts'
import { conflict, notFound } from '../errors.ts'

interface SiteRow {
  id: string
  name: string
  time_zone: string
  latitude: number | null
  longitude: number | null
  inputs: string
}

const siteOf = ({ id, name, time_zone, latitude, longitude, inputs }: SiteRow): Omit<SiteView, 'cameras'> => ({
  id,
  name,
  timeZone: time_zone,
  position: latitude === null || longitude === null ? null : { latitude, longitude },
  inputs: parsed<SiteInput[]>(inputs)
})

/** The one site of this installation, or null before there is one. */
export async function readSite(sql: Sql): Promise<SiteView | null> {
  const [row] = await sql.rows<SiteRow>('SELECT id, name, time_zone, latitude, longitude, inputs FROM site ORDER BY id LIMIT 1')
  if (!row) return null
  const cameras = await sql.rows<CameraSummary>(
    `SELECT camera.id, camera.name,
            (SELECT COUNT(*) FROM detection WHERE detection.camera_id = camera.id AND NOT deleted) AS detections,
            (SELECT clip.id FROM clip WHERE clip.camera_id = camera.id AND clip.state = 'ready' ORDER BY created_at DESC LIMIT 1) AS clip
       FROM camera WHERE site_id = ? ORDER BY position, id`,
    [row.id]
  )
  return { ...siteOf(row), cameras }
}

export interface CameraRow {
  site: Omit<SiteView, 'cameras'>
  camera: Pick<Camera, 'id' | 'name' | 'ignore'>
  /** The simulated scene with its scripts, as it was seeded. */
  world: { scene: unknown; scripts: unknown[] } | null
}

export async function readCamera(sql: Sql, cameraId: string): Promise<CameraRow> {
  const [row] = await sql.rows<SiteRow & { camera_id: string; camera_name: string; ignore_areas: string; world: string | null }>(
    `SELECT site.id, site.name, time_zone, latitude, longitude, inputs, camera.id AS camera_id, camera.name AS camera_name, ignore_areas, world
       FROM camera JOIN site ON site.id = camera.site_id WHERE camera.id = ?`,
    [cameraId]
  )
  if (!row) throw notFound(`camera ${cameraId.slice(0, 64)}`)
  return { site: siteOf(row), camera: { id: row.camera_id, name: row.camera_name, ignore: parsed(row.ignore_areas) }, world: row.world === null ? null : parsed(row.world) }
}

/** MariaDB keeps JSON as text, and mysql2 hands some of it out already read. */
export const parsed = <T>(json: unknown): T => (typeof json === 'string' ? JSON.parse(json) : json) as T

interface ScheduleRow {
  body: string
  version: number
  changed_at: number
}

const scheduleOf = ({ body, version, changed_at }: ScheduleRow): KeptSchedule => ({ schedule: parsed<Schedule>(body), version, changedAt: changed_at })

export async function readSchedules(sql: Sql, siteId: string): Promise<KeptSchedule[]> {
  return (await sql.rows<ScheduleRow>('SELECT body, version, changed_at FROM schedule WHERE site_id = ? ORDER BY id', [siteId])).map(scheduleOf)
}

/** Saves over exactly the version named; 0 makes a new one. */
export async function saveSchedule(sql: Sql, siteId: string, schedule: Schedule, version: number, now: number): Promise<KeptSchedule> {
  const body = JSON.stringify(schedule)
  const done =
    version === 0
      ? await sql.run('INSERT IGNORE INTO schedule (site_id, id, body, version, changed_at) VALUES (?, ?, ?, 1, ?)', [siteId, schedule.id, body, now])
      : await sql.run('UPDATE schedule SET body = ?, version = version + 1, changed_at = ? WHERE site_id = ? AND id = ? AND version = ?', [body, now, siteId, schedule.id, version])
  if (done.affectedRows === 1) return { schedule, version: version + 1, changedAt: now }
  const current = (await readSchedules(sql, siteId)).find((kept) => kept.schedule.id === schedule.id)
  if (!current) throw notFound(`schedule ${schedule.id}`)
  throw conflict(`schedule ${current.schedule.name}`, current)
}
