import { said } from '../messages/said.ts'
import { clockText } from '../arming/spans.ts'
import { wallText } from '../arming/zone.ts'
import {
  evaluate,
  explain,
  rowsOf,
  type Setting,
  type Trace,
  type Trigger
} from '../detections/index.ts'
import { WEEKDAYS, type Detection, type Schedule } from '../formats/plan.ts'
import { CLASSES } from '../targets/classes.ts'
import type { Tracks } from '../targets/tracks.ts'
import { ownChanges } from '../kinds/tuning.ts'
import {
  LONGEST,
  STEP_SECONDS,
  frameOf,
  nearest,
  relative,
  scaled,
  type GateChange,
  type Works
} from './candidates.ts'

export interface WhatIf {
  setting: Setting
  tracks: Tracks
  detection: string
  target: number
}

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
  // Re-trigger delay and numbers together depend on other targets as well.
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

type Gated = Extract<Detection, { classes: unknown }>

function* candidates(
  d: Gated,
  trace: Trace,
  ask: WhatIf,
  fires: boolean,
  works: Works
): Generator<GateChange | null> {
  const looser = !fires
  yield* ownChanges(d, looser, works)
  const confirm = nearest(
    d.confirmSeconds,
    looser ? 0 : LONGEST.confirm,
    STEP_SECONDS,
    (confirmSeconds) => works({ ...d, confirmSeconds })
  )
  if (confirm !== null)
    yield {
      gate: 'confirm',
      words: said(
        'tuning.change',
        said('settings.confirm'),
        said('values.seconds', d.confirmSeconds),
        said('values.seconds', confirm)
      ),
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
      words: said(
        'tuning.change',
        said('settings.holdOff'),
        said('values.seconds', d.holdOffSeconds),
        said('values.seconds', holdOff)
      ),
      detection: { ...d, holdOffSeconds: holdOff },
      size: relative(d.holdOffSeconds, holdOff)
    }
  yield* sizeChanges(d, ask, looser, works)
  yield classChange(d, ask, looser)
  yield hoursChange(d, trace, ask, looser)
}

const proposals = (
  d: Gated,
  trace: Trace,
  ask: WhatIf,
  fires: boolean,
  works: Works
): GateChange[] => [...candidates(d, trace, ask, fires, works)].filter((p) => p !== null)

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
          words: said(
            'tuning.change',
            said('settings.minSize'),
            frameOf(min),
            frameOf(scaled(min, by))
          ),
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
          words: said(
            'tuning.change',
            said('settings.maxSize'),
            frameOf(max),
            frameOf(scaled(max, by))
          ),
          detection: withSize({ max: scaled(max, by) }),
          size: by - 1
        }
    }
    if (minMetres !== undefined) {
      const to = nearest(minMetres, 0, 0.05, (metres) => works(withSize({ minMetres: metres })))
      if (to !== null)
        yield {
          gate: 'size',
          words: said(
            'tuning.change',
            said('settings.minSize'),
            said('values.metresOf', minMetres),
            said('values.metresOf', to)
          ),
          detection: withSize({ minMetres: to }),
          size: relative(minMetres, to)
        }
    }
    if (maxMetres !== undefined) {
      const to = nearest(maxMetres, 20, 0.05, (metres) => works(withSize({ maxMetres: metres })))
      if (to !== null)
        yield {
          gate: 'size',
          words: said(
            'tuning.change',
            said('settings.maxSize'),
            said('values.metresOf', maxMetres),
            said('values.metresOf', to)
          ),
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
        ? said('tuning.change', said('settings.minSize'), frameOf(min), frameOf(scaled(from, up)))
        : said('tuning.newLimit', said('settings.minSize'), frameOf(scaled(from, up))),
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
        ? said('tuning.change', said('settings.maxSize'), frameOf(max), frameOf(scaled(base, down)))
        : said('tuning.newLimit', said('settings.maxSize'), frameOf(scaled(base, down))),
      detection: withSize({ max: scaled(base, down) }),
      size: max ? 1 - down : 1
    }
}

function classChange(d: Gated, { tracks, target }: WhatIf, looser: boolean): GateChange | null {
  const counts = new Map<number, number>()
  for (let i = 0; i < tracks.length; i++)
    if (tracks.id[i] === target) counts.set(tracks.cls[i]!, (counts.get(tracks.cls[i]!) ?? 0) + 1)
  const [index] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? []
  if (index === undefined) return null
  const cls = CLASSES[index]!
  if (looser)
    return d.classes.length === 0 || d.classes.includes(cls)
      ? null
      : {
          gate: 'class',
          words: said('tuning.classToo', said(`classes.${cls}`)),
          detection: { ...d, classes: [...d.classes, cls] },
          size: 1
        }
  const left = (d.classes.length ? d.classes : [...CLASSES]).filter((c) => c !== cls)
  return left.length
    ? {
        gate: 'class',
        words: said('tuning.notClass', said(`classes.${cls}`)),
        detection: { ...d, classes: left },
        size: 1
      }
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
  const weekday = WEEKDAYS[(new Date(`${date}T00:00Z`).getUTCDay() + 6) % 7]!
  const exception = schedule.exceptions.findIndex((e) => e.date === date)
  const spans = exception >= 0 ? schedule.exceptions[exception]!.spans : schedule.week[weekday]
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
      ? said('tuning.armedToo', schedule.name, added[0], added[1], said(`days.${weekday}`))
      : end === 0
        ? said(
            'tuning.startsEarlier',
            schedule.name,
            added[0],
            spans[index]![0],
            said(`days.${weekday}`)
          )
        : said(
            'tuning.endsLater',
            schedule.name,
            added[1],
            spans[index]![1],
            said(`days.${weekday}`)
          )
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
