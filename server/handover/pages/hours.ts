import { spansText } from '../../../core/arming/spansText.ts'
import { acceptedGapsOf } from '../../../core/handover/acceptedGaps.ts'
import { WEEKDAYS, type Schedule } from '../../../core/formats/plan.ts'
import { days } from '../../../core/messages/en/codes/arming.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import { dateText } from '../../../core/messages/format.ts'
import { COLOURS, type Sheet } from './sheet.ts'
import type { PageContext } from './context.ts'

/** When: each schedule as a week with its exceptions, and who is armed or acts by it. */

const MINUTES = 24 * 60

/** A time of day in minutes; null: it follows the sun. */
const minutesOf = (end: string): number | null => {
  const m = /^(\d\d):(\d\d)$/.exec(end)
  return m ? Number(m[1]) * 60 + Number(m[2]) : null
}

/** The hours of each weekday as bars. Ends that follow the sun are said in words alone. */
function writeWeek(sheet: Sheet, { week }: Schedule): void {
  const [name, bar, row] = [76, 200, 15]
  sheet.room(7 * row + 20)
  const left = sheet.left + name
  const words = left + bar + 12
  for (const day of WEEKDAYS) {
    const { y } = sheet
    const spans = week[day]
    const text = spans.length ? spansText(spans) : msg.closedDay
    const height = Math.max(
      row,
      sheet.heightOf(text, sheet.left + sheet.width - words, { size: 8.5 }) + 3
    )
    sheet.artifact(() => {
      sheet.doc.rect(left, y + 2, bar, 8).fill(COLOURS.hairline)
      for (const [from, to] of spans) {
        const [a, b] = [minutesOf(from), minutesOf(to)]
        if (a === null || b === null) continue
        sheet.doc
          .rect(left + (a / MINUTES) * bar, y + 2, ((b - a) / MINUTES) * bar, 8)
          .fill(COLOURS.accent)
      }
    })
    sheet.marked('P', () => {
      sheet.at(days[day], sheet.left, y, name, { size: 8.5 })
      sheet.at(text, words, y, sheet.left + sheet.width - words, {
        size: 8.5,
        ...(spans.length ? {} : { colour: COLOURS.quiet })
      })
    })
    sheet.y += height
  }
  sheet.gap(6)
}

function writeGaps({ sheet, record }: PageContext): void {
  const gaps = acceptedGapsOf(record.site)
  if (!gaps.length) return
  sheet.part(msg.acceptedGaps)
  for (const { sentence } of gaps) sheet.text(sentence)
}

export function writeHours(context: PageContext): void {
  const { sheet, record } = context
  const { schedules, cameras, endpoints } = record.site
  sheet.chapter(msg.when)
  if (!schedules.length) sheet.text(msg.noSchedules, { colour: COLOURS.quiet })
  for (const schedule of schedules) {
    sheet.part(schedule.name, 150)
    const users = [
      ...cameras.flatMap((c) =>
        c.detections
          .filter(({ detection }) => detection.schedule === schedule.id)
          .map(({ detection }) => `${detection.name} (${c.name})`)
      ),
      ...endpoints.filter((e) => e.schedule === schedule.id).map((e) => e.name)
    ]
    sheet.text(msg.usedBy(users), { colour: COLOURS.quiet, size: 9 })
    writeWeek(sheet, schedule)
    if (!schedule.exceptions.length) continue
    sheet.subheading(msg.exceptions)
    sheet.table(
      [
        { title: msg.day, share: 1 },
        { title: msg.name, share: 1.4 },
        { title: msg.hours, share: 2 }
      ],
      schedule.exceptions.map(({ date, name, spans }) => [
        dateText(date),
        name ?? '',
        spans.length ? spansText(spans) : msg.closedDay
      ])
    )
  }
  writeGaps(context)
}
