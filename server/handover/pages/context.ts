import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { RecordPicture, Signature, SiteRecord } from '../../../core/handover/record.ts'
import { dateAndTime } from '../../../core/messages/format.ts'
import type { Sheet } from './sheet.ts'

/** What every page of a record is made from. */
export interface PageContext {
  sheet: Sheet
  record: SiteRecord
  digest: string
  /** Of the record's pictures. */
  folder: string
  signatures: readonly Signature[]
  /** An instant by the site's clock. */
  when: (instant: number) => string
  image: (picture: RecordPicture) => Buffer
  cameraName: (id: string | null) => string | null
}

export function contextOf(
  sheet: Sheet,
  record: SiteRecord,
  digest: string,
  folder: string,
  signatures: readonly Signature[]
): PageContext {
  const { site } = record
  return {
    sheet,
    record,
    digest,
    folder,
    signatures,
    when: (instant) => dateAndTime(instant, site.site.timeZone),
    image: ({ file }) => readFileSync(join(folder, file)),
    cameraName: (id) => site.cameras.find((c) => c.id === id)?.name ?? id
  }
}
