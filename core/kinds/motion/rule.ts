import { allCells } from '../parts.ts'
import { readCells, writeCells } from '../cellsRule.ts'
import type { RuleOf } from '../rule.ts'
import type { MotionDetection } from './schema.ts'

/** Motion as the standard’s cell motion detector. */
export const motionRule: RuleOf<MotionDetection> = {
  type: 'tt:CellMotionDetector',
  blank: { cells: allCells() },
  write: (d, to) => {
    writeCells(d, to)
    return []
  },
  read: readCells
}
