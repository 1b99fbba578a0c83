import { momentPicker as words } from '../../core/messages/en/common.ts'
import generateConfig from '@rc-component/picker/generate/dayjs'
import { DatePicker } from 'antd'
import locale from 'antd/locale/en_GB'
import dayjs, { type Dayjs } from 'dayjs'
import utc from 'dayjs/plugin/utc'
import { createElement, type ReactNode } from 'react'
import { shortDays } from '../../core/messages/en/codes/arming.ts'
import { MONTHS } from '../../core/messages/format.ts'
import { wallInstant, wallText } from '../../core/arming/zone.ts'

dayjs.extend(utc)

/** In the order of the dates' own numbers. */
const WEEK = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'] as const
const MINUTES = 'D MMM YYYY, HH:mm'
const SECONDS = 'D MMM YYYY, HH:mm:ss'

/**
 * A picker of moments on the wall clock of a time zone. It counts in UTC with the numbers of that clock: the zone of the
 * browser, and the days on which its clock changes, do not matter.
 */
const newPicker = (timeZone: string) =>
  DatePicker.generatePicker<Dayjs>({
    ...generateConfig,
    getNow: () => dayjs.utc(wallText(Date.now(), timeZone)),
    getFixedDate: (text) => dayjs.utc(text),
    locale: {
      ...generateConfig.locale,
      getWeekFirstDay: () => 1,
      getWeekFirstDate: (_locale, date) => date.subtract((date.day() + 6) % 7, 'day'),
      getShortWeekDays: () => WEEK.map((day) => shortDays[day]),
      getShortMonths: () => MONTHS,
      parse: (_locale, text, formats) =>
        formats.map((format) => dayjs.utc(text, format, true)).find((moment) => moment.isValid()) ??
        null
    }
  })

type Picker = ReturnType<typeof newPicker>
const pickers = new Map<string, Picker>()

function pickerOn(timeZone: string): Picker {
  const picker = pickers.get(timeZone) ?? newPicker(timeZone)
  pickers.set(timeZone, picker)
  return picker
}

/** Date and time at the site, chosen or typed: `26 Nov 2026, 21:30`. */
export function MomentPicker({
  value,
  timeZone,
  label,
  size = 'middle',
  seconds = false,
  required = false,
  disabled,
  onChange
}: {
  value: number | null
  timeZone: string
  label: string
  size?: 'small' | 'middle'
  seconds?: boolean
  /** There is always a moment: it cannot be cleared. */
  required?: boolean
  disabled?: boolean
  onChange: (value: number | null) => void
}): ReactNode {
  const format = seconds ? SECONDS : MINUTES
  return createElement(pickerOn(timeZone), {
    className: 'moment-picker',
    size,
    'aria-label': label,
    placeholder: words.dateAndTime,
    locale: locale.DatePicker,
    showTime: true,
    // Typed without a comma, or as ISO 8601 has it, it is understood as well.
    format: [format, MINUTES, 'D MMM YYYY HH:mm', 'YYYY-MM-DD HH:mm', 'YYYY-MM-DDTHH:mm'],
    value: value === null ? null : dayjs.utc(wallText(value, timeZone)),
    allowClear: !required,
    disabled,
    onChange: (moment: unknown) =>
      onChange(
        dayjs.isDayjs(moment) ? wallInstant(moment.format('YYYY-MM-DDTHH:mm:ss'), timeZone) : null
      )
  })
}
