/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { BenchView } from '../../../core/api.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { Tracks } from '../../../core/targets/tracks.ts'
import { answerWith } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { benchDocument, benchView, OnBench } from '../../testing/onBench.tsx'
import { lineAt, walkers } from '../../testing/walkers.ts'
import type { BenchDocument } from '../document.ts'
import { Rail } from './Rail.tsx'

const asked: [what: string, of?: unknown][] = []
let document: BenchDocument
const show = (
  detections: Detection[],
  {
    tracks = null as Tracks | null,
    chosen = null as string | null,
    ...more
  }: Partial<BenchView> & {
    tracks?: Tracks | null
    chosen?: string | null
  } = {}
): void => {
  const view = benchView(detections, more)
  document = benchDocument(view)
  render(
    inApp(
      <OnBench {...{ view, document, tracks }} chosen={{ detection: chosen }}>
        <Rail
          onDraw={(kind) => asked.push(['draw', kind])}
          onNew={(kind) => asked.push(['new', kind])}
          onTemplate={({ name }) => asked.push(['template', name])}
          onDuplicate={({ id }) => asked.push(['duplicate', id])}
        />
      </OnBench>
    )
  )
}
const items = () =>
  within(screen.getByRole('list', { name: 'Detections' })).getAllByRole('listitem')
const order = () => document.getState().detections.map((p) => p.detection.id)
const abc = () => [lineAt('a', 0.2), lineAt('b', 0.4), lineAt('c', 0.6)]

beforeEach(() => {
  asked.length = 0
  answerWith(() => ({ status: 503, body: { code: 'unavailable', said: 'Not here' } }))
})
afterEach(cleanup)

test('without detections, says what to do, and offers it only on a picture', async () => {
  show([])
  expect(screen.getByRole('heading', { name: 'No detections' })).toBeTruthy()
  expect(screen.getByRole('button', { name: /^Line/ })).toHaveProperty('disabled', true)
  cleanup()
  show([], { tracks: walkers() })
  await userEvent.click(screen.getByRole('button', { name: /^Line/ }))
  await userEvent.click(screen.getByRole('button', { name: /^Zone/ }))
  expect(asked).toEqual([
    ['draw', 'line'],
    ['draw', 'intrusion']
  ])
})

test('shows triggers on the clip, and near misses of the selected one', () => {
  // Two cross the first line; the second stops before the other one.
  show([lineAt('a', 0.3), lineAt('b', 0.7)], {
    tracks: walkers({ from: 0, to: 0.9 }, { from: 1, to: 0.6 }),
    chosen: 'b'
  })
  const [a, b] = items()
  expect(a!.textContent).toContain('2 triggers')
  expect(b!.textContent).toContain('1 trigger')
})

test('shows no triggers without a clip', () => {
  show([lineAt('a', 0.3)])
  expect(items()[0]!.textContent).not.toMatch(/trigger/)
})

describe('the order', () => {
  test('changes by dragging one onto another, as one step', () => {
    show(abc())
    fireEvent.dragStart(items()[2]!)
    fireEvent.dragOver(items()[0]!)
    fireEvent.drop(items()[0]!)
    expect(order()).toEqual(['c', 'a', 'b'])
    act(() => document.undo())
    expect(order()).toEqual(['a', 'b', 'c'])
  })

  test('ignores drags from elsewhere', () => {
    show(abc())
    fireEvent.drop(items()[0]!)
    expect(order()).toEqual(['a', 'b', 'c'])
    fireEvent.dragStart(items()[2]!)
    fireEvent.dragEnd(items()[2]!)
    fireEvent.drop(items()[0]!)
    expect(order()).toEqual(['a', 'b', 'c'])
  })
})

test('switching off is one named step', async () => {
  show(abc())
  await userEvent.click(within(items()[1]!).getByRole('switch'))
  expect(document.detection('b')!.enabled).toBe(false)
  expect(document.getState().undo).toEqual('Switch off B')
  expect(items()[1]!.className).toContain('off')
})

test('deletes several as one step and clears the selection', async () => {
  show(abc(), { chosen: 'a' })
  await userEvent.click(screen.getByRole('button', { name: 'Select several' }))
  const boxes = screen.getAllByRole('checkbox')
  await userEvent.click(boxes[0]!)
  await userEvent.click(boxes[2]!)
  await userEvent.click(screen.getByRole('button', { name: /^Delete/ }))
  expect(order()).toEqual(['b'])
  act(() => document.undo())
  expect(order()).toEqual(['a', 'b', 'c'])
})

test('selects and deletes an ignore area; the others keep their places', async () => {
  const area = (x: number): [number, number][] => [
    [x, 0.1],
    [x + 0.1, 0.1],
    [x, 0.2]
  ]
  show([], {
    scene: { ignore: [area(0.1), area(0.5)], marks: null, version: 1, changedAt: 0 }
  })
  const first = screen.getByRole('button', { name: /^(⊘ )?Ignore area 1/ })
  await userEvent.click(first)
  expect(first.getAttribute('aria-pressed')).toBe('true')
  await userEvent.click(screen.getByRole('button', { name: 'Delete ignore area 1' }))
  expect(document.scene().ignore).toEqual([area(0.5)])
  expect(document.getState().undo).toEqual('Delete ignore area 1')
})
