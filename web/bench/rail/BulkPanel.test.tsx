/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { DetectionSchema, type Detection } from '../../../core/formats/plan.ts'
import { parseWith } from '../../../core/schema/parse.ts'
import { chooseFrom } from '../../testing/choose.ts'
import { benchDocument, benchView } from '../../testing/onBench.tsx'
import { nights, popup } from '../../testing/smallSite.ts'
import { lineAt } from '../../testing/walkers.ts'
import type { BenchDocument } from '../document.ts'
import { BulkPanel } from './BulkPanel.tsx'

const kept = { version: 1, changedAt: 0 }
const tamper = (): Detection => parseWith(DetectionSchema, { id: 't', name: 'T', kind: 'tamper' })
const signalLoss = (): Detection =>
  parseWith(DetectionSchema, { id: 's', name: 'S', kind: 'signalLoss' })

let document: BenchDocument
function Panel({ marked }: { marked: readonly string[] }): ReactNode {
  const { detections } = useSyncExternalStore(document.subscribe, document.getState)
  return (
    <BulkPanel
      document={document}
      marked={detections.map(({ detection }) => detection).filter(({ id }) => marked.includes(id))}
      schedules={[nights]}
      endpoints={[{ ...kept, endpoint: popup('one'), testedAt: null, testError: null }]}
      onAll={() => {}}
      onDone={() => {}}
    />
  )
}
const show = (detections: Detection[], marked: readonly string[]): void => {
  document = benchDocument(benchView(detections))
  render(<Panel marked={marked} />)
}
const of = (id: string): any =>
  document.getState().detections.find(({ detection }) => detection.id === id)!.detection
const ids = () => document.getState().detections.map(({ detection }) => detection.id)
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }))
afterEach(cleanup)

test('without any selected nothing can be changed', () => {
  show([lineAt('a', 0.2)], [])
  for (const name of ['Set sensitivity', 'Link', 'Unlink', 'On', 'Off', 'Delete'])
    expect(screen.getByRole('button', { name })).toHaveProperty('disabled', true)
})

test('sets the sensitivity of those that have one, and only of what is selected', async () => {
  show([lineAt('a', 0.2), lineAt('b', 0.4), signalLoss()], ['a', 's'])
  const before = of('s')
  const field = screen.getByRole('spinbutton', { name: 'Sensitivity for all selected' })
  await userEvent.clear(field)
  await userEvent.type(field, '72')
  await press('Set sensitivity')
  expect([of('a').sensitivity, of('b').sensitivity]).toEqual([72, 50])
  expect(of('s')).toEqual(before)
})

test('hours go to all kinds, and away again; where they differ nothing is claimed', async () => {
  show([lineAt('a', 0.2), { ...tamper(), schedule: 'nights' }], ['a', 't'])
  expect(screen.queryByTitle('Nights')).toBeNull()
  expect(screen.queryByTitle('Always')).toBeNull()
  await chooseFrom('Schedule for all selected', 'Nights')
  expect([of('a').schedule, of('t').schedule]).toEqual(['nights', 'nights'])
  await chooseFrom('Schedule for all selected', 'Always')
  expect([of('a').schedule, of('t').schedule]).toEqual([undefined, undefined])
})

test('classes go to what has classes', async () => {
  show([lineAt('a', 0.2), lineAt('b', 0.4), tamper()], ['a', 'b', 't'])
  const before = of('t')
  expect(of('a').classes).not.toContain('animal')
  const own = of('a').classes as string[]
  await userEvent.click(screen.getByRole('combobox', { name: 'Classes for all selected' }))
  await userEvent.click(await screen.findByTitle('animal'))
  expect([of('a').classes, of('b').classes]).toEqual([
    [...own, 'animal'],
    [...own, 'animal']
  ])
  expect(of('t')).toEqual(before)
})

test('links and unlinks the action that is chosen', async () => {
  show([lineAt('a', 0.2), lineAt('b', 0.4)], ['a', 'b'])
  expect(screen.getByRole('button', { name: 'Link' })).toHaveProperty('disabled', true)
  await chooseFrom('Action for all selected', 'one')
  await press('Link')
  const links = () => ['a', 'b'].map((id) => document.actions(id).links)
  expect(links()).toEqual([['one'], ['one']])
  await press('Unlink')
  expect(links()).toEqual([[], []])
})

test('switches off, deletes, and each is one step back', async () => {
  show([lineAt('a', 0.2), lineAt('b', 0.4), lineAt('c', 0.6)], ['a', 'b'])
  await press('Off')
  expect(['a', 'b', 'c'].map((id) => of(id).enabled)).toEqual([false, false, true])
  await press('Delete')
  expect(ids()).toEqual(['c'])
  act(() => document.undo())
  expect(ids()).toEqual(['a', 'b', 'c'])
  expect(of('a').enabled).toBe(false)
  act(() => document.undo())
  expect(of('a').enabled).toBe(true)
})
