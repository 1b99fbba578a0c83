import { InputError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { PieceByPiece, countByHour, type Found } from '../../core/lookBack/counting.ts'
import { LOOK_BACK_FPS, rowsWithin, tracksOf, type Stay } from '../../core/lookBack/rows.ts'
import { writeTracks } from '../../core/lookBack/tracksBytes.ts'
import type { Mark } from '../../core/marks/marks.ts'
import { nameTargets } from '../../core/marks/nameTargets.ts'
import { keepsChecks } from '../../core/proving/keepsChecks.ts'
import { recommend } from '../../core/tuning/recommend/recommend.ts'
import { scalesOf, type ScaleName } from '../../core/tuning/scales.ts'
import type { Place, Stretch } from '../../core/tuning/stretches.ts'
import { sweep, sweepValues } from '../../core/tuning/sweep.ts'
import { armInputsOf, trueTracks } from '../../simulation/evidence.ts'
import { playOf } from '../proving/stage.ts'
import type { KeptWalk } from '../proving/service.ts'
import { closeHour } from './closing.ts'
import type { MarkAt, MarkedClip } from './markedClips.ts'
import { HOUR_MS, hoursBetween, readHourOf, readRange, readStrip } from './hours.ts'
import { readPicture, readPictures } from './pictureFile.ts'

/** What threads do with what cameras have reported; each with the folder in which that is. */

interface OfCamera {
  camera: string
  from: number
  to: number
}

/** A detection as it is drawn, where it is, and the marks of its days and on clips. */
interface Tuned extends OfCamera {
  place: Place
  detection: Detection
  marks: MarkAt[]
  clips: MarkedClip[]
}

export type Job =
  | { type: 'close'; camera: string; hour: number }
  | ({ type: 'strip' } & OfCamera)
  | ({ type: 'tracks' } & OfCamera)
  /** When pictures were taken. */
  | ({ type: 'pictures' } & OfCamera)
  /** The pictures themselves. */
  | ({ type: 'stills' } & OfCamera)
  /** One of them; null: there is none of that instant. */
  | { type: 'picture'; camera: string; at: number }
  | ({ type: 'count'; place: Place; detections: Detection[] } & OfCamera)
  /** `part`: of so many, which part of the values. */
  | ({ type: 'sweep'; setting: ScaleName; part: [number, number] } & Tuned)
  /** `walks`: checks that passed, on which nothing may be lost. */
  | ({ type: 'recommend'; walks: readonly KeptWalk[] } & Tuned)

const answers = {
  close: async (folder: string, job: Extract<Job, { type: 'close' }>) => {
    await closeHour(folder, job.camera, job.hour)
    return null
  },
  strip: (folder: string, job: Extract<Job, { type: 'strip' }>) =>
    readStrip(folder, job.camera, job.from, job.to),
  tracks: async (folder: string, job: Extract<Job, { type: 'tracks' }>) => {
    const { rows, heard } = await readRange(folder, job.camera, job.from, job.to)
    return { bytes: writeTracks(tracksOf(rows, job.from, LOOK_BACK_FPS)), heard }
  },
  pictures: async (
    folder: string,
    { camera, from, to }: Extract<Job, { type: 'pictures' }>
  ): Promise<number[]> => (await readPictures(folder, camera, from, to)).map(({ at }) => at),
  stills: (
    folder: string,
    { camera, from, to }: Extract<Job, { type: 'stills' }>
  ): Promise<{ at: number; jpeg: Uint8Array }[]> => readPictures(folder, camera, from, to),
  picture: (
    folder: string,
    { camera, at }: Extract<Job, { type: 'picture' }>
  ): Promise<Uint8Array | null> => readPicture(folder, camera, at),
  count: async (
    folder: string,
    { camera, from: asked, to, place, detections }: Extract<Job, { type: 'count' }>
  ) => {
    // No frame is in two hours then.
    const from = Math.floor(asked / 1000) * 1000
    const found = new Map<string, Found[]>(detections.map(({ id }) => [id, []]))
    const running = detections.map((d) => ({
      id: d.id,
      pieces: new PieceByPiece(place, d, from, LOOK_BACK_FPS)
    }))
    for await (const tracks of hourByHour(folder, camera, from, to))
      for (const { id, pieces } of running) found.get(id)!.push(...pieces.push(tracks))
    const { heard } = await readStrip(folder, camera, from, to)
    return {
      heard,
      counted: new Map([...found].map(([id, list]) => [id, countByHour(list, place.plan.timeZone)]))
    }
  },
  sweep: async (folder: string, job: Extract<Job, { type: 'sweep' }>) => {
    const { stretches, marks, heard } = await readTuned(folder, job)
    const { place, detection } = job
    const scale = scalesOf(detection, place.camera.scene !== undefined).find(
      ({ name }) => name === job.setting
    )
    if (!scale) throw new InputError('setting', said('lookBack.noSuchSetting', job.setting))
    const [part, of] = job.part
    const values = sweepValues(scale, detection).filter((_, i) => i % of === part)
    return {
      heard,
      swept: sweep(place, detection, scale, values, stretches, marks)
    }
  },
  recommend: async (
    folder: string,
    job: Extract<Job, { type: 'recommend' }>,
    progress: (share: number) => void
  ) => {
    const { stretches, marks } = await readTuned(folder, job)
    const { place, detection } = job
    const walked = job.walks.map(({ check, walk, ground }) => {
      const play = playOf(ground.scene, walk)
      return { check, tracks: trueTracks(play), inputs: armInputsOf(play, check.at) }
    })
    // What is drawn may have left a check behind already; it holds nothing back then.
    const now = { detection, ignore: place.camera.ignore }
    const keeps = keepsChecks(
      place,
      walked.filter((one) => keepsChecks(place, [one])(now))
    )
    return recommend({ place, detection, stretches, marks, keeps, progress })
  }
}
type Answers = typeof answers
export type AnswerTo<J extends Job> = Awaited<ReturnType<Answers[J['type']]>>

/** @param progress told the share that is done, of what takes long */
export function answer(
  folder: string,
  job: Job,
  progress: (share: number) => void
): Promise<AnswerTo<Job>> {
  return answers[job.type](folder, job as never, progress)
}

/** A range as tracks on one clock, an hour at a time, so that days do not have to be held at once. */
async function* hourByHour(folder: string, camera: string, from: number, to: number) {
  for (const hour of await hoursBetween(folder, camera, from, to)) {
    const { rows } = await readHourOf(folder, camera, hour)
    yield tracksOf(
      rowsWithin(rows, Math.max(from, hour), Math.min(to, hour + HOUR_MS)),
      from,
      LOOK_BACK_FPS
    )
  }
}

/** A day of a camera at a time is a stretch, as is each clip; the marks are told in it. */
async function readTuned(
  folder: string,
  { camera, from, to, place, detection, marks, clips }: Tuned
): Promise<{ stretches: Stretch[]; marks: Mark[]; heard: Stay[] }> {
  const DAY_MS = 24 * HOUR_MS
  const stretches: Stretch[] = []
  const told: Mark[] = []
  const heard: Stay[] = []
  for (let start = from; start < to; start += DAY_MS) {
    const end = Math.min(to, start + DAY_MS)
    const part = await readRange(folder, camera, start, end)
    heard.push(...part.heard)
    const own = marks.filter(({ at }) => at >= start && at < end)
    for (const { at, target, mark } of own)
      told.push({ file: stretches.length, time: (at - start) / 1000, target, mark })
    stretches.push({ tracks: tracksOf(part.rows, start, LOOK_BACK_FPS), start })
  }
  for (const { tracks, start, seconds, inputs, marks: own } of clips) {
    for (const { at, target, mark } of own)
      told.push({ file: stretches.length, time: at / 1000, target, mark })
    stretches.push({ tracks, start, inputs })
    heard.push([start, start + 1000 * seconds])
  }
  return { stretches, marks: nameTargets(place, detection, stretches, told), heard }
}
