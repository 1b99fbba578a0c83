import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import type { CheckRecord } from '../../../core/handover/record.ts'
import type { PageContext } from './context.ts'
import { COLOURS, type Cell } from './sheet.ts'

/** Proof: of each detection its checks with what came of them, and a picture that shows it. */

const WIDE = 16 / 9

function resultOf({ result }: CheckRecord): Cell {
  if (!result) return { text: msg.notRun, colour: COLOURS.quiet }
  if (!result.current) return { text: msg.outOfDate, colour: COLOURS.saffron }
  return result.passed
    ? { text: msg.passed, colour: COLOURS.accent }
    : { text: msg.failed, colour: COLOURS.rust, weight: 'bold' }
}

const effectsOf = ({ result }: CheckRecord): string =>
  (result?.effects ?? [])
    .map(({ name, after, wrong }) =>
      wrong === null ? msg.effect(name, after) : msg.effectWrong(name, wrong)
    )
    .join(', ')

/** How wide a JPEG is beside its height, from its frame header. Source: ITU-T T.81, B.2.2. */
export function aspectOf(jpeg: Buffer): number {
  for (let i = 2; i + 9 < jpeg.length && jpeg[i] === 0xff;) {
    const marker = jpeg[i + 1]!
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)
    if (isFrame) return jpeg.readUInt16BE(i + 7) / jpeg.readUInt16BE(i + 5)
    i += 2 + jpeg.readUInt16BE(i + 2)
  }
  return WIDE
}

export function writeProof(context: PageContext): void {
  const { sheet, record, when, image } = context
  const { recall, precision, site } = record
  sheet.chapter(msg.proof2)
  if (!record.checks.length) sheet.text(msg.noChecks, { colour: COLOURS.quiet })
  if (recall) sheet.text(msg.recall(recall.count, recall.of, recall.share, recall.low, recall.high))
  if (precision)
    sheet.text(
      msg.precision(precision.count, precision.of, precision.share, precision.low, precision.high)
    )
  for (const camera of site.cameras) {
    const own = record.checks.filter((c) => c.camera === camera.id)
    if (!own.length) continue
    sheet.part(camera.name, 120)
    for (const { detection } of camera.detections) {
      const checks = own.filter((c) => c.detection === detection.id)
      if (!checks.length) continue
      sheet.subheading(detection.name, 60)
      sheet.table(
        [
          { title: msg.check, share: 2.4 },
          { title: msg.expects, share: 0.9 },
          { title: msg.way, share: 0.9 },
          { title: msg.result, share: 0.9 },
          { title: msg.date, share: 1.5 },
          { title: msg.whatThen, share: 1.8 }
        ],
        checks.map((c): Cell[] => [
          c.result && !c.result.passed ? `${c.name}\n${c.result.sentence}` : c.name,
          c.expects === 'trigger' ? msg.trigger : msg.silence,
          msg.ways[c.by],
          resultOf(c),
          c.result ? when(c.result.at) : '',
          effectsOf(c)
        ]),
        { size: 8 }
      )
    }
    const shown = own.flatMap((c) => (c.picture ? { check: c, picture: c.picture } : []))
    sheet.gallery(
      shown.map(({ check, picture }) => {
        const jpeg = image(picture)
        const name = camera.detections.find(({ detection: d }) => d.id === check.detection)
          ?.detection.name
        const caption = `${name ?? check.detection}: ${check.name}`
        return { image: jpeg, aspect: aspectOf(jpeg), alt: msg.evidence(caption), caption }
      })
    )
  }
}
