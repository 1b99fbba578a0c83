import { readActiveCells, writeActiveCells } from '../formats/onvif/activeCells.ts'
import type { ClassMotionDetection } from './classMotion/schema.ts'
import type { MotionDetection } from './motion/schema.ts'
import type { RuleReader, RuleWriter } from './rule.ts'

type Cells = MotionDetection | ClassMotionDetection

const selectedOf = (cells: readonly string[]): number => cells.join('').replace(/0/g, '').length
/** How many cells a threshold of so many percent is. */
const countOf = (threshold: number, selected: number): number =>
  Math.max(1, Math.ceil((threshold / 100) * selected - 1e-9))

/** Cells, threshold and delays as parameters. A parked detection has an empty area. */
export function writeCells(d: Cells, to: RuleWriter): void {
  to.number('MinCount', 'threshold', countOf(d.threshold, selectedOf(d.cells)), 'cells')
  to.number('AlarmOnDelay', 'onDelay', d.onDelaySeconds * 1000, 'milliseconds')
  to.number('AlarmOffDelay', 'offDelay', d.offDelaySeconds * 1000, 'milliseconds')
  to.set(
    'ActiveCells',
    writeActiveCells(d.parked ? d.cells.map((row) => '0'.repeat(row.length)) : d.cells)
  )
}

/** @throws InputError when the cells cannot be read */
export function readCells(d: Cells, { simple }: RuleReader): Partial<Pick<Cells, CellField>> {
  const cells =
    simple.ActiveCells === undefined
      ? d.cells
      : readActiveCells(simple.ActiveCells, { columns: d.cells[0]!.length, rows: d.cells.length })
  const selected = selectedOf(cells)
  const count = Number(simple.MinCount)
  // A count of cells comes from many thresholds; one that gives the same count stays.
  const moved = count > 0 && selected > 0 && countOf(d.threshold, selected) !== count
  return {
    cells,
    ...(moved && {
      threshold: Math.min(100, Math.max(0.1, Math.round((count / selected) * 1e4) / 100))
    }),
    ...(simple.AlarmOnDelay !== undefined && {
      onDelaySeconds: Number(simple.AlarmOnDelay) / 1000
    }),
    ...(simple.AlarmOffDelay !== undefined && {
      offDelaySeconds: Number(simple.AlarmOffDelay) / 1000
    })
  }
}
type CellField = 'cells' | 'threshold' | 'onDelaySeconds' | 'offDelaySeconds'
