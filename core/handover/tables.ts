import { eventCode } from '../formats/dc09.ts'
import type { Endpoint } from '../formats/actions.ts'
import { kindNames, sentenceOf } from '../kinds/names.ts'
import { severityOf } from '../kinds/schemas.ts'
import { severities } from '../messages/en/codes/names.ts'
import { recordFiles as msg } from '../messages/en/handover.ts'
import type { SiteArchive } from '../sites/archive.ts'

/** The tables of a record, as rows of texts: its PDF and the files beside it show the same. */

export interface Table {
  columns: string[]
  rows: string[][]
}

const scheduleName = ({ schedules }: SiteArchive, id: string | undefined): string =>
  id === undefined ? msg.always : (schedules.find((s) => s.id === id)?.name ?? id)

/** Detections in use against actions: which runs which. */
export function causesAndEffects(site: SiteArchive): Table {
  const { endpoints } = site
  return {
    columns: [msg.camera, msg.detection, ...endpoints.map((e) => e.name)],
    rows: site.cameras.flatMap((camera) =>
      camera.detections
        .filter(({ detection }) => detection.enabled)
        .map(({ detection, actions }) => [
          camera.name,
          detection.name,
          ...endpoints.map((e) => (actions.links.includes(e.id) ? msg.linked : ''))
        ])
    )
  }
}

type Station = Extract<Endpoint, { account: string }>

/** What a monitoring station receives, one row for each detection that is linked to it. */
export function stationList(site: SiteArchive): Table {
  const stations = site.endpoints.filter((e): e is Station => 'account' in e)
  const who = [...site.people.people, ...site.people.groups]
  return {
    columns: [
      msg.account,
      msg.zone,
      msg.code,
      msg.camera,
      msg.detection,
      msg.kind,
      msg.severity,
      msg.schedule,
      msg.sentence,
      msg.response
    ],
    rows: stations.flatMap((station) =>
      site.cameras.flatMap((camera, i) =>
        camera.detections
          .filter(
            ({ detection, actions }) => detection.enabled && actions.links.includes(station.id)
          )
          .map(({ detection, actions }) => {
            const names = actions.for.flatMap((id) => who.find((w) => w.id === id)?.name ?? [])
            return [
              station.account,
              // As events name it: the camera's number on the site.
              String(i + 1).padStart(2, '0'),
              eventCode(detection.kind),
              camera.name,
              detection.name,
              kindNames[detection.kind],
              severities[severityOf(detection, actions.severity)],
              scheduleName(site, detection.schedule),
              sentenceOf(detection, site.schedules, site.inputs),
              [
                ...(names.length ? [msg.assigned(names)] : []),
                ...(actions.acknowledge.comment ? [msg.comment] : []),
                ...(actions.acknowledge.confirm ? [msg.confirm] : []),
                ...(detection.note ? [detection.note.text] : [])
              ].join('; ')
            ]
          })
      )
    )
  }
}

/**
 * A table as CSV: commas, CRLF, a mark of UTF-8 at its beginning for spreadsheets. A text that a spreadsheet would take
 * for a formula gets an apostrophe. Source: RFC 4180; the apostrophe: OWASP, CSV Injection (from memory).
 */
export const csvOf = ({ columns, rows }: Table): string =>
  `\uFEFF${[columns, ...rows].map((row) => row.map(cell).join(',')).join('\r\n')}\r\n`

function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}
