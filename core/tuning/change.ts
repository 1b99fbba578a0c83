import { clockText } from '../arming/spans.ts'
import { DAY_NAMES } from '../arming/stretches.ts'
import { wallText } from '../arming/zone.ts'
import {
  evaluate,
  explain,
  rowsOf,
  type GateName,
  type Setting,
  type Trace,
  type Trigger
} from '../detections/index.ts'
import { WEEKDAYS, type Detection, type Schedule } from '../formats/plan.ts'
import { CLASSES } from '../targets/classes.ts'
import type { Tracks } from '../targets/tracks.ts'
import { quantity } from './quantity.ts'

/** A change to a single gate that would let a target through, or keep it out. */
export interface GateChange {
  gate: GateName
  /** What changes, in words: from what to what. */
  words: string
  /** The detection as it would be; where its hours change, the schedule besides. */
  detection: Detection
  schedule?: Schedule
  /**
   * How large the change is: 0 none, 1 as much again as the setting was, or the setting given up.
   * Orders the proposals.
   */
  size: number
}

export interface WhatIf {
  setting: Setting
  tracks: Tracks
  detection: string
  target: number
}

/** The widest that settings on a scale may be asked to go (core/formats/detection.ts). */
const LONGEST = { dwell: 3600, confirm: 60, holdOff: 86400 }
const STEP_SECONDS = 0.1

/**
 * The smallest change to each single gate after which a target triggers a detection (or, if it does, triggers it no
 * more), smallest first. Each is found by asking the engine itself: a setting on a scale is searched to its finest step,
 * and every proposal has been evaluated before it is given.
 *
 * @returns empty when no single gate can do it, or the detection or the target is not there
 */
export function changesFor(ask: WhatIf): GateChange[] {
  const d = ask.setting.camera.detections.find(({ id }) => id === ask.detection)
  if (!d || !('classes' in d)) return []
  const trial = trialOf(ask, d)
  const before = trial.fires(d)
  const trace = explain(ask.setting, ask.tracks, ask.detection, ask.target)
  if (!trace) return []
  const works = (changed: Detection, schedule?: Schedule): boolean =>
    trial.fires(changed, schedule) !== before
  return proposals(d, trace, ask, before, works)
    .filter((p) => works(p.detection, p.schedule))
    .sort((a, b) => a.size - b.size)
}

/**
 * Asks the engine whether the target triggers a detection as it would be; over the target's own
 * rows where those are enough.
 */
function trialOf(
  { setting, tracks, target }: WhatIf,
  d: Detection
): { fires: (changed: Detection, schedule?: Schedule) => boolean } {
  // Hold-off and numbers together depend on other targets as well.
  const alone = d.holdOffSeconds === 0 && !('atLeast' in d && d.atLeast > 1)
  const own = rowsOf(tracks, target)
  return {
    fires: (changed, schedule) => {
      const plan = schedule
        ? {
            ...setting.plan,
            schedules: [...setting.plan.schedules.filter(({ id }) => id !== schedule.id), schedule]
          }
        : setting.plan
      const needsAll =
        !alone || changed.holdOffSeconds > 0 || ('atLeast' in changed && changed.atLeast > 1)
      const triggers = evaluate(
        {
          ...setting,
          plan,
          camera: {
            ...setting.camera,
            detections: [{ ...changed, enabled: true, parked: undefined }]
          }
        },
        needsAll ? tracks : own
      )
      return triggers.some((t) => t.target === target || t.targets?.includes(target))
    }
  }
}

type Works = (changed: Detection, schedule?: Schedule) => boolean
type Gated = Extract<Detection, { classes: unknown }>

