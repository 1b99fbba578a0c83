import { said } from '../../core/messages/said.ts'
import type {
  CameraSummary,
  SavedScene,
  SavedSchedule,
  SaveScene,
  SiteInput,
  SiteView
} from '../../core/api.ts'
import type { Camera, Schedule } from '../../core/formats/plan.ts'
import type { Surroundings } from '../../core/sites/surroundings.ts'
import type { Sql } from '../database.ts'
import { deleteVersion, writeVersion } from '../versioned.ts'
import { measureScene, type SceneMarks } from '../../core/scene/marks.ts'
import { parsed, parsedOnce } from '../columns.ts'
import { versionConflict, notFound } from '../errors.ts'
import { noteEdit, type EditNote } from '../history/queries.ts'

interface SiteRow {
  id: string
  name: string
  time_zone: string
  latitude: number | null
  longitude: number | null
  inputs: string
  surroundings: Surroundings
  is_set_up: number
  version: number
  changed_at: number
}

/** A site without its cameras. */
export type SiteAlone = Omit<SiteView, 'cameras' | 'deletedCameras'>

const siteColumns =
  'site.id, site.name, time_zone, latitude, longitude, inputs, site.surroundings, is_set_up, site.version, site.changed_at'

const siteOf = ({
  id,
  name,
  time_zone,
  latitude,
  longitude,
  inputs,
  surroundings,
  is_set_up,
  version,
  changed_at
}: SiteRow): SiteAlone => ({
  id,
  name,
  timeZone: time_zone,
  position: latitude === null || longitude === null ? null : { latitude, longitude },
  inputs: parsedOnce<SiteInput[]>(inputs),
  surroundings,
  isSetUp: is_set_up !== 0,
  version,
  changedAt: changed_at
})

/** A site without its cameras: of many, reading these takes a while. @throws ApiError when it is not there */
export async function readSiteAlone(sql: Sql, id: string): Promise<SiteAlone> {
  const [row] = await sql.rows<SiteRow>(
    `SELECT ${siteColumns} FROM site WHERE id = ? AND NOT removed`,
    [id]
  )
  if (!row) throw notFound(said('things.site'))
  return siteOf(row)
}

/** A site with its cameras. @throws ApiError when it is not there */
export async function readSite(sql: Sql, id: string): Promise<SiteView> {
  const site = await readSiteAlone(sql, id)
  const cameras = await sql.rows<CameraSummary>(
    `SELECT camera.id, camera.name, position AS \`order\`, surroundings, version, changed_at AS changedAt,
            (SELECT COUNT(*) FROM clip WHERE clip.camera_id = camera.id) AS clips,
            (SELECT COUNT(*) FROM detection WHERE detection.camera_id = camera.id AND NOT deleted) AS detections,
            (SELECT clip.id FROM clip WHERE clip.camera_id = camera.id AND clip.state = 'ready' AND reported IS NULL ORDER BY created_at DESC LIMIT 1) AS clip
       FROM camera WHERE site_id = ? AND NOT removed ORDER BY position, id`,
    [site.id]
  )
  const deletedCameras = await sql.rows<{ id: string; version: number }>(
    'SELECT id, version FROM camera WHERE site_id = ? AND removed ORDER BY id',
    [site.id]
  )
  return { ...site, cameras, deletedCameras }
}

/** The names of a site's cameras, in its order. */
export const listCameras = (sql: Sql, site: string): Promise<Pick<Camera, 'id' | 'name'>[]> =>
  sql.rows('SELECT id, name FROM camera WHERE site_id = ? AND NOT removed ORDER BY position, id', [
    site
  ])

/** The names of a site's cameras and devices, by id. */
export const namesOf = async (sql: Sql, site: string): Promise<Map<string, string>> =>
  new Map(
    (
      await sql.rows<{ id: string; name: string }>(
        'SELECT id, name FROM camera WHERE site_id = ? AND NOT removed UNION ALL SELECT id, name FROM device WHERE site_id = ?',
        [site, site]
      )
    ).map(({ id, name }) => [id, name])
  )

