import { needOf } from '../../core/detections/index.ts'
import type {
  ClassMotionDetection,
  Detection,
  MotionDetection,
  Schedule,
  TargetGated
} from '../../core/formats/plan.ts'
import type { SiteInput } from '../../core/api.ts'

/** A detection in words, for the rail, the inspector and the timeline. */

export const bodyWords = (sensitivity: number): string => {
  const need = Math.round(needOf(sensitivity) * 100)
  const named: Record<number, string> = {
    100: 'the whole body',
    99: 'the whole body',
    75: 'three quarters of the body',
    50: 'half the body',
    25: 'a quarter of the body',
    10: 'a tenth of the body'
  }
  return named[need] ?? `${need} % of the body`
}

export const listed = (words: string[]): string =>
  words.length < 2
    ? (words[0] ?? '')
    : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`

export const classWords = ({ classes }: TargetGated): string =>
  classes.length ? listed(classes) : 'target of any class'

export const sizeWords = ({ size }: TargetGated): string => {
  const text = (f: { w: number; h: number }): string =>
    `${Math.round(f.w * 1000) / 10} × ${Math.round(f.h * 1000) / 10} %`
  if (size?.minMetres !== undefined && size.maxMetres !== undefined)
    return `${size.minMetres} to ${size.maxMetres}\u00a0m tall`
  if (size?.minMetres !== undefined) return `at least ${size.minMetres}\u00a0m tall`
  if (size?.maxMetres !== undefined) return `at most ${size.maxMetres}\u00a0m tall`
  if (size?.min && size.max) return `between ${text(size.min)} and ${text(size.max)} of the picture`
  if (size?.min) return `larger than ${text(size.min)} of the picture`
  if (size?.max) return `at most ${text(size.max)} of the picture`
  return 'of any size'
}

export const atLeastWords = ({ atLeast }: { atLeast: number }): string =>
  atLeast === 1 ? 'A' : `${atLeast} together:`

export const scheduleWords = ({ schedule }: Detection, schedules: Schedule[]): string =>
  schedule ? (schedules.find((s) => s.id === schedule)?.name ?? schedule) : 'always'

export const secondsWords = (seconds: number): string => `${Math.round(seconds * 10) / 10}\u00a0s`

export const letterOf = (index: number): string =>
  index < 26
    ? String.fromCharCode(65 + index)
    : `${String.fromCharCode(64 + Math.floor(index / 26))}${String.fromCharCode(65 + (index % 26))}`

/** `00:12.4` of seconds from the start of a clip. */
export const clipTime = (seconds: number): string => {
  const tenths = Math.floor(seconds * 10 + 1e-6)
  return `${String(Math.floor(tenths / 600)).padStart(2, '0')}:${String(Math.floor((tenths % 600) / 10)).padStart(2, '0')}.${tenths % 10}`
}

/** Which cells motion counts in. */
export const cellWords = ({ cells }: MotionDetection | ClassMotionDetection): string => {
  const all = cells.length * cells[0]!.length
  const selected = [...cells.join('')].filter((c) => c === '1').length
  return selected === all ? 'the whole picture' : `${selected} of ${all} cells`
}

export const percentWords = (percent: number): string => `${Math.round(percent * 10) / 10}\u00a0%`

export const inputName = (inputs: readonly SiteInput[], id: string): string =>
  inputs.find((input) => input.id === id)?.name ?? id

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** A kind in words. */
export interface KindWords<D extends Detection> {
  /** As the trade calls it. */
  name: string
  /** Of a zone: what must happen there. */
  meaning?: string
  /** A detection as one short sentence for the rail: what comes before its name, and what comes after. */
  rail: (d: D, inputs: readonly SiteInput[]) => [before: string, after: string]
  /** A new one: its name, and settings that are sensible to start from. */
  start: { name: string; settings?: (inputs: readonly SiteInput[]) => Partial<D> }
}
