import { randomUUID } from 'node:crypto'
import { mkdir, readFile, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { acceptedGapsOf } from '../../core/handover/acceptedGaps.ts'
import { bytesOf, digestOfRecord } from '../../core/handover/digest.ts'
import { openPointOf, standingOf, type AcceptedIssue } from '../../core/handover/obstacles.ts'
import { shareOf } from '../../core/handover/proportion.ts'
import {
  RecordSchema,
  type CheckRecord,
  type Deviation,
  type RecordedState,
  type SiteRecord
} from '../../core/handover/record.ts'
import type { MakeRecord, Step } from '../../core/handover/views.ts'
import { RECORD } from '../../core/handover/manifest.ts'
import { changesSince } from '../../core/handover/changes.ts'
import { ApiError } from '../../core/apiError.ts'
import { Failure, saidOfError } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { measureScene } from '../../core/scene/marks.ts'
import { isReachable } from '../../core/devices/views.ts'
import { conflict } from '../errors.ts'
import type { ClipView } from '../../core/api.ts'
import { readyClips } from '../clips/queries.ts'
import { listDevices, readDevice } from '../devices/queries.ts'
import { mapConcurrent } from '../mapConcurrent.ts'
import { writeWhole } from '../files.ts'
import type { Author } from '../history/queries.ts'
import type { Readiness } from '../readiness/service.ts'
import { exportSite } from '../sites/archive.ts'
import { writeFiles } from './files.ts'
import {
  bestProof,
  cameraPicture,
  keepEvidence,
  type Evidence,
  type PictureSources
} from './pictures.ts'
import { writePages } from './pagesThreads.ts'
import {
  acceptedGaps,
  endVisit,
  insertRecord,
  listAccepted,
  nextNumber,
  readVisit,
  walkedSince
} from './queries.ts'
import { readState, type DevicesRead } from './state.ts'
import { serviceItems } from './visit.ts'

/** Makes records: reads all devices again, runs what is out of date, takes pictures, writes pages and files. */

export interface MakeSources extends PictureSources {
  readiness: Readiness
  /** Where records are kept. */
  folder: string
}

export interface Progress {
  step: (step: Step, done: number, of: number) => void
  signal: AbortSignal
  /** When the record says that it was made; left out: when it is. */
  at?: number
}

const AT_ONCE = 6
const PICTURES_AT_ONCE = 3
const LOOK_MS = 200

export const folderOf = (folder: string, site: string, number: number): string =>
  join(folder, site, String(number))

/** @throws ApiError with the issues when some stand in the way and may not */
export async function makeRecord(
  sources: MakeSources,
  site: string,
  asked: MakeRecord,
  author: Author,
  progress: Progress
): Promise<SiteRecord> {
  const { database, readiness } = sources
  const stop = (): void => {
    if (progress.signal.aborted) throw new Failure(said('handover.stopped'))
  }
  const notPossible: Said[] = []
  const visit = asked.service ? await readVisit(database, site) : null
  const read = await readDevices(sources, site, progress, notPossible)
  stop()
  await runChecks(sources, site, asked, author, progress, notPossible)
  stop()
  const { findings } = await readiness.read(site)
  const accepted = await listAccepted(database, site)
  const standing = standingOf(findings, accepted)
  if (standing.open.length && !asked.allowOpen)
    throw new ApiError(409, {
      code: 'conflict',
      said: said('handover.standsInTheWay', standing.open.length)
    })
  const now = progress.at ?? Date.now()
  const state = await readState(sources, site, now, read)
  if (!state.site.cameras.length) throw conflict(said('handover.siteIsEmpty'))
  const number = await nextNumber(database, site)
  const home = folderOf(sources.folder, site, number)
  const part = `${home}.${randomUUID().slice(0, 8)}.part`
  await mkdir(part, { recursive: true })
  try {
    const { cameras, checks } = await takePictures(
      sources,
      state,
      await readyClips(database, site),
      part,
      now,
      progress,
      notPossible
    )
    stop()
    const recorded = { ...state, checks }
    const current = checks.flatMap((c) => (c.result?.current ? c.result : []))
    const sum = (of: 'hits' | 'misses' | 'false'): number =>
      current.reduce((all, r) => all + r[of], 0)
    const before = visit && (await readKept(sources.folder, site, visit.record))
    const record = parseWith(RecordSchema, {
      format: 'wardoptic-record/1',
      number,
      kind: visit ? 'service' : 'handover',
      madeAt: now,
      madeBy: author.by,
      client: asked.client,
      installer: asked.installer,
      note: asked.note,
      ...recorded,
      cameras,
      recall: shareOf(sum('hits'), sum('hits') + sum('misses')),
      precision: shareOf(sum('hits'), sum('hits') + sum('false')),
      open: [...standing.open, ...standing.hints].map(openPointOf),
      accepted: [...deviationsOf(standing.accepted), ...(await gapsOf(sources, site, state.site))],
      notPossible: notPossible.map(wordsOf),
      service:
        visit && before
          ? {
              number: before.number,
              digest: digestOfRecord(before),
              madeAt: before.madeAt,
              items: await serviceItems({
                before,
                beforeFolder: folderOf(sources.folder, site, before.number),
                now: recorded,
                cameras,
                folder: part,
                startedAt: visit.startedAt,
                walked: await walkedSince(database, site, visit.startedAt)
              }),
              changes: changesSince(before, recorded)
            }
          : null
    })
    await writeWhole(join(part, RECORD), bytesOf(record))
    progress.step('files', 0, 0)
    await writeFiles(part, record, await exportSite(sources, site, state.site))
    stop()
    progress.step('pages', 0, 0)
    await writePages({ folder: part, paper: asked.paper, signatures: [] })
    stop()
    await database.transaction(async (sql) => {
      // Two records of one number are refused here, before either takes the other's place.
      await insertRecord(sql, site, record, digestOfRecord(record), asked.paper, author.byId)
      if (visit) await endVisit(sql, site)
      await rm(home, { recursive: true, force: true })
      await rename(part, home)
    })
    return record
  } finally {
    await rm(part, { recursive: true, force: true })
  }
}

async function readDevices(
  { database, devices }: MakeSources,
  site: string,
  { step, signal }: Progress,
  notPossible: Said[]
): Promise<DevicesRead> {
  const rows = await listDevices(database, site)
  const troubles = new Map<string, Said | string>()
  const accounts = new Map<string, string[]>()
  let done = 0
  step('devices', 0, rows.length)
  await mapConcurrent(AT_ONCE, rows, async ({ id }) => {
    if (signal.aborted) return
    await devices.reader.readAfresh(id)
    const row = await readDevice(database, id)
    const { name, state, trouble } = row
    if (isReachable(state)) {
      // A device that refuses to say is none the worse for it.
      const names = await devices
        .link(row)
        .upkeep.accounts()
        .catch(() => null)
      if (names) accounts.set(id, names)
    } else {
      const why = trouble ?? state
      troubles.set(id, why)
      notPossible.push(said('handover.deviceNotRead', name, why))
    }
    step('devices', ++done, rows.length)
  })
  return { troubles, accounts }
}

/** Runs checks whose results are not of the settings as they are; at the end of a visit all of them. */
async function runChecks(
  { proving }: MakeSources,
  site: string,
  asked: MakeRecord,
  author: Author,
  { step, signal }: Progress,
  notPossible: Said[]
): Promise<void> {
  const { checks } = await proving.read(site)
  const stale = checks.filter(
    ({ check, last }) => check.by.how !== 'person' && (asked.service || !last?.current)
  )
  if (!stale.length) return
  if (!asked.runChecks) {
    notPossible.push(said('handover.checksLeftOut', stale.length))
    return
  }
  step('checks', 0, stale.length)
  try {
    const { id } = await proving.runs.start(
      site,
      stale.map(({ camera, check }) => ({ camera, check: check.id })),
      author
    )
    let run = await proving.runs.view(id)
    while (run.state === 'running') {
      if (signal.aborted) await proving.runs.stop(id).catch(() => {})
      await pause(LOOK_MS)
      run = await proving.runs.view(id)
      step('checks', run.done, run.asked)
    }
    if (run.done < run.asked)
      notPossible.push(said('handover.checksNotAllRun', run.asked - run.done))
  } catch (error) {
    notPossible.push(said('handover.checksNotRun', saidOfError(error)))
  }
}

async function takePictures(
  sources: MakeSources,
  { site, checks }: RecordedState,
  clips: readonly ClipView[],
  folder: string,
  now: number,
  { step, signal }: Progress,
  notPossible: Said[]
): Promise<{ cameras: SiteRecord['cameras']; checks: CheckRecord[] }> {
  const cameras: SiteRecord['cameras'] = []
  const proofs = new Map<string, Evidence>()
  const detections = site.cameras.flatMap((c) =>
    c.detections.map(({ detection }) => ({ camera: c.id, detection: detection.id }))
  )
  const of = site.cameras.length + detections.length
  let done = 0
  step('pictures', 0, of)
  await mapConcurrent(PICTURES_AT_ONCE, site.cameras, async ({ id, name, marks }) => {
    if (signal.aborted) return
    const { missing, ...found } = await cameraPicture(sources, id, clips, site, folder, now)
    if (missing) notPossible.push(said('handover.pictureMissing', name, missing))
    cameras.push({
      id,
      ...found,
      missing: missing && wordsOf(missing),
      pose: marks ? measureScene(marks).pose : null
    })
    step('pictures', ++done, of)
  })
  await mapConcurrent(PICTURES_AT_ONCE, detections, async ({ camera, detection }) => {
    if (signal.aborted) return
    const background = cameras.find(({ id }) => id === camera)?.picture ?? null
    const own = checks.filter((c) => c.camera === camera && c.detection === detection)
    for (const check of bestProof(own)) {
      const evidence = await keepEvidence(sources, check, background, folder).catch(() => null)
      if (!evidence) continue
      proofs.set(`${camera} ${check.id}`, evidence)
      break
    }
    step('pictures', ++done, of)
  })
  const place = (id: string): number => site.cameras.findIndex((c) => c.id === id)
  return {
    cameras: cameras.sort((a, b) => place(a.id) - place(b.id)),
    checks: checks.map((c) => ({ ...c, ...proofs.get(`${c.camera} ${c.id}`) }))
  }
}

const deviationsOf = (accepted: readonly { by: AcceptedIssue }[]): Deviation[] =>
  accepted.map(({ by: { sentence, reason, by, at } }) => ({ sentence, reason, by, at }))

/** Gaps in the hours of actions that were marked as intended, with who did. */
async function gapsOf(
  { database }: MakeSources,
  site: string,
  archive: SiteRecord['site']
): Promise<Deviation[]> {
  const who = await acceptedGaps(database, site)
  return acceptedGapsOf(archive).map(({ camera, detection, sentence }) => {
    const by = who.get(`${camera} ${detection}`)
    return { sentence, reason: null, by: by?.by ?? null, at: by?.at ?? null }
  })
}

/** A record as it is kept. @throws ApiError when its files are not there */
export async function readKept(folder: string, site: string, number: number): Promise<SiteRecord> {
  try {
    const text = await readFile(join(folderOf(folder, site, number), RECORD), 'utf8')
    return parseWith(RecordSchema, JSON.parse(text))
  } catch {
    throw conflict(said('handover.filesAreMissing', number))
  }
}
