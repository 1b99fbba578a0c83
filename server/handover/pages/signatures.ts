import { digestGroups } from '../../../core/handover/digest.ts'
import type { Signature } from '../../../core/handover/record.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import type { PageContext } from './context.ts'
import { COLOURS, type Sheet } from './sheet.ts'

/** Who signs: for the client, the installer and the station; drawn on the screen, or by hand on the printed page. */

/** The station has no part in a service visit, unless it has signed. */
const ROLES = ['client', 'installer', 'station'] as const
const BOX = { width: 240, height: 80 }

function drawStrokes(
  { doc }: Sheet,
  strokes: NonNullable<Signature['strokes']>,
  x: number,
  y: number
): void {
  doc.save().lineWidth(1.3).lineCap('round').lineJoin('round')
  for (const stroke of strokes) {
    stroke.forEach(([px, py], i) => {
      const [at, down] = [x + px * BOX.width, y + py * BOX.height]
      if (i) doc.lineTo(at, down)
      else doc.moveTo(at, down)
    })
    if (stroke.length === 1)
      doc.lineTo(x + stroke[0]![0] * BOX.width + 0.5, y + stroke[0]![1] * BOX.height)
    doc.stroke(COLOURS.ink)
  }
  doc.restore()
}

export function writeSignatures(
  { sheet, digest, signatures, when }: PageContext,
  chapter = true
): void {
  if (chapter) sheet.chapter(msg.signatures, 430)
  else sheet.part(msg.signatures, 180)
  sheet.text(msg.signedDigest, { after: 2 })
  sheet.text(digestGroups(digest).join(' '), { size: 10, weight: 'bold', after: 12 })
  for (const role of ROLES) {
    const own = signatures.filter((s) => s.role === role)
    if (!chapter && role === 'station' && !own.length) continue
    for (const signature of own.length ? own : [null]) {
      sheet.room(BOX.height + 46)
      const { y } = sheet
      sheet.marked('P', () => {
        sheet.at(msg.roles[role], sheet.left, y, sheet.width, { weight: 'bold' })
        if (signature)
          sheet.at(
            [
              msg.signedAt(signature.name, when(signature.at)),
              ...(signature.digest === digest ? [] : [msg.signedOtherDigest])
            ].join('\n'),
            sheet.left + BOX.width + 16,
            y + 18,
            sheet.width - BOX.width - 16
          )
      })
      sheet.artifact(() => {
        sheet.doc
          .roundedRect(sheet.left, y + 16, BOX.width, BOX.height, 3)
          .lineWidth(0.6)
          .stroke(COLOURS.hairline)
        if (signature?.strokes) drawStrokes(sheet, signature.strokes, sheet.left, y + 16)
      })
      if (!signature) {
        const x = sheet.left + BOX.width + 16
        ;[msg.name, msg.date].forEach((name, i) => {
          const line = y + 50 + i * 34
          sheet.artifact(
            () =>
              void sheet.doc
                .moveTo(x, line)
                .lineTo(sheet.left + sheet.width, line)
                .lineWidth(0.6)
                .stroke(COLOURS.hairline)
          )
          sheet.marked(
            'P',
            () => void sheet.at(name, x, line + 2, 120, { size: 7.5, colour: COLOURS.quiet })
          )
        })
      }
      sheet.y = y + BOX.height + 34
    }
  }
}
