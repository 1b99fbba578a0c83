import { said, type Said } from '../messages/said.ts'
import type { Measures } from '../measures/measures.ts'
import { frameTime, type Tracks } from '../targets/tracks.ts'
import { Evaluator, type Setting } from './evaluator.ts'
import type { CurveKind } from './frames.ts'
import { inOrder, notMet, type Ladder } from './ladder.ts'
import type { GateReading } from './types.ts'

/** A measured curve over the clip; value n − 1 is that of frame n. */
export interface Curve extends CurveKind {
  values: Float32Array
}

/** A stretch in which a detection's condition held, in seconds; whether and when it triggered in it. */
export interface Episode {
  from: number
  to: number
  firedAt: number | null
}

/** Why a detection that looks at whole frames triggered, or why not: its curves against their limits over time. */
export interface FrameTrace {
  detection: string
  fps: number
  curves: Curve[]
  episodes: Episode[]
  /** The gates at the frame asked about, or at the first trigger, or where the curves came nearest to their limits. */
  ladder: Omit<Ladder, 'target'>
}

/**
 * The trace of a detection that looks at whole frames.
 *
 * @param at frame of the moment asked about; left out: the first trigger, or the nearest moment
 * @returns null when the detection is not there, is switched off, looks at targets, or there is no frame
 */
export function traceFrames(
  setting: Setting,
  tracks: Tracks,
  measures: Measures | null,
  detection: string,
  at?: number
): FrameTrace | null {
  const only = setting.camera.detections.find((d) => d.id === detection)
  if (!only) return null
  const columns: number[][] = []
  const episodes: Episode[] = []
  let curves: readonly CurveKind[] = []
  let wasOn = false
  let best: { frame: number; fired: boolean; degree: number; readings: GateReading[] } | null = null
  new Evaluator({ ...setting, camera: { ...setting.camera, detections: [only] } }, undefined, {
    detection,
    seeFrame: (frame, run, gates, fired) => {
      const time = frameTime(frame, setting.fps)
      curves = run.curves
      const values = [...run.values()]
      columns.push(values)
      if (run.isOn()) {
        if (!wasOn) episodes.push({ from: time, to: time, firedAt: null })
        const episode = episodes[episodes.length - 1]!
        episode.to = time
        if (fired) episode.firedAt = time
      }
      wasOn = run.isOn()
      const degree = Math.max(...values.map((v, i) => v / curves[i]!.limit))
      const better =
        at !== undefined
          ? frame === at
          : !best || (!best.fired && (fired || degree > best.degree + 1e-9))
      if (better)
        best = {
          frame,
          fired,
          degree,
          readings: [...run.readings(), ...gates.readMoment(time, setting.start + time * 1000)]
        }
    }
  }).push(tracks, 0, tracks.length, measures)
  // TypeScript does not see that the callback has set it.
  const found = best as { frame: number; fired: boolean; readings: GateReading[] } | null
  if (!found) return null
  const time = frameTime(found.frame, setting.fps)
  const readings = inOrder(found.readings)
  return {
    detection,
    fps: setting.fps,
    curves: curves.map((curve, i) => ({
      ...curve,
      values: Float32Array.from(columns, (values) => values[i]!)
    })),
    episodes,
    ladder: {
      detection,
      frame: found.frame,
      time,
      fired: found.fired,
      readings,
      sentence: sentenceOf(found.fired, time, readings, episodes)
    }
  }
}

function sentenceOf(
  fired: boolean,
  time: number,
  readings: GateReading[],
  episodes: Episode[]
): Said {
  if (fired) return said('why.triggered', time)
  const stopped = readings.filter((r) => !r.passed)
  if (stopped.length) return notMet(time, stopped)
  const on = episodes.find((e) => e.from <= time && time <= e.to && e.firedAt !== null)
  return on ? said('why.alreadyOn', time, on.firedAt!) : said('why.allMet', time)
}
