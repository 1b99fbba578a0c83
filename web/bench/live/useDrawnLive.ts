import { useEffect, useMemo, useSyncExternalStore } from 'react'
import {
  LiveEvaluation,
  type LiveSetting,
  type WouldTrigger
} from '../../../core/detections/liveEvaluation.ts'
import type { Said } from '../../../core/messages/said.ts'
import { HeardClock } from '../../../core/targets/heardClock.ts'
import type { LiveFrames } from './useLive.ts'

/** More than these nobody reads. */
const KEPT = 50

/** What would trigger as it is drawn, on the targets that come; a store of its own, as they come ten times a second. */
class DrawnLive {
  private readonly evaluation = new LiveEvaluation()
  private readonly clock = new HeardClock()
  private readonly listeners = new Set<() => void>()
  private would: readonly WouldTrigger[] = []

  get = (): readonly WouldTrigger[] => this.would

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  draw(setting: LiveSetting): void {
    this.set(this.evaluation.draw(setting).reverse())
  }

  follow(frames: LiveFrames): () => void {
    return frames.subscribe(() => {
      const frame = frames.get()
      if (!frame) return
      const now = this.evaluation.take(frame, this.clock.at(frame.at, Date.now()))
      if (now.length) this.set([...now.reverse(), ...this.would])
    })
  }

  whyNot = (detection: string, target: number | null, at: number): Said | null =>
    this.evaluation.whyNot(detection, target, at)

  private set(would: readonly WouldTrigger[]): void {
    this.would = would.slice(0, KEPT)
    for (const listener of this.listeners) listener()
  }
}

export interface DrawnNow {
  /** Newest first. */
  would: readonly WouldTrigger[]
  whyNot: DrawnLive['whyNot']
}

/** @param frames of one camera */
export function useDrawnLive(frames: LiveFrames, setting: LiveSetting): DrawnNow {
  // Another camera's targets are another matter.
  const drawn = useMemo(() => new DrawnLive(), [])
  useEffect(() => drawn.follow(frames), [drawn, frames])
  useEffect(() => drawn.draw(setting), [drawn, setting])
  const would = useSyncExternalStore(drawn.subscribe, drawn.get)
  return { would, whyNot: drawn.whyNot }
}
