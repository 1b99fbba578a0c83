import { contexts as msg } from '../../core/messages/en/bench/bench.ts'
import { createContext, useContext, type Context } from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import type { Schedule } from '../../core/formats/plan.ts'
import type { TargetSpan, Tracks } from '../../core/targets/tracks.ts'
import type { BenchDocument, Placed, Scene } from './document.ts'
import type { Evaluation } from './evaluation.ts'
import type { Playhead } from './playhead.ts'
import type { Selection } from './selection.ts'
import type { ViewPrefs } from './shapes/viewPrefs.ts'

/** What the parts of the Bench share, each kind by itself, so that a part is drawn again only for what it reads. */
const shared = <T>(what: string): [Context<T | null>, () => T] => {
  const context = createContext<T | null>(null)
  const use = (): T => {
    const value = useContext(context)
    if (value === null) throw new Error(msg.isReadOutsideOf(what))
    return value
  }
  return [context, use]
}

/** The camera and what is drawn on it. While a shape is dragged, this stays as it was before. */
export interface Contents {
  view: BenchView
  document: BenchDocument
  placed: Placed[]
  schedules: Schedule[]
  scene: Scene
  /** The scene is measured: sizes can be in metres. */
  measured: boolean
  prefs: ViewPrefs
}
export const [ContentsContext, useContents] = shared<Contents>(msg.whatIsDrawn)

/** The clip or live picture on the Bench. */
export interface OnShow {
  clip: ClipView | null
  /** The clip is on the Bench and can be evaluated. */
  ready: boolean
  live: boolean
  /** What is on show is what the camera reported in the past: a clip without a picture of its own. */
  back: boolean
  /** There is a picture to draw on. */
  hasPicture: boolean
  tracks: Tracks | null
  spans: TargetSpan[]
  playhead: Playhead
}
export const [OnShowContext, useOnShow] = shared<OnShow>(msg.whatIsOnShow)

/** What is selected, and how it is changed; the handlers stay the same. */
export interface Choice {
  selection: Selection
  chooseDetection: (id: string | null) => void
  chooseArea: (index: number | null) => void
  /** Selects a target at a frame, and shows that moment. */
  showMoment: (detection: string | null, target: number | null, frame: number | null) => void
}
export const [ChoiceContext, useChoice] = shared<Choice>(msg.whatIsSelected)

export const [EvaluationContext, useEvaluated] = shared<Evaluation>(msg.whatWasEvaluated)
