import { digestOfRecord } from '../../../core/handover/digest.ts'
import type { Signature, SiteRecord } from '../../../core/handover/record.ts'
import type { Paper } from '../../../core/handover/views.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import { contextOf } from './context.ts'
import { titleOf, writeCover } from './cover.ts'
import { writeCameras } from './cameras.ts'
import { writeDevices } from './devices.ts'
import { writeEffects } from './effects.ts'
import { writeHours } from './hours.ts'
import { writeOpenPoints } from './openPoints.ts'
import { writeProof } from './proof.ts'
import { writeService } from './service.ts'
import { writeSignatures } from './signatures.ts'
import { COLOURS, Sheet } from './sheet.ts'

/**
 * A record as PDF. The same record gives the same pages, but for who has signed.
 *
 * @param folder of the record, with its pictures @returns the document
 */
export async function pagesOf(
  record: SiteRecord,
  folder: string,
  paper: Paper,
  signatures: readonly Signature[]
): Promise<Buffer> {
  const digest = digestOfRecord(record)
  const title = titleOf({ record })
  const sheet = new Sheet(paper, {
    title: `${title}, ${record.site.site.name}`,
    author: record.installer || record.madeBy,
    made: new Date(record.madeAt)
  })
  const context = contextOf(sheet, record, digest, folder, signatures)
  writeCover(context)
  if (record.service) {
    writeService(context, record.service)
    writeSignatures(context, false)
  } else {
    writeCameras(context)
    writeHours(context)
    writeEffects(context)
    writeProof(context)
    writeDevices(context)
    writeOpenPoints(context)
    writeSignatures(context)
  }
  return sheet.finish((n, of) => {
    const y = sheet.doc.page.height - 44
    sheet.doc
      .moveTo(sheet.left, y - 6)
      .lineTo(sheet.left + sheet.width, y - 6)
      .lineWidth(0.6)
      .stroke(COLOURS.hairline)
    const style = { size: 7.5, colour: COLOURS.quiet }
    sheet.at(msg.footer(title, record.site.site.name), sheet.left, y, sheet.width - 60, style)
    sheet.at(digest, sheet.left, y + 11, sheet.width - 60, { size: 6.5, colour: COLOURS.quiet })
    const page = msg.page(n, of)
    const width = sheet.fonts.widthOf(sheet.fonts.runs(page, 'regular'), 7.5)
    sheet.at(page, sheet.left + sheet.width - width, y, width + 2, style)
  })
}
