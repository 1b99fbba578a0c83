import { said, type Said } from '../core/messages/said.ts'
import { InputError } from '../core/errors.ts'
import { USUAL_GRID, type Grid, type Measures } from '../core/measures/measures.ts'
import type { Tracks } from '../core/targets/tracks.ts'
import { Eyes } from './detector/eyes.ts'
import { Heads } from './detector/heads.ts'
import { Detector } from './detector/inWorker.ts'
import { Standing } from './detector/standing.ts'
import { analysedSize, decodeFrames, largePictures, type DecodedFrames } from './frames.ts'
import { MeasuringThread } from './measures/inWorker.ts'
import { loadOpenCv } from './opencv.ts'
import { probe, type Footage } from './probe.ts'
import { TargetFinder } from './targetFinder.ts'

export interface Analysis {
  footage: Footage
  /** Frames that were decoded; the clip's length is frames / fps. */
  frames: number
  /** With the faces that were found. */
  tracks: Tracks
  measures: Measures
  /** Why the detector, which was wanted, did not look; null: it did. */
  withoutDetector: Said | string | null
}

export interface AnalysisOptions {
  /** The file's name as its owner knows it, for messages. */
  name?: string
  /** Called now and then with the frames done and expected (null: the file does not say). */
  onProgress?: (done: number, expected: number | null) => void
  signal?: AbortSignal
  /** The grid of cells that motion is measured in; left out, the usual one. */
  grid?: Grid
  /** Whether the trained detector looks as well; it does, unless told otherwise. */
  detector?: boolean
  /** Seconds at which the tamper reference is learned again. */
  learnAnewAt?: readonly number[]
}

/** Less of the promised frames than this, and the file is called cut off. */
const WHOLE = 0.97
const PROGRESS_FRAMES = 20

/**
 * Footage in, targets and frame measures out: decode, find what moves, follow it, give it a class; measure each picture.
 *
 * @throws InputError for a file that is no video, empty or cut off; the signal's reason when stopped
 */
export async function analyse(
  file: string,
  {
    name = file,
    onProgress,
    signal,
    grid = USUAL_GRID,
    learnAnewAt = [],
    detector: withDetector = true
  }: AnalysisOptions = {}
): Promise<Analysis> {
  const footage = await probe(file, name, signal)
  const size = analysedSize(footage)
  const expected =
    footage.duration === null ? null : Math.max(1, Math.round(footage.duration * footage.fps))
  // First, as it refuses a wrong grid: nothing has been started then that would go on.
  const measuring = new MeasuringThread(grid, size, footage.fps)
  // The detector takes most of a second to load in its thread; OpenCV loads in this one meanwhile.
  const starting = withDetector ? startDetector() : noDetector
  // Whoever waits for it below is told; if nobody comes to that, it must not count as unhandled.
  starting.catch(() => {})
  let frames: DecodedFrames | undefined
  let targets: TargetFinder | undefined
  try {
    const { cv } = await loadOpenCv()
    signal?.throwIfAborted()
    targets = new TargetFinder(cv, size, footage.fps)
    const [detector, withoutDetector] = await starting
    const standing = detector && new Standing(detector, footage.fps, size)
    const looking = detector &&
      standing && [
        standing,
        new Eyes(detector, footage.fps, size, standing),
        new Heads(detector, footage.fps, size)
      ]
    const large = looking && largePictures(footage)
    frames = decodeFrames(file, footage, size, large)
    const anew = new Set(learnAnewAt.map((seconds) => Math.floor(seconds * footage.fps + 1e-6) + 1))
    let done = 0
    for await (const { picture, large: larger } of frames) {
      done++
      if (anew.has(done)) measuring.learnAnew()
      await measuring.next(picture)
      targets.next(picture)
      if (looking && large && larger)
        for (const one of looking) await one.next(done, larger, large.size, targets.following)
      if (done % PROGRESS_FRAMES === 0) {
        onProgress?.(done, expected)
        // Lets a message to stop be heard between two frames.
        await new Promise((resolve) => setImmediate(resolve))
        signal?.throwIfAborted()
      }
    }
    checkWhole(name, done, expected, footage, await frames.ending())
    onProgress?.(done, done)
    for (const one of looking ?? []) await one.finish()
    return {
      ...{ footage, frames: done, withoutDetector },
      tracks: targets.finish(standing?.found),
      measures: await measuring.finish()
    }
  } finally {
    frames?.stop()
    targets?.delete()
    await measuring.close()
    const [detector] = await starting.catch(() => [null])
    await detector?.close()
  }
}

/** A detector, or why there is none. */
type Started = [Detector, null] | [null, Said | string | null]
const noDetector = Promise.resolve<Started>([null, null])

/** Without its files, the classes are those of the shape, as they are without a detector. */
const startDetector = async (): Promise<Started> => {
  try {
    return [await Detector.start(), null]
  } catch (error) {
    if (error instanceof InputError) return [null, error.said]
    throw error
  }
}

function checkWhole(
  name: string,
  done: number,
  expected: number | null,
  { fps }: Footage,
  { code, errors }: { code: number; errors: string }
): void {
  if (done === 0)
    throw new InputError(
      name,
      said('clips.hasNoPictureThatCan', errors ? ` (${errors.split('\n')[0]!.slice(0, 200)})` : '')
    )
  const seconds = (frames: number): string => (frames / fps).toFixed(1)
  if (expected !== null && done < WHOLE * expected - 1)
    throw new InputError(name, said('clips.isCutOffItSays', seconds(expected), seconds(done)))
  if (code !== 0)
    throw new InputError(
      name,
      said('clips.couldNotBeDecodedTo', errors.split('\n')[0]!.slice(0, 200), seconds(done))
    )
}
