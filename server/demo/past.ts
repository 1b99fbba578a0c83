import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import { Failure } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { randomFrom } from '../../simulation/random.ts'
import { readContext } from '../alarms/context.ts'
import { takeTrigger, type NewTrigger } from '../alarms/intake.ts'
import type { Camera } from '../../core/formats/plan.ts'
import type { MarkKind, MarkReason } from '../../core/marks/marks.ts'
import type { Database, Sql } from '../database.ts'
import type { Author } from '../history/queries.ts'
import type { CameraPast, PastJob, PastTrigger } from './simulate.ts'
import type { Story } from './story.ts'

/** Cameras are simulated in so many threads. */
const THREADS = Math.max(1, Math.min(3, availableParallelism()))

/**
 * Simulates the past in threads of its own; what cameras reported is kept when this returns.
 *
 * @param heard told of each camera that is done @throws Failure that says why not
 */
export async function simulateInThreads(
  job: PastJob,
  cameras: readonly Camera[],
  heard: () => void,
  signal: AbortSignal
): Promise<CameraPast[]> {
  // Whichever is free takes the next camera: some have many more targets than others.
  const left = [...cameras]
  const pasts: CameraPast[] = []
  await Promise.all(
    Array.from({ length: Math.min(THREADS, left.length) }, () =>
      inThread(
        job,
        () => left.shift(),
        (past) => {
          pasts.push(past)
          heard()
        },
        signal
      )
    )
  )
  const placeOf = ({ camera }: CameraPast): number => cameras.findIndex(({ id }) => id === camera)
  return pasts.sort((a, b) => placeOf(a) - placeOf(b))
}

/** @param next gives the cameras one after the other */
function inThread(
  job: PastJob,
  next: () => Camera | undefined,
  done: (past: CameraPast) => void,
  signal: AbortSignal
): Promise<void> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(new URL('./pastThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: job
    })
    const end = (): void => void thread.terminate()
    signal.addEventListener('abort', end, { once: true })
    const goOn = (): void => {
      const camera = next()
      if (camera) return thread.postMessage(camera)
      resolve()
      end()
    }
    thread.on('message', (message: CameraPast | { why: Said | string }) => {
      if ('why' in message) {
        reject(new Failure(message.why))
        return end()
      }
      done(message)
      goOn()
    })
    thread.once('error', reject)
    thread.once('exit', () => reject(new Failure(said('lookBack.stopped'))))
    goOn()
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
  await database.transaction((sql) =>
    writeAnswers(sql, answersOf([...began], taken), taken.watcher)
  )
}

/** What somebody did about an alarm, at times in ms of UTC. */
interface Answer {
  alarm: number
  comment: string
  answeredAt: number
  mark: { kind: MarkKind; reason: MarkReason | null } | null
  /** Null: it is still being looked into. */
  closedAt: number | null
}

/** What was done about all but the newest. */
function answersOf(
  alarms: readonly (readonly [number, Told])[],
  { story, now }: TakenWith
): Answer[] {
  const random = randomFrom(7)
  const { comments, habits } = story
  return alarms
    .slice(0, -OPEN_LEAST)
    .filter(([, { at }]) => at <= now - OPEN_MS)
    .map(([alarm, { camera, at, habit }], place, { length }) => {
      const { mark, reason = null } = (habit !== null && habits[camera]?.[habit]) || {}
      const list = comments[mark ?? 'unmarked']
      const answeredAt = at + Math.round(20_000 + 400_000 * random())
      const comment = list[Math.floor(random() * list.length)]!
      const isMarked = mark !== undefined && random() < MARKED
      const isOpen = place === length - 1
      return {
        alarm,
        comment,
        answeredAt,
        mark: isMarked ? { kind: mark, reason: mark === 'nuisance' ? reason : null } : null,
        closedAt: isOpen ? null : answeredAt + Math.round(60_000 + 1_500_000 * random())
      }
    })
}

/** The answers as a table. */
const ANSWERS = `JSON_TABLE(?, '$[*]' COLUMNS (
  alarm BIGINT PATH '$.alarm', comment VARCHAR(2000) PATH '$.comment', at BIGINT PATH '$.answeredAt',
  mark VARCHAR(20) PATH '$.mark.kind', reason VARCHAR(40) PATH '$.mark.reason', closed BIGINT PATH '$.closedAt'
)) answer`

/** As one by one in alarms/queries.ts and lookBack/markQueries.ts, for all at once: some thousand statements otherwise. */
async function writeAnswers(
  sql: Sql,
  answers: readonly Answer[],
  { by, byId }: Author
): Promise<void> {
  const list = JSON.stringify(answers)
  await sql.run(
    `INSERT INTO alarm_note (alarm_id, what, words, made_by, made_by_id, made_at)
     SELECT alarm, 'acknowledged', comment, ?, ?, at FROM ${ANSWERS}`,
    [by, byId, list]
  )
  await sql.run(
    `INSERT INTO alarm_note (alarm_id, what, words, made_by, made_by_id, made_at)
     SELECT alarm, 'closed', '', ?, ?, closed FROM ${ANSWERS} WHERE closed IS NOT NULL`,
    [by, byId, list]
  )
  await sql.run(
    `UPDATE fired_trigger JOIN ${ANSWERS} ON alarm = alarm_id SET acknowledged = TRUE`,
    [list]
  )
  await sql.run(
    `UPDATE alarm a JOIN ${ANSWERS} ON answer.alarm = a.id
     SET a.state = IF(closed IS NULL, 'acknowledged', 'closed'), a.acknowledged_at = at,
       a.acknowledged_by = ?, a.acknowledged_by_id = ?, a.comment = answer.comment, a.closed_at = closed`,
    [list, by, byId]
  )
  await sql.run(
    `INSERT INTO mark (site_id, camera_id, detection_id, target, at, mark, reason, trigger_id, made_by, made_by_id, made_at)
     SELECT c.site_id, t.camera_id, t.detection_id, t.target, t.fired_at, answer.mark, answer.reason, t.id, ?, ?, answer.at
     FROM ${ANSWERS} JOIN fired_trigger t ON t.alarm_id = answer.alarm JOIN camera c ON c.id = t.camera_id
     WHERE answer.mark IS NOT NULL`,
    [by, byId, list]
  )
}
