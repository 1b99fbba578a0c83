import { DetectionSchema, type Detection } from '../../formats/plan.ts'
import { parseWith } from '../../schema/parse.ts'

/** A line across the middle of the picture. */
export const line = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'one',
    name: 'One',
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ],
    ...more
  })
