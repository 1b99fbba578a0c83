/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import type { RecommendView } from '../../../core/marks/views.ts'
import { said } from '../../../core/messages/said.ts'
import { enterSite } from '../../api/here.ts'
import { inApp } from '../../testing/inApp.tsx'
import { OnBench, benchDocument, benchView } from '../../testing/onBench.tsx'
import { lineAt } from '../../testing/walkers.ts'
import type { BenchDocument } from '../document.ts'
import { RecommendPart } from './RecommendPart.tsx'

const found = (more: Partial<RecommendView> = {}): RecommendView => ({
  settings: { sensitivity: 35 },
  ignore: [],
  wanted: 4,
  kept: 4,
  nuisances: 9,
  gone: 7,
  unmarked: 12,
  now: { wanted: 4, kept: 4, nuisances: 9, gone: 0, unmarked: 30 },
  leftOut: null,
  reason: said('edits.text', 'It keeps all that is wanted.'),
  ...more
})

/** What the server has been asked, and its answer, which the test writes line by line. */
let asked: any
let answer: ReadableStreamDefaultController<Uint8Array>
let isStopped: boolean
let status: number

beforeEach(() => {
  enterSite('s')
  asked = null
  isStopped = false
  status = 200
  globalThis.fetch = ((path: string, { body, signal }: RequestInit = {}) => {
    if (path.endsWith('/devices')) return Promise.resolve(Response.json([]))
    asked = { path, body: JSON.parse(body as string) }
    if (status !== 200)
      return Promise.resolve(
        Response.json({ code: 'unavailable', said: 'The database is away.' }, { status })
      )
    return Promise.resolve(
      new Response(
        new ReadableStream<Uint8Array>({
          start(controller) {
            answer = controller
            signal?.addEventListener('abort', () => {
              isStopped = true
              controller.error(new Error('aborted'))
            })
          }
        })
      )
    )
  }) as typeof fetch
})
afterEach(cleanup)

let document: BenchDocument
function Part(): ReactNode {
  const { detections } = useSyncExternalStore(document.subscribe, document.getState)
  return <RecommendPart detection={detections[0]!.detection} />
}
const show = async (): Promise<void> => {
  const view = benchView([
    lineAt('gate', 0.5, { sensitivity: 60, note: { text: 'By the hedge', by: 'Isla', at: 1 } })
  ])
  document = benchDocument(view)
  render(
    inApp(
      <OnBench view={view} document={document} tracks={null}>
        <Part />
      </OnBench>
    )
  )
  await userEvent.click(screen.getByRole('button', { name: 'Recommend settings' }))
}
const line = (of: object): Promise<void> =>
  act(async () => {
    answer.enqueue(new TextEncoder().encode(`${JSON.stringify(of)}\n`))
    await Promise.resolve()
  })
const end = (): Promise<void> =>
  act(async () => {
    answer.close()
    await Promise.resolve()
  })
const detection = (): any => document.getState().detections[0]!.detection

test('asks with what is drawn, and shows how far it is', async () => {
  await show()
  expect(asked.path).toMatch(/\/cameras\/c\/look-back\/recommend$/)
  expect(asked.body).toMatchObject({ detection: { id: 'gate', sensitivity: 60 }, ignore: [] })
  // Who wrote why it is set so has no part in it.
  expect(asked.body.detection.note).toBeUndefined()
  expect(asked.body.to - asked.body.from).toBe(7 * 86_400_000)
  await line({ share: 0.42 })
  expect(await screen.findByText('Looking for settings, 42%')).toBeTruthy()
})

test('what it finds is told in full, taken as one step, and taken back by one undo', async () => {
  await show()
  const before = detection()
  await line({
    found: found({
      ignore: [
        [
          [0, 0],
          [0.1, 0],
          [0.1, 0.1]
        ]
      ]
    })
  })
  await end()
  expect(await screen.findByText('It keeps all that is wanted.')).toBeTruthy()
  expect(screen.getByText('By all marks: 4 of 4 wanted kept, 7 of 9 nuisances gone')).toBeTruthy()
  expect(screen.getByText('Unmarked triggers: 12 instead of 30')).toBeTruthy()
  const changes = screen.getByRole('list', { name: 'What changes' })
  expect(changes.textContent).toMatch(/[Ss]ensitivity.*60.*35/)
  await userEvent.click(screen.getByRole('button', { name: 'Take these settings' }))
  expect(detection()).toEqual({ ...before, sensitivity: 35 })
  expect(document.getState().scene.ignore).toHaveLength(1)
  expect(screen.getByText('Taken. Undo takes it back.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Take these settings' })).toBeNull()
  act(() => document.undo())
  expect([detection(), document.getState().scene.ignore]).toEqual([before, []])
})

test('nothing to change: says why, and offers nothing to take', async () => {
  await show()
  await line({
    found: found({ settings: {}, reason: said('edits.text', 'Too little to go by.') })
  })
  await end()
  expect(await screen.findByText('Too little to go by.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Take these settings' })).toBeNull()
  expect(screen.getByRole('button', { name: 'Recommend settings' })).toBeTruthy()
})

test('is stopped, also at the server, without a complaint', async () => {
  await show()
  await line({ share: 0.1 })
  await userEvent.click(await screen.findByRole('button', { name: 'Stop' }))
  expect(isStopped).toBe(true)
  expect(await screen.findByRole('button', { name: 'Recommend settings' })).toBeTruthy()
  expect(screen.queryByRole('alert')).toBeNull()
})

test('ends with the part of the Bench that asked', async () => {
  await show()
  cleanup()
  expect(isStopped).toBe(true)
})

test('why there is no answer is said, and it can be asked again', async () => {
  status = 503
  await show()
  expect((await screen.findByRole('alert')).textContent).toContain('The database is away.')
  status = 200
  await userEvent.click(screen.getByRole('button', { name: 'Recommend settings' }))
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
  // An answer that breaks off is no answer.
  await act(async () => {
    answer.enqueue(new TextEncoder().encode('{"share":'))
    answer.close()
    await Promise.resolve()
  })
  expect(await screen.findByRole('alert')).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Recommend settings' })).toBeTruthy()
})
