import * as v from 'valibot'
import { SaveInputsSchema, SaveSceneSchema } from '../api.ts'
import { InputError } from '../errors.ts'
import {
  ActionsSchema,
  EndpointSchema,
  MailSchema,
  PeopleSchema,
  type Endpoint
} from '../formats/actions.ts'
import { CheckSchema } from '../formats/check.ts'
import { DetectionSchema, ScheduleSchema, isTiedToSun } from '../formats/plan.ts'
import { canonical } from '../history/states.ts'
import { coded, said } from '../messages/said.ts'
import { bool, filled, id, noLongerThan, number, oneOf } from '../schema/parts.ts'
import { CameraSettingsSchema, MAX_CAMERAS, SiteSettingsSchema } from './settings.ts'

/**
 * A whole site in one file, `site.json` of an archive: all settings, and nothing of what happened. No
 * password is in it. Its JSON Schema is docs/site.schema.json.
 */

const list = <const S extends v.GenericSchema>(item: S, most: number) =>
  v.pipe(v.array(item, coded('sites.mustBeAList')), v.maxLength(most, coded('sites.tooMany', most)))
const token = v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(120))

export const SiteArchiveSchema = v.strictObject({
  format: oneOf(['wardoptic-site/1']),
  /** Milliseconds of UTC. */
  madeAt: number(0, Number.MAX_SAFE_INTEGER),
  site: SiteSettingsSchema,
  inputs: SaveInputsSchema.entries.inputs,
  schedules: list(ScheduleSchema, 1000),
  endpoints: list(EndpointSchema, 2000),
  people: PeopleSchema,
  mail: v.nullable(MailSchema),
  /** Default actions. */
  usual: v.nullable(ActionsSchema),
  /** Each a file `voices/<id>.wav` of the archive. */
  voices: list(v.strictObject({ id, name: filled(80) }), 200),
  devices: list(
    v.strictObject({
      id,
      name: filled(80),
      address: filled(200),
      username: v.nullable(filled(80)),
      channels: list(
        v.strictObject({ token, name: token, camera: v.nullable(id), used: bool }),
        500
      )
    }),
    2000
  ),
  /** In the order of the site. */
  cameras: list(
    v.strictObject({
      id,
      name: CameraSettingsSchema.entries.name,
      surroundings: CameraSettingsSchema.entries.surroundings,
      ignore: SaveSceneSchema.entries.ignore,
      marks: SaveSceneSchema.entries.marks,
      /** In the order of the rail. */
      detections: list(v.strictObject({ detection: DetectionSchema, actions: ActionsSchema }), 500),
      /** But for those of clips, which are not in an archive. */
      checks: list(CheckSchema, 5000)
    }),
    MAX_CAMERAS
  )
})
export type SiteArchive = v.InferOutput<typeof SiteArchiveSchema>

export const ARCHIVE_THINGS = [
  'site',
  'contacts',
  'schedule',
  'endpoint',
  'people',
  'mail',
  'usual',
  'voice',
  'device',
  'camera',
  'scene',
  'detection',
  'check'
] as const
export type ArchiveThing = (typeof ARCHIVE_THINGS)[number]

/** One thing that an import would change. */
export interface ArchiveChange {
  thing: ArchiveThing
  name: string
  /** The camera that it is of; null: of the site. */
  camera: string | null
  change: 'added' | 'changed' | 'left-out'
}

/** What an import would do. */
export interface ImportPreview {
  /** Of the site in the archive. */
  name: string
  madeAt: number
  changes: ArchiveChange[]
}

interface Part extends Omit<ArchiveChange, 'change'> {
  body: unknown
}

