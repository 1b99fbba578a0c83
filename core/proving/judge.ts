import { said, type Said } from '../messages/said.ts'
import { planDeliveries, type SiteActions } from '../actions/plan.ts'
import {
  evaluate,
  explainAll,
  traceFrames,
  type Evidence,
  type GateReading,
  type Setting,
  type Trigger
} from '../detections/index.ts'
import type { Actions, Endpoint } from '../formats/actions.ts'
import type { Check } from '../formats/check.ts'
import { isFrameKind, type Detection, type TamperCause } from '../formats/plan.ts'
import { score, type Score } from './score.ts'
import type { Severity } from '../kinds/parts.ts'

/** The actions expected of a trigger, and those that run. */
export interface EffectSeen {
  endpoint: string
  name: string
  expected: boolean
  acts: boolean
  /** Why it is not as expected; null: it is. */
  wrong: Said | string | null
  /** Of a live walk: seconds after the trigger at which it came; left out: it did not come, or nobody looked. */
  after?: number
}

/** What became of a check. */
export interface Verdict {
  outcome: 'passed' | 'failed'
  /** One sentence: what came, and what was in the way. */
  sentence: Said
  seen: Trigger[]
  /** The frame and seconds at which to look. */
  frame: number
  time: number
  readings: GateReading[]
  effects: EffectSeen[]
  /** Expected triggers that came and that did not, and triggers that were not expected. */
  hits: number
  misses: number
  false: number
}

/** What is needed to judge, besides the evidence. */
export interface Bench {
  setting: Setting
  /** Null: what follows is not looked at. */
  follows: { actions: Actions; site: SiteActions } | null
  /** Of a live walk: what the camera reported, and what followed. Left out: what the detection makes of the evidence. */
  reported?: {
    triggers: readonly Trigger[]
    effects: readonly EffectSeen[]
    cause: Said | null
  }
}

/** A live walk begins, and is reported, a moment later than planned. */
const LIVE_EARLY_SECONDS = 0.5
const LIVE_LATE_SECONDS = 1.5

const asLive = (check: Check): Check =>
  check.expect.what === 'silence'
    ? check
    : {
        ...check,
        expect: {
          ...check.expect,
          from: Math.max(0, check.expect.from - LIVE_EARLY_SECONDS),
          to: check.expect.to + LIVE_LATE_SECONDS
        }
      }

/**
 * Whether what was expected came, and nothing else, and ran its actions; with the gates at the
 * moment that matters.
 */
export function judge(
  planned: Check,
  { tracks, measures }: Evidence,
  { setting, follows, reported }: Bench
): Verdict {
  const check = reported ? asLive(planned) : planned
  const d = setting.camera.detections.find(({ id }) => id === check.detection)
  if (!d) return { ...NOTHING_SEEN, outcome: 'failed', sentence: said('verdicts.detectionGone') }
  if (!d.enabled)
    return {
      ...NOTHING_SEEN,
      outcome: 'failed',
      sentence: said('verdicts.switchedOff', d.name),
      misses: check.expect.what === 'trigger' ? 1 : 0
    }
  const only: Setting = {
    ...setting,
    camera: {
      ...setting.camera,
      detections: [
        d,
        ...setting.camera.detections.filter(
          (other) => other !== d && other.kind === 'motion' && d.kind === 'classMotion'
        )
      ]
    }
  }
  const window =
    check.by.how === 'clip' ? { from: check.by.from, to: check.by.to } : { from: 0, to: Infinity }
  const all = reported
    ? reported.triggers
    : evaluate(only, tracks, measures).filter((t) => t.detection === d.id)
  const seen = all.filter((t) => t.time >= window.from - 1e-9 && t.time <= window.to + 1e-9)
  const scored = scoreOf(check, seen, window.from)
  const came =
    check.expect.what === 'silence'
      ? seen.length === 0
      : scored.misses === 0 &&
        (check.expect.times === undefined
          ? wrongWay(check, seen) === 0
          : seen.length === check.expect.times) &&
        causeFits(check, seen)
  const effects =
    !came || !seen.length
      ? []
      : reported
        ? [...reported.effects]
        : follows
          ? effectsOf(check, d, seen[0]!, setting, follows)
          : []
  const wrong = effects.find((e) => e.wrong !== null)
  const look = lookAt(check, d, only, { tracks, measures }, seen)
  const outcome = came && !wrong ? 'passed' : 'failed'
  const sentence =
    reported?.cause && !came && !seen.length
      ? said('verdicts.noTrigger', reported.cause)
      : sentenceOf(check, seen, look, came, wrong ?? null)
  return {
    outcome,
    sentence,
    seen,
    frame: look.frame,
    time: look.time,
    readings: look.readings,
    effects,
    ...scored
  }
}