/** The ids of a site's cameras, also of those that were deleted: undo brings them back. */
export const listCameraIds = async (sql: Sql, site: string): Promise<string[]> =>
  (await sql.rows<{ id: string }>('SELECT id FROM camera WHERE site_id = ?', [site])).map(
    ({ id }) => id
  )

/** The ids of all sites, the oldest first. */
export const siteIds = async (sql: Sql): Promise<string[]> =>
  (
    await sql.rows<{ id: string }>('SELECT id FROM site WHERE NOT removed ORDER BY added_at, id')
  ).map(({ id }) => id)

/** The site that a camera belongs to. @throws ApiError when there is no such camera */
export async function siteOfCamera(sql: Sql, camera: string): Promise<string> {
  const [row] = await sql.rows<{ site_id: string }>('SELECT site_id FROM camera WHERE id = ?', [
    camera
  ])
  if (!row) throw notFound(said('things.camera', camera.slice(0, 64)))
  return row.site_id
}

/** A camera that a request names. @throws ApiError when it is none of the site's */
export async function cameraOfSite(sql: Sql, site: string, camera: string): Promise<void> {
  const there = await sql.rows(
    'SELECT 1 FROM camera WHERE id = ? AND site_id = ? AND NOT removed',
    [camera, site]
  )
  if (!there.length) throw notFound(said('things.camera', camera.slice(0, 64)))
}

export interface CameraRow {
  site: SiteAlone
  camera: Pick<Camera, 'id' | 'name'>
  /** Its own, or the site's. */
  surroundings: Surroundings
  scene: SavedScene
  /** The simulated scene with its scripts, as it was seeded. */
  world: { scene: unknown; scripts: unknown[] } | null
}

export async function readCamera(sql: Sql, cameraId: string): Promise<CameraRow> {
  const [row] = await sql.rows<CameraRaw>(
    `${selectCamera} WHERE camera.id = ? AND NOT camera.removed`,
    [cameraId]
  )
  if (!row) throw notFound(said('things.camera', cameraId.slice(0, 64)))
  return cameraOf(row)
}

/** All cameras of a site, in its order. */
export async function readCameras(sql: Sql, siteId: string): Promise<CameraRow[]> {
  return (
    await sql.rows<CameraRaw>(
      `${selectCamera} WHERE camera.site_id = ? AND NOT camera.removed ORDER BY camera.position, camera.id`,
      [siteId]
    )
  ).map(cameraOf)
}

type CameraRaw = SiteRow &
  SceneRow & {
    camera_id: string
    camera_name: string
    camera_surroundings: Surroundings
    world: string | null
  }

const selectCamera = `SELECT ${siteColumns}, COALESCE(camera.surroundings, site.surroundings) AS camera_surroundings, camera.id AS camera_id, camera.name AS camera_name, ignore_areas, scene_marks, scene_version, scene_changed_at, world
       FROM camera JOIN site ON site.id = camera.site_id`

const cameraOf = (row: CameraRaw): CameraRow => ({
  site: siteOf(row),
  camera: { id: row.camera_id, name: row.camera_name },
  surroundings: row.camera_surroundings,
  scene: sceneOf(row),
  world: row.world === null ? null : parsed(row.world)
})

interface SceneRow {
  ignore_areas: string
  scene_marks: string | null
  scene_version: number
  scene_changed_at: number
}

const sceneOf = (row: SceneRow): SavedScene => ({
  ignore: parsed(row.ignore_areas),
  marks: row.scene_marks === null ? null : parsed(row.scene_marks),
  version: row.scene_version,
  changedAt: row.scene_changed_at
})

/** The measured cameras of a site, each from its marks. */
export async function readMarks(sql: Sql, siteId: string): Promise<Map<string, SceneMarks>> {
  const rows = await sql.rows<{ id: string; scene_marks: string }>(
    'SELECT id, scene_marks FROM camera WHERE site_id = ? AND NOT removed AND scene_marks IS NOT NULL',
    [siteId]
  )
  return new Map(rows.map(({ id, scene_marks }) => [id, parsedOnce<SceneMarks>(scene_marks)]))
}

