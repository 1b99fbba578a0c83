import type { LiveFrame } from '../../core/devices/views.ts'
import { ReportedRows } from '../../core/targets/reportedRows.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'

/** Targets are kept at this rate, whatever the camera's own is. */
export const MEMORY_FPS = 10
/** What was reported is remembered for so long: a trigger's evidence begins before it. */
const KEPT_MS = 90_000

/** What was seen of one camera in the last minute and a half, by the clock here, ms of UTC. */
export class RecentFrames {
  private readonly frames: LiveFrame[] = []

  take(frame: LiveFrame): void {
    this.frames.push(frame)
    while (this.frames[0]!.at < frame.at - KEPT_MS) this.frames.shift()
  }

  /** Rows between two instants; frame 1 is at the first. */
  between(from: number, to: number): TargetRow[] {
    const reported = new ReportedRows(MEMORY_FPS)
    for (const { at, targets } of this.frames)
      if (at >= from && at <= to) reported.take(at - from, targets)
    return reported.rows
  }

  countSince(instant: number): number {
    return this.frames.filter(({ at }) => at >= instant).length
  }
}
