import { InputError } from '../core/errors.ts'
import { USUAL_GRID, type Grid, type Measures } from '../core/measures/measures.ts'
import { faceKey, type Face } from '../core/targets/faces.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../core/targets/tracks.ts'
import { classify } from './classify.ts'
import { findFace, type FoundFace } from './faces.ts'
import { Foreground } from './foreground.ts'
import { analysedSize, decodeFrames, type FrameSize } from './frames.ts'
import { Measurer } from './measures/measurer.ts'
import { loadOpenCv } from './opencv.ts'
import { probe, type Footage } from './probe.ts'
import type { Followed } from './target.ts'
import { Tracker } from './tracker.ts'

export interface Analysis {
  footage: Footage
  /** Frames that were decoded; the clip's length is frames / fps. */
  frames: number
  /** With the faces that were found. */
  tracks: Tracks
  measures: Measures
}

export interface AnalysisOptions {
  /** The file's name as its owner knows it, for messages. */
  name?: string
  /** Called now and then with the frames done and expected (null: the file does not say). */
  onProgress?: (done: number, expected: number | null) => void
  signal?: AbortSignal
  /** The grid of cells that motion is measured in; left out, the usual one. */
  grid?: Grid
  /** Seconds at which the tamper reference is learned anew. */
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
export async function analyse(file: string, { name = file, onProgress, signal, grid = USUAL_GRID, learnAnewAt = [] }: AnalysisOptions = {}): Promise<Analysis> {
  const footage = await probe(file, name, signal)
  const size = analysedSize(footage)
  const expected = footage.duration === null ? null : Math.max(1, Math.round(footage.duration * footage.fps))
  const { cv } = await loadOpenCv()
  signal?.throwIfAborted()
  const frames = decodeFrames(file, footage, size)
  const foreground = new Foreground(cv, size, footage.fps)
  const tracker = new Tracker(footage.fps)
  const measurer = new Measurer(grid, size.width, size.height, footage.fps)
  const anew = new Set(learnAnewAt.map((seconds) => Math.floor(seconds * footage.fps + 1e-6) + 1))
  const faces = new Map<number, FoundFace[]>()
  let done = 0
  try {
    for await (const picture of frames) {
      done++
      const patches = foreground.find(picture)
      tracker.step(patches, done)
      const found = patches.flatMap((patch) => findFace(picture, size, patch) ?? [])
      if (found.length) faces.set(done, found)
      if (anew.has(done)) measurer.learnAnew()
      measurer.next(picture)
      if (done % PROGRESS_FRAMES === 0) {
        onProgress?.(done, expected)
        // Lets a message to stop be heard between two frames.
        await new Promise((resolve) => setImmediate(resolve))
        signal?.throwIfAborted()
      }
    }
    checkWhole(name, done, expected, footage, await frames.ending())
  } finally {
    frames.stop()
    foreground.delete()
  }
  onProgress?.(done, done)
  return { footage, frames: done, tracks: tracksOf(tracker.finish(), footage, size, faces), measures: measurer.finish() }
}

function checkWhole(name: string, done: number, expected: number | null, { fps }: Footage, { code, errors }: { code: number; errors: string }): void {
  if (done === 0) throw new InputError(name, `has no picture that can be decoded${errors ? ` (${errors.split('\n')[0].slice(0, 200)})` : ''}; choose another file`)
  const seconds = (frames: number): string => (frames / fps).toFixed(1)
  if (expected !== null && done < WHOLE * expected - 1)
    throw new InputError(name, `is cut off: it says that it lasts ${seconds(expected)} s, and its pictures end after ${seconds(done)} s. Copy or upload the whole file again`)
  if (code !== 0) throw new InputError(name, `could not be decoded to its end (${errors.split('\n')[0].slice(0, 200)}); pictures end after ${seconds(done)} s`)
}

/** A target is kept when it was there for half a second and got from its place. */
const KEPT_SECONDS = 0.5
const KEPT_DISTANCE = 0.4

function isKept({ rows, seen }: Followed, fps: number): boolean {
  if (seen < KEPT_SECONDS * fps) return false
  const first = rows[0]
  const reach = Math.max(...rows.map((r) => Math.hypot(r.x + r.w / 2 - first.x - first.w / 2, r.y + r.h - first.y - first.h)))
  const scale = rows.reduce((sum, r) => sum + Math.max(r.w, r.h), 0) / rows.length
  return reach >= KEPT_DISTANCE * scale
}

/** Kept targets as columns, numbered from 1 in the order in which they came into view. */
function tracksOf(targets: Followed[], { fps }: Footage, size: FrameSize, found: Map<number, FoundFace[]>): Tracks {
  const kept = targets.filter((target) => isKept(target, fps)).sort((a, b) => a.rows[0].frame - b.rows[0].frame || a.rows[0].x - b.rows[0].x)
  const rows: TargetRow[] = []
  const faces = new Map<string, Face>()
  kept.forEach((target, index) => {
    const classes = classify(target.rows, fps, size)
    target.rows.forEach((row, i) => {
      // A face belongs to the target in whose upper third its middle is.
      const face = found.get(row.frame)?.find((f) => f.x + f.w / 2 >= row.x && f.x + f.w / 2 <= row.x + row.w && f.y + f.h / 2 >= row.y && f.y + f.h / 2 <= row.y + row.h / 3)
      if (face) faces.set(faceKey(row.frame, index + 1), { x: face.x / size.width, y: face.y / size.height, w: face.w / size.width, h: face.h / size.height, mask: face.mask, name: null })
      rows.push({
        frame: row.frame,
        id: index + 1,
        x: row.x / size.width,
        y: row.y / size.height,
        w: row.w / size.width,
        h: row.h / size.height,
        cls: classes[i],
        confidence: row.measured ? 1 : 0.5
      })
    })
  })
  return { ...tracksFromRows(rows, fps), faces }
}
