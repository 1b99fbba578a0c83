import { words as msg } from '../../core/messages/en/kinds/parts.ts'
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
    100: msg.theWholeBody,
    99: msg.theWholeBody,
    75: msg.threeQuartersOfTheBody,
    50: msg.halfTheBody,
    25: msg.aQuarterOfTheBody,
    10: msg.aTenthOfTheBody
  }
  return named[need] ?? msg.ofTheBody(need)
}

export const listed = (words: string[]): string =>
  words.length < 2
    ? (words[0] ?? '')
    : msg.or(words.slice(0, -1).join(', '), words[words.length - 1])

export const classWords = ({ classes }: TargetGated): string =>
  classes.length ? listed(classes) : msg.targetOfAnyClass

export const sizeWords = ({ size }: TargetGated): string => {
  const text = (f: { w: number; h: number }): string =>
    `${Math.round(f.w * 1000) / 10} × ${Math.round(f.h * 1000) / 10} %`
  if (size?.minMetres !== undefined && size.maxMetres !== undefined)
    return msg.toMTall(size.minMetres, size.maxMetres)
  if (size?.minMetres !== undefined) return msg.atLeastMTall(size.minMetres)
  if (size?.maxMetres !== undefined) return msg.atMostMTall(size.maxMetres)
  if (size?.min && size.max) return msg.betweenAndOfThePicture(text(size.min), text(size.max))
  if (size?.min) return msg.largerThanOfThePicture(text(size.min))
  if (size?.max) return msg.atMostOfThePicture(text(size.max))
  return msg.ofAnySize
}

export const atLeastWords = ({ atLeast }: { atLeast: number }): string =>
  atLeast === 1 ? 'A' : msg.together(atLeast)

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
  return selected === all ? msg.theWholePicture : msg.ofCells(selected, all)
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