/** The things of a site by names of their own, each with all that is set of it. */
function partsOf(a: SiteArchive): Map<string, Part> {
  const parts = new Map<string, Part>()
  const add = (thing: ArchiveThing, key: string, name: string, body: unknown, camera?: string) =>
    parts.set(`${thing} ${key}`, { thing, name, body, camera: camera ?? null })
  add('site', '', a.site.name, a.site)
  if (a.inputs.length) add('contacts', '', a.inputs.map((i) => i.name).join(', '), a.inputs)
  for (const s of a.schedules) add('schedule', s.id, s.name, s)
  for (const e of a.endpoints) add('endpoint', e.id, e.name, e)
  if (a.people.people.length)
    add('people', '', a.people.people.map((p) => p.name).join(', '), a.people)
  if (a.mail) add('mail', '', a.mail.host, a.mail)
  if (a.usual) add('usual', '', '', a.usual)
  for (const voice of a.voices) add('voice', voice.id, voice.name, voice)
  // A device that is there stays as it is: it may have moved.
  for (const d of a.devices) add('device', d.id, d.name, null)
  for (const [order, c] of a.cameras.entries()) {
    add('camera', c.id, c.name, [c.name, c.surroundings, order])
    if (c.ignore.length || c.marks) add('scene', c.id, c.name, [c.ignore, c.marks], c.name)
    for (const { detection: d, actions } of c.detections)
      add('detection', `${c.id} ${d.id}`, d.name, [{ ...d, note: d.note?.text }, actions], c.name)
    for (const check of c.checks) add('check', `${c.id} ${check.id}`, '', check, c.name)
  }
  return parts
}

/**
 * What of a site an archive would add or change; what the archive does not have stays.
 *
 * @param addresses of devices that are known already: those of the archive are left out
 */
export function changesOf(
  now: SiteArchive | null,
  next: SiteArchive,
  addresses: ReadonlySet<string>
): ArchiveChange[] {
  const leftOut = new Set(
    next.devices.flatMap((d) => (addresses.has(d.address) ? [`device ${d.id}`] : []))
  )
  const before = now ? partsOf(now) : new Map<string, Part>()
  return [...partsOf(next)].flatMap(([key, { body, ...part }]): ArchiveChange[] => {
    const known = before.get(key)
    if (!known) return [{ ...part, change: leftOut.has(key) ? 'left-out' : 'added' }]
    return canonical(known.body) === canonical(body) ? [] : [{ ...part, change: 'changed' }]
  })
}

/** The same site with other ids of cameras and devices; ids that `renamed` does not know stay. */
export function withIds(a: SiteArchive, renamed: ReadonlyMap<string, string>): SiteArchive {
  const of = (old: string): string => renamed.get(old) ?? old
  const endpointOf = (e: Endpoint): Endpoint => ({
    ...e,
    ...('device' in e && e.device && { device: of(e.device) }),
    ...('camera' in e && e.camera && { camera: of(e.camera) })
  })
  return {
    ...a,
    inputs: a.inputs.map((i) => (i.device === undefined ? i : { ...i, device: of(i.device) })),
    endpoints: a.endpoints.map(endpointOf),
    devices: a.devices.map((d) => ({
      ...d,
      id: of(d.id),
      channels: d.channels.map((c) => ({ ...c, camera: c.camera === null ? null : of(c.camera) }))
    })),
    cameras: a.cameras.map((c) => ({ ...c, id: of(c.id) }))
  }
}

/** @throws InputError when something in it names what is not in it */
export function refuseTornArchive(a: SiteArchive): void {
  const schedules = new Set(a.schedules.map((s) => s.id))
  const needs = (place: string, schedule: string | undefined): void => {
    if (schedule !== undefined && !schedules.has(schedule))
      throw new InputError(place, said('sites.noSuchSchedule', schedule))
  }
  for (const [i, c] of a.cameras.entries())
    for (const [j, { detection }] of c.detections.entries())
      needs(`$.cameras[${i}].detections[${j}].detection.schedule`, detection.schedule)
  for (const [i, e] of a.endpoints.entries()) needs(`$.endpoints[${i}].schedule`, e.schedule)
  for (const [i, schedule] of a.schedules.entries())
    if (!a.site.position && isTiedToSun(schedule))
      throw new InputError(`$.schedules[${i}]`, said('plan.isTiedToTheSun'))
  for (const [things, ids] of [
    ['cameras', a.cameras],
    ['devices', a.devices],
    ['schedules', a.schedules],
    ['endpoints', a.endpoints]
  ] as const) {
    const twice = ids.find((one, i) => ids.findIndex((other) => other.id === one.id) !== i)
    if (twice) throw new InputError(`$.${things}`, said('sites.idTwice', twice.id))
  }
}
