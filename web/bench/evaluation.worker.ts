import { InputError } from '../../core/errors.ts'
import { evaluation as msg } from '../../core/messages/en/bench/bench.ts'
import {
  evaluate,
  explain,
  explainAll,
  traceFrames,
  type Evidence,
  type Setting,
  type Trigger
} from '../../core/detections/index.ts'
import { changesFor, effectOf } from '../../core/tuning/change.ts'
import { sizesIn } from '../../core/tuning/sizes.ts'
import {
  staysIn,
  timedStays,
  type DwellDetection,
  type TimedStay
} from '../../core/tuning/stays.ts'
import { TriggerCache } from '../../core/detections/triggerCache.ts'
import { spansOf, type TargetSpan, type Tracks } from '../../core/targets/tracks.ts'
import type { Answer, Asked, Question } from './evaluation.ts'

/** Evaluates detections over a clip's targets and frame measures, off the page's own thread. */
let evidence: Evidence | null = null
let spans: TargetSpan[] = []
/** Detections do not know of each other: what one triggers is computed again only when it or its surroundings change. */
const known = new TriggerCache()
const timed = new Map<string, { key: string; stays: TimedStay[] }>()
/** The other clips of the camera, as far as they were asked about. */
const others = new Map<string, Evidence>()

const answer = (question: Asked): Answer => {
  const { number } = question
  if (question.type === 'counts')
    return { type: 'counts', number, counts: countsIn(question.clips) }
  if (!evidence) throw new Error(msg.noClipYet)
  const { tracks, measures } = evidence
  switch (question.type) {
    case 'stays':
      return { type: 'stays', number, stays: staysIn(question.detection, tracks, spans) }
    case 'sizes':
      return {
        type: 'sizes',
        number,
        sizes: sizesIn(question.detection, tracks, question.pose, spans)
      }
    case 'timed':
      return {
        type: 'timed',
        number,
        timed: new Map(question.detections.map((d) => [d.id, timedOf(d, tracks)]))
      }
    case 'evaluate': {
      const began = performance.now()
      const told = (changed: Map<string, Trigger[]>, since: number | null): Answer => ({
        type: 'triggers',
        number,
        changed,
        ids: question.setting.camera.detections.map(({ id }) => id),
        took: performance.now() - began,
        since
      })
      const changed = known.changed(question.setting, tracks, measures, (found, since) =>
        postMessage(told(found, since))
      )
      return told(changed, null)
    }
    case 'survey':
      return {
        type: 'ladders',
        number,
        ladders: explainAll(question.setting, tracks, question.detection)
      }
    case 'frames':
      return {
        type: 'frames',
        number,
        trace: traceFrames(question.setting, tracks, measures, question.detection, question.at)
      }
    case 'explain':
      return {
        type: 'ladder',
        number,
        ladder: explain(question.setting, tracks, question.detection, question.target, question.at)
      }
    case 'changes':
      return {
        type: 'changes',
        number,
        changes: changesFor({
          setting: question.setting,
          tracks,
          detection: question.detection,
          target: question.target
        })
      }
    case 'effects':
      return {
        type: 'effects',
        number,
        effects: question.clips.map(({ clip, before, after }) => {
          const of = clip === null ? evidence! : others.get(clip)!
          const now = evaluate(before, of.tracks, of.measures)
          return after.map((setting) => effectOf(now, evaluate(setting, of.tracks, of.measures)))
        })
      }
  }
}

function timedOf(d: DwellDetection, tracks: Tracks): TimedStay[] {
  const key = JSON.stringify(d)
  const held = timed.get(d.id)
  if (held?.key === key) return held.stays
  const stays = timedStays(d, tracks, spans)
  timed.set(d.id, { key, stays })
  return stays
}

/** Of the other clips alone, so that it is answered before the clip on the Bench has been read. */
const countsIn = (clips: readonly { clip: string; setting: Setting }[]) =>
  clips.map(({ clip, setting }) => {
    const { tracks, measures } = others.get(clip)!
    return { clip, counts: countsOf(evaluate(setting, tracks, measures)) }
  })

const countsOf = (triggers: readonly { detection: string }[]): Record<string, number> => {
  const counts: Record<string, number> = {}
  for (const { detection } of triggers) counts[detection] = (counts[detection] ?? 0) + 1
  return counts
}

onmessage = ({ data }: MessageEvent<Question>) => {
  if (data.type === 'evidence') {
    evidence = data.evidence
    spans = spansOf(evidence.tracks)
    known.forget()
    timed.clear()
    return
  }
  if (data.type === 'other') {
    others.set(data.clip, data.evidence)
    return
  }
  try {
    postMessage(answer(data))
  } catch (error) {
    // Every question is answered: one without an answer would leave all others waiting for ever.
    postMessage({
      type: 'failed',
      number: data.number,
      why: error instanceof InputError ? error.said : (error as Error).message
    } satisfies Answer)
  }
}
