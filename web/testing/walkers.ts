import { DetectionSchema, type Detection } from '../../core/formats/plan.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../../core/targets/tracks.ts'

/** People who walk down the picture, each from its top at a second to a height, at a tenth of the height a second. */
export const walkers = (...people: { from: number; to: number }[]): Tracks =>
  tracksFromRows(
    people
      .flatMap(({ from, to }, i) =>
        Array.from({ length: Math.round(to * 100) }, (_, n): TargetRow => ({
          frame: Math.round(from * 10) + n + 1,
          id: i + 1,
          x: 0.1 + 0.2 * i,
          y: n / 100 - 0.2,
          w: 0.1,
          h: 0.2,
          confidence: 1,
          cls: 'person'
        }))
      )
      .sort((a, b) => a.frame - b.frame),
    10
  )

/** A line across the whole picture. */
export const lineAt = (id: string, y: number, more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id,
    name: id.replace(/^./, (c) => c.toUpperCase()),
    kind: 'line',
    line: [
      [0, y],
      [1, y]
    ],
    ...more
  })
