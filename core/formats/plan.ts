import * as v from 'valibot'
import { CLASSES } from '../targets/classes.ts'
import { selfCrossing, signedArea, type Point } from '../geometry/shapes.ts'
import { InputError } from '../errors.ts'
import { isSpanEnd, sameDayOrder } from './spanEnd.ts'

/**
 * The plan (`wardoptic-plan/1`, docs/detections.md): one schema per thing, the schema is the type. What is
 * left out gets its default; what is unknown or out of range is refused with its path.
 */

const number = (min: number, max: number, unit = '') => {
  const right = `must be a number from ${min} to ${max}${unit}`
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}

const text = (most: number) => {
  const right = `must be a text of 1 to ${most} characters`
  return v.pipe(
    v.string(right),
    v.trim(),
    v.minLength(1, right),
    v.maxLength(most, (issue) => `is ${issue.input.length} characters long; at most ${most} are allowed`)
  )
}

export const NAME_MOST = 80
const name = text(NAME_MOST)
const id = v.pipe(v.string('must be a text'), v.regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _'))

const coordinate = number(0, 1, ' (a share of the picture)')
const pointRight = 'must be a point [x, y]'
export const PointSchema = v.pipe(v.strictTuple([coordinate, coordinate], pointRight), v.readonly())

const samePoint = (a: Point, b: Point): boolean => a[0] === b[0] && a[1] === b[1]
const repeats = (points: readonly Point[]): number => points.findIndex((p, i) => i > 0 && samePoint(p, points[i - 1]))

const lineRight = 'must be a list of 2 to 10 vertices'
export const LineSchema = v.pipe(
  v.array(PointSchema, lineRight),
  v.minLength(2, (issue) => `has ${issue.input.length} ${issue.input.length === 1 ? 'vertex' : 'vertices'}; a line needs 2 to 10`),
  v.maxLength(10, (issue) => `has ${issue.input.length} vertices; a line may have 2 to 10`),
  v.check(
    (points) => repeats(points) < 0,
    (issue) => `has no length between vertices ${repeats(issue.input)} and ${repeats(issue.input) + 1}; they must be at different places`
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
  v.check((points) => Math.abs(signedArea(points)) > 1e-9, 'has no area; its vertices must not lie on one straight line')
)

const frameSchema = v.strictObject({ w: number(0, 1), h: number(0, 1) })

const gates = {
  id,
  name,
  enabled: v.optional(v.boolean('must be true or false'), true),
  sensitivity: v.optional(number(1, 100), 50),
  classes: v.optional(
    v.pipe(
      v.array(v.picklist(CLASSES, `must be one of ${CLASSES.join(', ')}`), 'must be a list of classes'),
      v.check((list) => new Set(list).size === list.length, 'names a class twice')
    ),
    []
  ),
  confirmSeconds: v.optional(number(0, 60, ' s'), 0),
  holdOffSeconds: v.optional(number(0, 86400, ' s'), 0),
  size: v.optional(
    v.strictObject({
      min: v.optional(frameSchema),
      max: v.optional(frameSchema),
      /** Instead of frames, on a measured scene: metres of an upright target's height. */
      minMetres: v.optional(number(0, 20, ' m')),
      maxMetres: v.optional(number(0, 20, ' m'))
    })
  ),
  schedule: v.optional(id),
  /** A contact that must be set (or, inverted, not set) besides the hours. */
  armInput: v.optional(v.strictObject({ input: id, inverted: v.optional(v.boolean('must be true or false'), false) }))
}

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

export const EntryDetectionSchema = v.strictObject({ ...gates, kind: v.literal('entry'), zone: ZoneSchema })
export const ExitDetectionSchema = v.strictObject({ ...gates, kind: v.literal('exit'), zone: ZoneSchema })

export const LoiteringDetectionSchema = v.strictObject({
  ...gates,
  kind: v.literal('loitering'),
  zone: ZoneSchema,
  dwellSeconds: number(1, 3600, ' s'),
  graceSeconds: v.optional(number(0, 120, ' s'), 10),
  countFirstSeenInside,
  atLeast
})

const kinds = ['line', 'intrusion', 'entry', 'exit', 'loitering']
export const DetectionSchema = v.variant(
  'kind',
  [LineDetectionSchema, IntrusionDetectionSchema, EntryDetectionSchema, ExitDetectionSchema, LoiteringDetectionSchema],
  `must be one of ${kinds.join(', ')}`
)

const spanEnd = v.pipe(
  v.string('must be a time such as "18:30", "24:00" or "sunset-00:30"'),
  v.check(isSpanEnd, (issue) => `is "${String(issue.input).slice(0, 20)}"; must be a time such as "18:30", "24:00" or "sunset-00:30"`)
)
const span = v.pipe(
  v.strictTuple([spanEnd, spanEnd], 'must be a span ["18:30", "24:00"]'),
  v.check(
    ([from, to]) => sameDayOrder(from, to),
    (issue) => `runs from ${issue.input[0]} to ${issue.input[1]}; its start must come before its end (a span over midnight is two: one to "24:00", one from "00:00" of the next day)`
  ),
  v.readonly()
)
const spans = v.pipe(v.array(span, 'must be a list of spans'), v.maxLength(48, 'has more than 48 spans'))

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const

const isDate = (text: string): boolean => {
  const m = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text)
  if (!m) return false
  const date = new Date(Date.UTC(+m[1], +m[2] - 1, +m[3]))
  return date.toISOString().slice(0, 10) === text
}

export const ScheduleSchema = v.strictObject({
  id,
  name,
  week: v.strictObject({
    mon: v.optional(spans, []),
    tue: v.optional(spans, []),
    wed: v.optional(spans, []),
    thu: v.optional(spans, []),
    fri: v.optional(spans, []),
    sat: v.optional(spans, []),
    sun: v.optional(spans, [])
  }),
  exceptions: v.optional(
    v.array(v.strictObject({ date: v.pipe(v.string(), v.check(isDate, 'must be a date such as "2026-12-25"')), spans })),
    []
  )
})

const timeZone = v.pipe(
  v.string('must be a time zone such as "Europe/London"'),
  v.check((zone) => {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone })
      return true
    } catch {
      return false
    }
  }, 'must be a time zone such as "Europe/London"')
)

