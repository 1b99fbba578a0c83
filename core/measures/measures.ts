import { said, type Said } from '../messages/said.ts'
import { InputError } from '../errors.ts'

/** The grid of cells that motion is looked at in; 22 × 18 is the open standard's usual one. */
export interface Grid {
  columns: number
  rows: number
}
export const USUAL_GRID: Grid = { columns: 22, rows: 18 }

/** A cell is in motion when at least this share of its pixels has changed (docs/detections.md, *Motion*). */
export const CELL_SHARE = 0.2

/** What one picture says about the picture as a whole; see docs/measures.md for each. */
export const FIGURES = [
  'luma',
  'contrast',
  'sharpness',
  'structure',
  'shapes',
  'detail',
  'shiftX',
  'shiftY',
  'lumaBefore',
  'contrastBefore',
  'detailBefore',
  'change'
] as const
export type Figure = (typeof FIGURES)[number]

/**
 * The frame measures of a clip as columns; index n − 1 is frame n.
 *
 * `cells` holds for each frame and cell, row by row from the top left, the level that a fifth of the cell's pixels
 * differ from the learned background by at least: so the cell is in motion at a level L exactly when it is above L, for
 * any L, and no sensitivity has to be known when a clip is measured.
 */
export interface Measures extends Grid {
  fps: number
  /** Frames measured. */
  length: number
  /** The picture that was measured, in pixels. */
  width: number
  height: number
  cells: Uint8Array
  figures: Record<Figure, Float32Array>
  /** 1 where a new picture came, 0 where there was none, or the last one again. */
  fresh: Uint8Array
}

/** @throws InputError for a grid that is none, or finer than the picture */
export function checkGrid({ columns, rows }: Grid, width: number, height: number): void {
  if (!Number.isInteger(columns) || !Number.isInteger(rows) || columns < 1 || rows < 1)
    throw new InputError('grid', said('measures.isColumnsAnd', columns, rows))
  if (columns > width || rows > height)
    throw new InputError('grid', said('measures.ofCellsIsFiner', columns, rows, width, height))
}

export function emptyMeasures(
  grid: Grid,
  width: number,
  height: number,
  fps: number,
  length: number
): Measures {
  checkGrid(grid, width, height)
  return {
    ...grid,
    fps,
    length,
    width,
    height,
    cells: new Uint8Array(length * grid.columns * grid.rows),
    figures: Object.fromEntries(
      FIGURES.map((f) => [f, new Float32Array(length)])
    ) as Measures['figures'],
    fresh: new Uint8Array(length)
  }
}

const MAGIC = 'wardoptic-measures/1\n'

/**
 * Measures as a file (docs/measures.md): a first line, a line of JSON with the sizes, then the columns as they are in
 * memory, little-endian: the figures one after the other, `fresh`, `cells`.
 */
export function writeMeasures(m: Measures): Uint8Array {
  const { columns, rows, fps, length, width, height } = m
  let head = `${MAGIC}${JSON.stringify({ columns, rows, fps, length, width, height, figures: FIGURES })}`
  // The columns start at a multiple of four bytes.
  head += `${' '.repeat(3 - (head.length % 4))}\n`
  const parts = [
    new TextEncoder().encode(head),
    ...FIGURES.map((f) => new Uint8Array(m.figures[f].buffer, m.figures[f].byteOffset, 4 * length)),
    m.fresh.subarray(0, length),
    m.cells.subarray(0, length * columns * rows)
  ]
  const file = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    file.set(part, at)
    at += part.length
  }
  return file
}

/** @throws InputError when the file is none of measures, or is cut off */
export function readMeasures(file: Uint8Array): Measures {
  const bad = (why: Said): InputError =>
    new InputError('measures', said('measures.makeThemAnew', why))
  if (new TextDecoder().decode(file.subarray(0, MAGIC.length)) !== MAGIC)
    throw bad(said('measures.areNotInTheFormat'))
  const end = file.indexOf(10, MAGIC.length)
  let head: Grid & { fps: number; length: number; width: number; height: number; figures: string[] }
  try {
    head = JSON.parse(new TextDecoder().decode(file.subarray(MAGIC.length, end))) as typeof head
  } catch {
    throw bad(said('measures.haveNoReadableSecondLine'))
  }
  const { columns, rows, fps, length, width, height } = head
  if (head.figures.join() !== FIGURES.join())
    throw bad(said('measures.haveTheFiguresNot', head.figures.join(', '), FIGURES.join(', ')))
  const wanted = end + 1 + length * (4 * FIGURES.length + 1 + columns * rows)
  if (file.length !== wanted) throw bad(said('measures.areCutOffOfBytes', file.length, wanted))
  checkGrid({ columns, rows }, width, height)
  // Not slice(): a Buffer's does not copy, and its memory may begin elsewhere.
  const columnsAlone = new Uint8Array(file.length - end - 1)
  columnsAlone.set(file.subarray(end + 1))
  const { buffer } = columnsAlone
  const fresh = 4 * FIGURES.length * length
  return {
    columns,
    rows,
    fps,
    length,
    width,
    height,
    figures: Object.fromEntries(
      FIGURES.map((f, i) => [f, new Float32Array(buffer, 4 * i * length, length)])
    ) as Measures['figures'],
    fresh: new Uint8Array(buffer, fresh, length),
    cells: new Uint8Array(buffer, fresh + length)
  }
}
