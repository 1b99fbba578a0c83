/** @jest-environment ./scripts/jestBrowser.mjs */

import { afterEach, expect, jest, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState, type ReactNode } from 'react'
import { inApp } from '../testing/inApp.tsx'
import { MomentPicker } from './MomentPicker.tsx'
import { useClock } from './useClock.ts'

afterEach(cleanup)

const AT = Date.UTC(2026, 10, 26, 21, 30, 5)

function Shown(): ReactNode {
  const clock = useClock()
  return <p>{[clock.time(AT), clock.minute(AT), clock.dateAndSecond(AT)].join(' | ')}</p>
}

// Offsets from UTC on that day: the time-zone database (IANA tzdata), as Intl has it.
test.each([
  ['UTC', '21:30:05 | 21:30 | 26 Nov 2026, 21:30:05'],
  ['Pacific/Chatham', '11:15:05 | 11:15 | 27 Nov 2026, 11:15:05'],
  ['America/St_Johns', '18:00:05 | 18:00 | 26 Nov 2026, 18:00:05']
])('shows an instant on the site’s clock in %s', (timeZone, words) => {
  render(inApp(<Shown />, '/', timeZone))
  expect(screen.getByText(words)).toBeTruthy()
})

const changes = jest.fn<(at: number | null) => void>()

function Picked({ timeZone, at }: { timeZone: string; at: number | null }): ReactNode {
  const [value, setValue] = useState(at)
  return (
    <MomentPicker
      label="Moment"
      value={value}
      timeZone={timeZone}
      onChange={(moment) => {
        changes(moment)
        setValue(moment)
      }}
    />
  )
}

async function typed(timeZone: string, text: string): Promise<number | null | undefined> {
  changes.mockClear()
  render(<Picked timeZone={timeZone} at={null} />)
  await userEvent.type(screen.getByLabelText('Moment'), `${text}{Enter}`)
  return changes.mock.lastCall?.[0]
}

test.each([
  ['as it is shown', '26 Nov 2026, 21:30'],
  ['without the comma', '26 Nov 2026 21:30'],
  ['as ISO 8601 has it', '2026-11-26T21:30']
])('accepts a time typed as %s', async (_, text) => {
  expect(await typed('Pacific/Chatham', text)).toBe(Date.UTC(2026, 10, 26, 7, 45))
  expect(screen.getByLabelText('Moment')).toHaveProperty('value', '26 Nov 2026, 21:30')
})

// Central European clocks go from 02:00 to 03:00 on 29 March 2026 and from 03:00 to 02:00 on 25 October
// (Directive 2000/84/EC: the last Sundays of March and October, at 01:00 UTC).
test.each([
  ['before the change', '29 Mar 2026, 01:59', Date.UTC(2026, 2, 29, 0, 59)],
  ['after it', '29 Mar 2026, 03:00', Date.UTC(2026, 2, 29, 1, 0)],
  ['that comes twice: its first', '25 Oct 2026, 02:30', Date.UTC(2026, 9, 25, 0, 30)]
])('a time on a clock-change day: %s', async (_, text, at) => {
  expect(await typed('Europe/Berlin', text)).toBe(at)
  expect(screen.getByLabelText('Moment')).toHaveProperty('value', text)
})

test('ignores text that is not a time', async () => {
  expect(await typed('UTC', 'tomorrow')).toBeUndefined()
})
