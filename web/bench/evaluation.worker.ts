import { evaluate, explain, explainAll, traceFrames, type Evidence } from '../../core/detections/index.ts'
import { staysIn } from '../../core/tuning/stays.ts'
import type { Answer, Question } from './evaluation.ts'

/** Evaluates detections over a clip's targets and frame measures, off the page's own thread. */
let evidence: Evidence | null = null

const answer = (question: Exclude<Question, { type: 'evidence' }>, { tracks, measures }: Evidence): Answer => {
  const { number } = question
  if (question.type === 'stays') return { type: 'stays', number, stays: staysIn(question.detection, tracks) }
  const { setting } = question
  const began = performance.now()
  if (question.type === 'evaluate') {
    const triggers = evaluate(setting, tracks, measures)
    return { type: 'triggers', number, triggers, took: performance.now() - began }
  }
  if (question.type === 'survey') return { type: 'ladders', number, ladders: explainAll(setting, tracks, question.detection) }
  if (question.type === 'frames') return { type: 'frames', number, trace: traceFrames(setting, tracks, measures, question.detection, question.at) }
  return { type: 'ladder', number, ladder: explain(setting, tracks, question.detection, question.target, question.at) }
}

onmessage = ({ data }: MessageEvent<Question>) => {
  if (data.type === 'evidence') {
    evidence = data.evidence
    return
  }
  if (!evidence) return
  try {
    postMessage(answer(data, evidence))
  } catch (error) {
    // One detection that does not fit the clip must not leave the others waiting for ever.
    postMessage({ type: 'failed', number: data.number, message: (error as Error).message } satisfies Answer)
  }
}
