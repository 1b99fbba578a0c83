import type { Box } from '../../core/geometry/shapes.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import { iou } from '../target.ts'
import { classOfLabel, LABELS_OF_TARGETS } from './labels.ts'
import { loadModel, type Changes, type Model } from './model.ts'

/** Pixels, both ways, of the picture that the object detector takes. */
export const SEEN_SIZE = 512

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

  /** @param rgb three bytes a pixel, `SEEN_SIZE` both ways @returns what is seen, the most likely first */
  look(rgb: Uint8Array): Detected[] {
    // Rows of left, top, right, bottom, likelihood and label, the most likely first.
    const rows = this.model.run(rgb, [1, SEEN_SIZE, SEEN_SIZE, 3], ['tower_0/detections'])[0]!
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
