import { causeWords, type Direction, type Trigger } from '../detections/index.ts'
import type { Detection } from '../formats/plan.ts'
import type { TargetClass } from '../targets/classes.ts'

/** A line's direction in the names of its sides, `Water → Land`; null for kinds without one. */
export function directionInWords(detection: Detection, direction: Direction | undefined): string | null {
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
  trigger: Pick<Trigger, 'target' | 'time' | 'direction' | 'cause' | 'severity'>
  cls: TargetClass
  instant: number
}

/** What happened, in the words of the kind. */
function happening(detection: Detection, { target, cause }: TriggerFacts['trigger'], who: string, direction: string | null): string {
  if (direction) return `${who} crossed ${detection.name}, ${direction}`
  if (detection.kind === 'tamper') return `${detection.name}: the camera is ${cause ? causeWords[cause] : 'tampered with'}`
  if (detection.kind === 'signalLoss') return `${detection.name}: no picture`
  if (detection.kind === 'contact') return `${detection.name}: the contact is active`
  if (detection.kind === 'motion') return `${detection.name}: motion`
  return target === undefined ? `${detection.name} was set off` : `${who} set off ${detection.name}`
}

/** The subject and text of the mail that a trigger sends. */
export function emailOf({ site, camera, detection, trigger, cls, instant }: TriggerFacts): { subject: string; text: string } {
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
    ['Moment in the clip', `${trigger.time.toFixed(1)} s`]
  ]
  const what = happening(detection, trigger, who, direction)
  return {
    subject: `${camera}: ${what}`,
    text: `${camera}: ${what}\n\n${lines.flatMap(([name, value]) => (value === null ? [] : `${name}: ${value}`)).join('\n')}\n\nThe picture of the moment is attached.\n`
  }
}
