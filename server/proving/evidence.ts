import { shownTo } from '../../core/kinds/shownTo.ts'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import type CV from '@techstark/opencv-js'
import { Analyser } from '../../analysis/analyser.ts'
import { analysedSize } from '../../analysis/frames.ts'
import { Measurer } from '../../analysis/measures/measurer.ts'
import { loadOpenCv } from '../../analysis/opencv.ts'
import type { ClipEvidence } from '../../core/detections/index.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { USUAL_GRID, emptyMeasures, type Grid } from '../../core/measures/measures.ts'
import { trueTracks } from '../../simulation/evidence.ts'
import { Feed } from '../../simulation/feed.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import type { Play } from '../../simulation/script.ts'
import { keepWalk, readWalk } from './walkFiles.ts'

/**
 * What a walk is looked at with: its true targets; the measures of its painted pictures besides; or
 * all found in them.
 */
export type Look = 'truth' | 'measures' | 'pictures'

/** What a detection needs to be told of a walk. */
export function lookFor({ kind }: Pick<Detection, 'kind'>, through: 'truth' | 'pictures'): Look {
  // Motion alone needs no targets, but the same walks are looked at for other kinds of its camera.
  const shown = shownTo(kind)
  if (through === 'pictures' || shown === 'pictures') return 'pictures'
  return shown === 'measures' ? 'measures' : 'truth'
}

/** Cells must be those of the detection. */
export const gridFor = (d: Detection): Grid =>
  'cells' in d ? { columns: d.cells[0]!.length, rows: d.cells.length } : USUAL_GRID

/** Raised when what the pictures give changes, by painting or by analysis: what was kept is made again then. */
const MADE = 4

/**
 * What a walk gives to see. Painted pictures do not depend on any setting of a detection, so what was found in them is
 * kept under a name made of all that they do depend on.
 *
 * @param folder where it is kept
 */
export async function evidenceOf(
  play: Play,
  look: Look,
  grid: Grid,
  folder: string
): Promise<ClipEvidence> {
  const frames = Math.round(play.script.seconds * play.scene.fps)
  if (look === 'truth') {
    const { width, height, fps } = play.scene
    const measures = emptyMeasures(grid, width, height, fps, frames)
    measures.fresh.fill(1)
    return { tracks: trueTracks(play), measures }
  }
  const home = join(
    folder,
    createHash('sha256')
      .update(JSON.stringify([MADE, play, look, grid]))
      .digest('hex')
      .slice(0, 40)
  )
  const kept = await readWalk(play, home)
  if (kept) return kept
  const made =
    look === 'measures'
      ? { tracks: trueTracks(play), measures: await measured(play, grid) }
      : await analysed(play, grid)
  await keepWalk(play, made, home)
  return made
}

/** The pictures of a play as the analysis takes them: small, blue, green and red. Null: none came. */
function* picturesOf(
  cv: typeof CV,
  play: Play,
  size: { width: number; height: number }
): Generator<Uint8Array | null> {
  const { width, height } = play.scene
  const feed = new Feed(play, makeNodeCanvas)
  const [whole, small, bgr] = [new cv.Mat(height, width, cv.CV_8UC4), new cv.Mat(), new cv.Mat()]
  try {
    for (let n = 1; n <= feed.frames; n++) {
      const picture = feed.frame(n)
      if (!picture) {
        yield null
        continue
      }
      whole.data.set(picture)
      cv.resize(whole, small, new cv.Size(size.width, size.height), 0, 0, cv.INTER_AREA)
      cv.cvtColor(small, bgr, cv.COLOR_RGBA2BGR)
      // A copy: the heap that it lies in may move.
      yield new Uint8Array(bgr.data)
    }
  } finally {
    for (const mat of [whole, small, bgr]) mat.delete()
  }
}

async function measured(play: Play, grid: Grid): Promise<ClipEvidence['measures']> {
  const size = analysedSize(play.scene)
  const { cv } = await loadOpenCv()
  const measurer = new Measurer(grid, size.width, size.height, play.scene.fps)
  for (const picture of picturesOf(cv, play, size)) measurer.next(picture)
  return measurer.finish()
}

async function analysed(play: Play, grid: Grid): Promise<ClipEvidence> {
  const size = analysedSize(play.scene)
  const { cv } = await loadOpenCv()
  const analyser = new Analyser(cv, size, play.scene.fps, grid)
  try {
    for (const picture of picturesOf(cv, play, size)) analyser.next(picture)
    return analyser.finish()
  } finally {
    analyser.delete()
  }
}