/** Of a verdict, what is seen when nothing was judged. */
export const NOTHING_SEEN = {
  seen: [],
  frame: 1,
  time: 0,
  readings: [],
  effects: [],
  hits: 0,
  misses: 0,
  false: 0
}

/** Hits and misses of one check: `times` triggers in its window, each one expected. */
function scoreOf(
  { expect, detection }: Check,
  seen: readonly Trigger[],
  from: number
): { hits: number; misses: number; false: number } {
  if (expect.what === 'silence') return { hits: 0, misses: 0, false: seen.length }
  const wanted = Array.from({ length: expect.times ?? 1 }, () => ({
    detection,
    time: from + expect.from,
    within: expect.to - expect.from,
    ...(expect.direction && { direction: expect.direction })
  }))
  const { hits, misses, false: more } = score(wanted, seen)
  // More of the same in the window, where their number does not matter, are no false alarms: several walk together.
  const extra = expect.times === undefined ? more.filter((t) => !inWindow(expect, t, from)) : more
  return { hits: hits.length, misses: misses.length, false: extra.length }
}

const inWindow = (
  expect: Extract<Check['expect'], { what: 'trigger' }>,
  t: Trigger,
  from: number
): boolean =>
  t.time >= from + expect.from - 1e-9 &&
  (expect.direction === undefined || t.direction === expect.direction)
const wrongWay = ({ expect }: Check, seen: readonly Trigger[]): number =>
  expect.what === 'trigger' && expect.direction
    ? seen.filter((t) => t.direction !== expect.direction).length
    : 0
const causeFits = ({ expect }: Check, seen: readonly Trigger[]): boolean =>
  expect.what !== 'trigger' || !expect.cause || seen[0]?.cause === expect.cause

function effectsOf(
  check: Check,
  d: Detection,
  trigger: Trigger,
  { start }: Setting,
  { actions, site }: NonNullable<Bench['follows']>
): EffectSeen[] {
  const severity: Severity = trigger.severity ?? actions.severity
  const planned = planDeliveries(
    {
      instant: Math.round(start + trigger.time * 1000),
      severity,
      lastActedAt: null,
      byCamera: new Set()
    },
    actions,
    site
  )
  return check.effects.map(
    ({ endpoint: id, acts: expected, pictures, beforeSeconds }): EffectSeen => {
      const endpoint = site.endpoints.find((e) => e.id === id)
      const found = planned.find((p) => p.endpoint.id === id)
      const acts = found !== undefined && found.held === null
      const name = endpoint?.name ?? id
      const wrong =
        acts !== expected
          ? expected
            ? !endpoint
              ? said('effects.gone')
              : found
                ? found.held
                : said('effects.notLinked', d.name)
            : said('effects.acts')
          : acts && endpoint
            ? short(endpoint, pictures, beforeSeconds)
            : null
      return { endpoint: id, name, expected, acts, wrong }
    }
  )
}

function short(
  endpoint: Endpoint,
  pictures: number | undefined,
  beforeSeconds: number | undefined
): Said | null {
  if (
    'recipients' in endpoint &&
    pictures !== undefined &&
    endpoint.before + endpoint.after < pictures
  )
    return said('effects.fewPictures', endpoint.before + endpoint.after, pictures)
  if (
    'beforeSeconds' in endpoint &&
    beforeSeconds !== undefined &&
    endpoint.beforeSeconds < beforeSeconds
  )
    return said('effects.lateRecording', endpoint.beforeSeconds, beforeSeconds)
  return null
}

