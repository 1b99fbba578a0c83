import type { Said } from '../../core/messages/said.ts'
import { saidOfField } from '../../core/messages/errorWords.ts'
import { shapeOf } from '../../core/kinds/schemas.ts'
import { useEffect, useLayoutEffect, useMemo, useState } from 'react'
import { inOrderOf } from '../../core/detections/triggerCache.ts'
import type { Evidence, FrameTrace, Ladder, Setting, Trigger } from '../../core/detections/index.ts'
import { isFrameKind, type Detection } from '../../core/formats/plan.ts'
import type { CameraPose } from '../../core/scene/camera.ts'
import type { Effect } from '../../core/tuning/change.ts'
import type { SeenSize } from '../../core/tuning/sizes.ts'
import type { DwellDetection, TimedStay, ZoneStay } from '../../core/tuning/stays.ts'
import { useKeyed } from '../stable.ts'
import type { GateChange } from '../../core/tuning/candidates.ts'

export type Question =
  | { type: 'evidence'; evidence: Evidence }
  | { type: 'other'; clip: string; evidence: Evidence }
  | { type: 'evaluate'; number: number; setting: Setting }
  | { type: 'survey'; number: number; setting: Setting; detection: string }
  | {
      type: 'explain'
      number: number
      setting: Setting
      detection: string
      target: number
      at?: number
    }
  | { type: 'frames'; number: number; setting: Setting; detection: string; at?: number }
  | { type: 'stays'; number: number; detection: DwellDetection }
  | { type: 'sizes'; number: number; detection: Detection; pose: CameraPose | null }
  | { type: 'timed'; number: number; detections: DwellDetection[] }
  | { type: 'changes'; number: number; setting: Setting; detection: string; target: number }
  /** `clip` null: the one on the Bench; another must have been given as `other`. */
  | {
      type: 'effects'
      number: number
      clips: { clip: string | null; before: Setting; after: Setting[] }[]
    }
  | { type: 'counts'; number: number; clips: { clip: string; setting: Setting }[] }

export type Answer =
  /** Of the detections that were evaluated again; the others of `ids` have the triggers that they had. */
  | {
      type: 'triggers'
      number: number
      changed: Map<string, Trigger[]>
      ids: string[]
      took: number
      /** Only the newest, from this frame on, of a long stretch; all of them follow. Null: that is all. */
      since: number | null
    }
  | { type: 'ladders'; number: number; ladders: Ladder[] }
  | { type: 'ladder'; number: number; ladder: Ladder | null }
  | { type: 'frames'; number: number; trace: FrameTrace | null }
  | { type: 'stays'; number: number; stays: ZoneStay[] }
  | { type: 'sizes'; number: number; sizes: SeenSize[] }
  | { type: 'timed'; number: number; timed: Map<string, TimedStay[]> }
  | { type: 'changes'; number: number; changes: GateChange[] }
  /** By clip, and of each by change, in the order asked. */
  | { type: 'effects'; number: number; effects: Effect[][] }
  | { type: 'counts'; number: number; counts: { clip: string; counts: Record<string, number> }[] }
  | { type: 'failed'; number: number; why: Said | string }

export type Asked = Exclude<Question, { type: 'evidence' | 'other' }>
type Unnumbered<T> = T extends unknown ? Omit<T, 'number'> : never

/** One worker; of each kind of question only the newest waits, so that a drag never piles up work. */
export class Evaluations {
  private worker: Worker | null = null
  private readonly waiting = new Map<
    Asked['type'],
    { question: Asked; answered: (answer: Answer) => void }
  >()
  private asked: ((answer: Answer) => void) | null = null
  private readonly given = new Map<string, Evidence>()
  private number = 0

  setEvidence(evidence: Evidence): void {
    this.tell({ type: 'evidence', evidence })
  }

  /** Evidence of another clip, given once; it is kept for later questions. */
  setOther(clip: string, evidence: Evidence): void {
    if (this.given.get(clip) === evidence) return
    this.given.set(clip, evidence)
    this.tell({ type: 'other', clip, evidence })
  }

  ask(question: Unnumbered<Asked>, answered: (answer: Answer) => void): void {
    this.waiting.set(question.type, {
      question: { ...question, number: ++this.number },
      answered
    })
    this.next()
  }

