import { randomUUID } from 'node:crypto'
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { pictureAt } from '../../analysis/pictures.ts'
import { ApiError } from '../../core/apiError.ts'
import { InputError } from '../../core/errors.ts'
import { writeCalendar } from '../../core/formats/iCalendar.ts'
import { readWave } from '../../core/formats/wave.ts'
import { coded, said } from '../../core/messages/said.ts'
import { parseWith } from '../../core/schema/parse.ts'
import {
  SiteArchiveSchema,
  changesOf,
  refuseTornArchive,
  withIds,
  type ImportPreview,
  type SiteArchive
} from '../../core/sites/archive.ts'
import {
  insertVoice,
  listVoices,
  readEndpoints,
  readSettings,
  readVoice,
  saveEndpoint,
  saveSetting
} from '../actions/queries.ts'
import type { Clips } from '../clips/service.ts'
import type { Database, Sql } from '../database.ts'
import { readAllDetections, saveActions, saveDetection } from '../detections/queries.ts'
import { listChannels } from '../devices/channelQueries.ts'
import { insertDevice, listDevices } from '../devices/queries.ts'
import type { Author, EditNote } from '../history/queries.ts'
import { readChecks, saveCheck } from '../proving/queries.ts'
import { saveCamera, saveSite } from './cameras.ts'
import { makeSite } from './manySites.ts'
import {
  readCameras,
  readSchedules,
  readSite,
  saveInputs,
  saveScene,
  saveSchedule
} from './queries.ts'

const SITE = 'site.json'
const MAX_UNPACKED = 200 * 2 ** 20
/** Seconds into a clip, of its picture in an archive. */
const PICTURE_AT = 10

/** All that is set up at a site. */
export async function readArchive(sql: Sql, siteId: string, now: number): Promise<SiteArchive> {
  const site = await readSite(sql, siteId)
  const [detections, cameras, checks, settings, devices, channels] = [
    await readAllDetections(sql, siteId),
    await readCameras(sql, siteId),
    await readChecks(sql, siteId),
    await readSettings(sql, siteId),
    await listDevices(sql, siteId),
    await listChannels(sql, siteId)
  ]
  const { name, timeZone, position, surroundings, inputs } = site
  return {
    format: 'wardoptic-site/1',
    madeAt: now,
    site: { name, timeZone, position, surroundings },
    inputs,
    schedules: (await readSchedules(sql, siteId)).map((s) => s.schedule),
    endpoints: (await readEndpoints(sql, siteId)).map((e) => e.endpoint),
    people: settings.people.people,
    mail: settings.mail.mail,
    usual: settings.usual.actions,
    voices: (await listVoices(sql, siteId)).map(({ id, name }) => ({ id, name })),
    devices: devices.map(({ id, name, address, username }) => ({
      id,
      name,
      address,
      username,
      channels: channels
        .filter((c) => c.device === id)
        .map(({ token, name, camera, used }) => ({ token, name, camera, used }))
    })),
    cameras: site.cameras.map(({ id, name, surroundings }) => {
      const scene = cameras.find((c) => c.camera.id === id)?.scene
      return {
        id,
        name,
        surroundings,
        ignore: scene?.ignore ?? [],
        marks: scene?.marks ?? null,
        detections: detections
          .filter((d) => d.camera === id)
          .map(({ detection, actions }) => ({ detection, actions: actions.actions })),
        checks: checks
          .filter((c) => c.camera === id && c.check.by.how !== 'clip')
          .map(({ check }) => check)
      }
    })
  }
}

/**
 * A site as one ZIP file: its settings, a picture of each camera, voice files, schedules as calendars.
 *
 * @param archive as `readArchive` gives it
 */