/** A measured scene: how the camera hangs and looks (core/scene/camera.ts). */
export const SceneSchema = v.strictObject({
  height: number(0.1, 200, ' m'),
  tilt: number(-30, 90, '°'),
  fieldOfView: number(1, 170, '°'),
  aspect: number(0.1, 10)
})

export const CameraSchema = v.strictObject({
  id,
  name,
  scene: v.optional(SceneSchema),
  ignore: v.optional(v.array(ZoneSchema, 'must be a list of areas'), []),
  detections: v.optional(v.array(DetectionSchema, 'must be a list of detections'), [])
})

export const PlanSchema = v.strictObject({
  format: v.literal('wardoptic-plan/1', 'must be "wardoptic-plan/1"'),
  timeZone,
  position: v.optional(v.strictObject({ latitude: number(-90, 90, '°'), longitude: number(-180, 180, '°') })),
  schedules: v.optional(v.array(ScheduleSchema, 'must be a list of schedules'), []),
  cameras: v.array(CameraSchema, 'must be a list of cameras')
})

export type Plan = v.InferOutput<typeof PlanSchema>
export type Camera = v.InferOutput<typeof CameraSchema>
export type Detection = v.InferOutput<typeof DetectionSchema>
export type LineDetection = v.InferOutput<typeof LineDetectionSchema>
export type IntrusionDetection = v.InferOutput<typeof IntrusionDetectionSchema>
export type LoiteringDetection = v.InferOutput<typeof LoiteringDetectionSchema>
export type EntryDetection = v.InferOutput<typeof EntryDetectionSchema>
export type ExitDetection = v.InferOutput<typeof ExitDetectionSchema>
export type DetectionKind = Detection['kind']
export type Schedule = v.InferOutput<typeof ScheduleSchema>
export type Weekday = (typeof WEEKDAYS)[number]
export type Span = v.InferOutput<typeof span>
export type SitePosition = NonNullable<Plan['position']>

/** Whether any end of a schedule's spans follows the sun; the site's position must be known then. */
export const isTiedToSun = ({ week, exceptions }: Schedule): boolean =>
  [...Object.values(week), ...exceptions.map((e) => e.spans)].flat(2).some((end) => end.startsWith('sun'))

const pathText = (path: v.BaseIssue<unknown>['path']): string =>
  (path ?? []).reduce((sum, { key }) => sum + (typeof key === 'number' ? `[${key}]` : `.${String(key)}`), '$')

const issueText = (issue: v.BaseIssue<unknown>): string => {
  if (issue.type !== 'strict_object') return issue.message
  if (issue.expected === 'never') return 'is not known here; remove it or mend its name'
  return issue.received === 'undefined' ? 'is missing' : 'must be an object'
}

/**
 * Checks a value against one of the schemas above.
 *
 * @throws InputError with the JSON path of the first fault and what would be right
 */
export function parseWith<S extends v.GenericSchema>(schema: S, value: unknown): v.InferOutput<S> {
  const result = v.safeParse(schema, value)
  if (result.success) return result.output
  const issue = result.issues[0]
  throw new InputError(pathText(issue.path), issueText(issue))
}

/** The first thing whose id stands twice in a list, or -1. */
const twice = (list: readonly { id: string }[]): number => list.findIndex((x, i) => list.findIndex((y) => y.id === x.id) < i)

/**
 * Reads a plan from JSON text: the schema, and what holds between its parts (ids are unique, schedules exist,
 * sun-tied ends need the site's position).
 *
 * @throws InputError with the JSON path of the first fault
 */
export function readPlan(json: string): Plan {
  let value: unknown
  try {
    value = JSON.parse(json.replace(/^\uFEFF/, ''))
  } catch (error) {
    throw new InputError('$', `is not JSON (${(error as Error).message})`)
  }
  const plan = parseWith(PlanSchema, value)
  const unique = (list: readonly { id: string }[], path: string): void => {
    const at = twice(list)
    if (at >= 0) throw new InputError(`${path}[${at}].id`, `"${list[at].id}" is used twice; ids must differ`)
  }
  unique(plan.schedules, '$.schedules')
  unique(plan.cameras, '$.cameras')
  plan.cameras.forEach((camera, c) => {
    unique(camera.detections, `$.cameras[${c}].detections`)
    camera.detections.forEach((detection, d) => {
      if (detection.schedule && !plan.schedules.some((s) => s.id === detection.schedule))
        throw new InputError(`$.cameras[${c}].detections[${d}].schedule`, `names "${detection.schedule}", and the plan has no such schedule`)
      if (!camera.scene && (detection.size?.minMetres !== undefined || detection.size?.maxMetres !== undefined))
        throw new InputError(`$.cameras[${c}].detections[${d}].size`, 'is in metres, and the camera has no measured scene; give $.cameras[].scene, or use min and max')
    })
  })
  if (!plan.position && plan.schedules.some(isTiedToSun)) throw new InputError('$.position', 'is missing; spans tied to the sun need it')
  return plan
}
