import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { inOrderOf } from '../../core/detections/keptTriggers.ts'
import type { Evidence, FrameTrace, Ladder, Setting, Trigger } from '../../core/detections/index.ts'
import { isFrameKind, type Detection } from '../../core/formats/plan.ts'
import type { CameraPose } from '../../core/scene/camera.ts'
import type { Effect, GateChange } from '../../core/tuning/change.ts'
import type { SeenSize } from '../../core/tuning/sizes.ts'
import type { DwellDetection, TimedStay, ZoneStay } from '../../core/tuning/stays.ts'
import { useKeyed } from '../stable.ts'

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
  /** Of the detections that were evaluated anew; the others of `ids` have the triggers that they had. */
  | {
      type: 'triggers'
      number: number
      changed: Map<string, Trigger[]>
      ids: string[]
      took: number
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
  | { type: 'failed'; number: number; message: string }

export type Asked = Exclude<Question, { type: 'evidence' | 'other' }>
type Unnumbered<T> = T extends unknown ? Omit<T, 'number'> : never

/** One worker; of each kind of question only the newest waits, so that a drag never piles up work. */
export class Evaluations {
  private readonly worker = new Worker(new URL('./evaluation.worker.ts', import.meta.url), {
    type: 'module'
  })
  private readonly waiting = new Map<
    Asked['type'],
    { question: Asked; answered: (answer: Answer) => void }
  >()
  private asked: ((answer: Answer) => void) | null = null
  private readonly given = new Map<string, Evidence>()
  private number = 0

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Answer>) => {
      const { asked } = this
      this.asked = null
      asked?.(data)
      this.next()
    }
  }

  setEvidence(evidence: Evidence): void {
    this.worker.postMessage({ type: 'evidence', evidence } satisfies Question)
  }

  /** Evidence of another clip, given once; it is kept for later questions. */
  setOther(clip: string, evidence: Evidence): void {
    if (this.given.get(clip) === evidence) return
    this.given.set(clip, evidence)
    this.worker.postMessage({ type: 'other', clip, evidence } satisfies Question)
  }

  ask(question: Unnumbered<Asked>, answered: (answer: Answer) => void): void {
    this.waiting.set(question.type, {
      question: { ...question, number: ++this.number } as Asked,
      answered
    })
    this.next()
  }

  end(): void {
    this.worker.terminate()
  }

  private next(): void {
    if (this.asked) return
    // The triggers before everything else: they are what a drag is watched by.
    const evaluate = this.waiting.get('evaluate')
    const first = evaluate ? (['evaluate', evaluate] as const) : [...this.waiting][0]
    if (!first) return
    this.waiting.delete(first[0])
    this.asked = first[1].answered
    this.worker.postMessage(first[1].question)
  }
}

/** What has triggered, together and by detection; the list of one that was not evaluated anew stays the same object. */
export interface Fired {
  triggers: Trigger[]
  triggersOf: ReadonlyMap<string, readonly Trigger[]>
  /** Milliseconds that the last evaluation took in the worker. */
  took: number | null
}

const NOTHING_FIRED: Fired = { triggers: [], triggersOf: new Map(), took: null }

function firedNow(
  before: Fired,
  { changed, ids, took }: Extract<Answer, { type: 'triggers' }>
): Fired {
  const triggersOf = new Map(
    ids.map((id) => [id, changed.get(id) ?? before.triggersOf.get(id) ?? []])
  )
  return { triggers: inOrderOf(ids, triggersOf), triggersOf, took }
}

export interface Evaluation extends Fired {
  /** Of the selected detection: every target at its trigger or best moment. */
  ladders: Ladder[]
  /** Of the selected target at the selected moment. */
  ladder: Ladder | null
  /** Of the selected detection, if it looks at whole frames. */
  frames: FrameTrace | null
  /** Of the selected detection, if its targets must stay: how long those of the clip do. */
  stays: ZoneStay[] | null
  /** How large the clip's targets are, seen from the selected detection. */
  sizes: SeenSize[] | null
  /** When targets are being timed, by detection. */
  timed: ReadonlyMap<string, readonly TimedStay[]>
  /** Why nothing could be evaluated. */
  failure: string | null
  /** For questions that only some part of the Bench asks. */
  evaluations: Evaluations | null
}

const NOTHING_TIMED: ReadonlyMap<string, readonly TimedStay[]> = new Map()

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

