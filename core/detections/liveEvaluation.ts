import type { LiveFrame } from '../devices/views.ts'
import type { Said } from '../messages/said.ts'
import { classNamed } from '../targets/classes.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../targets/tracks.ts'
import { Evaluator, type Setting } from './evaluator.ts'
import { explain } from './ladder.ts'
import type { Trigger } from './types.ts'

/** What is asked of detections as they are drawn. */
export type LiveSetting = Pick<Setting, 'plan' | 'camera' | 'inputs'>

/** A detection as it is drawn would have triggered. */
export interface WouldTrigger {
  detection: string
  target: number | null
  /** By the clock here, ms of UTC. */
  at: number
}

/** Targets are judged at this rate, whatever the camera's own is. */
const FPS = 10
/** So much is held: when something is drawn anew, what it would have done since is known at once. */
const HELD_MS = 90_000

/**
 * Evaluates detections as they are drawn on what a camera reports as it comes. Whenever the drawing changes, the last
 * minute and a half is evaluated again, so that whoever is in a zone already goes on being timed.
 */
export class LiveEvaluation {
  private rows: TargetRow[] = []
  private start: number | null = null
  private last = 0
  private setting: LiveSetting | null = null
  private evaluator: Evaluator | null = null

  /** @returns what would have triggered in the time that is held, oldest first */
  draw(setting: LiveSetting | null): WouldTrigger[] {
    this.setting = setting
    return this.again()
  }

  /**
   * @param at by the clock here
   * @returns what triggers now, as it is drawn
   */
  take({ targets }: Pick<LiveFrame, 'targets'>, at: number): WouldTrigger[] {
    if (this.start === null) {
      this.start = at
      this.again()
    }
    const frame = Math.floor(((at - this.start) / 1000) * FPS) + 1
    if (frame <= this.last) return []
    this.last = frame
    const rows = targets.map(({ id, class: name, x, y, w, h, likelihood = 1 }): TargetRow => ({
      frame,
      id,
      x,
      y,
      w,
      h,
      cls: classNamed(name),
      confidence: likelihood
    }))
    this.rows.push(...rows)
    const oldest = frame - (HELD_MS / 1000) * FPS
    // Cut now and then, not at every frame.
    if (this.rows.length && this.rows[0]!.frame < oldest - 10 * FPS)
      this.rows = this.rows.filter((row) => row.frame >= oldest)
    return rows.length && this.evaluator ? this.push(tracksFromRows(rows, FPS)) : []
  }

  /** Why a detection as it is drawn did not trigger for a target at about a moment; null: it cannot be told. */
  whyNot(detection: string, target: number | null, at: number): Said | null {
    if (target === null || !this.setting || this.start === null) return null
    const frame = Math.floor(((at - this.start) / 1000) * FPS) + 1
    const trace = explain(this.full(this.setting), this.tracks(), detection, target, frame)
    return trace && !trace.fired ? trace.sentence : null
  }

  private again(): WouldTrigger[] {
    this.evaluator =
      this.setting && this.start !== null ? new Evaluator(this.full(this.setting)) : null
    return this.evaluator && this.rows.length ? this.push(this.tracks()) : []
  }

  private full(setting: LiveSetting): Setting {
    return { ...setting, fps: FPS, start: this.start ?? 0 }
  }

  private tracks(): Tracks {
    return tracksFromRows(this.rows, FPS)
  }

  private push(tracks: Tracks): WouldTrigger[] {
    return this.evaluator!.push(tracks).map((trigger: Trigger) => ({
      detection: trigger.detection,
      target: trigger.target ?? null,
      at: this.start! + 1000 * trigger.time
    }))
  }
}

/** Two that are of one thing come within this: a device tells of it a while later. */
export const TOGETHER_MS = 5000

/** What the device said and what would trigger as it is drawn, side by side. */
export interface SideBySide<H> {
  detection: string
  target: number | null
  at: number
  /** Null: only as it is drawn. */
  heard: H | null
  /** Null: only the device. */
  would: WouldTrigger | null
}

/**
 * Puts what a device has said beside what would have triggered: one to one, of one detection, the nearest in time within
 * 5 s, of the same target where both name one.
 *
 * @returns the newest first
 */
export function sideBySide<H extends { detection: string; target: number | null; at: number }>(
  heard: readonly H[],
  would: readonly WouldTrigger[]
): SideBySide<H>[] {
  const free = new Set(would)
  const rows: SideBySide<H>[] = [...heard]
    .sort((a, b) => a.at - b.at)
    .map((h) => {
      let best: WouldTrigger | null = null
      for (const w of free)
        if (
          w.detection === h.detection &&
          (w.target === null || h.target === null || w.target === h.target) &&
          Math.abs(w.at - h.at) <= TOGETHER_MS &&
          (!best || Math.abs(w.at - h.at) < Math.abs(best.at - h.at))
        )
          best = w
      if (best) free.delete(best)
      return {
        detection: h.detection,
        target: h.target ?? best?.target ?? null,
        at: h.at,
        heard: h,
        would: best
      }
    })
  for (const w of free)
    rows.push({ detection: w.detection, target: w.target, at: w.at, heard: null, would: w })
  return rows.sort((a, b) => b.at - a.at)
}
