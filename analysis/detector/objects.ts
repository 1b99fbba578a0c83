import type { Box } from '../../core/geometry/shapes.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import type { FrameSize } from '../frames.ts'
import { iou } from '../target.ts'
import { classOfLabel, LABELS_OF_TARGETS } from './labels.ts'
import { loadModel, type Changes, type Model, type RunOptions } from './model.ts'
import type { Tile } from './tiles.ts'

/** Pixels, both ways, of the largest picture that the object detector takes. */
export const SEEN_SIZE = 512
/** Its sides are multiples of this: by so much the network makes a picture smaller before it makes it larger again. */
const STEP = 32

/** The least picture that holds what is laid out: what is empty takes as long to look at as what is not. */
export function shownSize(tiles: readonly Tile[]): FrameSize {
  const upTo = (ends: number[]): number => STEP * Math.ceil(Math.max(...ends) / STEP)
  return {
    width: upTo(tiles.map(({ to }) => to.x + to.side)),
    height: upTo(tiles.map(({ to }) => to.y + to.side))
  }
}

/** What the network holds for pictures of 512 × 512 pixels, for another size. */
function constantsOf({ width, height }: FrameSize): RunOptions['constants'] {
  const head = 'tower_0/CenternetHead'
  return {
    [`${head}/c5_upsample/up_sampling2d/mul`]: [height / 16, width / 16],
    [`${head}/c4_upsample/up_sampling2d_1/mul`]: [height / 8, width / 8],
    [`${head}/c3_upsample/up_sampling2d_2/mul`]: [height / 4, width / 4],
    // Places in what it gives, four pixels apart: how many there are, and in a row.
    'tower_0/BatchGather/concat': [(height / 4) * (width / 4), 4],
    'tower_0/strided_slice_6': width / 4
  }
}

/** Something that the detector sees, in pixels of the picture that it was given. */
export interface Detected extends Box {
  cls: TargetClass
  /** 0 to 1, as the detector says. */
  likelihood: number
}

/** What it is less sure of than this is as often wrong as right. */
const LEAST_LIKELY = 0.3
/** Two boxes of a class that share more than this are the same thing seen twice. */
const SAME = 0.5

/**
 * The last layer gives a likelihood for each of COCO's 80 labels, everywhere in the picture. Only those of targets are
 * worked out, which leaves out a tenth of all the work; what it says of these stays the same.
 */
const ONLY_TARGETS: Changes = {
  'CenternetHead/centernet_cls_output/pointwise_weights': (weights, core) =>
    core.gather(weights, [...LABELS_OF_TARGETS], 3),
  'CenternetHead/centernet_cls_output/biases': (biases, core) =>
    core.gather(biases, [...LABELS_OF_TARGETS]),
  // How many labels there are.
  'tower_0/strided_slice_7': (_, core) => core.scalar(LABELS_OF_TARGETS.length, 'int32')
}

/**
 * The object detector: CenterNet on MobileNetV3, trained on COCO's photographs. Its weights ship with the package
 * `@vladmandic/human`. Source: Zhou, Wang and Krähenbühl, Objects as Points, 2019 (from memory).
 */
export class ObjectDetector {
  private readonly model: Model

  private constructor(model: Model) {
    this.model = model
  }

  /** @throws InputError when its files are missing */
  static async load(): Promise<ObjectDetector> {
    return new ObjectDetector(await loadModel('centernet', ONLY_TARGETS))
  }

  /** @param rgb three bytes a pixel @param size of it, by `shownSize` @returns what is seen, the most likely first */
  look(rgb: Uint8Array, size: FrameSize): Detected[] {
    // Rows of left, top, right, bottom, likelihood and label, the most likely first.
    const [rows] = this.model.run(rgb, [1, size.height, size.width, 3], ['tower_0/detections'], {
      constants: constantsOf(size)
    }) as [Float32Array]
    const found: Detected[] = []
    for (let i = 0; i + 6 <= rows.length; i += 6) {
      const [left = 0, top = 0, right = 0, bottom = 0, likelihood = 0, label = -1] = rows.subarray(
        i,
        i + 6
      )
      const cls = classOfLabel(LABELS_OF_TARGETS[label] ?? -1)
      if (cls === null || !(likelihood >= LEAST_LIKELY) || right <= left || bottom <= top) continue
      const box = { x: left, y: top, w: right - left, h: bottom - top, cls, likelihood }
      if (!found.some((other) => other.cls === cls && iou(other, box) > SAME)) found.push(box)
    }
    return found
  }
}
