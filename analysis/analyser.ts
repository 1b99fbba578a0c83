import type CV from '@techstark/opencv-js'
import type { ClipEvidence } from '../core/detections/index.ts'
import { USUAL_GRID, type Grid } from '../core/measures/measures.ts'
import type { FrameSize } from './frames.ts'
import { Measurer } from './measures/measurer.ts'
import { TargetFinder } from './targetFinder.ts'

/** What is done with pictures that are at hand: targets are found in them, and each is measured as a whole. */
export class Analyser {
  private readonly targets: TargetFinder
  private readonly measurer: Measurer

  /**
   * @param size of the pictures that will be given, in pixels
   * @throws InputError for a grid finer than the picture
   */
  constructor(cv: typeof CV, size: FrameSize, fps: number, grid: Grid = USUAL_GRID) {
    this.measurer = new Measurer(grid, size.width, size.height, fps)
    this.targets = new TargetFinder(cv, size, fps)
  }

  /** Takes the next picture (blue, green, red bytes); null: none came. */
  next(picture: Uint8Array | null): void {
    this.measurer.next(picture)
    this.targets.next(picture)
  }

  /** The targets and measures of all pictures; ends all targets. */
  finish(): ClipEvidence {
    return { tracks: this.targets.finish(), measures: this.measurer.finish() }
  }

  delete(): void {
    this.targets.delete()
  }
}
