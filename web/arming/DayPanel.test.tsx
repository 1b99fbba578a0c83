/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState, useSyncExternalStore, type ReactNode } from 'react'
import { ScheduleSchema, type Weekday } from '../../core/formats/plan.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith } from '../testing/answers.ts'
import { chooseFrom } from '../testing/choose.ts'
import { smallSite } from '../testing/smallSite.ts'
import { DayPanel } from './DayPanel.tsx'
import type { ChosenSpan } from './WeekGrid.tsx'

interface Shown {
  day: Weekday
  span: number | null
  hasSun: boolean
}

let document: SiteDocument
function Panel({ day, span: at, hasSun }: Shown): ReactNode {
  const { schedules } = useSyncExternalStore(document.subscribe, document.getState)
  const [span, setSpan] = useState<ChosenSpan | null>(at === null ? null : { day, index: at })
  return (
    <DayPanel
      schedule={schedules[0]!}
      day={day}
      span={span}
      document={document}
      hasSun={hasSun}
      onSpan={setSpan}
    />
  )
}
const show = (
  week: object,
  { day = 'mon', span = null, hasSun = true }: Partial<Shown> = {}
): void => {
  const schedule = parseWith(ScheduleSchema, { id: 'nights', name: 'Nights', week })
  document = new SiteDocument(smallSite({ schedules: [{ schedule, version: 1, changedAt: 0 }] }))
  render(<Panel day={day} span={span} hasSun={hasSun} />)
}
const week = () => document.getState().schedules[0]!.week
const hours = () => screen.getByRole('textbox', { name: /^Hours of/ })
const type = async (field: HTMLElement, text: string): Promise<void> => {
  await userEvent.clear(field)
  await userEvent.type(field, `${text}{Enter}`)
}

beforeEach(() => {
  answerWith(() => ({ body: { version: 2 } }))
})
afterEach(cleanup)

describe('the hours of a day, typed', () => {
  test.each([
    ['6:30 to 8', null],
    [
      '8:00 to 12:00, 13:00 - 17:30',
      [
        ['08:00', '12:00'],
        ['13:00', '17:30']
      ]
    ],
    [
      '18:30–24:00;0:00–6:30',
      [
        ['00:00', '06:30'],
        ['18:30', '24:00']
      ]
    ],
    ['10:00 to 14:00, 13:00 to 15:00', [['10:00', '15:00']]],
    ['sunset-00:30 to sunrise+00:15', [['sunset-00:30', 'sunrise+00:15']]],
    ['at night', null],
    ['', []]
  ] as [string, [string, string][] | null][])('%s', async (text, spans) => {
    const before = [['09:00', '10:00']]
    show({ mon: before })
    await type(hours(), text)
    if (spans) {
      expect(screen.queryByRole('alert')).toBeNull()
      expect(week().mon).toEqual(spans)
    } else {
      expect(screen.getByRole('alert').textContent).toMatch(/“.+” is not/)
      expect(hours()).toHaveProperty('value', text)
      expect(week().mon).toEqual(before)
    }
  })

  test('a day without any says that it is not armed', () => {
    show({})
    expect(hours()).toHaveProperty('placeholder', 'not armed')
  })

  test('what comes from elsewhere is shown at once', () => {
    show({ mon: [['09:00', '10:00']] })
    act(() =>
      document.editSchedule(
        parseWith(ScheduleSchema, {
          id: 'nights',
          name: 'Nights',
          week: { mon: [['01:00', '02:00']] }
        }),
        { code: 'edits.text', params: ['Moved'] } as never
      )
    )
    expect(hours()).toHaveProperty('value', '01:00 to 02:00')
  })
})

describe('the ends of the span that is selected', () => {
  test('a time is typed, with or without its zero; one that is none says so', async () => {
    show({ mon: [['18:30', '24:00']] }, { span: 0 })
    await type(screen.getByRole('textbox', { name: 'From, time' }), '7:05')
    expect(week().mon).toEqual([['07:05', '24:00']])
    await type(screen.getByRole('textbox', { name: 'To, time' }), '25:00')
    expect(screen.getByRole('alert').textContent).toMatch(/“25:00” is not a time/)
    expect(week().mon).toEqual([['07:05', '24:00']])
  })

  test('the sun in place of the clock, with minutes to it, and the clock again', async () => {
    show({ mon: [['18:30', '24:00']] }, { span: 0 })
    await chooseFrom('From: clock or sun', 'sunset')
    expect(week().mon).toEqual([['sunset', '24:00']])
    const minutes = screen.getByLabelText('From: minutes from sunset')
    fireEvent.change(minutes, { target: { value: '-45' } })
    fireEvent.blur(minutes)
    expect(week().mon).toEqual([['sunset-00:45', '24:00']])
    await chooseFrom('To: clock or sun', 'sunrise')
    expect(week().mon).toEqual([['sunset-00:45', 'sunrise']])
    await chooseFrom('From: clock or sun', 'clock')
    await chooseFrom('To: clock or sun', 'clock')
    expect(week().mon).toEqual([['18:00', '24:00']])
  })

  test('where the site has no position there is no sun to choose', async () => {
    show({ mon: [['18:30', '24:00']] }, { span: 0, hasSun: false })
    await userEvent.click(screen.getByRole('combobox', { name: 'From: clock or sun' }))
    const sunset = (await screen.findAllByTitle('sunset')).at(-1)!
    expect(sunset.getAttribute('aria-disabled') ?? sunset.className).toMatch(/true|disabled/)
  })

  test('is removed, and the others stay', async () => {
    show(
      {
        mon: [
          ['00:00', '06:00'],
          ['18:30', '24:00']
        ]
      },
      { span: 0 }
    )
    await userEvent.click(screen.getByRole('button', { name: 'Remove' }))
    expect(week().mon).toEqual([['18:30', '24:00']])
    expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull()
  })
})

test('a day is copied to those that are ticked, as one step', async () => {
  show({ mon: [['18:30', '24:00']], sat: [['00:00', '24:00']] })
  const before = week()
  await userEvent.click(screen.getByRole('button', { name: 'Copy Monday to…' }))
  expect(await screen.findByRole('button', { name: 'Copy' })).toHaveProperty('disabled', true)
  await userEvent.click(screen.getByRole('button', { name: 'Mon to Fri' }))
  await userEvent.click(screen.getByRole('checkbox', { name: 'Wed' }))
  await userEvent.click(screen.getByRole('button', { name: 'Copy' }))
  const copied = Object.entries(week()).filter(([, spans]) => spans[0]?.[0] === '18:30')
  expect(copied.map(([day]) => day)).toEqual(['mon', 'tue', 'thu', 'fri'])
  expect(week().sat).toEqual(before.sat)
  act(() => document.undo())
  expect(week()).toEqual(before)
})
