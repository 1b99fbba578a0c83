import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import { Failure } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { randomFrom } from '../../simulation/random.ts'
import { readContext } from '../alarms/context.ts'
import { takeTrigger, type NewTrigger } from '../alarms/intake.ts'
import { markAcknowledged, markClosed, noteAlarm } from '../alarms/queries.ts'
import type { Camera } from '../../core/formats/plan.ts'
import type { Database, Sql } from '../database.ts'
import type { Author } from '../history/queries.ts'
import { markAlarm } from '../lookBack/markQueries.ts'
import type { CameraPast, PastJob, PastTrigger } from './simulate.ts'
import type { Story } from './story.ts'

/** Cameras are shared by so many threads. */
const THREADS = Math.max(1, Math.min(3, availableParallelism()))

/**
 * Simulates the past in threads of its own; what cameras reported is kept when this returns.
 *
 * @param heard told of each camera that is done @throws Failure that says why not
 */
export async function simulateInThreads(
  job: PastJob,
  heard: () => void,
  signal: AbortSignal
): Promise<CameraPast[]> {
  const shares = Array.from({ length: THREADS }, (_, k) =>
    job.cameras.filter((_, i) => i % THREADS === k)
  )
  return (
    await Promise.all(shares.map((cameras) => inThread({ ...job, cameras }, heard, signal)))
  ).flat()
}

function inThread(job: PastJob, heard: () => void, signal: AbortSignal): Promise<CameraPast[]> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(new URL('./pastThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: job
    })
    const pasts: CameraPast[] = []
    signal.addEventListener('abort', () => void thread.terminate(), { once: true })
    thread.on('message', (message: CameraPast | { done: true } | { why: Said | string }) => {
      if ('why' in message) return reject(new Failure(message.why))
      if ('done' in message) return resolve(pasts)
      pasts.push(message)
      heard()
    })
    thread.once('error', reject)
    thread.once('exit', () => reject(new Failure(said('lookBack.stopped'))))
  })
}

/** So many triggers are taken in one transaction. */
const AT_ONCE = 100
/** Of what nobody has looked at yet the oldest is this old, ms; so many there are at least. */
const OPEN_MS = 60 * 60_000
const OPEN_LEAST = 4
/** What share of alarms are marked. */
const MARKED = 0.7

/** What the past is taken with. */
export interface TakenWith {
  database: Database
  siteId: string
  cameras: readonly Camera[]
  /** The device that shows each camera. */
  devices: ReadonlyMap<string, string>
  story: Story
  /** Who has answered the alarms. */
  watcher: Author
  now: number
  /** Told which share is done. */
  step: (share: number) => void
  signal: AbortSignal
}

type Told = PastTrigger & { camera: string }

/** Takes what detections have triggered, as it would have been taken then, and what people did about it. */
export async function takePast(pasts: readonly CameraPast[], taken: TakenWith): Promise<void> {
  const { database, siteId, cameras, devices, step, signal } = taken
  const all = pasts
    .flatMap(({ camera, triggers }) => triggers.map((t): Told => ({ ...t, camera })))
    .sort((a, b) => a.at - b.at)
  const detections = new Map(
    cameras.flatMap((c) => c.detections.map((d) => [`${c.id} ${d.id}`, d] as const))
  )
  /** What began each alarm. */
  const began = new Map<number, Told>()
  for (let from = 0; from < all.length; from += AT_ONCE) {
    if (signal.aborted) throw new Failure(said('lookBack.stopped'))
    const part = all.slice(from, from + AT_ONCE)
    await database.transaction(async (sql) => {
      const { actions, names } = await readContext(sql, siteId)
      for (const one of part) {
        const device = devices.get(one.camera)
        const trigger: NewTrigger = {
          source: 'device',
          ...(device !== undefined && { device }),
          camera: one.camera,
          detection: detections.get(`${one.camera} ${one.detection}`)!,
          trigger: { ...one.trigger, ...(one.cls && { class: one.cls }) },
          firedAt: one.at,
          byCamera: new Set()
        }
        const { alarm } = await takeTrigger(sql, siteId, actions, names, trigger, one.at)
        if (!began.has(alarm)) began.set(alarm, one)
      }
      // It was done then; nobody is told anything now.
      await sql.run(
        "UPDATE delivery JOIN alarm ON alarm.id = delivery.alarm_id SET delivery.state = 'sent', attempts = 1, begun_at = created_at, sent_at = created_at + 400 WHERE delivery.state = 'pending' AND alarm.site_id = ?",
        [siteId]
      )
    })
    step((from + part.length) / all.length)
  }
  await database.transaction((sql) => answer(sql, [...began], taken))
}

/** Acknowledges, comments, marks and closes all but the newest. */
async function answer(
  sql: Sql,
  alarms: readonly (readonly [number, Told])[],
  { story, watcher, now }: TakenWith
): Promise<void> {
  const random = randomFrom(7)
  const { comments, habits } = story
  const answered = alarms.slice(0, -OPEN_LEAST).filter(([, { at }]) => at <= now - OPEN_MS)
  for (const [place, [alarm, { camera, at, habit }]] of answered.entries()) {
    const { mark, reason = null } = (habit !== null && habits[camera]?.[habit]) || {}
    const list = comments[mark ?? 'unmarked']
    const answeredAt = at + Math.round(20_000 + 400_000 * random())
    const words = list[Math.floor(random() * list.length)]!
    await markAcknowledged(sql, alarm, watcher, words, answeredAt)
    if (mark && random() < MARKED)
      await markAlarm(sql, alarm, mark, mark === 'nuisance' ? reason : null, watcher, answeredAt)
    // One is still being looked into.
    if (place === answered.length - 1) continue
    const closedAt = answeredAt + Math.round(60_000 + 1_500_000 * random())
    await markClosed(sql, alarm, closedAt)
    await noteAlarm(sql, alarm, 'closed', '', watcher, closedAt)
  }
}
