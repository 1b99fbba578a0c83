import { said, type Said } from '../messages/said.ts'
import { Evaluator, evaluate, type Observation, type Setting } from './evaluator.ts'
import type { GateName, GateReading, Trigger } from './types.ts'
import { ALLOWANCE } from '../geometry/shapes.ts'
import type { Tracks } from '../targets/tracks.ts'

/** The gates of one target at the moment that decided, from the first to the last. */
export interface Ladder {
  detection: string
  target: number
  frame: number
  time: number
  fired: boolean
  readings: GateReading[]
  /** All of it in one sentence. */
  sentence: Said
}

const order: GateName[] = [
  'class',
  'size',
  'ignore',
  'confirm',
  'direction',
  'share',
  'dwell',
  'together',
  'face',
  'mask',
  'list',
  'cells',
  'picture',
  'contact',
  'delay',
  'armed',
  'holdOff'
]
export const inOrder = (readings: GateReading[]): GateReading[] =>
  readings.sort((a, b) => order.indexOf(a.gate) - order.indexOf(b.gate))
const failures = (readings: GateReading[]): number => readings.filter((r) => !r.passed).length

/** The best moment so far: a trigger, else most of the body over, then fewest gates in the way. */
interface Best {
  target: number
  frame: number
  time: number
  fired: boolean
  nearness: number
  readings: GateReading[]
}

function better(o: Observation, best: Best | undefined, read = o.read): Best | undefined {
  // A row at which nothing is near says no more than the first one did; reading every gate there would only cost.
  if (
    best &&
    !o.fired &&
    (best.fired || o.nearness === 0 || o.nearness < best.nearness - ALLOWANCE)
  )
    return best
  if (best?.fired) return best
  const readings = read()
  if (
    best &&
    !o.fired &&
    o.nearness <= best.nearness + ALLOWANCE &&
    failures(readings) >= failures(best.readings)
  )
    return best
  const { target, frame, time } = o.sighting
  return { target, frame, time, fired: o.fired, nearness: o.nearness, readings }
}

function ladderOf(detection: string, { target, frame, time, fired, readings }: Best): Ladder {
  const ordered = inOrder(readings)
  return {
    detection,
    target,
    frame,
    time,
    fired,
    readings: ordered,
    sentence: sentenceOf(fired, time, ordered)
  }
}

/** A gate over the whole time of a target. */
export interface GateHistory {
  gate: GateName
  /** Seconds of the first row at which it let the target through, and at which it stopped it; null: never. */
  firstPassed: number | null
  firstStopped: number | null
  /** The row at which it came nearest to letting the target through, or did so by the most. */
  best: { time: number; measured: Said; limit: Said; margin: number | null }
}

/** The ladder of one target with each gate over time. */
export interface Trace extends Ladder {
  history: GateHistory[]
}

/**
 * How far a reading is past its limit (negative: short of it), as a share of the limit; null where
 * nothing is measured on a scale.
 */
const marginOf = ({ value, needed }: GateReading): number | null =>
  value === undefined || needed === undefined
    ? null
    : needed > 0
      ? (value - needed) / needed
      : value

function noteHistory(
  history: Map<GateName, GateHistory>,
  readings: GateReading[],
  time: number
): void {
  for (const r of readings) {
    const margin = marginOf(r)
    let known = history.get(r.gate)
    if (
      !known ||
      (margin !== null
        ? margin > (known.best.margin ?? -Infinity) + ALLOWANCE
        : r.passed && known.firstPassed === null)
    ) {
      const best = { time, measured: r.measured, limit: r.limit, margin }
      if (known) known.best = best
      else
        history.set(r.gate, (known = { gate: r.gate, firstPassed: null, firstStopped: null, best }))
    }
    if (r.passed) known.firstPassed ??= time
    else known.firstStopped ??= time
  }
}

/** Only the rows of one target. */
export function rowsOf(tracks: Tracks, target: number): Tracks {
  const rows: number[] = []
  for (let i = tracks.id.indexOf(target); i >= 0; i = tracks.id.indexOf(target, i + 1)) rows.push(i)
  const pick = <T extends Int32Array | Float64Array | Uint8Array | Float32Array>(column: T): T => {
    const part = new (column.constructor as new (n: number) => T)(rows.length)
    rows.forEach((row, i) => (part[i] = column[row]!))
    return part
  }
  return {
    fps: tracks.fps,
    length: rows.length,
    frame: pick(tracks.frame),
    id: pick(tracks.id),
    x: pick(tracks.x),
    y: pick(tracks.y),
    w: pick(tracks.w),
    h: pick(tracks.h),
    cls: pick(tracks.cls),
    confidence: pick(tracks.confidence),
    ...(tracks.faces && { faces: tracks.faces })
  }
}