export async function exportSite(
  { database, clips }: { database: Database; clips: Clips },
  siteId: string,
  archive: SiteArchive
): Promise<Buffer> {
  const files: Zippable = { [SITE]: strToU8(`${JSON.stringify(archive, null, 1)}\n`) }
  const { timeZone, position } = archive.site
  for (const schedule of archive.schedules)
    files[`schedules/${schedule.id}.ics`] = strToU8(
      writeCalendar(schedule, { timeZone, position: position ?? undefined }, archive.madeAt)
    )
  for (const { id } of archive.voices)
    files[`voices/${id}.wav`] = new Uint8Array(await readVoice(database, siteId, id))
  for (const { id, clip } of (await readSite(database, siteId)).cameras) {
    // A clip that is just being removed has no picture.
    const picture =
      clip && (await pictureAt(clips.file(clip, 'view.mp4'), PICTURE_AT).catch(() => null))
    if (picture) files[`pictures/${id}.png`] = [new Uint8Array(picture), { level: 0 }]
  }
  return Buffer.from(zipSync(files))
}

/** An archive as it was sent. */
export interface SentArchive {
  archive: SiteArchive
  /** By the id of the voice file. */
  voices: Map<string, Buffer>
}

/** @throws InputError for what is none, and names the place */
export function unpack(bytes: Uint8Array): SentArchive {
  const place = coded('places.archive')
  let unpacked = 0
  let files: Record<string, Uint8Array>
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== SITE && !/^voices\/[\w-]{1,64}\.wav$/.test(name)) return false
        unpacked += originalSize
        return unpacked <= MAX_UNPACKED
      }
    })
  } catch {
    throw new InputError(place, said('sites.noZip'))
  }
  if (unpacked > MAX_UNPACKED)
    throw new InputError(place, said('sites.tooLarge', MAX_UNPACKED / 2 ** 20))
  const text = files[SITE]
  if (!text) throw new InputError(place, said('sites.noSiteInIt', SITE))
  let read: unknown
  try {
    read = JSON.parse(strFromU8(text))
  } catch {
    throw new InputError(SITE, said('sites.noJson'))
  }
  const archive = parseWith(SiteArchiveSchema, read)
  refuseTornArchive(archive)
  const voices = new Map<string, Buffer>()
  for (const { id, name } of archive.voices) {
    const content = files[`voices/${id}.wav`]
    if (!content) throw new InputError(place, said('sites.noVoice', name))
    voices.set(id, Buffer.from(content))
  }
  return { archive, voices }
}

/** Ids of cameras and devices that other sites have already get new ones: ids are one series for all. */
async function ownIds(sql: Sql, archive: SiteArchive, siteId: string | null): Promise<SiteArchive> {
  const renamed = new Map<string, string>()
  for (const [table, things] of [
    ['camera', archive.cameras],
    ['device', archive.devices]
  ] as const)
    for (const { id } of things) {
      const [row] = await sql.rows<{ site_id: string }>(
        `SELECT site_id FROM ${table} WHERE id = ?`,
        [id]
      )
      if (row && row.site_id !== siteId) renamed.set(id, `${table}-${randomUUID().slice(0, 8)}`)
    }
  return withIds(archive, renamed)
}

/** Devices of an archive whose addresses are known already. */
async function knownAddresses(sql: Sql): Promise<Set<string>> {
  return new Set((await listDevices(sql)).map((d) => d.address))
}

/** What an import would do. @param siteId null: it becomes a new site */
export async function previewImport(
  sql: Sql,
  { archive }: SentArchive,
  siteId: string | null,
  now: number
): Promise<ImportPreview> {
  const own = await ownIds(sql, archive, siteId)
  const current = siteId === null ? null : await readArchive(sql, siteId, now)
  const changes = changesOf(current, own, await knownAddresses(sql))
  return { name: archive.site.name, madeAt: archive.madeAt, changes }
}

/**
 * Takes an archive into a site, or makes one of it: what it has is saved over what is there, the rest stays. In a
 * transaction. Devices come without their passwords.
 *
 * @returns the id of the site
 */
