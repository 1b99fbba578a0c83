/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { said } from '../../../core/messages/said.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { EditEntry, HistoryView } from '../../../core/history/states.ts'
import { answerWith, type Asked } from '../../testing/answers.ts'
import { choose } from '../../testing/choose.ts'
import { inApp } from '../../testing/inApp.tsx'
import { benchDocument, benchView } from '../../testing/onBench.tsx'
import { lineAt } from '../../testing/walkers.ts'
import type { BenchDocument } from '../document.ts'
import { HistoryDrawer } from './HistoryDrawer.tsx'

const edit = (
  id: number,
  detection: Detection | null,
  more: Partial<EditEntry> = {}
): EditEntry => ({
  id,
  camera: 'c',
  thing: 'detection',
  thingId: detection?.id ?? 'gate',
  body: detection && { detection, position: 0 },
  label: said('edits.text', `Edit ${id}`),
  by: 'Isla',
  at: Date.parse('2026-11-24T08:30:00Z') + id * 1000,
  ...more
})

let document: BenchDocument
let pages: Record<string, HistoryView>
/** What a moment's state is made of, by the edit that left it. */
let states: Record<number, EditEntry[]>
let asked: Asked[]

function Shown(): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  return (
    <HistoryDrawer
      open
      camera="c"
      timeZone="Europe/London"
      document={document}
      state={state}
      onClose={() => {}}
    />
  )
}
const show = (now: readonly Detection[]): void => {
  document = benchDocument(benchView(now))
  render(inApp(<Shown />))
}
const lines = () => document.getState().detections.map(({ detection }: any) => detection.line)
const entry = (name: RegExp) => screen.findByRole('button', { name })
const comparison = () => within(screen.getByRole('region', { name: 'Comparison' }))

beforeEach(() => {
  const [first, second] = [edit(1, lineAt('gate', 0.3)), edit(2, lineAt('gate', 0.6))]
  pages = { '': { entries: [second, first], more: false } }
  states = { 1: [first], 2: [second] }
  asked = answerWith(({ path }) => {
    const [, state] = /^\/cameras\/c\/history\/(\d+)$/.exec(path) ?? []
    if (state !== undefined) return { body: states[Number(state)] }
    const [, before = ''] = /^\/cameras\/c\/history(?:\?before=(\d+))?$/.exec(path) ?? []
    return { body: pages[before] }
  })
})
afterEach(cleanup)

test('who changed what and when, by the site’s clock; nothing is compared before one is chosen', async () => {
  pages['']!.entries.push(edit(0, null, { at: 0, by: 'Wardoptic' }))
  show([lineAt('gate', 0.6)])
  await entry(/Edit 2/)
  const items = screen.getAllByRole('listitem').map((li) => li.textContent)
  expect(items[0]).toMatch(/Edit 2.*Isla, 24 Nov 2026, 08:30:02/)
  expect(items[2]).toMatch(/Edit 0.*Wardoptic, at the start/)
  expect(comparison().getByText(/Select an edit/)).toBeTruthy()
  expect(asked.filter(({ path }) => path.includes('history/'))).toEqual([])
})

test('what changed since is told; the state is restored, and that is undone', async () => {
  show([lineAt('gate', 0.6)])
  await userEvent.click(await entry(/Edit 1/))
  const difference = await comparison().findByRole('listitem')
  expect(difference.textContent).toMatch(/Gate/)
  expect(difference.textContent).toContain('→')
  await userEvent.click(comparison().getByRole('button', { name: 'Restore this state' }))
  expect(lines()).toEqual([
    [
      [0, 0.3],
      [1, 0.3]
    ]
  ])
  expect(await comparison().findByText('No difference.')).toBeTruthy()
  act(() => document.undo())
  expect(lines()).toEqual([
    [
      [0, 0.6],
      [1, 0.6]
    ]
  ])
})

test('a state that is now offers nothing to restore', async () => {
  show([lineAt('gate', 0.6)])
  await userEvent.click(await entry(/Edit 2/))
  expect(await comparison().findByText('No difference.')).toBeTruthy()
  expect(comparison().getByRole('button', { name: /Restore/ })).toHaveProperty('disabled', true)
})

test('any two states are compared, whatever is now', async () => {
  states[2] = [edit(2, lineAt('quay', 0.6, { name: 'Quay' }))]
  show([])
  await userEvent.click(await entry(/Edit 1/))
  await waitFor(() =>
    expect(comparison().getByRole('listitem').textContent).toMatch(/Gate was deleted/)
  )
  await choose(comparison().getByRole('combobox'), /^Edit 2/)
  await waitFor(() =>
    expect(
      comparison()
        .getAllByRole('listitem')
        .map((li) => li.textContent.trim())
    ).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/Gate was deleted/),
        expect.stringMatching(/Quay is new/)
      ])
    )
  )
})

test('one that is chosen again is chosen no more', async () => {
  show([lineAt('gate', 0.6)])
  const first = await entry(/Edit 1/)
  await userEvent.click(first)
  expect(first.getAttribute('aria-pressed')).toBe('true')
  await userEvent.click(first)
  expect(first.getAttribute('aria-pressed')).toBe('false')
  expect(comparison().getByText(/Select an edit/)).toBeTruthy()
})

test('earlier edits follow page by page, each asked for once', async () => {
  pages[''] = { entries: [edit(12, null), edit(11, null)], more: true }
  pages['11'] = { entries: [edit(10, null), edit(9, null)], more: true }
  pages['9'] = { entries: [edit(8, null)], more: false }
  show([])
  await entry(/Edit 12/)
  await userEvent.click(await screen.findByRole('button', { name: 'Earlier edits' }))
  await entry(/Edit 9/)
  await userEvent.click(await screen.findByRole('button', { name: 'Earlier edits' }))
  await entry(/Edit 8/)
  expect(screen.queryByRole('button', { name: 'Earlier edits' })).toBeNull()
  expect(
    screen.getAllByRole('listitem').flatMap((li) => /Edit \d+/.exec(li.textContent) ?? [])
  ).toEqual(['Edit 12', 'Edit 11', 'Edit 10', 'Edit 9', 'Edit 8'])
  expect(asked.filter(({ path }) => path.endsWith('before=11'))).toHaveLength(1)
})
