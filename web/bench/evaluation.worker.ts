import { evaluate, explain, explainAll, type Setting } from '../../core/detections/index.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import type { Answer, Question } from './evaluation.ts'

/** Evaluates detections over a clip's targets, off the page's own thread. */
let tracks: Tracks | null = null

const answer = (question: Exclude<Question, { type: 'tracks' }>, held: Tracks, setting: Setting): Answer => {
  const began = performance.now()
  if (question.type === 'evaluate') {
    const triggers = evaluate(setting, held)
    return { type: 'triggers', number: question.number, triggers, took: performance.now() - began }
  }
  if (question.type === 'survey') return { type: 'ladders', number: question.number, ladders: explainAll(setting, held, question.detection) }
  return { type: 'ladder', number: question.number, ladder: explain(setting, held, question.detection, question.target, question.at) }
}

onmessage = ({ data }: MessageEvent<Question>) => {
  if (data.type === 'tracks') tracks = data.tracks
  else if (tracks) postMessage(answer(data, tracks, data.setting))
}
