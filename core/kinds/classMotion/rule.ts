import { allCells } from '../parts.ts'
import { readCells, writeCells } from '../cellsRule.ts'
import type { RuleOf } from '../rule.ts'
import type { ClassMotionDetection } from './schema.ts'

/** Motion by class as a rule of a device’s own. */
export const classMotionRule: RuleOf<ClassMotionDetection> = {
  type: 'wo:ClassMotionDetector',
  blank: { cells: allCells() },
  write: (d, to) => {
    writeCells(d, to)
    return []
  },
  read: readCells
}
