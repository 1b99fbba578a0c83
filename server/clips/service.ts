import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { randomUUID } from 'node:crypto'
import { createWriteStream, existsSync } from 'node:fs'
import { mkdir, readFile, readdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Transform, type Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { analyseInWorker } from '../../analysis/inWorker.ts'
import { Pace } from '../../analysis/pace.ts'
import { makeView } from '../../analysis/pictures.ts'
import { probe } from '../../analysis/probe.ts'
import type { ClipView } from '../../core/api.ts'
import type { Evidence } from '../../core/detections/index.ts'
import { InputError } from '../../core/errors.ts'
import { readFaces, writeFaces } from '../../core/formats/faces.ts'
import { readMeasures, writeMeasures } from '../../core/measures/measures.ts'
import { readMot, writeMot } from '../../core/formats/mot.ts'
import { spansOf } from '../../core/targets/tracks.ts'
import { armInputsOf, trueTracks } from '../../simulation/evidence.ts'
import { renderInWorker } from '../../simulation/renderInWorker.ts'
import type { Play } from '../../simulation/script.ts'
import type { Database } from '../database.ts'
import { conflict, diskError, tooLarge } from '../errors.ts'
import { writeWhole, type Leftovers } from '../files.ts'
import { requireSpace } from '../space.ts'
import { LOOK_BACK_FPS } from '../../core/lookBack/rows.ts'
import {
  NO_REPORTS,
  REPORTED_FILES,
  clipFromReports,
  sizesOf,
  type Reports,
  type Stretch
} from './reported.ts'
import {
  clipIds,
  findClip,
  finishClip,
  insertClip,
  readClip,
  readFileSizes,
  readPlay,
  readReported,
  removeClip,
  setClipState,
  readyClips,
  setLearnAnew,
  unfinishedClips
} from './queries.ts'

/** The files of a clip; the true targets only of one that was made. */
export type ClipFile =
  'original' | 'view.mp4' | 'tracks.csv' | 'faces.csv' | 'measures.bin' | 'truth.csv'

interface Job {
  clip: ClipView
  stop: AbortController
  ended: Promise<void>
}

/** A clip of which nothing is known yet. */
const UNKNOWN = {
  state: 'analysing',
  frames: 0,
  targets: 0,
  rows: 0,
  bytes: 0,
  made: false,
  reported: false,
  inputs: {},
  progress: null,
  error: null
} as const satisfies Partial<ClipView>

/** How long the reason of a refused clip can still be asked for. */
const REFUSAL_KEPT_MS = 30 * 60_000

/**
 * The clips of the site: their files (`<folder>/<id>/…`), how they are made and analysed, one at a time, and what is
 * known of the progress.
 */
export class Clips {
  private readonly database: Database
  private readonly folder: string
  private readonly mostBytes: number
  private readonly log: (error: unknown) => void
  private readonly leftovers: Leftovers
  private readonly jobs = new Map<string, Job>()
  private readonly refused = new Map<string, ClipView>()
  /** Ends when it is the next one's turn. */
  private queue: Promise<unknown> = Promise.resolve()
  private readonly reports: Reports
  private readonly analyse: typeof analyseInWorker

  constructor(
    database: Database,
    folder: string,
    mostBytes: number,
    leftovers: Leftovers,
    log: (error: unknown) => void,
    reports: Reports = NO_REPORTS,
    analyse = analyseInWorker
  ) {
    this.analyse = analyse
    this.reports = reports
    this.leftovers = leftovers
    this.database = database
    this.folder = folder
    this.mostBytes = mostBytes
    this.log = log
  }

  file(id: string, name: ClipFile): string {
    return join(this.folder, id, name)
  }

  /** Clears what an end in the middle left behind, and goes on with what was being analysed. */
  async resume(): Promise<void> {
    await mkdir(this.folder, { recursive: true })
    const known = new Set(await clipIds(this.database))
    for (const name of await readdir(this.folder))
      if (!known.has(name)) await this.leftovers.remove(join(this.folder, name))
    // What an analysis has left and is missing, empty or cut is made again.
    for (const clip of await readyClips(this.database))
      if (existsSync(this.file(clip.id, 'original')) && (await this.damaged(clip)))
        await setClipState(this.database, clip.id, 'analysing')
    for (const clip of await unfinishedClips(this.database)) this.enqueue(clip)
  }

  /** Which file of an analysed clip is not there, or not as it was written; null: none. */
  private async damaged(clip: ClipView): Promise<ClipFile | null> {
    const known = await readFileSizes(this.database, clip.id)
    for (const name of filesOf(clip)) {
      const size = (await stat(this.file(clip.id, name)).catch(() => null))?.size ?? -1
      if (
        known?.[name] === undefined
          ? size <= (name === 'faces.csv' || name === 'tracks.csv' ? -1 : 0)
          : size !== known[name]
      )
        return name
    }
    return null
  }

  /** @throws ApiError when the clip has not been analysed, or a file of it is empty, cut or gone */
  async requireWhole(id: string): Promise<ClipView> {
    const clip = await readClip(this.database, id)
    if (clip.state !== 'ready') throw conflict(said('input.hasNotBeenAnalysed', clip.name))
    const name = await this.damaged(clip)
    if (name) throw conflict(said('clips.theFileOfIsMissing', name, clip.name))
    return clip
  }

  withProgress(clip: ClipView): ClipView {
    return this.jobs.get(clip.id)?.clip ?? clip
  }

  /** A clip with its progress; one that was refused can be asked for a while longer. */
  async read(id: string): Promise<ClipView> {
    const clip = await findClip(this.database, id)
    if (clip) return this.withProgress(clip)
    return this.refused.get(id) ?? readClip(this.database, id)
  }

  /**
   * Takes in a file and starts its analysis.
   *
   * @throws InputError for what is no video, ApiError for what is too large; nothing is left behind then
   */
  async add(
    cameraId: string,
    name: string,
    start: number | null,
    content: Readable,
    { bytesSaid = 0, recorded = false } = {}
  ): Promise<ClipView> {
    await requireSpace(this.folder, Math.min(bytesSaid, this.mostBytes))
    const id = randomUUID()
    const home = join(this.folder, id)
    const original = this.file(id, 'original')
    await mkdir(home, { recursive: true })
    try {
      const bytes = await this.receive(content, `${original}.part`)
      await rename(`${original}.part`, original)
      const footage = await probe(original, name)
      const clip: ClipView = {
        ...UNKNOWN,
        id,
        camera: cameraId,
        name: name.slice(0, 120),
        start: start ?? (footage.recordedAt ? Date.parse(footage.recordedAt) : Date.now()),
        fps: footage.fps,
        width: footage.width,
        height: footage.height,
        bytes,
        learnAnewAt: []
      }
      await insertClip(this.database, clip, Date.now(), { recorded })
      return this.enqueue(clip)
    } catch (error) {
      await rm(home, { recursive: true, force: true })
      throw error
    }
  }

  /** Takes in a clip that has been painted from a script before; only its targets are still to be found. */
  async addPainted(
    cameraId: string,
    name: string,
    start: number,
    play: Play,
    content: Readable
  ): Promise<void> {
    const clip = await this.begin(cameraId, name, start, play)
    await writeWhole(this.file(clip.id, 'truth.csv'), writeMot(trueTracks(play), play.scene))
    await this.receive(content, this.file(clip.id, 'original'))
    await insertClip(this.database, clip, Date.now(), { play })
    this.enqueue(clip)
  }

  /** Starts to make a clip from a script of a simulated scene; its targets are then found as in any other clip. */
  async make(cameraId: string, name: string, start: number, play: Play): Promise<ClipView> {
    await requireSpace(this.folder)
    const clip = await this.begin(cameraId, name, start, play)
    await insertClip(this.database, clip, Date.now(), { play })
    return this.enqueue(clip)
  }

  /**
   * Starts to make a clip of what a camera reported.
   *
   * @throws InputError when nothing is known of that time
   */
  async report(cameraId: string, name: string, stretch: Stretch): Promise<ClipView> {
    await requireSpace(this.folder)
    if (!(await this.reports.tracks(cameraId, stretch)))
      throw new InputError('$.from', said('watch.nothingKept'))
    const id = randomUUID()
    await mkdir(join(this.folder, id), { recursive: true })
    const clip: ClipView = {
      ...UNKNOWN,
      id,
      camera: cameraId,
      name,
      start: stretch.from,
      fps: LOOK_BACK_FPS,
      // Its picture says how large it is.
      width: 0,
      height: 0,
      reported: true,
      learnAnewAt: []
    }
    await insertClip(this.database, clip, Date.now(), { reported: stretch })
    return this.enqueue(clip)
  }

  private async begin(
    cameraId: string,
    name: string,
    start: number,
    play: Play
  ): Promise<ClipView> {
    const id = randomUUID()
    await mkdir(join(this.folder, id), { recursive: true })
    const { width, height, fps } = play.scene
    return {
      ...UNKNOWN,
      id,
      camera: cameraId,
      name,
      start,
      fps,
      width,
      height,
      made: true,
      inputs: armInputsOf(play, start),
      learnAnewAt: []
    }
  }

  /** Learns the tamper reference again at the moments named, in seconds of the clip, and measures it again. */
  async learnAnew(id: string, seconds: readonly number[]): Promise<ClipView> {
    const clip = await readClip(this.database, id)
    if (clip.reported) throw conflict(said('clips.isOfReports', clip.name))
    if (this.jobs.has(id) || clip.state !== 'ready')
      throw conflict(said('clips.thisClipIsBeingAnalysed'))
    const length = clip.frames / clip.fps
    const late = seconds.find((s) => s >= length)
    if (late !== undefined) throw new InputError('$.at', said('clips.hasSAndTheClip', late, length))
    await setLearnAnew(this.database, id, seconds)
    return this.enqueue({ ...clip, state: 'analysing', learnAnewAt: [...seconds] })
  }

  private async receive(content: Readable, file: string): Promise<number> {
    let bytes = 0
    const { mostBytes } = this
    const count = new Transform({
      transform(chunk: Buffer, _, done) {
        bytes += chunk.length
        done(
          bytes > mostBytes
            ? tooLarge(said('clips.theClipIsLargerThan', Math.round(mostBytes / 2 ** 20)))
            : null,
          chunk
        )
      }
    })
    await pipeline(content, count, createWriteStream(file))
    return bytes
  }

  /** What the clip's detections are evaluated on. */
  async readEvidence(clip: ClipView): Promise<Evidence> {
    const tracks = readMot(await readFile(this.file(clip.id, 'tracks.csv'), 'utf8'), clip.fps, clip)
    const faces = readFaces(await readFile(this.file(clip.id, 'faces.csv'), 'utf8'), clip)
    return {
      tracks: { ...tracks, faces },
      measures: clip.reported
        ? null
        : readMeasures(await readFile(this.file(clip.id, 'measures.bin')))
    }
  }

  /** Stops the analysis; the clip stays, without targets, and can be analysed again. */
  async stop(id: string): Promise<ClipView> {
    const job = this.jobs.get(id)
    if (!job) throw conflict(said('clips.thisClipIsNotBeing'))
    job.stop.abort(new Error('stopped'))
    await job.ended
    return this.read(id)
  }

  async analyseAgain(id: string): Promise<ClipView> {
    const clip = await readClip(this.database, id)
    if (this.jobs.has(id)) throw conflict(said('clips.thisClipIsBeingAnalysed2'))
    // What was reported may be forgotten by now: a clip that is whole stays as it is.
    if (clip.reported && clip.state === 'ready' && !(await this.damaged(clip)))
      throw conflict(said('clips.isOfReports', clip.name))
    await setClipState(this.database, id, 'analysing')
    return this.enqueue({ ...clip, state: 'analysing' })
  }

  async remove(id: string): Promise<void> {
    await readClip(this.database, id)
    const job = this.jobs.get(id)
    job?.stop.abort(new Error('removed'))
    await job?.ended
    await removeClip(this.database, id)
    await this.leftovers.remove(join(this.folder, id))
  }

  /** Stops all work without forgetting it: it goes on at the next start. */
  async close(): Promise<void> {
    const jobs = [...this.jobs.values()]
    for (const job of jobs) job.stop.abort(closing)
    await Promise.all(jobs.map((job) => job.ended))
  }

  /** What is enqueued from now on waits until the function returned is called. */
  hold(): () => void {
    const { queue } = this
    let release = (): void => {}
    const released = new Promise<void>((resolve) => (release = resolve))
    this.queue = Promise.all([queue, released])
    return release
  }

  private enqueue(clip: ClipView): ClipView {
    const stop = new AbortController()
    const shown: ClipView = {
      ...clip,
      progress: { share: null, step: said('clips.waiting') }
    }
    // What was reported is there within seconds: it waits for no analysis, and none for it.
    const turn = clip.reported ? Promise.resolve() : this.queue
    // One that is stopped or removed while it waits does not wait for those before it.
    const stopped = new Promise((resolve) => stop.signal.addEventListener('abort', resolve))
    const ended = Promise.race([turn, stopped])
      .then(() => this.work(shown, stop.signal))
      .catch(this.log)
    if (!clip.reported) this.queue = Promise.all([turn, ended])
    this.jobs.set(clip.id, { clip: shown, stop, ended })
    return shown
  }

  private async work(clip: ClipView, signal: AbortSignal): Promise<void> {
    const original = this.file(clip.id, 'original')
    try {
      signal.throwIfAborted()
      if (clip.reported) return await this.takeReports(clip, signal)
      if (clip.made && !existsSync(original)) await this.paint(clip, original, signal)
      clip.progress = { share: 0, step: said('clips.tracking') }
      const pace = new Pace()
      const { footage, frames, tracks, measures, withoutDetector } = await this.analyse(original, {
        name: clip.name,
        signal,
        learnAnewAt: clip.learnAnewAt,
        onProgress: (done, expected) =>
          (clip.progress = {
            share: expected ? 0.9 * Math.min(1, done / expected) : null,
            step: said('clips.trackingFrame', done, expected, pace.left(done, expected))
          })
      })
      if (withoutDetector !== null) this.log(new Error(wordsOf(withoutDetector)))
      clip.progress = { share: 0.92, step: said('clips.converting') }
      await makeView(original, footage, this.file(clip.id, 'view.mp4'), signal)
      await writeWhole(this.file(clip.id, 'tracks.csv'), writeMot(tracks, footage))
      await writeWhole(
        this.file(clip.id, 'faces.csv'),
        writeFaces(tracks.faces ?? new Map(), footage)
      )
      await writeWhole(this.file(clip.id, 'measures.bin'), writeMeasures(measures))
      await finishClip(
        this.database,
        clip.id,
        {
          width: clip.width,
          height: clip.height,
          frames,
          targets: spansOf(tracks).length,
          rows: tracks.length
        },
        await sizesOf(ANALYSED, (name) => this.file(clip.id, name))
      )
    } catch (error) {
      if (signal.reason === closing) return
      // A disk that is full is no fault of the clip: it is kept, and can be analysed again.
      if (
        signal.aborted ||
        diskError(error) ||
        (error as { view?: { code: string } }).view?.code === 'unavailable'
      ) {
        if (!signal.aborted) this.log(error)
        await setClipState(this.database, clip.id, 'stopped').catch(this.log)
      } else await this.refuse(clip, error)
    } finally {
      this.jobs.delete(clip.id)
    }
  }

  private async takeReports(clip: ClipView, signal: AbortSignal): Promise<void> {
    const stretch = await readReported(this.database, clip.id)
    if (!stretch) throw new Error(`clip ${clip.id} does not say when it was reported`)
    clip.progress = { share: null, step: said('clips.takingReports') }
    const file = (name: ClipFile): string => this.file(clip.id, name)
    const found = await clipFromReports(this.reports, clip, stretch, file, signal)
    await finishClip(this.database, clip.id, found, await sizesOf(REPORTED_FILES, file))
  }

  /** Paints a made clip, and keeps what is truly in it beside it. */
  private async paint(clip: ClipView, original: string, signal: AbortSignal): Promise<void> {
    const play = await readPlay(this.database, clip.id)
    if (!play) throw new Error(`clip ${clip.id} has neither a file nor a script`)
    await renderInWorker(play, `${original}.part.mp4`, {
      signal,
      onProgress: (done, frames) =>
        (clip.progress = {
          share: (0.9 * done) / frames,
          step: said('clips.painting', done, frames)
        })
    })
    await writeWhole(this.file(clip.id, 'truth.csv'), writeMot(trueTracks(play), play.scene))
    await rename(`${original}.part.mp4`, original)
  }

  /** A clip that turns out to be unusable leaves nothing behind but its reason. */
  private async refuse(clip: ClipView, error: unknown): Promise<void> {
    const known = error instanceof InputError
    if (!known) this.log(error)
    this.refused.set(clip.id, {
      ...clip,
      state: 'refused',
      progress: null,
      error: known ? error.said : said('clips.analysisFailed')
    })
    setTimeout(() => this.refused.delete(clip.id), REFUSAL_KEPT_MS).unref()
    // The reason is told as soon as the row is gone; by then there are no files any more either.
    await rm(join(this.folder, clip.id), { recursive: true, force: true })
    await removeClip(this.database, clip.id)
  }
}

/** What an analysis leaves. */
const ANALYSED = [
  'view.mp4',
  'tracks.csv',
  'faces.csv',
  'measures.bin'
] as const satisfies readonly ClipFile[]
const filesOf = (clip: ClipView): readonly ClipFile[] => (clip.reported ? REPORTED_FILES : ANALYSED)

const closing = new Error('the server is closing')
