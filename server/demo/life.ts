import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { DEMO_STEPS, type DemoView } from '../../core/demo/views.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { DetectionSchema, type Camera, type Detection } from '../../core/formats/plan.ts'
import type { Endpoint } from '../../core/formats/actions.ts'
import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { findByName } from '../accounts/queries.ts'
import { noteEndpointTest, readEndpoint } from '../actions/queries.ts'
import { readyClips } from '../clips/queries.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import {
  readAllDetections,
  readDetections,
  saveActions,
  saveDetection
} from '../detections/queries.ts'
import type { Devices } from '../devices/service.ts'
import { listDevices } from '../devices/queries.ts'
import { readEverything } from '../devices/view.ts'
import { writeWhole } from '../files.ts'
import type { Handover } from '../handover/service.ts'
import type { Author } from '../history/queries.ts'
import type { Proving } from '../proving/service.ts'
import { DEMO_SITE, addDemoClip } from '../seed.ts'
import { readCameras, readSchedules, readSiteAlone, type SiteAlone } from '../sites/queries.ts'
import { simulateInThreads, takePast } from './past.ts'
import { daysAgo } from './simulate.ts'
import { readStory, type Story } from './story.ts'

export interface DemoParts {
  database: Database
  clips: Clips
  devices: Devices
  proving: Proving
  handover: Handover
  /** Where what cameras report is kept. */
  lookBack: string
  /** The data folder. */
  folder: string
  test: (endpoint: Endpoint, site: SiteAlone) => Promise<unknown>
}

/** In the data folder: when it was begun, ms of UTC, and what has been done. */
interface Kept {
  begun: number
  done: (typeof DEMO_STEPS)[number][]
}

const LOOK_MS = 200

/**
 * Gives the demo site a past, once, after its first start and beside everything else: detections on all cameras, seven
 * days with their alarms, devices that hold their part, checks, a record of last spring and what has changed since. What
 * an end of the server leaves undone is done at the next start.
 */
export class DemoLife {
  private readonly parts: DemoParts
  private readonly log: (error: unknown) => void
  private readonly stop = new AbortController()
  private readonly file: string
  private filling: DemoView['filling'] = null
  private begun = 0
  private working: Promise<void> = Promise.resolve()

  constructor(parts: DemoParts, log: (error: unknown) => void) {
    this.parts = parts
    this.log = log
    this.file = join(parts.folder, 'demo.json')
  }

  view(site: string): DemoView {
    const hasPast = site === DEMO_SITE && this.begun > 0
    return { hasPast, filling: hasPast ? this.filling : null }
  }

  /**
   * @param fresh the site has been made by this very start
   * @param past told when the past is there, or there will be none now
   */
  begin(fresh: boolean, { story, past }: { story?: Story; past?: () => void } = {}): void {
    this.working = this.run(fresh, story, past)
      .catch((error: unknown) => {
        if (!this.stop.signal.aborted) this.log(error)
      })
      .finally(past)
  }

  /** Waits for what was begun. */
  ended(): Promise<void> {
    return this.working
  }

  async close(): Promise<void> {
    this.stop.abort()
    await this.working
  }

  private async run(fresh: boolean, given?: Story, past?: () => void): Promise<void> {
    const kept = (await this.kept()) ?? (fresh ? { begun: Date.now(), done: [] } : null)
    if (!kept) return
    this.begun = kept.begun
    const { done } = kept
    const left = DEMO_STEPS.filter((s) => !done.includes(s))
    if (!left.length) return
    const story = given ?? readStory()
    try {
      for (const step of left) {
        await this.keep({ begun: kept.begun, done })
        this.filling = { step, share: 0 }
        // What comes after it is of clips as well.
        if (step !== 'plan' && step !== 'past') past?.()
        // What comes after it is of use without it; it is tried again at the next start.
        await this[step](story).then(
          () => void done.push(step),
          (error: unknown) => this.stop.signal.aborted || this.log(error)
        )
        this.stop.signal.throwIfAborted()
      }
      await this.keep({ begun: kept.begun, done })
    } finally {
      this.filling = null
    }
  }

  /** What has been done; null: nothing was begun. */
  private async kept(): Promise<Kept | null> {
    const text = await readFile(this.file, 'utf8').catch(() => null)
    return text === null ? null : (JSON.parse(text) as Kept)
  }

