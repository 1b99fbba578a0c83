import { coded } from '../messages/said.ts'
import * as v from 'valibot'
import { USUAL_GRID } from '../measures/measures.ts'
import { bool, filled, id, name, noLongerThan, number, oneOf } from '../schema/parts.ts'
import { CLASSES } from '../targets/classes.ts'

/** Parts that the schemas of several kinds share. */

export const FrameSizeSchema = v.strictObject({ w: number(0, 1), h: number(0, 1) })

const classes = v.optional(
  v.pipe(
    v.array(oneOf(CLASSES), coded('kinds.mustBeAListOf')),
    v.check((list) => new Set(list).size === list.length, coded('kinds.namesAClassTwice'))
  ),
  []
)
export const sensitivity = v.optional(number(1, 100), 50)

export const MAX_NOTE = 2000
/** Why a detection is set as it is. By whom and when the server says. */
const note = v.strictObject({
  text: filled(MAX_NOTE),
  by: v.optional(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(80))),
  /** Milliseconds of UTC. */
  at: v.optional(number(0, Number.MAX_SAFE_INTEGER))
})
export type DetectionNote = v.InferOutput<typeof note>

/** What every kind has: who it is, and when it may fire. */
export const common = {
  id,
  name,
  enabled: v.optional(bool, true),
  /**
   * Kept on its device with one minute a day and an empty area, because that device switches the
   * kind on again by itself.
   */
  parked: v.optional(bool),
  holdOffSeconds: v.optional(number(0, 86400, ' s'), 0),
  schedule: v.optional(id),
  /** A contact that must be set (or, inverted, not set) besides the hours. */
  armInput: v.optional(v.strictObject({ input: id, inverted: v.optional(bool, false) })),
  note: v.optional(note)
}

/** The gates that look at a target. */
export const targetGates = {
  classes,
  confirmSeconds: v.optional(number(0, 60, ' s'), 0),
  size: v.optional(
    v.strictObject({
      min: v.optional(FrameSizeSchema),
      max: v.optional(FrameSizeSchema),
      /** Instead of frames, on a calibrated scene: metres of an upright target's height. */
      minMetres: v.optional(number(0, 20, ' m')),
      maxMetres: v.optional(number(0, 20, ' m'))
    })
  )
}

export const gates = { ...common, ...targetGates, sensitivity }

const cellsRight = coded('kinds.mustBeAListOf2')
/** Cells of the picture, row by row from the top: 1 where motion counts. The grid's size is that of the list. */
export const CellsSchema = v.pipe(
  v.array(v.pipe(v.string(cellsRight), v.regex(/^[01]+$/, cellsRight)), cellsRight),
  v.minLength(1, cellsRight),
  v.maxLength(100, coded('kinds.hasMoreThan100Rows')),
  v.check(
    (rows) => rows.every((row) => row.length === rows[0]!.length && row.length <= 100),
    cellsRight
  ),
  v.check((rows) => rows.some((row) => row.includes('1')), coded('kinds.hasNoCellSelectedMotion'))
)
/** Every cell of the usual grid. */
export const allCells = (columns = USUAL_GRID.columns, rows = USUAL_GRID.rows): string[] =>
  new Array<string>(rows).fill('1'.repeat(columns))

/** What both kinds of motion have. */
export const motion = {
  ...common,
  sensitivity,
  cells: v.optional(CellsSchema, () => allCells()),
  /** Percent of the selected cells that must be in motion. */
  threshold: v.optional(number(0.1, 100, '%'), 2),
  onDelaySeconds: v.optional(number(0, 60, ' s'), 0.2),
  offDelaySeconds: v.optional(number(0, 60, ' s'), 1)
}
/** Steps of severity, from the lowest. */
export const SEVERITIES = ['information', 'minor', 'major', 'critical'] as const

export const dwellSeconds = number(0, 3600, ' s')
/** Of a stay in a zone: whether it counts who is first seen in it, and how many must be there together. */
export const countFirstSeenInside = v.optional(bool, true)
export const atLeast = v.optional(
  v.pipe(number(1, 100), v.integer(coded('input.mustBeAWholeNumber'))),
  1
)
export type Severity = (typeof SEVERITIES)[number]