export async function importSite(
  sql: Sql,
  sent: SentArchive,
  siteId: string | null,
  by: Author,
  now: number
): Promise<string> {
  const { site } = sent.archive
  const id =
    siteId ?? (await makeSite(sql, { name: site.name, from: null }, site.timeZone, by, now))
  const archive = await ownIds(sql, sent.archive, id)
  const note: EditNote = { ...by, label: said('edits.importSite', site.name) }
  await importSettings(sql, id, archive, sent.voices, note, now)
  for (const [order, camera] of archive.cameras.entries())
    await importCamera(sql, id, camera, order, note, now)
  await importDevices(sql, id, archive, now)
  return id
}

/** Saves over whatever version is there. */
async function over<T>(version: number, save: (version: number) => Promise<T>): Promise<T> {
  try {
    return await save(version)
  } catch (error) {
    const current = error instanceof ApiError && (error.view.current as { version?: number } | null)
    if (!current || current.version === undefined) throw error
    return save(current.version)
  }
}

async function importSettings(
  sql: Sql,
  id: string,
  a: SiteArchive,
  voices: ReadonlyMap<string, Buffer>,
  note: EditNote,
  now: number
): Promise<void> {
  await over(1, (version) => saveSite(sql, id, a.site, version, note, now))
  for (const schedule of a.schedules)
    await over(0, (version) => saveSchedule(sql, id, schedule, version, note, now))
  if (a.inputs.length) await saveInputs(sql, id, a.inputs, note, now)
  const there = new Set((await listVoices(sql, id)).map((v) => v.id))
  for (const voice of a.voices.filter((v) => !there.has(v.id))) {
    const content = voices.get(voice.id)!
    const { seconds } = readWave(new Uint8Array(content))
    await insertVoice(sql, id, { ...voice, seconds, content }, now)
  }
  const settings = [
    ...(a.people.people.length ? [['people', a.people] as const] : []),
    ...(a.mail ? [['mail', a.mail] as const] : [])
  ]
  for (const [name, value] of settings)
    await over(0, (version) => saveSetting(sql, id, name, value, version, note, now))
  for (const endpoint of a.endpoints)
    await over(0, (version) => saveEndpoint(sql, id, endpoint, version, note, now))
  const { usual } = a
  if (usual) await over(0, (version) => saveSetting(sql, id, 'usual', usual, version, note, now))
}

async function importDevices(
  sql: Sql,
  id: string,
  { devices, cameras }: SiteArchive,
  now: number
): Promise<void> {
  const addresses = await knownAddresses(sql)
  const known = new Set((await listDevices(sql, id)).map((d) => d.id))
  for (const { channels, ...device } of devices) {
    if (known.has(device.id) || addresses.has(device.address)) continue
    // Of a device of one picture; a recorder's are found by their names once it is read.
    const only = channels.length === 1 ? channels[0]!.camera : null
    const camera = cameras.some((c) => c.id === only) ? only : null
    await insertDevice(sql, id, { ...device, camera, sealed: null, makesCameras: false }, now)
  }
}

async function importCamera(
  sql: Sql,
  id: string,
  camera: SiteArchive['cameras'][number],
  order: number,
  note: EditNote,
  now: number
): Promise<void> {
  const { name, surroundings, ignore, marks, detections, checks } = camera
  await over(0, (version) =>
    saveCamera(sql, id, camera.id, { name, order, surroundings }, version, note, now)
  )
  if (ignore.length || marks)
    await over(0, (version) => saveScene(sql, camera.id, { ignore, marks, version }, note, now))
  for (const [position, { detection, actions }] of detections.entries()) {
    await over(0, (version) =>
      saveDetection(sql, camera.id, detection, position, version, note, now)
    )
    await over(0, (version) =>
      saveActions(sql, camera.id, detection.id, actions, version, note, now)
    )
  }
  for (const check of checks)
    await over(0, (version) => saveCheck(sql, camera.id, check, version, now))
}