  private keep(kept: Kept): Promise<void> {
    return writeWhole(this.file, JSON.stringify(kept))
  }

  private step(share: number): void {
    if (this.filling) this.filling = { ...this.filling, share }
  }

  private async author(username: string): Promise<Author> {
    const found = await findByName(this.parts.database, username)
    return { by: found?.account.name ?? username, byId: found?.account.id ?? null }
  }

  /** More detections with their actions. */
  async plan(story: Story): Promise<void> {
    const { database } = this.parts
    const now = Date.parse(story.record.at) - 3_600_000
    const author = await this.author(story.people.installs)
    for (const [camera, list] of Object.entries(story.detections)) {
      const there = await readDetections(database, camera)
      for (const [k, { detection, actions }] of list.entries()) {
        if (there.some((d) => d.detection.id === detection.id)) continue
        const note = { ...author, label: said('edits.edit', detection.name) }
        await database.transaction(async (sql) => {
          await saveDetection(sql, camera, detection, there.length + k, 0, note, now)
          await saveActions(sql, camera, detection.id, actions, 0, note, now)
        })
      }
    }
    for (const { camera, detection, actions } of await readAllDetections(database, DEMO_SITE)) {
      const linked = story.linked[detection.id]
      if (!linked) continue
      const note = { ...author, label: said('edits.actionsOf', detection.name) }
      await database.transaction((sql) =>
        saveActions(sql, camera, detection.id, linked, actions.version, note, now)
      )
    }
  }

  /** More clips. */
  async clips(story: Story): Promise<void> {
    const { database, clips } = this.parts
    const { timeZone } = await readSiteAlone(database, DEMO_SITE)
    const worlds = await this.worlds()
    const clipsThere = await readyClips(database, DEMO_SITE)
    for (const { camera, script, name, daysAgo: days, at } of story.clips) {
      if (clipsThere.some((clip) => clip.camera === camera && clip.name === name)) continue
      const start = daysAgo(this.begun, days, at, timeZone)
      await addDemoClip(clips, worlds[camera]!, { camera, script, name, start })
    }
  }

  /** Seven days. */
  async past(story: Story): Promise<void> {
    const { database, lookBack } = this.parts
    const now = this.begun
    // What an end of the server has left half done is done anew.
    await database.run('DELETE FROM alarm WHERE site_id = ? AND first_at < ? AND run_id IS NULL', [
      DEMO_SITE,
      now
    ])
    const { timeZone, position } = await readSiteAlone(database, DEMO_SITE)
    const schedules = (await readSchedules(database, DEMO_SITE)).map((s) => s.schedule)
    const cameras = await this.cameras()
    let heard = 0
    const pasts = await simulateInThreads(
      {
        story,
        folder: lookBack,
        plan: { schedules, timeZone, ...(position && { position }) },
        worlds: await this.worlds(),
        now
      },
      cameras,
      () => this.step((0.7 * ++heard) / cameras.length),
      this.stop.signal
    )
    const { channels } = await readEverything(database, DEMO_SITE)
    await takePast(pasts, {
      database,
      siteId: DEMO_SITE,
      cameras,
      devices: new Map(channels.flatMap((c) => (c.camera ? [[c.camera, c.device] as const] : []))),
      story,
      watcher: await this.author(story.people.watches),
      now,
      step: (share) => this.step(0.7 + 0.3 * share),
      signal: this.stop.signal
    })
  }

  /** Devices that hold the plan, actions that have been tested. */
  async devices(story: Story): Promise<void> {
    const { database, devices, test } = this.parts
    const known = (await listDevices(database, DEMO_SITE)).map(({ id }) => id)
    for (const id of story.send.filter((id) => known.includes(id))) {
      this.stop.signal.throwIfAborted()
      await devices.sender.send(id)
    }
    const site = await readSiteAlone(database, DEMO_SITE)
    const at = Date.parse(story.record.at) - 1_800_000
    for (const id of story.test) {
      this.stop.signal.throwIfAborted()
      const { endpoint } = await readEndpoint(database, DEMO_SITE, id)
      const error = await test(endpoint, site).then(
        () => null,
        (error: unknown) => saidOfError(error)
      )
      await noteEndpointTest(database, DEMO_SITE, id, error, at)
    }
  }

