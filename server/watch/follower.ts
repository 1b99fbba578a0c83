import type { LiveFrame } from '../../core/devices/views.ts'
import { HeardClock } from '../../core/targets/heardClock.ts'
import { ReportedRows } from '../../core/targets/reportedRows.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import { DeviceLink, type Access } from '../devices/link.ts'

/** Targets are kept at this rate, whatever the camera's own is. */
export const MEMORY_FPS = 10
const KEPT_MS = 90_000

/** The channel of a device that says what a camera sees. */
export interface Source extends Access {
  profile: string
}

export type ToFollower =
  | { type: 'follow'; camera: string; source: Source }
  | { type: 'between'; id: number; camera: string; from: number; to: number }
export type FromFollower =
  { type: 'ended'; camera: string } | { type: 'rows'; id: number; rows: TargetRow[] }

/** Follows what cameras report, and keeps the last minute and a half of it. */
export class Follower {
  private readonly seen = new Map<string, LiveFrame[]>()
  private readonly onEnd: (camera: string) => void

  /** @param onEnd a camera is not followed any more: its device has ended the stream, or cannot be spoken with */
  constructor(onEnd: (camera: string) => void) {
    this.onEnd = onEnd
  }

  follow(camera: string, source: Source): void {
    // A device that cannot be reached sends nothing; Devices shows that.
    void this.listen(camera, source)
      .catch(() => {})
      .then(() => this.onEnd(camera))
  }

  /** Rows of a camera between two instants; frame 1 is at the first. Instants are by the clock here, ms of UTC. */
  between(camera: string, from: number, to: number): TargetRow[] {
    const reported = new ReportedRows(MEMORY_FPS)
    for (const { at, targets } of this.seen.get(camera) ?? [])
      if (at >= from && at <= to) reported.take(at - from, targets)
    return reported.rows
  }

  private async listen(
    camera: string,
    { address, account, certificate, profile }: Source
  ): Promise<void> {
    const link = new DeviceLink(address, account, undefined, certificate)
    const clock = new HeardClock()
    // It ends with the thread.
    for await (const { at, targets } of link.targets(profile, new AbortController().signal))
      this.keep(camera, clock.at(at, Date.now()), targets)
  }

  private keep(camera: string, at: number, targets: LiveFrame['targets']): void {
    const list = this.seen.get(camera) ?? []
    if (!this.seen.has(camera)) this.seen.set(camera, list)
    if (targets.length) list.push({ at, targets })
    while (list.length && list[0]!.at < Date.now() - KEPT_MS) list.shift()
  }
}
