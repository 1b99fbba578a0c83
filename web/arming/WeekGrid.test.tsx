/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState, useSyncExternalStore, type ReactNode } from 'react'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith } from '../testing/answers.ts'
import { smallSite } from '../testing/smallSite.ts'
import { WeekGrid, type ChosenSpan } from './WeekGrid.tsx'
import { weekOf } from './weekOf.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const HEIGHT = 1440

function Week({ document }: { document: SiteDocument }): ReactNode {
  const { schedules } = useSyncExternalStore(document.subscribe, document.getState)
  const [span, setSpan] = useState<ChosenSpan | null>(null)
  return (
    <WeekGrid
      schedule={schedules[0]!}
      calendar={weekOf(NOW, 'UTC', null)}
      rails={[]}
      document={document}
      day="mon"
      span={span}
      now={NOW}
      onDay={() => {}}
      onSpan={setSpan}
    />
  )
}

let document: SiteDocument
beforeEach(() => {
  answerWith(() => ({ body: { version: 2 } }))
  document = new SiteDocument(smallSite())
  render(<Week document={document} />)
})
afterEach(cleanup)

const monday = (): [string, string][] => [...document.getState().schedules[0]!.week.mon] as never
/** A day of 1440 pixels, so that a pixel is a minute. */
const column = (day: string): HTMLElement => {
  const element = screen
    .getByRole('region', { name: day })
    .querySelector<HTMLElement>('.day-column')!
  element.getBoundingClientRect = () => ({ top: 0, height: HEIGHT }) as DOMRect
  return element
}
const drag = (element: Element, from: number, to: number, more: object = {}): void => {
  fireEvent.pointerDown(element, { button: 0, clientY: from, ...more })
  fireEvent.pointerMove(element, { clientY: to, ...more })
  fireEvent.pointerUp(element, { clientY: to, ...more })
}

test('moves and removes spans by keyboard, each as one undo step', async () => {
  const hours = screen.getByRole('button', { name: 'Hours of Monday, 18:30 to 24:00' })
  hours.focus()
  await userEvent.keyboard('{ArrowUp}')
  expect(monday()).toEqual([['18:29', '23:59']])
  await userEvent.keyboard('{PageUp}')
  expect(monday()).toEqual([['17:59', '23:29']])
  await userEvent.keyboard('{Delete}')
  expect(monday()).toEqual([])
  act(() => {
    document.undo()
    document.undo()
    document.undo()
  })
  expect(monday()).toEqual([['18:30', '24:00']])
})

test('a drag over an empty day adds a span to the half hour; with Alt it removes them', () => {
  drag(column('Tuesday'), 485, 602)
  expect(document.getState().schedules[0]!.week.tue).toEqual([['08:00', '10:00']])
  expect(
    within(screen.getByRole('region', { name: 'Tuesday' })).getByRole('group', {
      name: 'Tuesday, 08:00 to 10:00'
    })
  ).toBeTruthy()
  drag(column('Tuesday'), 530, 572, { altKey: true })
  expect(document.getState().schedules[0]!.week.tue).toEqual([
    ['08:00', '09:00'],
    ['09:30', '10:00']
  ])
})

test('a press without a drag changes nothing', () => {
  drag(column('Wednesday'), 600, 600)
  expect(document.getState().schedules[0]!.week.wed).toEqual([])
  expect(document.getState().schedules[0]!.week.mon).toEqual([['18:30', '24:00']])
})

test('marks an exception on its day only', () => {
  act(() =>
    document.editSchedule(
      {
        ...document.getState().schedules[0]!,
        exceptions: [{ date: '2026-11-26', spans: [], name: 'Regatta' }]
      },
      said('edits.text', 'Add an exception')
    )
  )
  expect(
    within(screen.getByRole('region', { name: 'Thursday' })).getByTitle(
      'Exception on 26 Nov 2026: Regatta'
    )
  ).toBeTruthy()
  expect(screen.queryAllByTitle(/^Exception on/)).toHaveLength(1)
})