function* candidates(
  d: Gated,
  trace: Trace,
  ask: WhatIf,
  fires: boolean,
  works: Works
): Generator<GateChange | null> {
  const looser = !fires
  if ('sensitivity' in d && d.kind !== 'classMotion') {
    const to = nearest(d.sensitivity, looser ? 100 : 1, 1, (sensitivity) =>
      works({ ...d, sensitivity })
    )
    if (to !== null)
      yield {
        gate: 'share',
        words: `sensitivity ${d.sensitivity} → ${to}`,
        detection: { ...d, sensitivity: to },
        size: Math.abs(to - d.sensitivity) / d.sensitivity
      }
  }
  if ('dwellSeconds' in d) {
    const least = d.kind === 'loitering' ? 1 : 0
    const to = nearest(
      d.dwellSeconds,
      looser ? least : LONGEST.dwell,
      STEP_SECONDS,
      (dwellSeconds) => works({ ...d, dwellSeconds })
    )
    if (to !== null)
      yield {
        gate: 'dwell',
        words: `dwell ${quantity(d.dwellSeconds, 's')} → ${quantity(to, 's')}`,
        detection: { ...d, dwellSeconds: to },
        size: relative(d.dwellSeconds, to)
      }
    if (looser && !d.countFirstSeenInside)
      yield {
        gate: 'dwell',
        words: 'count who is in it when first seen',
        detection: { ...d, countFirstSeenInside: true },
        size: 1
      }
  }
  const confirm = nearest(
    d.confirmSeconds,
    looser ? 0 : LONGEST.confirm,
    STEP_SECONDS,
    (confirmSeconds) => works({ ...d, confirmSeconds })
  )
  if (confirm !== null)
    yield {
      gate: 'confirm',
      words: `confirm time ${quantity(d.confirmSeconds, 's')} → ${quantity(confirm, 's')}`,
      detection: { ...d, confirmSeconds: confirm },
      size: relative(d.confirmSeconds, confirm)
    }
  const holdOff = nearest(
    d.holdOffSeconds,
    looser ? 0 : LONGEST.holdOff,
    STEP_SECONDS,
    (holdOffSeconds) => works({ ...d, holdOffSeconds })
  )
  if (holdOff !== null)
    yield {
      gate: 'holdOff',
      words: `hold-off ${quantity(d.holdOffSeconds, 's')} → ${quantity(holdOff, 's')}`,
      detection: { ...d, holdOffSeconds: holdOff },
      size: relative(d.holdOffSeconds, holdOff)
    }
  yield* sizeChanges(d, ask, looser, works)
  yield classChange(d, ask, looser)
  if (d.kind === 'line') {
    if (looser && d.direction !== 'both')
      yield {
        gate: 'direction',
        words: 'count both directions',
        detection: { ...d, direction: 'both' },
        size: 1
      }
    if (!looser) {
      for (const direction of ['leftToRight', 'rightToLeft'] as const)
        if (direction !== d.direction)
          yield {
            gate: 'direction',
            words:
              d.direction === 'both'
                ? 'count only the other direction'
                : 'count the other direction',
            detection: { ...d, direction },
            size: 1
          }
    }
  }
  if ('atLeast' in d) {
    const to = nearest(d.atLeast, looser ? 1 : Math.min(100, d.atLeast + 5), 1, (atLeast) =>
      works({ ...d, atLeast })
    )
    if (to !== null)
      yield {
        gate: 'together',
        words: `${d.atLeast} together → ${to}`,
        detection: { ...d, atLeast: to },
        size: relative(d.atLeast, to)
      }
  }
  if (d.kind === 'face' && looser) {
    if (d.mask !== 'any')
      yield {
        gate: 'mask',
        words: 'with or without a mask',
        detection: { ...d, mask: 'any' },
        size: 1
      }
    if (d.list !== 'any')
      yield { gate: 'list', words: 'whoever it is', detection: { ...d, list: 'any' }, size: 1 }
    const by = nearest(1, 0.01, 0.01, (f) => works({ ...d, faceMin: scaled(d.faceMin, f) }))
    if (by !== null)
      yield {
        gate: 'face',
        words: `smallest face ${frameText(d.faceMin)} → ${frameText(scaled(d.faceMin, by))}`,
        detection: { ...d, faceMin: scaled(d.faceMin, by) },
        size: 1 - by
      }
  }
  yield hoursChange(d, trace, ask, looser)
}

const proposals = (
  d: Gated,
  trace: Trace,
  ask: WhatIf,
  fires: boolean,
  works: Works
): GateChange[] => [...candidates(d, trace, ask, fires, works)].filter((p) => p !== null)

const relative = (from: number, to: number): number => Math.abs(to - from) / Math.max(from, 1)

/**
 * The value nearest to a present one, towards a bound, at which something works; in steps. It is looked for by doubling
 * strides and halving, as it is rare that a setting that helped stops to help farther on; what is found does work.
 */
function nearest(
  from: number,
  bound: number,
  step: number,
  works: (value: number) => boolean
): number | null {
  const sign = Math.sign(bound - from)
  const most = Math.floor(Math.abs(bound - from) / step + 1e-9)
  if (sign === 0 || most < 1) return null
  const value = (n: number): number => Math.round((from + sign * n * step) * 1000) / 1000
  let low = 0
  let high = 1
  while (!works(value(high))) {
    low = high
    if (high === most) return null
    high = Math.min(most, high * 2)
  }
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (works(value(middle))) high = middle
    else low = middle
  }
  return value(high)
}

