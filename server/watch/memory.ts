import { setMaxListeners } from 'node:events'
import { setTimeout as wait } from 'node:timers/promises'
import { listChannels } from '../devices/channelQueries.ts'
import type { Devices } from '../devices/service.ts'
import type { Database } from '../database.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { HeardClock } from '../../core/targets/heardClock.ts'
import { ReportedRows } from '../../core/targets/reportedRows.ts'
import type { TargetRow } from '../../core/targets/tracks.ts'

/** Targets are kept at this rate, whatever the camera's own is. */
export const MEMORY_FPS = 10
const KEPT_MS = 90_000
const AGAIN_MS = 5000
/** Cameras that were added, or shown by another device, are found within this. */
const LOOK_MS = 10_000

/** What cameras have reported in the last minute and a half: a trigger's evidence begins before it. */
export class TargetMemory {
  private readonly database: Database
  private readonly devices: Devices
  private readonly log: (error: unknown) => void
  private readonly seen = new Map<string, LiveFrame[]>()
  private readonly following = new Map<string, Promise<void>>()
  private readonly ended = new AbortController()
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> = Promise.resolve()

  constructor(database: Database, devices: Devices, log: (error: unknown) => void) {
    this.database = database
    this.devices = devices
    this.log = log
  }

  start(): void {
    // As many as there are cameras wait for the end.
    setMaxListeners(0, this.ended.signal)
    const look = (): void => void (this.looking = this.look().catch(this.log))
    look()
    this.timer = setInterval(look, LOOK_MS)
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    this.ended.abort()
    await this.looking
    await Promise.all(this.following.values())
  }

  /** Rows of a camera between two instants; frame 1 is at the first. Instants are by the clock here, ms of UTC. */
  between(camera: string, from: number, to: number): TargetRow[] {
    const reported = new ReportedRows(MEMORY_FPS)
    for (const { at, targets } of this.seen.get(camera) ?? [])
      if (at >= from && at <= to) reported.take(at - from, targets)
    return reported.rows
  }

  private async look(): Promise<void> {
    const cameras = new Set(
      (await listChannels(this.database)).flatMap((c) => (c.readAt !== null && c.camera) || [])
    )
    for (const camera of cameras) {
      if (this.following.has(camera) || this.ended.signal.aborted) continue
      this.following.set(
        camera,
        this.follow(camera).finally(() => this.following.delete(camera))
      )
    }
  }

  /** Until the camera is shown by nothing any more; one that does not answer is asked again. */
  private async follow(camera: string): Promise<void> {
    const { signal } = this.ended
    while (!signal.aborted) {
      try {
        const found = await this.devices.channelShowing(camera)
        if (!found?.channel.hasMetadata) return
        const clock = new HeardClock()
        for await (const { at, targets } of this.devices.targets(found, signal))
          this.keep(camera, clock.at(at, Date.now()), targets)
      } catch {
        // An unreachable device sends nothing; Devices shows that.
      }
      await wait(AGAIN_MS, undefined, { signal }).catch(() => {})
    }
  }

  private keep(camera: string, at: number, targets: LiveFrame['targets']): void {
    const list = this.seen.get(camera) ?? []
    if (!this.seen.has(camera)) this.seen.set(camera, list)
    if (targets.length) list.push({ at, targets })
    while (list.length && list[0]!.at < Date.now() - KEPT_MS) list.shift()
  }
}
