import { said } from '../../core/messages/said.ts'
import { randomUUID } from 'node:crypto'
import { isReal } from '../../core/actions/real.ts'
import type { RealActionsView, RunView } from '../../core/api.ts'
import { Evaluator, type Trigger } from '../../core/detections/index.ts'
import { CLASSES, type TargetClass } from '../../core/targets/classes.ts'
import { firstRowOfFrame, frameAt, type Tracks } from '../../core/targets/tracks.ts'
import { readPlanOf } from '../bench/routes.ts'
import type { Clips } from '../clips/service.ts'
import { readClip } from '../clips/queries.ts'
import type { Database } from '../database.ts'
import { readDetections } from '../detections/queries.ts'
import { listDevices } from '../devices/queries.ts'
import { conflict, notFound } from '../errors.ts'
import { readContext } from '../alarms/context.ts'
import type { Alarms } from '../alarms/service.ts'
import { siteOfCamera } from '../sites/queries.ts'
import { endRunsLeftRunning, findRun, insertRun, readRunTriggers, setRunState } from './queries.ts'

interface Running {
  at: number
  stop: AbortController
  ended: Promise<void>
}

const TICK_MS = 100

/** The class that the target of a trigger had then. */
function classOf(tracks: Tracks, { target, frame }: Trigger): { class?: TargetClass } {
  for (let i = firstRowOfFrame(tracks, frame); i < tracks.length && tracks.frame[i] === frame; i++)
    if (tracks.id[i] === target) return { class: CLASSES[tracks.cls[i]!] }
  return {}
}

/**
 * Replays a clip as live: its targets reach the engine at the pace of the clip, and each trigger runs its
 * actions as it comes.
 */
export class Runs {
  private readonly database: Database
  private readonly clips: Clips
  private readonly alarms: Alarms
  private readonly simulators: string | null
  private readonly log: (error: unknown) => void
  private readonly running = new Map<string, Running>()

  /** @param simulators the host that stands for them in settings; null: none run */
  constructor(
    database: Database,
    clips: Clips,
    alarms: Alarms,
    simulators: string | null,
    log: (error: unknown) => void
  ) {
    this.database = database
    this.clips = clips
    this.alarms = alarms
    this.simulators = simulators
    this.log = log
  }

  resume(): Promise<void> {
    return endRunsLeftRunning(this.database)
  }

  /** What the detections of a clip's camera are linked to that is real. */
  async realActions(clipId: string): Promise<RealActionsView> {
    const { camera } = await readClip(this.database, clipId)
    return { real: await this.realOf(camera) }
  }

  private async realOf(camera: string): Promise<RealActionsView['real']> {
    const site = await siteOfCamera(this.database, camera)
    const [{ actions }, detections, devices] = await Promise.all([
      readContext(this.database, site),
      readDetections(this.database, camera),
      listDevices(this.database, site)
    ])
    const linked = new Set(
      detections
        .filter(({ detection }) => detection.enabled)
        .flatMap((d) => d.actions.actions.links)
    )
    const surroundings = {
      mail: actions.mail,
      devices: new Map(devices.map(({ id, address }) => [id, address])),
      simulators: this.simulators
    }
    return actions.endpoints
      .filter((e) => linked.has(e.id) && isReal(e, surroundings))
      .map(({ id, name, kind }) => ({ id, name, kind }))
  }

  /**
   * Starts a run at `speed` times the pace of the clip, with the plan as it is now.
   *
   * @param hold what is real of its actions is held
   */
  async start(clipId: string, speed: number, hold: boolean): Promise<RunView> {
    const clip = await readClip(this.database, clipId)
    if (clip.state !== 'ready') throw conflict(said('input.hasNotBeenAnalysed', clip.name))
    const plan = await readPlanOf(this.database, clip.camera)
    const camera = plan.cameras[0]!
    const withheld = hold
      ? new Set((await this.realOf(clip.camera)).map(({ id }) => id))
      : undefined
    const { tracks, measures } = await this.clips.readEvidence(clip)
    const evaluator = new Evaluator({
      plan,
      camera,
      fps: clip.fps,
      start: clip.start,
      inputs: clip.inputs
    })
    const id = randomUUID()
    await insertRun(this.database, id, clip.id, Date.now())

    const run: Running = { at: 0, stop: new AbortController(), ended: Promise.resolve() }
    const seconds = clip.frames / clip.fps
    const play = async (): Promise<void> => {
      const began = performance.now()
      let row = 0
      while (row < tracks.length || run.at < seconds) {
        if (run.stop.signal.aborted) return setRunState(this.database, id, 'stopped')
        run.at = Math.min(seconds, ((performance.now() - began) / 1000) * speed)
        const frame = Math.min(measures?.length ?? Infinity, frameAt(run.at, clip.fps))
        const until = firstRowOfFrame(tracks, frame + 1)
        for (const trigger of evaluator.push(
          tracks,
          row,
          until,
          measures && { ...measures, length: frame }
        )) {
          const detection = camera.detections.find((d) => d.id === trigger.detection)!
          await this.alarms.take({
            source: 'run',
            run: id,
            camera: camera.id,
            detection,
            trigger: { ...trigger, ...classOf(tracks, trigger) },
            firedAt: Math.round(clip.start + trigger.time * 1000),
            byCamera: new Set(),
            ...(withheld && { withheld })
          })
        }
        row = Math.max(row, until)
        if (run.at >= seconds && row >= tracks.length) break
        await new Promise((resolve) => setTimeout(resolve, TICK_MS / (speed > 100 ? 10 : 1)))
      }
      return setRunState(this.database, id, 'finished')
    }
    this.running.set(id, run)
    run.ended = play()
      .catch(async (error: unknown) => {
        this.log(error)
        await setRunState(this.database, id, 'failed')
      })
      .catch(this.log)
      .finally(() => this.running.delete(id))
    return this.read(id)
  }

  async read(id: string): Promise<RunView> {
    const row = await findRun(this.database, id)
    if (!row) throw notFound(said('things.run', id.slice(0, 64)))
    const clip = await readClip(this.database, row.clip)
    const seconds = clip.frames / clip.fps
    return {
      id,
      clip: row.clip,
      state: row.state,
      at: this.running.get(id)?.at ?? seconds,
      seconds,
      triggers: await readRunTriggers(this.database, id)
    }
  }

  async stop(id: string): Promise<RunView> {
    const run = this.running.get(id)
    if (!run) throw conflict(said('input.thisRunHasEndedAlready'))
    run.stop.abort()
    await run.ended
    return this.read(id)
  }

  async close(): Promise<void> {
    for (const run of this.running.values()) run.stop.abort()
    await Promise.all([...this.running.values()].map((run) => run.ended))
  }
}
