import type { Box } from '../../core/geometry/shapes.ts'
import type { FrameSize } from '../frames.ts'
import { iou } from '../target.ts'
import { maskOf, type Point } from './mask.ts'
import { loadModel, type Model } from './model.ts'
import { boxInPicture, cutTiles, tileOf, type Tile } from './tiles.ts'

/** Pixels, both ways, of the picture in which faces are looked for. */
export const FACES_SIZE = 256
/** Pixels, both ways, of the picture of one face in which its landmarks are found, and how much larger that is. */
const MESH_SIZE = 192
const MESH_MARGIN = 1.5

/** A face, in pixels of the whole picture. */
export interface SeenFace extends Box {
  /** 0 to 1: that the landmarks found are those of a face. */
  likelihood: number
  /** Null: not told. */
  mask: boolean | null
}

/** What may be a face is looked at closely from here on; whether it is one is decided by its landmarks. */
const LEAST_LIKELY = 0.3
const LEAST_FACE = 0.5
/** Two boxes that share more than this are the same face seen twice. */
const SAME = 0.3

/** Of the landmarks, those along the outline of a face. Source: MediaPipe's canonical face model (from memory). */
const OUTLINE = [10, 297, 389, 454, 361, 397, 379, 377, 152, 148, 150, 172, 132, 234, 162, 67]

/** Where boxes may be in the picture: two for each 16 pixels, six for each 32, by their middles. */
const ANCHORS: readonly Point[] = [
  [16, 2],
  [32, 6]
].flatMap(([step = 1, each = 1]) =>
  Array.from({ length: (FACES_SIZE / step) ** 2 * each }, (_, i): Point => {
    const cell = Math.floor(i / each)
    const across = FACES_SIZE / step
    return [step * ((cell % across) + 0.5), step * (Math.floor(cell / across) + 0.5)]
  })
)

/**
 * The detector of faces and of their 468 landmarks. The weights ship with the package `@vladmandic/human`, which names
 * MediaPipe's BlazeFace (back) and FaceMesh as their origin. Sources: Bazarevsky and others, BlazeFace, 2019;
 * Kartynnik and others, Real-time Facial Surface Geometry, 2019 (both from memory); how boxes are read from what the
 * network gives: `src/face/blazeface.ts` of the package.
 */
export class FaceDetector {
  private readonly boxes: Model
  private readonly mesh: Model

  private constructor(boxes: Model, mesh: Model) {
    this.boxes = boxes
    this.mesh = mesh
  }

  /** @throws InputError when its files are missing */
  static async load(): Promise<FaceDetector> {
    return new FaceDetector(await loadModel('blazeface'), await loadModel('facemesh'))
  }

  /**
   * @param picture blue, green, red bytes @param size of it
   * @param tiles where heads are, laid out in `FACES_SIZE` both ways
   * @returns one face for each tile at most: the likeliest
   */
  look(picture: Uint8Array, size: FrameSize, tiles: readonly Tile[]): SeenFace[] {
    const candidates = this.candidates(cutTiles(picture, size, tiles, FACES_SIZE))
    return tiles.flatMap((tile) => {
      const found = candidates
        .filter((one) => tileOf(one, tiles) === tile)
        .slice(0, 2)
        .flatMap((one) => this.closely(picture, size, boxInPicture(one, tile)) ?? [])
      return found.sort((a, b) => b.likelihood - a.likelihood).slice(0, 1)
    })
  }

  /** What may be faces, the likeliest first. */
  private candidates(rgb: Uint8Array): Box[] {
    const [fine, coarse, fineBoxes, coarseBoxes] = this.boxes.run(
      rgb,
      [1, FACES_SIZE, FACES_SIZE, 3],
      ['Identity', 'Identity_1', 'Identity_2', 'Identity_3'],
      { times: 1 / 127.5, plus: -1 }
    ) as [Float32Array, Float32Array, Float32Array, Float32Array]
    const found: (Box & { likelihood: number })[] = []
    ANCHORS.forEach(([ax, ay], i) => {
      const inFine = i < fine.length
      const n = inFine ? i : i - fine.length
      const likelihood = 1 / (1 + Math.exp(-(inFine ? fine : coarse)[n]!))
      if (!(likelihood >= LEAST_LIKELY)) return
      const [x = 0, y = 0, w = 0, h = 0] = (inFine ? fineBoxes : coarseBoxes).subarray(
        16 * n,
        16 * n + 4
      )
      if (w > 0 && h > 0) found.push({ x: ax + x - w / 2, y: ay + y - h / 2, w, h, likelihood })
    })
    found.sort((a, b) => b.likelihood - a.likelihood)
    return found.filter((one, i) => !found.slice(0, i).some((before) => iou(before, one) > SAME))
  }

  /** The face at that place, if its landmarks are found there. */
  private closely(picture: Uint8Array, size: FrameSize, { x, y, w, h }: Box): SeenFace | null {
    const side = MESH_MARGIN * Math.max(w, h)
    const from = { x: x + w / 2 - side / 2, y: y + h / 2 - side / 2, side }
    const to = { x: 0, y: 0, side: MESH_SIZE }
    const [sure, flat] = this.mesh.run(
      cutTiles(picture, size, [{ from, to }], MESH_SIZE),
      [1, MESH_SIZE, MESH_SIZE, 3],
      ['Identity_1', 'Identity_2'],
      { times: 1 / 255, plus: 0 }
    ) as [Float32Array, Float32Array]
    const likelihood = sure[0]!
    if (!(likelihood >= LEAST_FACE)) return null
    const scale = side / MESH_SIZE
    // Each landmark has a depth as well, which is not used.
    const landmarks = Array.from({ length: flat.length / 3 }, (_, i): Point => [
      from.x + flat[3 * i]! * scale,
      from.y + flat[3 * i + 1]! * scale
    ])
    const outline = OUTLINE.map((i) => landmarks[i]!)
    const [left, right] = rangeOf(outline.map(([px]) => px))
    const [top, bottom] = rangeOf(outline.map(([, py]) => py))
    return {
      ...{ x: left, y: top, w: right - left, h: bottom - top },
      likelihood,
      mask: maskOf(picture, size, landmarks)
    }
  }
}

const rangeOf = (values: readonly number[]): [number, number] => [
  Math.min(...values),
  Math.max(...values)
]
