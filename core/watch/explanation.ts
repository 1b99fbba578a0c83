import { said, type Said } from '../messages/said.ts'
import { explain, rowsOf, type Setting, type Trace } from '../detections/index.ts'
import type { ArmInputs } from '../arming/armInputs.ts'
import type { Detection, Plan, Schedule } from '../formats/plan.ts'
import { frameTime, tracksFromRows, type TargetRow, type Tracks } from '../targets/tracks.ts'

/** What is kept of a live trigger besides its picture: what the camera had reported around it, and what held then. */
export interface TriggerRecord {
  /** The instant of frame 1, and of the trigger, milliseconds of UTC by this server's clock. */
  from: number
  at: number
  fps: number
  rows: TargetRow[]
  plan: Pick<Plan, 'timeZone' | 'position'> & { schedules: Schedule[] }
  ignore: Setting['camera']['ignore']
  scene: Setting['camera']['scene'] | null
}

/** A trigger explained: the way of its target, its gates at the moment, the settings as they were. */
export interface TriggerExplanation {
  detection: Detection
  /** Its hours as they were; null: always. */
  hours: Schedule | null
  /** Where the target's foot was, and when before (below 0) and after the trigger, in seconds. */
  path: { at: number; x: number; y: number }[]
  ladder: Trace | null
  /** Why there is no path, or not all of *Why*; null: there is. */
  words: Said | null
}

/** An arm input let the trigger pass, or it would not be one. */
const inputsOf = ({ armInput }: Detection): ArmInputs =>
  armInput ? { [armInput.input]: [{ at: 0, set: !armInput.inverted }] } : {}

export function pathOf(tracks: Tracks, target: number, at: number): TriggerExplanation['path'] {
  const own = rowsOf(tracks, target)
  return Array.from({ length: own.length }, (_, i) => ({
    at: frameTime(own.frame[i]!, own.fps) - at,
    x: own.x[i]! + own.w[i]! / 2,
    y: own.y[i]! + own.h[i]!
  }))
}

/** The account of a live trigger from what was kept of it. */
export function accountOf(
  detection: Detection,
  target: number | null,
  record: TriggerRecord | null
): TriggerExplanation {
  const hours = record?.plan.schedules.find((s) => s.id === detection.schedule) ?? null
  if (!record)
    return {
      detection,
      hours,
      path: [],
      ladder: null,
      words: said('watch.nothingKept')
    }
  if (target === null)
    return {
      detection,
      hours,
      path: [],
      ladder: null,
      words: said('watch.noTarget')
    }
  // Seconds count from when the target came into view.
  const first = Math.min(...record.rows.filter((r) => r.id === target).map((r) => r.frame))
  const from = Number.isFinite(first)
    ? record.from + ((first - 1) / record.fps) * 1000
    : record.from
  const tracks = tracksFromRows(
    record.rows.flatMap((r) => (r.frame >= first ? [{ ...r, frame: r.frame - first + 1 }] : [])),
    record.fps
  )
  const time = (record.at - from) / 1000
  const path = pathOf(tracks, target, time)
  if (!path.length)
    return {
      detection,
      hours,
      path,
      ladder: null,
      words: said('watch.targetNotReported')
    }
  const setting: Setting = {
    plan: record.plan,
    camera: {
      ignore: record.ignore,
      ...(record.scene && { scene: record.scene }),
      detections: [{ ...detection, enabled: true }]
    },
    fps: record.fps,
    start: from,
    inputs: inputsOf(detection)
  }
  const ladder = explain(setting, tracks, detection.id, target)
  return {
    detection,
    hours,
    path,
    ladder,
    words: ladder?.fired === false ? said('watch.cameraDecided') : null
  }
}