type Frame = { w: number; h: number }
const scaled = ({ w, h }: Frame, by: number): Frame => ({
  w: Math.min(1, Math.round(w * by * 1e4) / 1e4),
  h: Math.min(1, Math.round(h * by * 1e4) / 1e4)
})
const frameText = ({ w, h }: Frame): string =>
  `${Math.round(w * 1000) / 10} × ${Math.round(h * 1000) / 10} %`

function* sizeChanges(
  d: Gated,
  { tracks, target }: WhatIf,
  looser: boolean,
  works: Works
): Generator<GateChange> {
  const withSize = (part: NonNullable<Gated['size']>): Detection => ({
    ...d,
    size: { ...d.size, ...part }
  })
  const { min, max, minMetres, maxMetres } = d.size ?? {}
  if (looser) {
    if (min) {
      const by = nearest(1, 0, 0.01, (f) => works(withSize({ min: scaled(min, f) })))
      if (by !== null)
        yield {
          gate: 'size',
          words: `smallest frame ${frameText(min)} → ${frameText(scaled(min, by))}`,
          detection: withSize({ min: scaled(min, by) }),
          size: 1 - by
        }
    }
    if (max) {
      const by = nearest(1, Math.max(1 / max.w, 1 / max.h), 0.01, (f) =>
        works(withSize({ max: scaled(max, f) }))
      )
      if (by !== null)
        yield {
          gate: 'size',
          words: `largest frame ${frameText(max)} → ${frameText(scaled(max, by))}`,
          detection: withSize({ max: scaled(max, by) }),
          size: by - 1
        }
    }
    if (minMetres !== undefined) {
      const to = nearest(minMetres, 0, 0.05, (metres) => works(withSize({ minMetres: metres })))
      if (to !== null)
        yield {
          gate: 'size',
          words: `at least ${quantity(minMetres, 'm')} → ${quantity(to, 'm')}`,
          detection: withSize({ minMetres: to }),
          size: relative(minMetres, to)
        }
    }
    if (maxMetres !== undefined) {
      const to = nearest(maxMetres, 20, 0.05, (metres) => works(withSize({ maxMetres: metres })))
      if (to !== null)
        yield {
          gate: 'size',
          words: `at most ${quantity(maxMetres, 'm')} → ${quantity(to, 'm')}`,
          detection: withSize({ maxMetres: to }),
          size: relative(maxMetres, to)
        }
    }
    return
  }
  // Kept out: a smallest frame just as large as the target ever is, or a largest one just under what it always is.
  const own = rowsOf(tracks, target)
  const largest = { w: Math.max(...own.w), h: Math.max(...own.h) }
  const smallest = { w: Math.min(...own.w), h: Math.min(...own.h) }
  const from = min ?? scaled(largest, 0.01)
  const up = nearest(1, 100, 0.01, (f) => works(withSize({ min: scaled(from, f) })))
  if (up !== null)
    yield {
      gate: 'size',
      words: min
        ? `smallest frame ${frameText(min)} → ${frameText(scaled(from, up))}`
        : `a smallest frame of ${frameText(scaled(from, up))}`,
      detection: withSize({ min: scaled(from, up) }),
      size: min ? up - 1 : 1
    }
  const base = max ?? { w: 1, h: 1 }
  const down = nearest(
    1,
    Math.min(smallest.w / base.w, smallest.h / base.h, 0.99) * 0.5,
    0.01,
    (f) => works(withSize({ max: scaled(base, f) }))
  )
  if (down !== null)
    yield {
      gate: 'size',
      words: max
        ? `largest frame ${frameText(max)} → ${frameText(scaled(base, down))}`
        : `a largest frame of ${frameText(scaled(base, down))}`,
      detection: withSize({ max: scaled(base, down) }),
      size: max ? 1 - down : 1
    }
}

function classChange(d: Gated, { tracks, target }: WhatIf, looser: boolean): GateChange | null {
  const counts = new Map<number, number>()
  for (let i = 0; i < tracks.length; i++)
    if (tracks.id[i] === target) counts.set(tracks.cls[i], (counts.get(tracks.cls[i]) ?? 0) + 1)
  const [index] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? []
  if (index === undefined) return null
  const cls = CLASSES[index]
  if (looser)
    return d.classes.length === 0 || d.classes.includes(cls)
      ? null
      : {
          gate: 'class',
          words: `count ${cls} too`,
          detection: { ...d, classes: [...d.classes, cls] },
          size: 1
        }
  const left = (d.classes.length ? d.classes : [...CLASSES]).filter((c) => c !== cls)
  return left.length
    ? { gate: 'class', words: `do not count ${cls}`, detection: { ...d, classes: left }, size: 1 }
    : null
}