  /** Ends the worker; what is asked afterwards starts another, which knows no evidence. */
  end(): void {
    this.worker?.terminate()
    this.worker = null
    this.asked = null
    this.waiting.clear()
    this.given.clear()
  }

  private tell(question: Question): void {
    if (!this.worker) {
      this.worker = new Worker(new URL('./evaluation.worker.ts', import.meta.url), {
        type: 'module'
      })
      this.worker.onmessage = ({ data }: MessageEvent<Answer>) => {
        const { asked } = this
        // More of the same answer follows.
        if (data.type === 'triggers' && data.since !== null) return asked?.(data)
        this.asked = null
        asked?.(data)
        this.next()
      }
    }
    this.worker.postMessage(question)
  }

  private next(): void {
    if (this.asked) return
    // The triggers before everything else: they are what a drag is watched by.
    const evaluate = this.waiting.get('evaluate')
    const first = evaluate ? (['evaluate', evaluate] as const) : [...this.waiting][0]
    if (!first) return
    this.waiting.delete(first[0])
    this.asked = first[1].answered
    this.tell(first[1].question)
  }
}

/** What has triggered, together and by detection; the list of one that was not evaluated again stays the same object. */
export interface Fired {
  triggers: Trigger[]
  triggersOf: ReadonlyMap<string, readonly Trigger[]>
  /** Milliseconds that the last evaluation took in the worker. */
  took: number | null
}

const NOTHING_FIRED: Fired = { triggers: [], triggersOf: new Map(), took: null }

function firedNow(
  before: Fired,
  { changed, ids, took, since }: Extract<Answer, { type: 'triggers' }>
): Fired {
  const triggersOf = new Map(
    ids.map((id): [string, readonly Trigger[]] => {
      const [now, was] = [changed.get(id), before.triggersOf.get(id) ?? []]
      if (!now) return [id, was]
      return [id, since === null ? now : [...was.filter(({ frame }) => frame < since), ...now]]
    })
  )
  return { triggers: inOrderOf(ids, triggersOf), triggersOf, took }
}

export interface Evaluation extends Fired {
  /** Of the selected detection: every target at its trigger or best moment. */
  ladders: Ladder[]
  /** Of the selected target at the selected moment. */
  ladder: Ladder | null
  /** Of the selected detection, if it looks at whole frames; undefined: not answered yet. */
  frames: FrameTrace | null | undefined
  /** Of the selected detection, if its targets must stay: how long those of the clip do. */
  stays: ZoneStay[] | null
  /** How large the clip's targets are, seen from the selected detection. */
  sizes: SeenSize[] | null
  /** When targets are being timed, by detection. */
  timed: ReadonlyMap<string, readonly TimedStay[]>
  /** Why nothing could be evaluated. */
  failure: string | null
  /** For questions that only some part of the Bench asks. */
  evaluations: Evaluations
}

const NOTHING_TIMED: ReadonlyMap<string, readonly TimedStay[]> = new Map()
const NO_LADDERS: Ladder[] = []

export interface Asking {
  evidence: Evidence | null
  setting: Setting | null
  detection: string | null
  target: number | null
  at: number | null
}

const SURVEY_AFTER_MS = 120

const looksAtFrames = ({ camera }: Setting, id: string): boolean => {
  const detection = camera.detections.find((d) => d.id === id)
  return !!detection && isFrameKind(detection)
}

/**
 * What was answered last to a question about this evidence. Null while nothing is asked, and until the first answer; an
 * answer stays while a question is asked again, so that nothing flickers under a drag.
 *
 * @param whenStill asks only once the question has not changed for a while
 */
function useAnswer<T extends Answer['type']>(
  { evaluations, evidence }: { evaluations: Evaluations; evidence: Evidence | null },
  type: T,
  question: Unnumbered<Asked> | null,
  whenStill: boolean
): Extract<Answer, { type: T }> | null {
  const [got, setGot] = useState<{ of: Evidence; answer: Extract<Answer, { type: T }> } | null>(
    null
  )
  useEffect(() => {
    if (!evidence || !question) return
    const ask = (): void =>
      evaluations.ask(question, (answer) => {
        if (answer.type === type)
          setGot({ of: evidence, answer: answer as Extract<Answer, { type: T }> })
      })
    if (!whenStill) return ask()
    const timer = setTimeout(ask, SURVEY_AFTER_MS)
    return () => clearTimeout(timer)
  }, [evaluations, evidence, type, question, whenStill])
  const holds = got !== null && question !== null && got.of === evidence
  if (got && !holds) setGot(null)
  return holds ? got.answer : null
}

