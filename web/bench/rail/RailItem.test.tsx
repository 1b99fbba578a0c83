/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { DetectionSchema, ScheduleSchema, type Detection } from '../../../core/formats/plan.ts'
import { parseWith } from '../../../core/schema/parse.ts'
import { RailItem, type RailActions, type RailItemProps } from './RailItem.tsx'

const nights = parseWith(ScheduleSchema, {
  id: 'nights',
  name: 'Nights',
  week: { mon: [['18:30', '24:00']] }
})
const gate = parseWith(DetectionSchema, {
  id: 'gate',
  name: 'Gate',
  kind: 'intrusion',
  zone: [
    [0.1, 0.1],
    [0.9, 0.1],
    [0.9, 0.9]
  ],
  classes: ['person', 'vehicle'],
  dwellSeconds: 3,
  atLeast: 2,
  schedule: 'nights'
})
const done: [what: string, ...with_: unknown[]][] = []
const act = new Proxy({} as RailActions, {
  get:
    (_, what: string) =>
    (...how: unknown[]) =>
      void done.push([what, ...how])
})
const show = (more: Partial<RailItemProps> = {}): void => {
  done.length = 0
  render(
    <RailItem
      detection={gate}
      index={1}
      last={false}
      schedules={[nights]}
      inputs={[]}
      chosen={false}
      triggers={0}
      near={0}
      issues={0}
      blocked={false}
      hidden={false}
      locked={false}
      marked={null}
      act={act}
      {...more}
    />
  )
}
const item = (): HTMLElement => screen.getByRole('button', { name: /Gate/, pressed: false })
const change = (c: object): Detection => parseWith(DetectionSchema, { ...gate, ...c })
afterEach(cleanup)

test('shows a detection as one sentence under its letter; pressing selects it', async () => {
  show()
  expect(item().textContent.replace(/\u00a0/g, ' ')).toBe(
    'B2 together: a person or vehicle is in Gate for 3 s, half the body, Nights'
  )
  await userEvent.click(item())
  expect(done).toEqual([['select', 'gate']])
})

test.each([
  ['one trigger', { triggers: 1 }, '1 trigger'],
  ['several, and a near miss', { triggers: 3, near: 1 }, '3 triggers1 near miss'],
  ['none, and near misses', { triggers: 0, near: 2 }, '0 triggers2 near misses'],
  ['no clip: nothing is said of triggers', { triggers: null }, ''],
  ['switched off', { detection: change({ enabled: false }), triggers: 2 }, 'switched off'],
  [
    'parked',
    { detection: change({ parked: true }), triggers: 2 },
    'parked: keeps its place, detects nothing'
  ]
])('%s', (_, more, words) => {
  show(more)
  expect(screen.getByText((__, e) => e?.className === 'rail-foot').firstChild?.textContent).toBe(
    words
  )
})

test('switches it on and off; a locked one cannot be deleted', async () => {
  show({ locked: true })
  await userEvent.click(screen.getByRole('switch', { name: 'Gate on' }))
  expect(done).toEqual([['use', gate, false]])
  await userEvent.click(screen.getByRole('button', { name: 'More for Gate' }))
  const remove = await screen.findByRole('menuitem', { name: 'Delete' })
  expect(remove.getAttribute('aria-disabled')).toBe('true')
  await userEvent.click(screen.getByRole('menuitem', { name: 'Unlock shape' }))
  expect(done.at(-1)).toEqual(['lock', 'gate'])
})

test('the first cannot go up, the last cannot go down', async () => {
  show({ index: 0, last: true })
  await userEvent.click(screen.getByRole('button', { name: 'More for Gate' }))
  for (const name of ['Move up', 'Move down'])
    expect((await screen.findByRole('menuitem', { name })).getAttribute('aria-disabled')).toBe(
      'true'
    )
})

test('shows its checkbox while several are being selected', async () => {
  show({ marked: false })
  await userEvent.click(screen.getByRole('checkbox', { name: 'Mark Gate' }))
  expect(done).toEqual([['mark', 'gate', true]])
})

test('says how many issues there are about it', () => {
  show({ issues: 2, blocked: true })
  expect(screen.getByText('2 issues').className).toContain('blocking')
})
