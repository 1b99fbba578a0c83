import type { LiveFrame } from '../../core/devices/views.ts'
import { HeardClock } from '../../core/targets/heardClock.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'
import { DeviceLink, type Access } from '../devices/link/link.ts'
import type { HourWriter } from '../lookBack/hourWriter.ts'
import type { CameraPictures } from './cameraPictures.ts'
import { RecentFrames } from './recentFrames.ts'

/** The channel of a device that says what a camera sees. */
export interface Source extends Access {
  profile: string
}

export type ToFollower =
  | { type: 'follow'; camera: string; source: Source }
  /** Of these cameras nothing is written; it is answered once that is so. */
  | { type: 'without'; id: number; cameras: string[] }
  | { type: 'close' }
  | { type: 'between'; id: number; camera: string; from: number; to: number }
  /** What was asked for; null: why there is none. */
  | { type: 'picture'; id: number; jpeg: Uint8Array | null; isRefused: boolean }
export type FromFollower =
  | { type: 'ended'; camera: string }
  | { type: 'rows'; id: number; rows: TargetRow[] }
  | { type: 'leftOut'; id: number }
  /** Nothing more is written to that hour's log. */
  | { type: 'hourOver'; camera: string; hour: number }
  | { type: 'notWritten'; why: string }
  /** Asks for the next picture of a camera's stream. */
  | { type: 'picture'; id: number; camera: string }
  | { type: 'closed' }

/**
 * Follows what cameras report: the last minute and a half is held for triggers' evidence, and all is written to the logs of
 * the running hour, with small pictures beside them (server/lookBack).
 */
export class Follower {
  private readonly seen = new Map<string, RecentFrames>()
  private readonly onEnd: (camera: string) => void
  private readonly writer: HourWriter | null
  private readonly pictures: CameraPictures | null
  /** Of these nothing is written. */
  private without: ReadonlySet<string> = new Set()
  private readonly heard = new Set<string>()

  /** @param onEnd a camera is not followed any more: its device has ended the stream, or cannot be spoken with */
  constructor(
    onEnd: (camera: string) => void,
    writer: HourWriter | null = null,
    pictures: CameraPictures | null = null
  ) {
    this.onEnd = onEnd
    this.writer = writer
    this.pictures = pictures
  }

  /** @param cameras of which nothing is written from now on; of all others it is */
  leaveOut(cameras: readonly string[]): void {
    this.without = new Set(cameras)
    for (const camera of this.heard)
      if (this.without.has(camera)) {
        this.writer?.end(camera, Date.now())
        this.pictures?.end(camera)
      } else this.writer?.begin(camera, Date.now())
  }

  follow(camera: string, source: Source): void {
    // A device that cannot be reached sends nothing; Devices shows that.
    void this.listen(camera, source)
      .catch(() => {})
      .then(() => {
        this.heard.delete(camera)
        this.writer?.end(camera, Date.now())
        this.pictures?.end(camera)
        this.onEnd(camera)
      })
  }

  /** Rows of a camera between two instants; frame 1 is at the first. Instants are by the clock here, ms of UTC. */
  between(camera: string, from: number, to: number): TargetRow[] {
    return this.seen.get(camera)?.between(from, to) ?? []
  }

  private async listen(
    camera: string,
    { address, account, certificate, profile }: Source
  ): Promise<void> {
    const link = new DeviceLink(address, account, undefined, certificate)
    const clock = new HeardClock()
    // It ends with the thread.
    const snapshot = (): Promise<Buffer> => link.media.snapshot(profile)
    for await (const { at, targets } of link.media.targets(profile, new AbortController().signal)) {
      const heard = clock.at(at, Date.now())
      this.take(camera, heard, targets)
      if (!this.without.has(camera)) this.pictures?.heard(camera, heard, targets, snapshot)
    }
  }

  private take(camera: string, at: number, targets: LiveFrame['targets']): void {
    if (this.writer && !this.without.has(camera)) {
      this.writer.begin(camera, at)
      this.writer.take(camera, at, targets)
    }
    this.heard.add(camera)
    const seen = this.seen.get(camera) ?? new RecentFrames()
    if (targets.length) seen.take({ at, targets })
    this.seen.set(camera, seen)
  }
}
