import { directions } from '../../formats/onvif/parameters.ts'
import type { RuleOf } from '../rule.ts'
import { DIRECTIONS, type LineDetection } from './schema.ts'

/** Line crossing as the standard's line detector. */
export const lineRule: RuleOf<LineDetection> = {
  type: 'tt:LineDetector',
  blank: {
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ]
  },
  write: (d, to) => {
    to.set('Direction', directions[d.direction])
    return d.line
  },
  read: (_, { simple, points }) => {
    const direction = DIRECTIONS.find((name) => directions[name] === simple.Direction)
    return {
      ...(points.length && { line: [...points] }),
      ...(direction && { direction })
    }
  }
}