/** Saves over exactly the version named. @throws InputError when the marks measure nothing */
export async function saveScene(
  sql: Sql,
  cameraId: string,
  { ignore, marks, version }: SaveScene,
  note: EditNote,
  now: number
): Promise<SavedScene> {
  if (marks) measureScene(marks)
  const done = await sql.run(
    'UPDATE camera SET ignore_areas = ?, scene_marks = ?, scene_version = scene_version + 1, scene_changed_at = ? WHERE id = ? AND scene_version = ?',
    [JSON.stringify(ignore), marks && JSON.stringify(marks), now, cameraId, version]
  )
  const { site, camera, scene } = await readCamera(sql, cameraId)
  if (done.affectedRows !== 1) throw versionConflict(said('things.sceneOf', camera.name), scene)
  await noteEdit(sql, site.id, cameraId, 'scene', cameraId, { ignore, marks }, note, now)
  return scene
}

interface ScheduleRow {
  body: string
  version: number
  changed_at: number
}

const scheduleOf = ({ body, version, changed_at }: ScheduleRow): SavedSchedule => ({
  schedule: parsedOnce<Schedule>(body),
  version,
  changedAt: changed_at
})

export async function readSchedules(sql: Sql, siteId: string): Promise<SavedSchedule[]> {
  return (
    await sql.rows<ScheduleRow>(
      'SELECT body, version, changed_at FROM schedule WHERE site_id = ? AND NOT deleted ORDER BY id',
      [siteId]
    )
  ).map(scheduleOf)
}

/** Saves over exactly the version named; 0 makes a new one. In a transaction. */
export async function saveSchedule(
  sql: Sql,
  siteId: string,
  schedule: Schedule,
  version: number,
  note: EditNote,
  now: number
): Promise<SavedSchedule> {
  const isWritten = await writeVersion(
    sql,
    'schedule',
    { site_id: siteId, id: schedule.id },
    { body: JSON.stringify(schedule), deleted: false },
    version,
    now
  )
  if (!isWritten) return refuseSchedule(sql, siteId, schedule.id)
  await noteEdit(sql, siteId, null, 'schedule', schedule.id, schedule, note, now)
  return { schedule, version: version + 1, changedAt: now }
}

async function refuseSchedule(sql: Sql, siteId: string, id: string): Promise<never> {
  const [row] = await sql.rows<ScheduleRow & { deleted: number }>(
    'SELECT body, version, changed_at, deleted FROM schedule WHERE site_id = ? AND id = ?',
    [siteId, id]
  )
  if (!row) throw notFound(said('things.schedule', id.slice(0, 64)))
  throw versionConflict(
    said('things.schedule', scheduleOf(row).schedule.name),
    row.deleted
      ? { deleted: true, version: row.version, changedAt: row.changed_at }
      : scheduleOf(row)
  )
}

/** Deletes exactly the version named; nothing may use it. @returns the version under which it can be brought back */
export async function deleteSchedule(
  sql: Sql,
  siteId: string,
  id: string,
  version: number,
  note: EditNote,
  now: number
): Promise<{ version: number }> {
  const isDeleted = await deleteVersion(sql, 'schedule', { site_id: siteId, id }, version, now)
  if (!isDeleted) return refuseSchedule(sql, siteId, id)
  await noteEdit(sql, siteId, null, 'schedule', id, null, note, now)
  return { version: version + 1 }
}

export async function saveInputs(
  sql: Sql,
  siteId: string,
  inputs: readonly SiteInput[],
  note: EditNote,
  now: number
): Promise<void> {
  await sql.run('UPDATE site SET inputs = ? WHERE id = ?', [JSON.stringify(inputs), siteId])
  await noteEdit(sql, siteId, null, 'setting', 'inputs', inputs, note, now)
}
