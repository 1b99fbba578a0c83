import * as v from 'valibot'
import { selfCrossing, signedArea, type Point } from '../geometry/shapes.ts'
import { USUAL_GRID } from '../measures/measures.ts'
import { CLASSES } from '../targets/classes.ts'

/** The detections of a plan (docs/detections.md): one schema per kind, the schema is the type. */

export const number = (min: number, max: number, unit = '') => {
  const right = `must be a number from ${min} to ${max}${unit}`
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}

export const text = (most: number) => {
  const right = `must be a text of 1 to ${most} characters`
  return v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, right),
    v.maxLength(
      most,
      (issue) => `is ${issue.input.length} characters long; at most ${most} are allowed`
    )
  )
}

export const NAME_MOST = 80
export const name = text(NAME_MOST)
export const id = v.pipe(
  v.string('must be a text'),
  v.regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _')
)

const coordinate = number(0, 1, ' (a share of the picture)')
const pointRight = 'must be a point [x, y]'
export const PointSchema = v.pipe(v.strictTuple([coordinate, coordinate], pointRight), v.readonly())

const samePoint = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]
const repeats = (points: readonly Point[]): number =>
  points.findIndex((p, i) => i > 0 && samePoint(p, points[i - 1]))

const lineRight = 'must be a list of 2 to 10 vertices'
export const LineSchema = v.pipe(
  v.array(PointSchema, lineRight),
  v.minLength(
    2,
    (issue) =>
      `has ${issue.input.length} ${issue.input.length === 1 ? 'vertex' : 'vertices'}; a line needs 2 to 10`
  ),
  v.maxLength(10, (issue) => `has ${issue.input.length} vertices; a line may have 2 to 10`),
  v.check(
    (points) => repeats(points) < 0,
    (issue) =>
      `has no length between vertices ${repeats(issue.input)} and ${repeats(issue.input) + 1}; they must be at different places`
  )
)

const zoneRight = 'must be a list of at least 3 vertices'
export const ZoneSchema = v.pipe(
  v.array(PointSchema, zoneRight),
  v.minLength(3, (issue) => `has ${issue.input.length} vertices; a zone needs at least 3`),
  v.maxLength(40, (issue) => `has ${issue.input.length} vertices; a zone may have at most 40`),
  v.check(
    (points) => selfCrossing(points) === null,
    (issue) => {
      const [a, b] = selfCrossing(issue.input) ?? [0, 0]
      return `crosses itself (edge ${a + 1} meets edge ${b + 1}); its outline must not touch itself`
    }
  ),
  v.check(
    (points) => Math.abs(signedArea(points)) > 1e-9,
    'has no area; its vertices must not lie on one straight line'
  )
)

const frameSchema = v.strictObject({ w: number(0, 1), h: number(0, 1) })

export const bool = v.boolean('must be true or false')
const classes = v.optional(
  v.pipe(
    v.array(
      v.picklist(CLASSES, `must be one of ${CLASSES.join(', ')}`),
      'must be a list of classes'
    ),
    v.check((list) => new Set(list).size === list.length, 'names a class twice')
  ),
  []
)
const sensitivity = v.optional(number(1, 100), 50)

/** What every kind has: who it is, and when it may fire. */
const common = {
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
  armInput: v.optional(v.strictObject({ input: id, inverted: v.optional(bool, false) }))
}

/** The gates that look at a target. */
const targetGates = {
  classes,
  confirmSeconds: v.optional(number(0, 60, ' s'), 0),
  size: v.optional(
    v.strictObject({
      min: v.optional(frameSchema),
      max: v.optional(frameSchema),
      /** Instead of frames, on a measured scene: metres of an upright target's height. */
      minMetres: v.optional(number(0, 20, ' m')),
      maxMetres: v.optional(number(0, 20, ' m'))
    })
  )
}

const gates = { ...common, ...targetGates, sensitivity }

export const DIRECTIONS = ['leftToRight', 'rightToLeft', 'both'] as const

export const LineDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('line'),
  line: LineSchema,
  direction: v.optional(v.picklist(DIRECTIONS, `must be one of ${DIRECTIONS.join(', ')}`), 'both'),
  sides: v.optional(v.strictObject({ left: v.optional(text(40)), right: v.optional(text(40)) }))
})

const dwellSeconds = v.optional(number(0, 3600, ' s'), 0)
const countFirstSeenInside = v.optional(v.boolean('must be true or false'), true)
const atLeast = v.optional(v.pipe(number(1, 100), v.integer('must be a whole number')), 1)

export const IntrusionDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('intrusion'),
  zone: ZoneSchema,
  dwellSeconds,
  countFirstSeenInside,
  atLeast
})

export const EntryDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('entry'),
  zone: ZoneSchema
})
export const ExitDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('exit'),
  zone: ZoneSchema
})

export const LoiteringDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('loitering'),
  zone: ZoneSchema,
  dwellSeconds: number(1, 3600, ' s'),
  graceSeconds: v.optional(number(0, 120, ' s'), 10),
  countFirstSeenInside,
  atLeast
})

const cellsRight = 'must be a list of rows of 0 and 1, all of one length, such as ["011", "001"]'
/** Cells of the picture, row by row from the top: 1 where motion counts. The grid's size is that of the list. */
export const CellsSchema = v.pipe(
  v.array(v.pipe(v.string(cellsRight), v.regex(/^[01]+$/, cellsRight)), cellsRight),
  v.minLength(1, cellsRight),
  v.maxLength(100, 'has more than 100 rows'),
  v.check(
    (rows) => rows.every((row) => row.length === rows[0].length && row.length <= 100),
    cellsRight
  ),
  v.check(
    (rows) => rows.some((row) => row.includes('1')),
    'has no cell selected; motion would never count'
  )
)
/** Every cell of the usual grid. */
export const allCells = (columns = USUAL_GRID.columns, rows = USUAL_GRID.rows): string[] =>
  new Array<string>(rows).fill('1'.repeat(columns))

