import type { LiveFrame } from '../devices/views.ts'
import { classNamed } from './classes.ts'
import type { TargetRow } from './tracks.ts'

/** Rows of what a camera reports as it goes, at a rate of its own: of each target one for each frame. */
export class ReportedRows {
  readonly rows: TargetRow[] = []
  private readonly fps: number
  private readonly last = new Map<number, number>()

  constructor(fps: number) {
    this.fps = fps
  }

  /** How many targets there have been. */
  get targets(): number {
    return this.last.size
  }

  /** @param since milliseconds since the instant of frame 1 */
  take(since: number, targets: LiveFrame['targets']): void {
    const frame = Math.floor((since / 1000) * this.fps) + 1
    for (const { id, class: cls, ...box } of targets) {
      if ((this.last.get(id) ?? 0) >= frame) continue
      this.last.set(id, frame)
      this.rows.push({
        frame,
        id,
        ...box,
        cls: classNamed(cls),
        confidence: 1
      })
    }
  }
}
