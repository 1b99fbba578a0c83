import type { OpenPoint } from '../../../core/handover/record.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import type { PageContext } from './context.ts'
import { COLOURS, type Cell } from './sheet.ts'

/** What is open, what was accepted on purpose and by whom, and what could not be done. */
export function writeOpenPoints({ sheet, record, when, cameraName }: PageContext): void {
  const { open, accepted, notPossible, devices } = record
  sheet.chapter(msg.open)
  if (!open.length && !accepted.length && !notPossible.length)
    sheet.text(msg.nothingOpen, { colour: COLOURS.quiet })
  const where = (o: OpenPoint): string =>
    cameraName(o.camera) ?? devices.find(({ id }) => id === o.device)?.name ?? ''
  const issues = (title: string, points: readonly OpenPoint[]): void => {
    if (!points.length) return
    sheet.part(title, 80)
    sheet.table(
      [
        { title: msg.severity, share: 1 },
        { title: msg.camera, share: 1.2 },
        { title: msg.finding, share: 4 }
      ],
      points.map((o): Cell[] => [
        {
          text: msg.severities[o.severity],
          colour: o.severity === 'blocking' ? COLOURS.rust : COLOURS.ink,
          weight: o.severity === 'blocking' ? 'bold' : 'regular'
        },
        where(o),
        o.sentence
      ])
    )
  }
  issues(
    msg.openIssues,
    open.filter(({ severity }) => severity !== 'hint')
  )
  if (accepted.length) {
    sheet.part(msg.acceptedDeviations, 80)
    sheet.table(
      [
        { title: msg.finding, share: 3 },
        { title: msg.reason, share: 3 }
      ],
      accepted.map(({ sentence, reason, by, at }) => [
        sentence,
        msg.because(reason, by, at === null ? null : when(at))
      ])
    )
  }
  issues(
    msg.hints,
    open.filter(({ severity }) => severity === 'hint')
  )
  if (notPossible.length) {
    sheet.part(msg.notPossible)
    for (const sentence of notPossible) sheet.text(sentence)
  }
}
