/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { wordsOf } from '../../../core/messages/words.ts'
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { explainAll } from '../../../core/detections/index.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { Tracks } from '../../../core/targets/tracks.ts'
import { answerWith } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { benchDocument, benchView, OnBench, settingOf } from '../../testing/onBench.tsx'
import { lineAt, walkers } from '../../testing/walkers.ts'
import type { BenchDocument } from '../document.ts'
import type { Selection } from '../selection.ts'
import { Inspector } from './Inspector.tsx'

let document: BenchDocument
let removed = 0
const show = (
  detection: Detection | null,
  {
    tracks = null,
    ignore = [],
    ...chosen
  }: Partial<Selection> & {
    tracks?: Tracks | null
    ignore?: [number, number][][]
  } = {}
): void => {
  const view = benchView(detection ? [detection] : [], {
    scene: { ignore, marks: null, version: 1, changedAt: 0 }
  })
  document = benchDocument(view)
  render(
    inApp(
      <OnBench
        {...{ view, document, tracks }}
        chosen={{ detection: detection?.id ?? null, ...chosen }}
      >
        <Inspector
          detection={detection}
          letter="A"
          links={[]}
          users={() => 0}
          limits={null}
          tools={null}
          shapeTools={<p>shape tools</p>}
          changes={<p>changes</p>}
          often={<p>how often</p>}
          tuning={<p>tuning</p>}
          scenePart={<p>the scene</p>}
          onRemove={() => void removed++}
        />
      </OnBench>
    )
  )
}
beforeEach(() => {
  removed = 0
  answerWith(() => ({ status: 503, body: { code: 'unavailable', said: 'Not here' } }))
})
afterEach(cleanup)

describe('the selection', () => {
  test('nothing selected: how to begin, and the scene', () => {
    show(null)
    expect(screen.getByRole('heading', { name: 'Nothing selected' })).toBeTruthy()
    expect(screen.getByText('the scene')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /^Delete/ })).toBeNull()
  })

  test('an ignore area: what it does, and deleting it', async () => {
    const area: [number, number][] = [
      [0.1, 0.1],
      [0.2, 0.1],
      [0.1, 0.2]
    ]
    show(null, { ignore: [area], area: 0 })
    expect(screen.getByRole('heading', { name: /Ignore area 1/ })).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'Delete ignore area 1' }))
    expect(removed).toBe(1)
  })

  test('treats a deleted area as nothing selected', () => {
    show(null, { area: 3 })
    expect(screen.getByRole('heading', { name: 'Nothing selected' })).toBeTruthy()
  })

  test('a detection: its kind and sentence', () => {
    show(lineAt('gate', 0.5))
    expect(screen.getByRole('heading', { name: 'A · Line crossing' })).toBeTruthy()
    expect(screen.getByText('shape tools')).toBeTruthy()
    expect(screen.queryByText('the scene')).toBeNull()
    expect(screen.getByText(/Select a trigger or a target/)).toBeTruthy()
  })

  test('says when a detection is switched off instead of asking for a trigger', () => {
    show(lineAt('gate', 0.5, { enabled: false }))
    expect(screen.getByText(/it does not trigger/)).toBeTruthy()
    expect(screen.queryByText(/Choose a trigger/)).toBeNull()
  })
})

describe('why', () => {
  const tracks = walkers({ from: 0, to: 0.9 }, { from: 1, to: 0.4 })

  test('lists every gate of a triggering target as measured', () => {
    const gate = lineAt('gate', 0.5)
    show(gate, { tracks, target: 1 })
    const ladder = explainAll(settingOf([gate]), tracks, 'gate').find((l) => l.target === 1)!
    expect(ladder.fired).toBe(true)
    const part = screen.getByRole('region', { name: 'Conditions' })
    expect(within(part).getByRole('heading').textContent).toBe(
      `Why person 1, at ${ladder.time.toFixed(1)} s`
    )
    const rows = within(part).getAllByRole('listitem')
    expect(rows.map((row) => row.querySelector('.measured')!.textContent)).toEqual(
      ladder.readings.map((r) => wordsOf(r.measured))
    )
    expect(within(part).queryByLabelText('not met')).toBeNull()
    expect(within(part).getByText(wordsOf(ladder.sentence))).toBeTruthy()
    expect(screen.getByText('changes')).toBeTruthy()
  })

  test('names the gate that stopped a target', () => {
    const gate = lineAt('gate', 0.5, { classes: ['vehicle'] })
    show(gate, { tracks, target: 1 })
    const part = screen.getByRole('region', { name: 'Conditions' })
    expect(within(part).getByRole('heading').textContent).toMatch(/^Why not person 1/)
    const stopped = within(part).getAllByLabelText('not met')
    expect(
      stopped.map((mark) => mark.closest('li')!.querySelector('.gate')!.textContent)
    ).toContain('Class')
  })

  test('lists near misses; pressing one selects its moment', async () => {
    show(lineAt('gate', 0.5, { classes: ['vehicle'] }), { tracks })
    const list = screen.getByRole('region', { name: 'Near misses' })
    expect(within(list).getByRole('heading').textContent).toMatch(/^1 near miss/)
    await userEvent.click(within(list).getByRole('button'))
    expect(screen.getByRole('region', { name: 'Conditions' })).toBeTruthy()
  })
})

test('parks and unparks a kind that devices switch back on, each as one step', async () => {
  const gate = lineAt('gate', 0.5)
  show(gate)
  await userEvent.click(screen.getByRole('button', { name: 'Park' }))
  expect(document.detection('gate')).toMatchObject({ parked: true })
  expect(document.getState().undo).toEqual('Park Gate')
  cleanup()
  show({ ...gate, parked: true })
  await userEvent.click(screen.getByRole('button', { name: 'Unpark' }))
  expect(document.detection('gate')!.parked).toBeUndefined()
})

describe('the note of a detection', () => {
  const noted = (): unknown => document.getState().detections[0]!.detection.note
  const line = lineAt('gate', 0.5)

  test('is written, and undone; Escape leaves it as it was', async () => {
    show(line)
    await userEvent.click(screen.getByRole('button', { name: 'Add note' }))
    await userEvent.type(screen.getByLabelText('Note'), '  The client wants boats only  ')
    await userEvent.click(screen.getByRole('button', { name: 'Save' }))
    expect(noted()).toMatchObject({ text: 'The client wants boats only' })
    document.undo()
    expect(noted()).toBeUndefined()
  })

  test('shows who wrote it and when; an emptied one is deleted', async () => {
    show({ ...line, note: { text: 'Until May', by: 'Isla', at: Date.UTC(2026, 10, 26, 21, 30) } })
    expect(screen.getByText('Isla, 26 Nov 2026, 21:30')).toBeTruthy()
    await userEvent.click(screen.getByRole('button', { name: 'Edit note' }))
    await userEvent.type(screen.getByLabelText('Note'), ' and then?{Escape}')
    expect(noted()).toMatchObject({ text: 'Until May' })
    await userEvent.click(screen.getByRole('button', { name: 'Edit note' }))
    await userEvent.clear(screen.getByLabelText('Note'))
    await userEvent.click(screen.getByRole('button', { name: 'Save' }))
    expect(noted()).toBeUndefined()
  })
})