interface Look {
  frame: number
  time: number
  readings: GateReading[]
  sentence: Said
}

/** The gates at the moment that matters: of the first trigger, or of the target that came nearest to one. */
function lookAt(
  check: Check,
  d: Detection,
  setting: Setting,
  { tracks, measures }: Evidence,
  seen: readonly Trigger[]
): Look {
  if (isFrameKind(d)) {
    const trace = traceFrames(setting, tracks, measures, d.id, seen.at(0)?.frame)
    return trace
      ? trace.ladder
      : { frame: 1, time: 0, readings: [], sentence: said('verdicts.noPicture') }
  }
  const ladders = explainAll(setting, tracks, d.id)
  const [first] = seen
  const [from, to] = check.by.how === 'clip' ? [check.by.from, check.by.to] : [0, Infinity]
  const near = first
    ? (ladders.find((l) => l.target === first.target && l.frame === first.frame) ??
      ladders.find((l) => l.fired))
    : ladders
        .filter((l) => l.time >= from && l.time <= to)
        .sort(
          (a, b) =>
            stopped(a.readings) - stopped(b.readings) || nearness(b.readings) - nearness(a.readings)
        )[0]
  return (
    near ?? {
      frame: first?.frame ?? 1,
      time: first?.time ?? 0,
      readings: [],
      sentence: said('verdicts.nobodySeen')
    }
  )
}

const stopped = (readings: readonly GateReading[]): number =>
  readings.filter((r) => !r.passed).length
const nearness = (readings: readonly GateReading[]): number =>
  readings.find((r) => r.gate === 'share')?.value ?? 0

function sentenceOf(
  check: Check,
  seen: readonly Trigger[],
  look: Look,
  came: boolean,
  wrong: EffectSeen | null
): Said {
  const { expect } = check
  if (wrong) return said('verdicts.wrongEffect', seen[0]!.time, wrong.name, wrong.wrong!)
  if (expect.what === 'silence')
    return came ? said('verdicts.silent', look.sentence) : said('verdicts.mustNot', seen[0]!.time)
  if (came) return said('verdicts.triggered', seen[0]!.time, seen.length)
  if (!seen.length) return said('verdicts.noTrigger', look.sentence)
  const causeOf = (cause: TamperCause | undefined): Said =>
    cause ? said(`causes.${cause}`) : said('verdicts.noCause')
  if (!causeFits(check, seen))
    return said(
      'verdicts.wrongCause',
      seen[0]!.time,
      causeOf(seen[0]!.cause),
      causeOf(expect.cause)
    )
  if (expect.times !== undefined && seen.length !== expect.times)
    return said('verdicts.wrongCount', expect.times, seen.length)
  if (wrongWay(check, seen)) return said('verdicts.wrongDirection', seen[0]!.time)
  return said('verdicts.wrongTime', seen[0]!.time, expect.from, expect.to)
}

/** Recall, precision and F1 of all checks together, each expected trigger and each one that came counted once. */
export function totals(
  verdicts: readonly Pick<Verdict, 'hits' | 'misses' | 'false'>[]
): Pick<Score, 'recall' | 'precision' | 'f1'> & { hits: number; misses: number; false: number } {
  const sum = verdicts.reduce(
    (all, v) => ({
      hits: all.hits + v.hits,
      misses: all.misses + v.misses,
      false: all.false + v.false
    }),
    { hits: 0, misses: 0, false: 0 }
  )
  const recall = sum.hits + sum.misses ? sum.hits / (sum.hits + sum.misses) : 1
  const precision = sum.hits + sum.false ? sum.hits / (sum.hits + sum.false) : 1
  return {
    ...sum,
    recall,
    precision,
    f1: recall + precision ? (2 * recall * precision) / (recall + precision) : 0
  }
}
