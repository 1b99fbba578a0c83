import { messages } from '../../messages.ts'

export const measures = messages({
  isColumnsAnd: (columns: number, rows: number) =>
    `is ${columns} × ${rows}; columns and rows must be whole numbers from 1`,
  ofCellsIsFiner: (columns: number, rows: number, width: number, height: number) =>
    `of ${columns} × ${rows} cells is finer than the measured picture of ${width} × ${height} pixels; choose fewer cells`,
  makeThemAnew: (why: string) =>
    `${why}; make them anew with npm run analyse -- CLIP --out FILE --measures FILE`,
  areNotInTheFormat: 'are not in the format wardoptic-measures/1',
  haveNoReadableSecondLine: 'have no readable second line',
  haveTheFiguresNot: (figures: string, value: string) =>
    `have the figures ${figures}, not ${value}`,
  areCutOffOfBytes: (file: number, wanted: number) =>
    `are cut off: ${file} of ${wanted} bytes are there`
})
