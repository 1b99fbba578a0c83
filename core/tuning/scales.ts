import type { Detection } from '../formats/plan.ts'
import { LONGEST } from './candidates.ts'

/** A setting that is a number, over its whole range. */
export interface Scale {
  /** As it stands in a plan; of a frame its two sides together, by its height. */
  name: ScaleName
  /** Values to try first, ascending, over the whole range of the setting. */
  coarse: readonly number[]
  /** The smallest step that makes sense. */
  step: number
  get: (d: Detection) => number
  set: (d: Detection, value: number) => Detection
  /** How far apart two values are: about 1 for a change that would be called large. */
  apart: (a: number, b: number) => number
}

export const SCALE_NAMES = [
  'sensitivity',
  'dwellSeconds',
  'graceSeconds',
  'confirmSeconds',
  'holdOffSeconds',
  'atLeast',
  'size.min',
  'size.max',
  'size.minMetres',
  'size.maxMetres'
] as const
export type ScaleName = (typeof SCALE_NAMES)[number]

const FIRST_SECONDS = [
  0, 0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 7, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 75, 90, 120, 150,
  180, 240, 300, 450, 600, 900, 1200, 1800, 2700, 3600
]
const SHORT_SECONDS = [
  0, 0.2, 0.4, 0.6, 0.8, 1, 1.2, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 10, 12, 15, 20, 30, 45, 60
]
const GRACE_SECONDS = [
  0, 0.5, 1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80, 100, 120
]
/** Longer than an hour nobody leaves a detection silent after it has triggered. */
const HOLD_OFF_SECONDS = FIRST_SECONDS
const SENSITIVITIES = [1, ...Array.from({ length: 39 }, (_, i) => Math.round(3.5 + 2.5 * i)), 100]
const SHARES = [0, 0.01, 0.02, 0.03, 0.04, 0.05, 0.06, 0.08, 0.1, 0.12, 0.15, 0.2, 0.25, 0.3, 0.4]
const LARGE_SHARES = [...SHARES.slice(3), 0.5, 0.6, 0.7, 0.8, 0.9, 1]
const METRES = [0, 0.2, 0.4, 0.6, 0.8, 1, 1.2, 1.4, 1.6, 1.8, 2, 2.5, 3, 4, 5, 7, 10, 15, 20]

const logarithmic = (a: number, b: number): number =>
  Math.abs(Math.log((a + 1) / (b + 1))) / Math.log(4)

/** A number of a detection's own fields. */
function field(
  name: ScaleName,
  coarse: readonly number[],
  step: number,
  apart: Scale['apart']
): Scale {
  return {
    name,
    coarse,
    step,
    get: (d) => (d as unknown as Record<string, number>)[name]!,
    set: (d, value) => ({ ...d, [name]: value }),
    apart
  }
}

type Size = NonNullable<Extract<Detection, { classes: unknown }>['size']>
const sizeOf = (d: Detection): Size => ('size' in d && d.size) || {}
/** A limit that says nothing is left out, and so is a size without limits. */
function withSize(d: Detection, change: { [K in keyof Size]?: Size[K] | undefined }): Detection {
  const size = Object.fromEntries(
    Object.entries({ ...sizeOf(d), ...change }).filter(([, limit]) => limit !== undefined)
  )
  return { ...d, size: Object.keys(size).length ? size : undefined } as Detection
}

/** A frame by its height; its width keeps its proportion. Where there is none yet, the height alone decides. */
function frame(name: 'min' | 'max', coarse: readonly number[], none: number): Scale {
  return {
    name: `size.${name}`,
    coarse,
    step: 0.005,
    get: (d) => sizeOf(d)[name]?.h ?? none,
    set: (d, value) => {
      const now = sizeOf(d)[name]
      const w =
        now && now.h > 0 ? Math.min(1, Math.round(((now.w * value) / now.h) * 1e4) / 1e4) : 1
      return withSize(d, { [name]: value === none ? undefined : { w, h: value } })
    },
    apart: (a, b) => Math.abs(a - b) / 0.3
  }
}

function metres(name: 'minMetres' | 'maxMetres', none: number): Scale {
  return {
    name: `size.${name}`,
    coarse: METRES,
    step: 0.05,
    get: (d) => sizeOf(d)[name] ?? none,
    set: (d, value) => withSize(d, { [name]: value === none ? undefined : value }),
    apart: (a, b) => logarithmic(a, b)
  }
}

/**
 * The settings of a detection that are numbers.
 *
 * @param calibrated whether the camera's scene is; only then is anything known in metres
 */
export function scalesOf(d: Detection, calibrated: boolean): Scale[] {
  const scales: Scale[] = []
  if ('sensitivity' in d)
    scales.push(field('sensitivity', SENSITIVITIES, 1, (a, b) => Math.abs(a - b) / 50))
  if ('dwellSeconds' in d) {
    const least = d.kind === 'loitering' ? 1 : 0
    const values = FIRST_SECONDS.filter((s) => s >= least && s <= LONGEST.dwell)
    scales.push(field('dwellSeconds', values, 0.1, logarithmic))
  }
  if ('graceSeconds' in d) scales.push(field('graceSeconds', GRACE_SECONDS, 0.5, logarithmic))
  if ('confirmSeconds' in d) scales.push(field('confirmSeconds', SHORT_SECONDS, 0.1, logarithmic))
  scales.push(field('holdOffSeconds', HOLD_OFF_SECONDS, 1, logarithmic))
  if ('atLeast' in d)
    scales.push(
      field('atLeast', [1, 2, 3, 4, 5, 6, 7, 8, 10, 12, 15, 20], 1, (a, b) => Math.abs(a - b) / 2)
    )
  if ('classes' in d) {
    scales.push(frame('min', SHARES, 0), frame('max', LARGE_SHARES, 1))
    if (calibrated) scales.push(metres('minMetres', 0), metres('maxMetres', 20))
  }
  return scales
}