/**
 * Why a detection triggered for a target, or why not: the ladder at the row of the trigger, or else at the target's
 * best moment, and each gate over the target's time.
 *
 * @param at frame of the moment asked about; left out: the target's first trigger, or its best moment
 * @param known the detection's triggers, if they have been evaluated already; saves doing so for the re-trigger delay
 * @returns null when the target or the detection has no row there (a disabled detection has none)
 */
export function explain(
  setting: Setting,
  tracks: Tracks,
  detection: string,
  target: number,
  at?: number,
  known?: readonly Trigger[]
): Trace | null {
  const only = setting.camera.detections.find((d) => d.id === detection)
  if (!only) return null
  const alone: Setting = { ...setting, camera: { ...setting.camera, detections: [only] } }
  // A zone that counts several cannot be told from one target's rows.
  const together = 'atLeast' in only && only.atLeast > 1
  const triggers =
    together || only.holdOffSeconds === 0
      ? undefined
      : (known?.filter((t) => t.detection === detection) ?? evaluate(alone, tracks))
  const history = new Map<GateName, GateHistory>()
  let best: Best | undefined
  new Evaluator(alone, {
    detection,
    target,
    ...(triggers && { known: triggers }),
    see: (o) => {
      const readings = o.read()
      noteHistory(history, readings, o.sighting.time)
      if (at === undefined || o.sighting.frame === at) best = better(o, best, () => readings)
    }
  }).push(together ? tracks : rowsOf(tracks, target))
  if (!best) return null
  return { ...ladderOf(detection, best), history: order.flatMap((gate) => history.get(gate) ?? []) }
}

/**
 * The ladder of every target of a clip at its first trigger or best moment, in order of the targets' first rows. A
 * target that ends by a gap and comes again under its id has two.
 */
export function explainAll(setting: Setting, tracks: Tracks, detection: string): Ladder[] {
  const all = new Map<object, Best>()
  const alone: Setting = {
    ...setting,
    camera: {
      ...setting.camera,
      detections: setting.camera.detections.filter((d) => d.id === detection)
    }
  }
  new Evaluator(alone, {
    detection,
    see: (o) => {
      const { record } = o.sighting
      const best = all.get(record)
      const next = better(o, best)
      if (next && next !== best) all.set(record, next)
    }
  }).push(tracks)
  return [...all.values()].map((best) => ladderOf(detection, best))
}

/** A near miss: a target that one gate alone stopped, with some of its body over the line or in the zone. */
export const isNearMiss = (ladder: Ladder): boolean =>
  !ladder.fired &&
  failures(ladder.readings) === 1 &&
  (ladder.readings.find((r) => r.gate === 'share')?.value ?? 0) > 0

/**
 * How little a near miss was short of triggering: the share of its limit that the one gate lacked, 0 to 1. A gate that
 * is not on a scale (a class, a direction, hours) lacks all of it.
 */
export function missingOf({ readings }: Ladder): number {
  const stopped = readings.find((r) => !r.passed)
  const margin = stopped ? marginOf(stopped) : 0
  return margin === null ? 1 : Math.min(1, Math.max(0, -margin))
}

const SHARE_PLACES: Readonly<Record<string, Said>> = {
  'why.overLine': said('why.isOverLine'),
  'why.inZone': said('why.isInZone'),
  'why.outOfZone': said('why.isOutOfZone')
}

/** What stood in the way at a moment. @param stopped the readings that did not pass, the first one first */
export const notMet = (time: number, [first, ...others]: readonly GateReading[]): Said =>
  said(
    'why.notMet',
    said(`conditions.${first!.gate}`),
    first!.measured,
    time,
    first!.limit,
    others.map((r) => said(`conditions.${r.gate}`))
  )

function sentenceOf(fired: boolean, time: number, readings: GateReading[]): Said {
  if (fired) return said('why.triggered', time)
  const over = readings.find((r) => r.gate === 'share')
  if (over && (over.value ?? 0) === 0)
    return said('why.noPart', SHARE_PLACES[over.measured.code] ?? said('why.isInZone'))
  const stopped = readings.filter((r) => !r.passed)
  if (!stopped.length) return said('why.alreadyCounted', time)
  // Of several, the overlap says least: it only grows with time.
  const first = stopped.find((r) => r.gate !== 'share') ?? stopped[0]!
  return notMet(time, [first, ...stopped.filter((r) => r !== first)])
}