const TO_MINUTES = 5

/** The schedule with the span nearest to a moment made as long as to hold it; or cut, so that it does not. */
function hoursChange(
  d: Gated,
  trace: Trace,
  { setting }: WhatIf,
  looser: boolean
): GateChange | null {
  const schedule = setting.plan.schedules.find(({ id }) => id === d.schedule)
  if (
    !schedule ||
    !looser ||
    trace.readings.every(({ gate, passed }) => gate !== 'armed' || passed)
  )
    return null
  const local = wallText(setting.start + trace.time * 1000, setting.plan.timeZone)
  const date = local.slice(0, 10)
  const weekday = WEEKDAYS[(new Date(`${date}T00:00Z`).getUTCDay() + 6) % 7]
  const exception = schedule.exceptions.findIndex((e) => e.date === date)
  const spans = exception >= 0 ? schedule.exceptions[exception].spans : schedule.week[weekday]
  const minute = Number(local.slice(11, 13)) * 60 + Number(local.slice(14, 16))
  const [first, last] = [
    Math.floor(minute / TO_MINUTES) * TO_MINUTES,
    Math.min(1440, Math.floor(minute / TO_MINUTES) * TO_MINUTES + TO_MINUTES)
  ]
  const minutesOf = (end: string): number | null =>
    /^\d\d:\d\d$/.test(end) ? Number(end.slice(0, 2)) * 60 + Number(end.slice(3)) : null
  // Only ends that the clock gives can be moved; one that follows the sun is left to it.
  let best: { index: number; end: 0 | 1; by: number } | null = null
  spans.forEach(([from, to], index) => {
    const [a, b] = [minutesOf(from), minutesOf(to)]
    if (a !== null && a > minute && (best === null || a - first < best.by))
      best = { index, end: 0, by: a - first }
    if (b !== null && b <= minute && (best === null || last - b < best.by))
      best = { index, end: 1, by: last - b }
  })
  const added: [string, string] = [clockText(first), clockText(last)]
  const { index, end, by } = best ?? { index: -1, end: 0, by: TO_MINUTES }
  const next =
    index < 0
      ? [...spans, added]
      : spans.map((span, i): readonly [string, string] =>
          i !== index ? span : end === 0 ? [added[0], span[1]] : [span[0], added[1]]
        )
  const changed: Schedule =
    exception >= 0
      ? {
          ...schedule,
          exceptions: schedule.exceptions.map((e, i) =>
            i === exception ? { ...e, spans: next } : e
          )
        }
      : { ...schedule, week: { ...schedule.week, [weekday]: next } }
  const words =
    index < 0
      ? `${schedule.name}: armed ${added[0]} to ${added[1]} as well on ${DAY_NAMES[weekday]}`
      : end === 0
        ? `${schedule.name}: from ${added[0]} in place of ${spans[index][0]} on ${DAY_NAMES[weekday]}`
        : `${schedule.name}: to ${added[1]} in place of ${spans[index][1]} on ${DAY_NAMES[weekday]}`
  return { gate: 'armed', words, detection: d, schedule: changed, size: by / 60 }
}

/** What a change does to the triggers of a clip: those that come, and those that go. */
export interface Effect {
  gained: Trigger[]
  lost: Trigger[]
}

/** Compares triggers before and after, by detection, target and direction: one that only moves in time is neither. */
export function effectOf(before: readonly Trigger[], after: readonly Trigger[]): Effect {
  const keyOf = ({ detection, target, targets, cause, frame, direction }: Trigger): string =>
    [detection, targets?.join() ?? target ?? cause ?? frame, direction].join(' ')
  const left = (from: readonly Trigger[], other: readonly Trigger[]): Trigger[] => {
    const counts = new Map<string, number>()
    for (const t of other) counts.set(keyOf(t), (counts.get(keyOf(t)) ?? 0) + 1)
    return from.filter((t) => {
      const n = counts.get(keyOf(t)) ?? 0
      counts.set(keyOf(t), n - 1)
      return n <= 0
    })
  }
  return { gained: left(after, before), lost: left(before, after) }
}
