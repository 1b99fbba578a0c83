/** Cells as a motion detection has them: rows of 0 and 1 (docs/detections.md, *Files*). */
export interface Cell {
  column: number
  row: number
}

export interface Brush {
  on: boolean
  shape: 'free' | 'rectangle'
}

const withCells = (
  cells: readonly string[],
  change: (column: number, row: number) => boolean,
  on: boolean
): string[] =>
  cells.map((line, row) =>
    [...line].map((c, column) => (change(column, row) ? (on ? '1' : '0') : c)).join('')
  )

/** Paints all cells on the way from one to another, so that a quick stroke leaves no gaps. */
export function painted(cells: readonly string[], from: Cell, to: Cell, on: boolean): string[] {
  const steps = Math.max(Math.abs(to.column - from.column), Math.abs(to.row - from.row), 1)
  const onTheWay = new Set<string>()
  for (let i = 0; i <= steps; i++)
    onTheWay.add(
      `${Math.round(from.column + ((to.column - from.column) * i) / steps)} ${Math.round(from.row + ((to.row - from.row) * i) / steps)}`
    )
  return withCells(cells, (column, row) => onTheWay.has(`${column} ${row}`), on)
}

/** Sets the rectangle between two cells. */
export function rectangle(cells: readonly string[], a: Cell, b: Cell, on: boolean): string[] {
  const [left, right] = [Math.min(a.column, b.column), Math.max(a.column, b.column)]
  const [top, bottom] = [Math.min(a.row, b.row), Math.max(a.row, b.row)]
  return withCells(
    cells,
    (column, row) => column >= left && column <= right && row >= top && row <= bottom,
    on
  )
}

export const toggled = (cells: readonly string[], { column, row }: Cell): string[] =>
  withCells(cells, (c, r) => c === column && r === row, cells[row]![column] === '0')

export const everyCell = (cells: readonly string[], on: boolean): string[] =>
  withCells(cells, () => true, on)

export const isEmpty = (cells: readonly string[]): boolean =>
  !cells.some((row) => row.includes('1'))