/** The triggers and ladders of the clip, always those of the newest setting. */
export function useEvaluation({ evidence, setting, detection, target, at }: Asking): Evaluation {
  const [evaluations] = useState(() => new Evaluations())
  const [fired, setFired] = useState<{ of: Evidence | null; fired: Fired }>({
    of: null,
    fired: NOTHING_FIRED
  })
  const [failure, setFailure] = useState<string | null>(null)

  useEffect(() => () => evaluations.end(), [evaluations])
  // Before all questions, also those of the components inside, whose effects run before these: the
  // worker answers from what it was given last.
  useLayoutEffect(() => {
    if (evidence) evaluations.setEvidence(evidence)
  }, [evaluations, evidence])
  useEffect(() => {
    if (!evidence || !setting) return
    evaluations.ask({ type: 'evaluate', setting }, (answer) => {
      if (answer.type === 'triggers')
        setFired((before) => ({
          of: evidence,
          fired: firedNow(before.of === evidence ? before.fired : NOTHING_FIRED, answer)
        }))
      setFailure(answer.type === 'failed' ? saidOfField(answer.why) : null)
    })
  }, [evaluations, evidence, setting])

  const asked = { evaluations, evidence }
  const about = useMemo(
    () => (setting && detection ? { setting, detection } : null),
    [setting, detection]
  )
  const survey = useMemo(() => about && { type: 'survey' as const, ...about }, [about])
  const explain = useMemo(
    () =>
      about &&
      target !== null && {
        type: 'explain' as const,
        ...about,
        target,
        ...(at !== null && { at })
      },
    [about, target, at]
  )
  const frame = useMemo(
    () =>
      about &&
      looksAtFrames(about.setting, about.detection) && {
        type: 'frames' as const,
        ...about,
        ...(at !== null && { at })
      },
    [about, at]
  )
  const ladders = useAnswer(asked, 'ladders', survey, true)
  const ladder = useAnswer(asked, 'ladder', explain || null, false)
  const frames = useAnswer(asked, 'frames', frame || null, false)

  const chosen = setting?.camera.detections.find((d) => d.id === detection)
  const dweller = chosen && 'dwellSeconds' in chosen ? chosen : null
  // Of the shape, the share and the classes alone: the dwell itself is what is tried against them.
  const dwelling = useKeyed(
    JSON.stringify(dweller && [dweller.zone, dweller.sensitivity, dweller.classes]),
    dweller && { type: 'stays' as const, detection: dweller }
  )
  const stays = useAnswer(asked, 'stays', dwelling, true)

  const pose = setting?.camera.scene ?? null
  const gated = chosen && 'classes' in chosen ? chosen : null
  const sized = useKeyed(
    JSON.stringify(gated && [gated.id, shapeOf(gated), pose]),
    gated && { type: 'sizes' as const, detection: gated, pose }
  )
  const sizes = useAnswer(asked, 'sizes', sized, true)

  const dwellers =
    setting?.camera.detections.filter(
      (d): d is DwellDetection => 'dwellSeconds' in d && d.enabled && !d.parked
    ) ?? []
  const timing = useKeyed(
    JSON.stringify(
      dwellers.map((d) => [
        d.id,
        d.zone,
        d.sensitivity,
        d.classes,
        d.dwellSeconds,
        'graceSeconds' in d ? d.graceSeconds : null
      ])
    ),
    dwellers.length ? { type: 'timed' as const, detections: dwellers } : null
  )
  const timed = useAnswer(asked, 'timed', timing, true)

  const now = fired.of === evidence ? fired.fired : NOTHING_FIRED
  return useMemo(
    () => ({
      ...now,
      ladders: ladders?.ladders ?? NO_LADDERS,
      ladder: ladder?.ladder ?? null,
      frames: frames?.trace,
      stays: stays?.stays ?? null,
      sizes: sizes?.sizes ?? null,
      timed: timed?.timed ?? NOTHING_TIMED,
      failure,
      evaluations
    }),
    [now, ladders, ladder, frames, stays, sizes, timed, failure, evaluations]
  )
}
