import { digestGroups } from '../../../core/handover/digest.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import type { PageContext } from './context.ts'
import { COLOURS, type Sheet } from './sheet.ts'

/** The first page: what it is, of which site, and how the site stands, in five lines. */

/** The project's mark, as at the top of the application: an angle of view, and what is seen in it. */
export function drawMark({ doc }: Sheet, x: number, y: number, size: number): void {
  const k = size / 24
  doc
    .save()
    .lineWidth(3.2 * k)
    .lineCap('round')
    .lineJoin('round')
  doc
    .moveTo(x + 3 * k, y + 5 * k)
    .lineTo(x + 12 * k, y + 19 * k)
    .lineTo(x + 21 * k, y + 5 * k)
  doc.stroke(COLOURS.accent)
  doc
    .circle(x + 12 * k, y + 5.5 * k, 2.5 * k)
    .fill(COLOURS.ink)
    .restore()
}

export const titleOf = ({ record }: Pick<PageContext, 'record'>): string =>
  msg.numbered(record.kind === 'handover' ? msg.title : msg.serviceTitle, record.number)

/** The lines of the summary. */
export function summaryOf({ record }: Pick<PageContext, 'record'>): string[] {
  const { site, devices, checks, open, accepted } = record
  const current = checks.filter((c) => c.result?.current)
  return [
    msg.cameras(
      site.cameras.length,
      site.cameras.reduce((sum, c) => sum + c.detections.length, 0)
    ),
    msg.devices(devices.filter((d) => d.trouble === null).length, devices.length),
    msg.proof(current.filter((c) => c.result!.passed).length, current.length, checks.length),
    msg.openPoints(open.filter((o) => o.severity !== 'hint').length),
    msg.accepted(accepted.length)
  ]
}

export function writeCover(context: PageContext): void {
  const { sheet, record, digest, when } = context
  const open = record.open.filter((o) => o.severity !== 'hint').length
  sheet.page()
  sheet.artifact(() => drawMark(sheet, sheet.left - 4, sheet.y - 6, 34))
  sheet.gap(44)
  sheet.text(titleOf(context), { size: 13, colour: COLOURS.accent, weight: 'bold', after: 2 }, 'P')
  sheet.text(record.site.site.name, { size: 30, weight: 'bold', after: 18 }, 'H1')
  sheet.facts([
    [msg.client, record.client || '–'],
    [msg.installer, record.installer || '–'],
    [msg.made, msg.madeBy(when(record.madeAt), record.madeBy)],
    [msg.number, String(record.number)],
    [msg.digest, digestGroups(digest).join(' ')]
  ])
  sheet.gap(8)
  if (open)
    banner(
      sheet,
      record.service
        ? msg.madeWith(open)
        : record.service
          ? msg.madeWith(open)
          : msg.notClean(open),
      COLOURS.rustSoft,
      COLOURS.rust
    )
  else banner(sheet, msg.clean, COLOURS.soft, COLOURS.accent)
  if (record.service) return
  sheet.gap(8)
  sheet.text(msg.summary, { size: 13, weight: 'bold', after: 6 }, 'H2')
  for (const line of summaryOf(context)) sheet.text(line, { size: 10.5, after: 3 })
  if (record.note) sheet.gap(12)
  writeNote(context)
}

export function writeNote({ sheet, record }: Pick<PageContext, 'sheet' | 'record'>): void {
  if (!record.note) return
  sheet.text(msg.note, { size: 13, weight: 'bold', after: 6 }, 'H2')
  sheet.text(record.note, { size: 10 })
}

/** One sentence that nobody overlooks. */
export function banner(sheet: Sheet, text: string, ground: string, colour: string): void {
  const pad = 10
  const style = { size: 10.5, weight: 'bold' as const, colour }
  const height = sheet.heightOf(text, sheet.width - 2 * pad, style) + 2 * pad - 2
  sheet.room(height)
  const { y } = sheet
  sheet.artifact(
    () => void sheet.doc.roundedRect(sheet.left, y, sheet.width, height, 4).fill(ground)
  )
  sheet.marked(
    'P',
    () => void sheet.at(text, sheet.left + pad, y + pad, sheet.width - 2 * pad, style)
  )
  sheet.y += height + 8
}
