import { said } from '../../core/messages/said.ts'
import { mkdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { explain, type Trigger } from '../../core/detections/index.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import type { Pictures } from '../deliveries/pictures.ts'
import type { DueTrigger } from '../deliveries/queries.ts'
import { notFound } from '../errors.ts'
import { writeWhole } from '../files.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import { measureScene } from '../../core/scene/marks.ts'
import {
  accountOf,
  pathOf,
  type TriggerExplanation,
  type TriggerRecord
} from '../../core/watch/explanation.ts'
import type { Clips } from '../clips/service.ts'
import { findClip } from '../clips/queries.ts'
import { parsed } from '../columns.ts'
import { readCamera, readSchedules, readSiteAlone } from '../sites/queries.ts'
import { MEMORY_FPS } from './recentFrames.ts'

/** A live picture is asked for when it is surely there: devices keep the last seconds. */
const AFTER_MS = 600
/**
 * More than these at a time are left out, two for each trigger, waited for or being done: a device that is flooded is
 * not asked for pictures as well.
 */
const MAX_WAITING = 120
/** So many are done at once: the events that come in go before what is kept of them. */
const AT_ONCE = 4
/** What the camera reported is kept from so long before a trigger to so long after it. */
const BEFORE_MS = 20_000
const STILL_MS = 3000

interface Row {
  id: number
  run_id: string | null
  clip_id: string | null
  source: 'run' | 'device' | 'sender'
  site_id: string
  camera_id: string
  kind: Trigger['kind']
  target: number | null
  frame: number | null
  clip_seconds: number | null
  direction: Trigger['direction'] | null
  cause: Trigger['cause'] | null
  severity: Trigger['severity'] | null
  fired_at: number
  fired_with: unknown
}

/** Remembers what cameras saw of late. */
interface Remembers {
  /** Rows of a camera between two instants, ms of UTC; frame 1 is at the first. */
  between(camera: string, from: number, to: number): Promise<TargetRow[]>
}

/**
 * Keeps the picture of each live trigger's moment and what the camera reported around it; of a clip's trigger both are
 * taken from the clip when they are asked for.
 */
export class Evidence {
  private readonly database: Database
  private readonly pictures: Pictures
  private readonly folder: string
  private readonly log: (error: unknown) => void
  private readonly waiting = new Set<NodeJS.Timeout>()
  /** What is due, and waits for its turn. */
  private readonly due: (() => Promise<void>)[] = []
  private readonly running = new Set<Promise<void>>()
  private closed = false
  private readonly clips: Clips
  private readonly memory: Remembers
  private readonly times: { after: number; still: number }

  /** @param times milliseconds after a trigger, of its picture and of what was reported around it */
  constructor(
    database: Database,
    pictures: Pictures,
    clips: Clips,
    memory: Remembers,
    folder: string,
    log: (error: unknown) => void,
    times = { after: AFTER_MS, still: STILL_MS }
  ) {
    this.times = times
    this.clips = clips
    this.memory = memory
    this.database = database
    this.pictures = pictures
    this.folder = folder
    this.log = log
  }

  /** A trigger has been taken. */
  note({ trigger }: { trigger?: number }): void {
    const open = this.waiting.size + this.due.length + this.running.size
    if (trigger === undefined || this.closed || open >= MAX_WAITING) return
    const at = Date.now()
    this.later(this.times.after, () => this.keep(trigger))
    this.later(this.times.still, () => this.keepRecord(trigger, at))
  }

  private later(ms: number, work: () => Promise<void>): void {
    const timer = setTimeout(() => {
      this.waiting.delete(timer)
      this.due.push(work)
      this.work()
    }, ms)
    this.waiting.add(timer)
  }

  /** Begins what is due, as much as may be done at once. */
  private work(): void {
    while (this.running.size < AT_ONCE && this.due.length) {
      const job: Promise<void> = this.due.shift()!()
        .catch(this.log)
        .finally(() => {
          this.running.delete(job)
          this.work()
        })
      this.running.add(job)
    }
  }

  /** Keeps what the camera has reported around a live trigger, with what held then. */
  private async keepRecord(id: number, at: number): Promise<void> {
    const row = await this.row(id)
    if (!row || row.run_id !== null || row.source !== 'device') return
    const record: TriggerRecord = {
      from: at - BEFORE_MS,
      at,
      fps: MEMORY_FPS,
      rows: await this.memory.between(row.camera_id, at - BEFORE_MS, at + STILL_MS),
      ...(await this.holding(row))
    }
    await mkdir(this.folder, { recursive: true })
    await writeWhole(join(this.folder, `${id}.json`), JSON.stringify(record))
  }

  /** The hours of a trigger's detection and the scene of its camera, as they are now. */
  private async holding(row: Row): Promise<Pick<TriggerRecord, 'plan' | 'ignore' | 'scene'>> {
    const [site, schedules, { scene }] = [
      await readSiteAlone(this.database, row.site_id),
      await readSchedules(this.database, row.site_id),
      await readCamera(this.database, row.camera_id)
    ]
    const { schedule: hours } = parsed<Detection>(row.fired_with)
    return {
      plan: {
        timeZone: site.timeZone,
        ...(site.position && { position: site.position }),
        schedules: schedules.flatMap(({ schedule }) => (schedule.id === hours ? [schedule] : []))
      },
      ignore: scene.ignore,
      scene: scene.marks ? measureScene(scene.marks).pose : null
    }
  }

  /**
   * Why a trigger fell: the way of its target, its gates, the settings as they were.
   * @throws ApiError when it is not there
   */
  async account(id: number): Promise<TriggerExplanation> {
    const row = await this.row(id)
    if (!row) throw notFound(said('things.trigger', id))
    const detection = parsed<Detection>(row.fired_with)
    if (row.run_id === null) {
      // A missing or truncated file counts as none.
      const kept = await readFile(join(this.folder, `${id}.json`), 'utf8')
        .then((text) => JSON.parse(text) as TriggerRecord)
        .catch(() => null)
      return accountOf(detection, row.target, kept)
    }
    const { plan, ignore, scene } = await this.holding(row)
    const hours = plan.schedules[0] ?? null
    const clip = row.clip_id === null ? null : await findClip(this.database, row.clip_id)
    if (!clip || clip.state !== 'ready')
      return { detection, hours, path: [], ladder: null, words: said('watch.itsClipIsNotThere') }
    if (row.target === null || row.clip_seconds === null)
      return accountOf(detection, row.target, {
        from: clip.start,
        at: clip.start,
        fps: clip.fps,
        rows: [],
        plan,
        ignore,
        scene
      })
    const { tracks } = await this.clips.readEvidence(clip)
    const setting = {
      plan,
      camera: { ignore, ...(scene && { scene }), detections: [{ ...detection, enabled: true }] },
      fps: clip.fps,
      start: clip.start,
      inputs: clip.inputs
    }
    return {
      detection,
      hours,
      path: pathOf(tracks, row.target, row.clip_seconds),
      ladder: explain(setting, tracks, detection.id, row.target, row.frame ?? undefined),
      words: null
    }
  }

  /** Leaves what has not begun, and waits for what has. */
  async close(): Promise<void> {
    this.closed = true
    for (const timer of this.waiting) clearTimeout(timer)
    this.due.length = 0
    await Promise.all(this.running)
  }

  private async keep(id: number): Promise<void> {
    const row = await this.row(id)
    if (!row || row.run_id !== null) return
    // A camera that no device shows has no picture; that is said where it is asked for.
    const { pictures } = await this.pictures
      .around(dueOf(row), row.camera_id, 0, 0, 1)
      .catch(() => ({ pictures: [] }))
    if (!pictures.length) return
    await mkdir(this.folder, { recursive: true })
    await writeWhole(join(this.folder, `${id}.jpg`), pictures[0]!.jpeg)
  }

  /** The picture of a trigger's moment, as JPEG. @throws ApiError when there is none */
  async picture(id: number): Promise<Buffer> {
    const row = await this.row(id)
    if (!row) throw notFound(said('things.trigger', id))
    if (row.run_id === null)
      return readFile(join(this.folder, `${id}.jpg`)).catch(() => {
        throw notFound(said('things.triggerPicture'))
      })
    const { pictures } = await this.pictures.around(dueOf(row), row.camera_id, 0, 0, 1)
    if (!pictures.length) throw notFound(said('things.triggerPicture'))
    return pictures[0]!.jpeg
  }

  private async row(id: number): Promise<Row | null> {
    const [row] = await this.database.rows<Row>(
      'SELECT t.id, t.run_id, run.clip_id, t.source, camera.site_id, t.camera_id, t.kind, t.target, t.frame, t.clip_seconds, t.direction, t.cause, t.severity, t.fired_at, t.fired_with FROM fired_trigger t JOIN camera ON camera.id = t.camera_id LEFT JOIN run ON run.id = t.run_id WHERE t.id = ?',
      [id]
    )
    return row ?? null
  }
}

const dueOf = (row: Row): DueTrigger => ({
  detection: parsed<Detection>(row.fired_with),
  kind: row.kind,
  firedAt: row.fired_at,
  ...(row.target !== null && { target: row.target }),
  ...(row.direction && { direction: row.direction }),
  ...(row.cause && { cause: row.cause }),
  ...(row.severity && { severity: row.severity }),
  clip:
    row.clip_id === null || row.frame === null || row.clip_seconds === null
      ? null
      : { id: row.clip_id, frame: row.frame, time: row.clip_seconds }
})