/** The triggers and ladders of the clip, always those of the newest setting. */
export function useEvaluation({ evidence, setting, detection, target, at }: Asking): Evaluation {
  const evaluations = useRef<Evaluations | null>(null)
  const [made, setMade] = useState<Evaluations | null>(null)
  const [sizes, setSizes] = useState<SeenSize[] | null>(null)
  const [timed, setTimed] = useState(NOTHING_TIMED)
  const [fired, setFired] = useState<Fired>(NOTHING_FIRED)
  const [ladders, setLadders] = useState<Ladder[]>([])
  const [ladder, setLadder] = useState<Ladder | null>(null)
  const [frames, setFrames] = useState<FrameTrace | null>(null)
  const [stays, setStays] = useState<ZoneStay[] | null>(null)
  const [failure, setFailure] = useState<string | null>(null)

  useEffect(() => {
    const made = new Evaluations()
    evaluations.current = made
    setMade(made)
    return () => {
      evaluations.current = null
      made.end()
    }
  }, [])

  useEffect(() => {
    setFired(NOTHING_FIRED)
    setLadders([])
    setLadder(null)
    setFrames(null)
    setTimed(NOTHING_TIMED)
    if (evidence) evaluations.current?.setEvidence(evidence)
  }, [evidence])

  /** Asks once nothing has changed for a while; what it gives takes the question back. */
  const askWhenStill = useCallback(
    (question: Unnumbered<Asked>, answered: (answer: Answer) => void): (() => void) => {
      const timer = setTimeout(() => evaluations.current?.ask(question, answered), SURVEY_AFTER_MS)
      return () => clearTimeout(timer)
    },
    []
  )

  useEffect(() => {
    if (!evidence || !setting) return
    evaluations.current?.ask({ type: 'evaluate', setting }, (answer) => {
      if (answer.type === 'triggers') setFired((before) => firedNow(before, answer))
      setFailure(answer.type === 'failed' ? answer.message : null)
    })
  }, [evidence, setting])

  useEffect(() => {
    if (!evidence || !setting || !detection) return setLadders([])
    return askWhenStill({ type: 'survey', setting, detection }, (answer) => {
      if (answer.type === 'ladders') setLadders(answer.ladders)
    })
  }, [evidence, setting, detection, askWhenStill])

  useEffect(() => {
    if (!evidence || !setting || !detection || target === null) return setLadder(null)
    evaluations.current?.ask(
      { type: 'explain', setting, detection, target, ...(at !== null && { at }) },
      (answer) => {
        if (answer.type === 'ladder') setLadder(answer.ladder)
      }
    )
  }, [evidence, setting, detection, target, at])

  useEffect(() => {
    if (!evidence || !setting || !detection || !looksAtFrames(setting, detection))
      return setFrames(null)
    evaluations.current?.ask(
      { type: 'frames', setting, detection, ...(at !== null && { at }) },
      (answer) => {
        if (answer.type === 'frames') setFrames(answer.trace)
      }
    )
  }, [evidence, setting, detection, at])

  const chosen = setting?.camera.detections.find((d) => d.id === detection)
  const dweller = chosen && 'dwellSeconds' in chosen ? chosen : null
  // Of the shape, the share and the classes alone: the dwell itself is what is tried against them.
  const dwelling = useKeyed(
    JSON.stringify(dweller && [dweller.zone, dweller.sensitivity, dweller.classes]),
    dweller
  )
  useEffect(() => {
    if (!evidence || !dwelling) return setStays(null)
    return askWhenStill({ type: 'stays', detection: dwelling }, (answer) => {
      if (answer.type === 'stays') setStays(answer.stays)
    })
  }, [evidence, dwelling, askWhenStill])

  const pose = setting?.camera.scene ?? null
  const gated = chosen && 'classes' in chosen ? chosen : null
  const sized = useKeyed(
    JSON.stringify(
      gated && [
        gated.id,
        'zone' in gated ? gated.zone : gated.kind === 'line' ? gated.line : null,
        pose
      ]
    ),
    gated && { detection: gated, pose }
  )
  useEffect(() => {
    if (!evidence || !sized) return setSizes(null)
    return askWhenStill({ type: 'sizes', ...sized }, (answer) => {
      if (answer.type === 'sizes') setSizes(answer.sizes)
    })
  }, [evidence, sized, askWhenStill])

  const allDwellers =
    setting?.camera.detections.filter(
      (d): d is DwellDetection => 'dwellSeconds' in d && d.enabled && !d.parked
    ) ?? []
  const dwellers = useKeyed(
    JSON.stringify(
      allDwellers.map((d) => [
        d.id,
        d.zone,
        d.sensitivity,
        d.classes,
        d.dwellSeconds,
        'graceSeconds' in d ? d.graceSeconds : null
      ])
    ),
    allDwellers
  )
  useEffect(() => {
    if (!evidence || !dwellers.length) return setTimed(NOTHING_TIMED)
    return askWhenStill({ type: 'timed', detections: dwellers }, (answer) => {
      if (answer.type === 'timed') setTimed(answer.timed)
    })
  }, [evidence, dwellers, askWhenStill])

  return useMemo(
    () => ({ ...fired, ladders, ladder, frames, stays, sizes, timed, failure, evaluations: made }),
    [fired, ladders, ladder, frames, stays, sizes, timed, failure, made]
  )
}
