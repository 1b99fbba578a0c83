/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { SiteHours } from '../../core/arming/coverage.ts'
import { EndpointSchema } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { DetectionSchema, ScheduleSchema, type Schedule } from '../../core/formats/plan.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith } from '../testing/answers.ts'
import { popup, smallSite } from '../testing/smallSite.ts'
import { GapsPanel } from './GapsPanel.tsx'

/** Times of a week are counted by hand: 52 weeks without a clock change, in UTC. */
const NOW = Date.parse('2026-11-24T12:00:00Z')
const kept = { version: 1, changedAt: 0 }
const hours = (id: string, name: string, week: object): Schedule =>
  parseWith(ScheduleSchema, { id, name, week })
const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri']

/** Armed on Monday from 18 to 24; the office acts on each weekday from 20 to 22. */
const evening = hours('evening', 'Evening', { mon: [['18:00', '24:00']] })
const office = hours(
  'office',
  'Office',
  Object.fromEntries(WEEKDAYS.map((day) => [day, [['20:00', '22:00']]]))
)

function Gaps({ document, of }: { document: SiteDocument; of: string }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const schedule = state.schedules.find(({ id }) => id === of)!
  return (
    <GapsPanel
      schedule={schedule}
      state={state}
      document={document}
      hours={new SiteHours(state.schedules, 'UTC', undefined, NOW)}
      users={state.detections.filter(({ detection }) => detection.schedule === of)}
      rails={[]}
    />
  )
}

const line = (id: string, schedule?: string) => ({
  ...kept,
  camera: 'cam',
  cameraName: 'Cam',
  position: 0,
  detection: parseWith(DetectionSchema, {
    id,
    name: id,
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ],
    ...(schedule && { schedule })
  }),
  actions: { actions: { ...NO_ACTIONS, links: ['desk', 'bell'] }, version: 1, changedAt: 0 }
})
const endpoint = (id: string, schedule?: string) => ({
  ...kept,
  endpoint: parseWith(EndpointSchema, { ...popup(id), ...(schedule && { schedule }) }),
  testedAt: null,
  testError: null
})

let document: SiteDocument
const show = (of: string, desk?: string, detections = [line('gate', 'evening')]): void => {
  document = new SiteDocument(
    smallSite({
      schedules: [evening, office].map((schedule) => ({ ...kept, schedule })),
      detections,
      endpoints: [endpoint('desk', desk), endpoint('bell'), endpoint('unused', 'office')]
    })
  )
  render(<Gaps document={document} of={of} />)
}
const panel = () => within(screen.getByRole('region', { name: 'Schedule gaps' }))
const text = (): string => screen.getByRole('region', { name: 'Schedule gaps' }).textContent

beforeEach(() => void answerWith(() => ({ body: { version: 2 } })))
afterEach(cleanup)

test('an action that acts in two of six armed hours is off for four, and it is said when', () => {
  show('evening', 'office')
  expect(text()).toContain('desk (Office) is off for 4 h of the 6 h armed a week:')
  expect(panel().getByRole('list').textContent).toMatch(/^Mon, 18:00 to 20:00, 22:00 to 24:00$/)
  // What is linked to nothing here is no matter of these hours.
  expect(text()).not.toContain('unused')
  expect(text()).toContain('Always on: bell.')
})

test('an action with the same hours, or with none, has no gap', () => {
  show('evening', 'evening')
  expect(text()).toContain('desk (Evening) is on all the armed time.')
  expect(panel().queryByRole('button')).toBeNull()
  cleanup()
  show('evening')
  expect(text()).toContain('Always on: desk, bell.')
  expect(text()).not.toContain('armed, but this action is off')
})

test('the action takes the hours of the detection in one undo step', async () => {
  show('evening', 'office')
  await userEvent.click(panel().getByRole('button', { name: 'Use Evening' }))
  expect(text()).toContain('desk (Evening) is on all the armed time.')
  act(() => document.undo())
  expect(document.getState().endpoints.find(({ id }) => id === 'desk')!.schedule).toBe('office')
})

test('gaps that are intended are marked for all detections with these hours, in one step', async () => {
  show('evening', 'office', [line('gate', 'evening'), line('quay', 'evening'), line('yard')])
  await userEvent.click(panel().getByRole('button', { name: 'Mark as intended' }))
  expect(panel().getByText('Marked as intended.')).toBeTruthy()
  const accepted = (id: string) => document.actionsOf(`cam/${id}`).accepted
  expect([accepted('gate'), accepted('quay'), accepted('yard')]).toEqual([['desk'], ['desk'], []])
  act(() => document.undo())
  expect([accepted('gate'), accepted('quay')]).toEqual([[], []])
})

test('hours that nothing uses, or nothing is linked with, say so', () => {
  show('office', 'office')
  expect(text()).toContain('No detection uses this schedule.')
  cleanup()
  const bare = line('gate', 'evening')
  bare.actions = { actions: { ...NO_ACTIONS }, version: 0, changedAt: 0 }
  show('evening', 'office', [bare])
  expect(text()).toContain('Detections with this schedule have no actions yet.')
})
