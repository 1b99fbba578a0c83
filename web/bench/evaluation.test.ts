/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { evaluate, type Evidence, type Setting } from '../../core/detections/index.ts'
import { emptyMeasures } from '../../core/measures/measures.ts'
import { settingOf } from '../testing/onBench.tsx'
import { lineAt, walkers } from '../testing/walkers.ts'
import { Evaluations, type Answer, type Asked } from './evaluation.ts'

/**
 * The worker's own program in the test's thread, one message at a time, handed on by the test: so
 * that a test says itself what arrives when.
 */
class Here {
  static queue: unknown[] = []
  static now: Here | null = null
  static ended = 0
  onmessage: ((event: { data: Answer }) => void) | null = null
  constructor() {
    Here.now = this
  }
  postMessage(data: unknown): void {
    Here.queue.push(structuredClone(data))
  }
  terminate(): void {
    Here.ended++
    Here.queue = []
  }
}
const world = globalThis as unknown as {
  Worker: unknown
  postMessage: (answer: Answer) => void
  onmessage: (event: { data: unknown }) => void
}
const handOn = (): void => {
  while (Here.queue.length) world.onmessage({ data: Here.queue.shift() })
}

beforeEach(async () => {
  // A worker that has been given nothing yet.
  jest.resetModules()
  await import('./evaluation.worker.ts')
  Here.queue = []
  world.Worker = Here
  world.postMessage = (data) => Here.now!.onmessage!({ data: structuredClone(data) })
})
let evaluations: Evaluations
beforeEach(() => {
  evaluations = new Evaluations()
})
afterEach(() => evaluations.end())

/** Somebody who walks down the picture to a height. */
const walker = (to: number): Evidence => {
  const tracks = walkers({ from: 0, to })
  return {
    tracks,
    measures: emptyMeasures({ columns: 4, rows: 3 }, 64, 48, 10, Math.max(...tracks.frame))
  }
}
const setting = (...heights: number[]): Setting =>
  settingOf(heights.map((y, i) => lineAt(`line-${i}`, y)))
const evaluation = (of: Setting): Omit<Extract<Asked, { type: 'evaluate' }>, 'number'> => ({
  type: 'evaluate',
  setting: of
})

test('answers what the engine computes for the clip', () => {
  const evidence = walker(0.9)
  const answers: Answer[] = []
  evaluations.setEvidence(evidence)
  evaluations.ask(evaluation(setting(0.5, 0.99)), (a) => answers.push(a))
  handOn()
  const triggers = evaluate(setting(0.5, 0.99), evidence.tracks, evidence.measures)
  expect(triggers).toHaveLength(1)
  expect(answers).toMatchObject([
    {
      type: 'triggers',
      ids: ['line-0', 'line-1'],
      changed: new Map([
        ['line-0', triggers],
        ['line-1', []]
      ])
    }
  ])
})

test('counts other clips before the clip on the Bench is read, and never waits for ever', () => {
  const answers: Answer[] = []
  evaluations.setOther('other', walker(0.8))
  evaluations.ask({ type: 'counts', clips: [{ clip: 'other', setting: setting(0.5) }] }, (a) =>
    answers.push(a)
  )
  handOn()
  expect(answers).toMatchObject([
    { type: 'counts', counts: [{ clip: 'other', counts: { 'line-0': 1 } }] }
  ])
  evaluations.setEvidence(walker(0.9))
  evaluations.ask(evaluation(setting(0.5)), (a) => answers.push(a))
  handOn()
  expect(answers.map(({ type }) => type)).toEqual(['counts', 'triggers'])
})

test('fails a question without a clip, and answers the next', () => {
  const answers: Answer[] = []
  evaluations.ask(evaluation(setting(0.5)), (a) => answers.push(a))
  evaluations.ask({ type: 'counts', clips: [{ clip: 'nowhere', setting: setting(0.5) }] }, (a) =>
    answers.push(a)
  )
  handOn()
  expect(answers.map(({ type }) => type)).toEqual(['failed', 'failed'])
  evaluations.setEvidence(walker(0.9))
  evaluations.ask(evaluation(setting(0.5)), (a) => answers.push(a))
  handOn()
  expect(answers.at(-1)!.type).toBe('triggers')
})

test('queues only the newest question of each kind, triggers first', () => {
  const answered: string[] = []
  const heard = (name: string) => () => void answered.push(name)
  evaluations.setEvidence(walker(0.9))
  evaluations.ask(evaluation(setting(0.1)), heard('first'))
  const survey = (height: number) =>
    ({ type: 'survey', setting: setting(height), detection: 'line-0' }) as const
  evaluations.ask(survey(0.2), heard('old survey'))
  evaluations.ask(survey(0.3), heard('survey'))
  for (let i = 0; i < 100; i++)
    evaluations.ask(evaluation(setting(0.1 + i / 200)), heard(`drag ${i}`))
  // Sent so far: the clip, and the first question alone.
  expect(Here.queue).toHaveLength(2)
  handOn()
  expect(answered).toEqual(['first', 'drag 99', 'survey'])
})

test('sends a clip’s evidence once per worker', () => {
  const other = walker(0.8)
  evaluations.setOther('other', other)
  evaluations.setOther('other', other)
  expect(Here.queue).toHaveLength(1)
  const ended = Here.ended
  evaluations.end()
  expect(Here.ended).toBe(ended + 1)
  evaluations.setOther('other', other)
  expect(Here.queue).toHaveLength(1)
})