  /** Some checks of each detection, run in spring. */
  async checks(story: Story): Promise<void> {
    const { database, proving } = this.parts
    const view = await this.untilStopped(proving.readProposed(DEMO_SITE))
    const { perDetection, kinds, without } = story.checks
    const wanted = (await readAllDetections(database, DEMO_SITE))
      .filter(({ detection }) => !without.includes(detection.id))
      .flatMap(({ camera, detection }) =>
        kinds
          .flatMap(
            (kind) =>
              view.proposals.find(
                (p) => p.camera === camera && p.check.id === `${detection.id}.${kind}`
              ) ?? []
          )
          .slice(0, perDetection)
      )
    if (wanted.length)
      await proving.take(
        DEMO_SITE,
        wanted.map(({ camera, check }) => ({ camera, check: check.id }))
      )
    await this.prove(story)
    const at = Date.parse(story.record.at) - 900_000
    await database.run('UPDATE proof_run SET started_at = ?, ended_at = ? WHERE site_id = ?', [
      at,
      at + 60_000,
      DEMO_SITE
    ])
    await database.run(
      'UPDATE proof_result JOIN proof_run ON proof_run.id = run_id SET made_at = ? WHERE site_id = ?',
      [at + 60_000, DEMO_SITE]
    )
  }

  /** The record of last spring. */
  async record(story: Story): Promise<void> {
    const { handover } = this.parts
    const { at, client, installer, note, signed } = story.record
    const author = await this.author(story.people.installs)
    handover.start(
      DEMO_SITE,
      { client, installer, note, paper: 'a4', runChecks: false, allowOpen: true, service: false },
      author,
      Date.parse(at)
    )
    for (;;) {
      const { job } = await handover.view(DEMO_SITE)
      if (job?.state !== 'running') break
      if (job.of) this.step(job.done / job.of)
      await pause(LOOK_MS)
      if (this.stop.signal.aborted) await handover.stop(DEMO_SITE)
    }
    this.stop.signal.throwIfAborted()
    for (const { number, digest } of await handover.records(DEMO_SITE))
      await handover.sign(
        DEMO_SITE,
        number,
        { ...signed, digest },
        author,
        Date.parse(at) + 900_000
      )
  }

  /** What somebody has changed since, and how checks stand now. */
  async since(story: Story): Promise<void> {
    const { database } = this.parts
    const author = await this.author(story.people.installs)
    for (const { camera, detection: id, with: changed } of story.since) {
      const list = await readDetections(database, camera)
      const position = list.findIndex(({ detection }) => detection.id === id)
      const { detection, version } = list[position]!
      const next: Detection = parseWith(DetectionSchema, { ...detection, ...changed })
      const note = { ...author, label: said('edits.edit', detection.name) }
      await database.transaction((sql) =>
        saveDetection(sql, camera, next, position, version, note, Date.now() - 2 * 86_400_000)
      )
    }
    await this.prove(story)
  }

  private async prove(story: Story): Promise<void> {
    const { proving } = this.parts
    const { id } = await proving.runs.start(
      DEMO_SITE,
      undefined,
      await this.author(story.people.installs)
    )
    for (;;) {
      const run = await proving.runs.view(id)
      this.step(run.done / Math.max(1, run.asked))
      if (run.state !== 'running') return
      await pause(LOOK_MS, undefined, { signal: this.stop.signal })
    }
  }

  /** Waits for what an end of the server does not end by itself. */
  private untilStopped<T>(work: Promise<T>): Promise<T> {
    const { signal } = this.stop
    const stopped = new Promise<never>((_, reject) =>
      signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true })
    )
    return Promise.race([work, stopped])
  }

  private async cameras(): Promise<Camera[]> {
    const { database } = this.parts
    const all = await readAllDetections(database, DEMO_SITE)
    return (await readCameras(database, DEMO_SITE)).map(({ camera, scene }) => ({
      ...camera,
      ignore: scene.ignore,
      detections: all.filter((d) => d.camera === camera.id).map(({ detection }) => detection)
    }))
  }

  private async worlds(): Promise<Record<string, { scene: unknown; scripts: unknown[] }>> {
    return Object.fromEntries(
      (await readCameras(this.parts.database, DEMO_SITE)).flatMap(({ camera, world }) =>
        world ? [[camera.id, world]] : []
      )
    )
  }
}
