import { needOf } from '../../core/detections/index.ts'
import type { Detection, LineDetection, Schedule } from '../../core/formats/plan.ts'

/** A detection in words, for the rail, the inspector and the timeline. */

export const bodyWords = (sensitivity: number): string => {
  const need = Math.round(needOf(sensitivity) * 100)
  const named: Record<number, string> = { 100: 'the whole body', 99: 'the whole body', 75: 'three quarters of the body', 50: 'half the body', 25: 'a quarter of the body', 10: 'a tenth of the body' }
  return named[need] ?? `${need} % of the body`
}

const listed = (words: string[]): string => (words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`)

export const classWords = ({ classes }: Detection): string => (classes.length ? listed(classes) : 'target of any class')

export const sideNames = ({ sides }: LineDetection): { left: string; right: string } => ({ left: sides?.left ?? 'left', right: sides?.right ?? 'right' })

export const directionWords = (line: LineDetection): string => {
  const { left, right } = sideNames(line)
  if (line.direction === 'both') return `${left} ↔ ${right}`
  return line.direction === 'leftToRight' ? `${left} → ${right}` : `${right} → ${left}`
}

/** The direction within the inspector's sentence. */
export const crossingWords = (line: LineDetection): string => {
  const { left, right } = sideNames(line)
  if (line.direction === 'both') return `either way between ${left} and ${right}`
  return line.direction === 'leftToRight' ? `from ${left} to ${right}` : `from ${right} to ${left}`
}

export const sizeWords = ({ size }: Detection): string => {
  const text = (f: { w: number; h: number }): string => `${Math.round(f.w * 1000) / 10} × ${Math.round(f.h * 1000) / 10} %`
  if (size?.min && size.max) return `between ${text(size.min)} and ${text(size.max)} of the picture`
  if (size?.min) return `larger than ${text(size.min)} of the picture`
  if (size?.max) return `at most ${text(size.max)} of the picture`
  return 'of any size'
}

export const scheduleWords = ({ schedule }: Detection, schedules: Schedule[]): string => (schedule ? (schedules.find((s) => s.id === schedule)?.name ?? schedule) : 'always')

export const secondsWords = (seconds: number): string => `${Math.round(seconds * 10) / 10} s`

export const letterOf = (index: number): string => (index < 26 ? String.fromCharCode(65 + index) : `${String.fromCharCode(64 + Math.floor(index / 26))}${String.fromCharCode(65 + (index % 26))}`)

/** `00:12.4` of seconds from the start of a clip. */
export const clipTime = (seconds: number): string => {
  const tenths = Math.floor(seconds * 10 + 1e-6)
  return `${String(Math.floor(tenths / 600)).padStart(2, '0')}:${String(Math.floor((tenths % 600) / 10)).padStart(2, '0')}.${tenths % 10}`
}
