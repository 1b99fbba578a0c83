import { endpointSettings } from '../../../core/handover/endpointSettings.ts'
import { causesAndEffects, stationList } from '../../../core/handover/tables.ts'
import { recordFiles as files, recordPages as msg } from '../../../core/messages/en/handover.ts'
import { capital } from '../../../core/messages/format.ts'
import type { PageContext } from './context.ts'
import { COLOURS, type Cell } from './sheet.ts'

/** What then: which detection runs which action, how each action is set, and what the station receives. */

/** More columns than this are shown in several tables. */
const MOST_ACTIONS = 14

export function writeEffects(context: PageContext): void {
  const { sheet, record, when } = context
  const { site } = record
  sheet.chapter(msg.whatThen)
  sheet.part(msg.causesAndEffects, 140)
  const { columns, rows } = causesAndEffects(site)
  const actions = columns.length - 2
  if (!actions) sheet.text(msg.noActions, { colour: COLOURS.quiet })
  else sheet.text(msg.key, { colour: COLOURS.quiet, size: 9 })
  for (let from = 0; from < actions; from += MOST_ACTIONS) {
    const shown = Array.from(
      { length: Math.min(MOST_ACTIONS, actions - from) },
      (_, i) => 2 + from + i
    )
    const wide = shown.length > 4
    sheet.table(
      [
        { title: capital(columns[0]!), share: wide ? 3 : 1.6 },
        { title: capital(columns[1]!), share: wide ? 4 : 2 },
        ...shown.map((i) => ({ title: columns[i]!, share: 1 }))
      ],
      rows.map((row) => [
        row[0]!,
        row[1]!,
        ...shown.map((i): Cell =>
          row[i] ? { text: msg.mark, weight: 'bold', colour: COLOURS.accent } : ''
        )
      ]),
      { turned: wide }
    )
  }
  if (site.endpoints.length) {
    sheet.part(msg.outputsAndMessages, 100)
    sheet.table(
      [
        { title: msg.action, share: 1.2 },
        { title: msg.settings, share: 3 },
        { title: msg.tested, share: 1.5 }
      ],
      site.endpoints.map((e): Cell[] => {
        const test = record.endpoints.find(({ id }) => id === e.id)
        const settings = endpointSettings(e, site).map(
          ({ setting, value }) => `${setting}: ${value}`
        )
        return [
          { text: e.name, weight: 'bold' },
          [...settings, ...(test?.missing ? [test.missing] : [])].join('\n'),
          test?.testedAt == null
            ? { text: msg.never, colour: COLOURS.rust }
            : test.error === null
              ? msg.testPassed(when(test.testedAt))
              : { text: msg.testFailed(when(test.testedAt), test.error), colour: COLOURS.rust }
        ]
      })
    )
  }
  sheet.part(msg.stationList, 100)
  const station = stationList(site)
  if (!station.rows.length) {
    sheet.text(msg.noStation, { colour: COLOURS.quiet })
    return
  }
  // The account stands above; the kind is in the sentence of the detection.
  const of = (name: string): number => station.columns.indexOf(name)
  const accounts = [...new Set(station.rows.map((row) => row[of(files.account)]!))]
  sheet.facts([[capital(files.account), accounts.join(', ')]])
  const shown = [
    [files.zone, 0.6],
    [files.code, 0.7],
    [files.camera, 1.1],
    [files.detection, 1.3],
    [files.severity, 0.9],
    [files.schedule, 1.1],
    [files.sentence, 3],
    [files.response, 1.6]
  ] as const
  sheet.table(
    shown.map(([name, share]) => ({ title: capital(name), share })),
    station.rows.map((row) => shown.map(([name]) => row[of(name)]!)),
    { size: 7.5 }
  )
}
