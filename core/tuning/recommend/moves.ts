import { parseWith } from '../../schema/parse.ts'
import { ZoneSchema, LineSchema } from '../../schema/parts.ts'
import { DetectionSchema, shapeOf, type Detection } from '../../formats/plan.ts'
import { InputError } from '../../errors.ts'
import type { Point } from '../../geometry/shapes.ts'
import { CLASSES, type TargetClass } from '../../targets/classes.ts'
import { quantile } from '../quantile.ts'
import { scalesOf, type Scale } from '../scales.ts'

/** A detection as it might be set, with the ignore areas of its camera. */
export interface State {
  detection: Detection
  ignore: readonly (readonly Point[])[]
}

/** What the marked targets are like; proposals for frames, classes and areas are made from it. */
export interface Seen {
  /** The box of each nuisance's target at its largest and smallest, shares of the picture. */
  nuisances: { cls: TargetClass; w: number; h: number }[]
  wanted: { cls: TargetClass; w: number; h: number }[]
  /** Areas over places where nuisances cluster. */
  areas: readonly (readonly Point[])[]
}

/** How far a shape is moved in one step; with a few steps it stays about where it was drawn. */
export const SHAPE_STEP = 0.02
/** Farther from where it was drawn than this no vertex may end. */
export const SHAPE_REACH = 0.06
const ROUND = 1e4

const rounded = (value: number): number => Math.round(value * ROUND) / ROUND
const movedBy = (shape: readonly Point[], move: (p: Point, i: number) => Point): Point[] =>
  shape.map((p, i) => {
    const [x, y] = move(p, i)
    return [Math.min(1, Math.max(0, rounded(x))), Math.min(1, Math.max(0, rounded(y)))]
  })

function* shapeMoves(d: Detection, original: Detection): Generator<Detection> {
  const [shape, drawn] = [shapeOf(d), shapeOf(original)]
  if (!shape || !drawn || shape.length !== drawn.length) return
  const [cx, cy] = [0, 1].map((k) => shape.reduce((sum, p) => sum + p[k]!, 0) / shape.length)
  const tries: Point[][] = []
  const ways = [
    [SHAPE_STEP, 0],
    [-SHAPE_STEP, 0],
    [0, SHAPE_STEP],
    [0, -SHAPE_STEP]
  ] as const
  for (const [dx, dy] of ways) {
    tries.push(movedBy(shape, ([x, y]) => [x + dx, y + dy]))
    for (let n = 0; n < shape.length && shape.length <= 8; n++)
      tries.push(movedBy(shape, ([x, y], i) => (i === n ? [x + dx, y + dy] : [x, y])))
  }
  for (const by of [0.9, 0.95, 1.05])
    tries.push(movedBy(shape, ([x, y]) => [cx! + (x - cx!) * by, cy! + (y - cy!) * by]))
  for (const to of tries) {
    const tooFar = to.some(
      ([x, y], i) => Math.hypot(x - drawn[i]![0], y - drawn[i]![1]) > SHAPE_REACH
    )
    if (tooFar || to.every(([x, y], i) => x === shape[i]![0] && y === shape[i]![1])) continue
    try {
      if ('line' in d) yield { ...d, line: parseWith(LineSchema, to) }
      else if ('zone' in d) yield { ...d, zone: parseWith(ZoneSchema, to) }
    } catch (error) {
      // A zone that would cross itself is none.
      if (!(error instanceof InputError)) throw error
    }
  }
}

function* classMoves(d: Detection, seen: Seen): Generator<Detection> {
  if (!('classes' in d)) return
  const now = d.classes.length ? d.classes : [...CLASSES]
  const lists = new Map<string, TargetClass[]>()
  const add = (list: readonly TargetClass[]): void => {
    const sorted = CLASSES.filter((c) => list.includes(c))
    if (sorted.length) lists.set(sorted.join(), sorted.length === CLASSES.length ? [] : sorted)
  }
  for (const cls of CLASSES) add(now.includes(cls) ? now.filter((c) => c !== cls) : [...now, cls])
  add(seen.wanted.map(({ cls }) => cls))
  for (const classes of lists.values()) yield { ...d, classes }
}

const FRAME_SHARES = [0.5, 0.75, 0.9, 1]
/** A frame is so much larger, or smaller, than what it shall keep out. */
const CLEAR = 1.02

function* frameMoves(d: Detection, { nuisances, wanted }: Seen): Generator<Detection> {
  if (!('classes' in d)) return
  const side = (of: Seen['wanted'], k: 'w' | 'h', share: number): number =>
    quantile(
      of.map((box) => box[k]),
      share
    )
  const size = d.size ?? {}
  const up = (value: number): number => Math.min(1, Math.ceil(value * CLEAR * ROUND) / ROUND)
  if (nuisances.length)
    for (const share of FRAME_SHARES)
      yield {
        ...d,
        size: {
          ...size,
          min: { w: up(side(nuisances, 'w', share)), h: up(side(nuisances, 'h', share)) }
        }
      }
  if (wanted.length)
    for (const share of FRAME_SHARES)
      yield {
        ...d,
        size: { ...size, max: { w: up(side(wanted, 'w', share)), h: up(side(wanted, 'h', share)) } }
      }
}

/** Every state that differs from one in one thing that is no number. */
export function* neighbours(
  { detection, ignore }: State,
  original: State,
  seen: Seen
): Generator<State> {
  for (const d of classMoves(detection, seen)) yield { detection: d, ignore }
  for (const d of frameMoves(detection, seen)) yield { detection: d, ignore }
  for (const d of shapeMoves(detection, original.detection)) yield { detection: d, ignore }
  for (const area of seen.areas)
    if (!ignore.includes(area)) yield { detection, ignore: [...ignore, area] }
}

/** Whether a plan may hold a detection. */
export function isValid(d: Detection): boolean {
  try {
    parseWith(DetectionSchema, d)
    return true
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return false
  }
}

const moved = (a: Detection, b: Detection): number => {
  const [p, q] = [shapeOf(a) ?? [], shapeOf(b) ?? []]
  return p.reduce((sum, [x, y], i) => sum + (q[i] ? Math.hypot(x - q[i][0], y - q[i][1]) : 1), 0)
}

/** Each setting that changes at all costs this; so that of two that do as much, one change is nearer than two. */
const EACH = 0.1
const CLASS = 0.4
const AREA = 0.3
const SHAPE = 4

/** How far a state is from what is set: 0 is the same. Orders what does equally well. */
export function distance(state: State, original: State, scales: readonly Scale[]): number {
  const [a, b] = [state.detection, original.detection]
  let sum = 0
  for (const scale of scales) {
    const [x, y] = [scale.get(a), scale.get(b)]
    if (x !== y) sum += EACH + scale.apart(x, y)
  }
  if ('classes' in a && 'classes' in b && a.classes.join() !== b.classes.join()) {
    const full = (list: readonly TargetClass[]): readonly TargetClass[] =>
      list.length ? list : CLASSES
    const [p, q] = [full(a.classes), full(b.classes)]
    sum += EACH + CLASS * CLASSES.filter((c) => p.includes(c) !== q.includes(c)).length
  }
  const by = moved(a, b)
  if (by > 0) sum += EACH + SHAPE * by
  return sum + (EACH + AREA) * (state.ignore.length - original.ignore.length)
}

export const scalesFor = (d: Detection, calibrated: boolean): Scale[] =>
  // How many must be together is what somebody asks for; it says nothing of nuisances.
  scalesOf(d, calibrated).filter(({ name }) => name !== 'atLeast')
