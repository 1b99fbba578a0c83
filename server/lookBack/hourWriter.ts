import { closeSync, ftruncateSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs'
import { dirname } from 'node:path'
import { LogBlock, wholeBytes, type ReportedTarget } from '../../core/lookBack/hourLog.ts'
import { hourOf, logPath } from './hours.ts'

/** While nothing moves, that the camera is listened to is written so often. */
const STILL_MS = 10_000

/** A box without a side, or a target without a number, is of no use to anybody who asks later. */
const isUsable = ({ id, x, y, w, h }: ReportedTarget): boolean =>
  w > 0 &&
  h > 0 &&
  Number.isFinite(x + y + w + h) &&
  Number.isInteger(id) &&
  id >= 0 &&
  id < 2 ** 31

interface Writing {
  hour: number
  file: number | null
  block: LogBlock
  /** The last instant that was written. */
  last: number
  heard: boolean
}

export interface HourWriterEvents {
  /** Nothing more is written to this hour's log. */
  closed: (camera: string, hour: number) => void
  /** The disk does not take what there is; it is lost, and what comes after it is tried again. */
  failed: (error: Error) => void
}

/**
 * Appends what cameras report to the logs of the running hour. Written at once each second by whoever calls `flush`; a
 * crash loses no more than that.
 */
export class HourWriter {
  private readonly folder: string
  private readonly on: HourWriterEvents
  private readonly cameras = new Map<string, Writing>()

  constructor(folder: string, on: HourWriterEvents) {
    this.folder = folder
    this.on = on
  }

  /** Listening to a camera begins. */
  begin(camera: string, at: number): void {
    const now = this.writing(camera, at)
    if (now.heard) return
    now.heard = true
    now.block.addHeard('begin', at)
    now.last = at
  }

  take(camera: string, at: number, targets: readonly ReportedTarget[]): void {
    const usable = targets.filter(isUsable)
    if (!usable.length) return
    const now = this.writing(camera, at)
    for (const target of usable) now.block.addTarget(at, target)
    now.last = Math.max(now.last, at)
  }

  /** The camera is not listened to any more. */
  end(camera: string, at: number): void {
    const now = this.cameras.get(camera)
    if (!now?.heard) return
    now.heard = false
    now.block.addHeard('end', Math.max(at, now.last))
    this.write(camera, now)
    this.close(now)
    this.cameras.delete(camera)
  }

  /** Writes what has been taken. */
  flush(at: number): void {
    for (const camera of this.cameras.keys()) {
      const now = this.writing(camera, at)
      if (now.heard && at - now.last >= STILL_MS) {
        now.block.addHeard('still', at)
        now.last = at
      }
      this.write(camera, now)
    }
  }

  /** Ends all; what is listened to ends here. */
  closeAll(at: number): void {
    for (const camera of [...this.cameras.keys()]) this.end(camera, at)
  }

  private writing(camera: string, at: number): Writing {
    const hour = hourOf(at)
    const now = this.cameras.get(camera)
    if (now && hour <= now.hour) return now
    const next: Writing = {
      hour,
      file: null,
      block: new LogBlock(),
      last: now?.last ?? 0,
      heard: now?.heard ?? false
    }
    this.cameras.set(camera, next)
    if (now) {
      if (now.heard) {
        // The stretch goes on in the next hour's log.
        now.block.addHeard('end', Math.max(now.last, hour))
        next.block.addHeard('begin', hour)
      }
      this.write(camera, now)
      this.close(now)
      this.on.closed(camera, now.hour)
    }
    return next
  }

  /** Opens a log to append to it; what a crash has torn at its end is cut off. */
  private open(camera: string, hour: number): number {
    const path = logPath(this.folder, camera, hour)
    mkdirSync(dirname(path), { recursive: true })
    const file = openSync(path, 'a+')
    const bytes = readFileSync(path)
    const whole = wholeBytes(bytes)
    if (whole < bytes.length) ftruncateSync(file, whole)
    return file
  }

  private write(camera: string, writing: Writing): void {
    const { block, hour } = writing
    if (block.isEmpty) return
    const bytes = block.take()
    try {
      writing.file ??= this.open(camera, hour)
      for (let done = 0; done < bytes.length;) done += writeSync(writing.file, bytes, done)
    } catch (error) {
      // Opened anew, so that half a record at its end is cut off.
      this.close(writing)
      this.on.failed(error as Error)
    }
  }

  private close(writing: Writing): void {
    if (writing.file !== null) closeSync(writing.file)
    writing.file = null
  }
}
