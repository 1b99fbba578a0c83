import { causeWords, type Direction, type Trigger } from '../detections/index.ts'
import type { Detection } from '../formats/plan.ts'
import type { TargetClass } from '../targets/classes.ts'

/** A line's direction in the names of its sides, `Water → Land`; null for kinds without one. */
export function directionInWords(
  detection: Detection,
  direction: Direction | undefined
): string | null {
  if (detection.kind !== 'line' || !direction) return null
  const { left = 'left', right = 'right' } = detection.sides ?? {}
  return direction === 'leftToRight' ? `${left} → ${right}` : `${right} → ${left}`
}

/** An instant on the site's wall clock, `Tue 24 Nov 2026, 08:12:31 GMT`. */
export function siteTime(instant: number, timeZone: string): string {
  const part = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
    timeZoneName: 'short'
  })
    .formatToParts(instant)
    .reduce<Record<string, string>>((all, { type, value }) => ({ ...all, [type]: value }), {})
  return `${part.weekday} ${part.day} ${part.month} ${part.year}, ${part.hour}:${part.minute}:${part.second} ${part.timeZoneName}`
}

export interface TriggerFacts {
  site: { name: string; timeZone: string }
  camera: string
  detection: Detection
  /** Without a time: it fell live. */
  trigger: Pick<Trigger, 'target' | 'direction' | 'cause' | 'severity'> & { time?: number }
  cls: TargetClass
  instant: number
  /** How many are attached. */
  pictures: number
  /** Why some are not. */
  missing: string | null
}

/** What happened, in the words of the kind. */
export function happening(
  detection: Detection,
  { target, cause, direction: way }: TriggerFacts['trigger'],
  who = 'target'
): string {
  const direction = directionInWords(detection, way)
  if (direction) return `${who} crossed ${detection.name}, ${direction}`
  if (detection.kind === 'tamper')
    return `${detection.name}: the camera is ${cause ? causeWords[cause] : 'tampered with'}`
  if (detection.kind === 'signalLoss') return `${detection.name}: no picture`
  if (detection.kind === 'contact') return `${detection.name}: the contact is active`
  if (detection.kind === 'motion') return `${detection.name}: motion`
  return target === undefined ? `${detection.name} was set off` : `${who} set off ${detection.name}`
}

/** The subject and text of the mail that a trigger sends. */
export function emailOf({
  site,
  camera,
  detection,
  trigger,
  cls,
  instant,
  pictures,
  missing
}: TriggerFacts): { subject: string; text: string } {
  const direction = directionInWords(detection, trigger.direction)
  const time = siteTime(instant, site.timeZone)
  const who = cls === 'unknown' ? 'target' : cls
  const lines: [string, string | null][] = [
    ['Site', site.name],
    ['Camera', camera],
    [detection.kind === 'line' ? 'Line' : 'Detection', detection.name],
    ['Direction', direction],
    ['Severity', trigger.severity ?? null],
    ['Time at the site', time],
    ['Target', trigger.target === undefined ? null : `${who} ${trigger.target}`],
    ['Moment in the clip', trigger.time === undefined ? null : `${trigger.time.toFixed(1)} s`]
  ]
  const what = happening(detection, trigger, who)
  return {
    subject: `${camera}: ${what}`,
    text: `${camera}: ${what}\n\n${lines.flatMap(([name, value]) => (value === null ? [] : `${name}: ${value}`)).join('\n')}\n\n${attached(pictures, missing)}\n`
  }
}

function attached(pictures: number, missing: string | null): string {
  const why = missing ? ` (${missing})` : ''
  if (!pictures) return `There is no picture${why}.`
  return pictures === 1
    ? `The picture of the moment is attached${missing ? `; others are missing${why}` : ''}.`
    : `${pictures} pictures are attached, from before to after the moment${missing ? `; others are missing${why}` : ''}.`
}
