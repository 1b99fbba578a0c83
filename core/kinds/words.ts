import { classes as classNames } from '../messages/en/codes/conditions.ts'
import { frameSize, percent, settingSeconds } from '../messages/format.ts'
import type { Direction } from '../detections/types.ts'
import { wordsOf } from '../messages/words.ts'
import { pathOf } from '../actions/email.ts'
import { chips, words as msg } from '../messages/en/kinds/parts.ts'
import { needOf } from '../detections/need.ts'
import type {
  ClassMotionDetection,
  Detection,
  MotionDetection,
  Schedule,
  TargetGated
} from '../formats/plan.ts'
import type { SiteInput } from '../api.ts'

/** A detection in words, for the rail, the inspector and the timeline. */

export const bodyWords = (sensitivity: number): string => {
  const need = Math.round(needOf(sensitivity) * 100)
  const named: Record<number, string> = {
    100: msg.theWholeBody,
    99: msg.theWholeBody,
    75: msg.threeQuarters,
    50: msg.half,
    25: msg.aQuarter,
    10: msg.aTenth
  }
  return named[need] ?? msg.ofTheBody(need / 100)
}

export const classWords = ({ classes }: TargetGated): string =>
  classes.length ? msg.or(classes.map((c) => classNames[c])) : msg.anyTarget
/** The same at the beginning of a sentence: `A person or vehicle`. */
export const whoWords = ({ classes }: TargetGated): string =>
  msg.who(classes.map((c) => classNames[c]))

export const sizeWords = ({ size }: TargetGated): string => {
  const text = (f: { w: number; h: number }): string => frameSize(f.w, f.h)
  if (size?.minMetres !== undefined && size.maxMetres !== undefined)
    return msg.toTall(size.minMetres, size.maxMetres)
  if (size?.minMetres !== undefined) return msg.atLeastTall(size.minMetres)
  if (size?.maxMetres !== undefined) return msg.atMostTall(size.maxMetres)
  if (size?.min && size.max) return msg.between(text(size.min), text(size.max))
  if (size?.min) return msg.largerThan(text(size.min))
  if (size?.max) return msg.atMost(text(size.max))
  return msg.anySize
}

/** The conditions that look at the target, where they are set. */
export const targetConditionWords = (d: TargetGated): string[] => [
  ...(d.confirmSeconds > 0 ? [chips.visibleFor(settingSeconds(d.confirmSeconds))] : []),
  ...(d.size === undefined ? [] : [sizeWords(d)])
]

/** A text with places in braces, `{who} crosses {line}`, each filled. */
export const filledIn = (text: string, parts: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (_, name: string) => parts[name]!)

export const scheduleWords = ({ schedule }: Detection, schedules: readonly Schedule[]): string =>
  schedule ? (schedules.find((s) => s.id === schedule)?.name ?? schedule) : msg.always

export const letterOf = (index: number): string =>
  index < 26
    ? String.fromCharCode(65 + index)
    : `${String.fromCharCode(64 + Math.floor(index / 26))}${String.fromCharCode(65 + (index % 26))}`

/** Which cells motion counts in. */
export const cellWords = ({ cells }: MotionDetection | ClassMotionDetection): string => {
  const all = cells.length * cells[0]!.length
  const selected = [...cells.join('')].filter((c) => c === '1').length
  return selected === all ? msg.wholePicture : msg.ofCells(selected, all)
}

export const percentWords = (ofHundred: number): string => percent(ofHundred / 100)

export const inputName = (inputs: readonly SiteInput[], id: string): string =>
  inputs.find((input) => input.id === id)?.name ?? id

/** A kind in words. */
export interface KindWords<D extends Detection> {
  /** As the trade calls it. */
  name: string
  /** Of a zone: what must happen there. */
  meaning?: string
  /** A detection as one short sentence for the rail: what comes before its name, and what comes after. */
  rail: (d: D, inputs: readonly SiteInput[]) => [before: string, after: string]
  /** What must happen, as the sentence begins. */
  what: (d: D, inputs: readonly SiteInput[]) => string
  /** Conditions of its own that are not at their defaults, in the order of the sentence. */
  conditions?: (d: D) => string[]
  /** A new one: its name, and settings that are sensible to start from. */
  start: { name: string; settings?: (inputs: readonly SiteInput[]) => Partial<D> }
}

/** A line's direction in the names of its sides, `Water → Land`; null for kinds without one. */
export function pathWords(detection: Detection, direction: Direction | undefined): string | null {
  const path = pathOf(detection, direction)
  return path && wordsOf(path)
}