const motion = {
  ...common,
  sensitivity,
  cells: v.optional(CellsSchema, () => allCells()),
  /** Percent of the selected cells that must be in motion. */
  threshold: v.optional(number(0.1, 100, ' %'), 2),
  onDelaySeconds: v.optional(number(0, 60, ' s'), 0.2),
  offDelaySeconds: v.optional(number(0, 60, ' s'), 1)
}
export const MotionDetectionSchema = v.strictObject({ ...motion, kind: v.literal('motion') })
export const ClassMotionDetectionSchema = v.strictObject({
  ...motion,
  ...targetGates,
  kind: v.literal('classMotion')
})

export const TAMPER_CAUSES = ['covered', 'dark', 'washedOut', 'outOfFocus', 'moved'] as const
/** Steps of severity, from the lowest. */
export const SEVERITIES = ['information', 'minor', 'major', 'critical'] as const
export const TamperDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('tamper'),
  sensitivity,
  causes: v.optional(
    v.pipe(
      v.array(
        v.picklist(TAMPER_CAUSES, `must be one of ${TAMPER_CAUSES.join(', ')}`),
        'must be a list of causes'
      ),
      v.minLength(1, `must name at least one of ${TAMPER_CAUSES.join(', ')}`)
    ),
    () => [...TAMPER_CAUSES]
  ),
  delaySeconds: v.optional(number(0, 600, ' s'), 3),
  severity: v.optional(v.picklist(SEVERITIES, `must be one of ${SEVERITIES.join(', ')}`), 'major')
})

export const SignalLossDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('signalLoss'),
  delaySeconds: v.optional(number(0.5, 600, ' s'), 5)
})

export const ContactDetectionSchema = v.strictObject({
  ...common,
  kind: v.literal('contact'),
  /** The input of the device; set means that its contact is closed. */
  input: id,
  normally: v.optional(v.picklist(['open', 'closed'], 'must be open or closed'), 'open'),
  debounceSeconds: v.optional(number(0, 60, ' s'), 0.1)
})

export const FaceDetectionSchema = v.strictObject({
  ...common,
  ...targetGates,
  kind: v.literal('face'),
  /** The smallest face frame. */
  faceMin: v.optional(frameSchema, () => ({ w: 0.02, h: 0.04 })),
  mask: v.optional(v.picklist(['any', 'with', 'without'], 'must be any, with or without'), 'any'),
  list: v.optional(
    v.picklist(['any', 'listed', 'notListed'], 'must be any, listed or notListed'),
    'any'
  ),
  /** Names of the known faces. */
  faces: v.optional(v.array(text(NAME_MOST), 'must be a list of names'), [])
})

const schemas = [
  LineDetectionSchema,
  IntrusionDetectionSchema,
  EntryDetectionSchema,
  ExitDetectionSchema,
  LoiteringDetectionSchema,
  MotionDetectionSchema,
  ClassMotionDetectionSchema,
  TamperDetectionSchema,
  SignalLossDetectionSchema,
  ContactDetectionSchema,
  FaceDetectionSchema
] as const
/** All kinds, each described by its schema. */
export const DETECTION_KINDS = schemas.map(({ entries }) => entries.kind.literal)
export const DetectionSchema = v.variant(
  'kind',
  schemas,
  `must be one of ${DETECTION_KINDS.join(', ')}`
)

export type Detection = v.InferOutput<typeof DetectionSchema>
export type LineDetection = v.InferOutput<typeof LineDetectionSchema>
export type IntrusionDetection = v.InferOutput<typeof IntrusionDetectionSchema>
export type LoiteringDetection = v.InferOutput<typeof LoiteringDetectionSchema>
export type EntryDetection = v.InferOutput<typeof EntryDetectionSchema>
export type ExitDetection = v.InferOutput<typeof ExitDetectionSchema>
export type DetectionKind = Detection['kind']
export type MotionDetection = v.InferOutput<typeof MotionDetectionSchema>
export type ClassMotionDetection = v.InferOutput<typeof ClassMotionDetectionSchema>
export type TamperDetection = v.InferOutput<typeof TamperDetectionSchema>
export type SignalLossDetection = v.InferOutput<typeof SignalLossDetectionSchema>
export type ContactDetection = v.InferOutput<typeof ContactDetectionSchema>
export type FaceDetection = v.InferOutput<typeof FaceDetectionSchema>
export type TamperCause = (typeof TAMPER_CAUSES)[number]
export type Severity = (typeof SEVERITIES)[number]
/** Detections with gates that look at a target. */
export type TargetGated = Extract<Detection, { classes: unknown }>

export type FrameDetection =
  MotionDetection | ClassMotionDetection | TamperDetection | SignalLossDetection | ContactDetection
const frameKinds: readonly DetectionKind[] = [
  'motion',
  'classMotion',
  'tamper',
  'signalLoss',
  'contact'
]
/** Whether a detection asks for a size in metres, which only a measured scene can tell. */
export const isInMetres = (d: Detection): boolean =>
  'size' in d && (d.size?.minMetres !== undefined || d.size?.maxMetres !== undefined)

/** Whether a detection looks at whole frames, or at an input, rather than at targets one by one. */
export const isFrameKind = (detection: Detection): detection is FrameDetection =>
  frameKinds.includes(detection.kind)
