import { mail } from '../messages/en/codes/happenings.ts'
import { said, type Said } from '../messages/said.ts'
import { wordsOf } from '../messages/words.ts'
import type { Direction, Trigger } from '../detections/index.ts'
import { pathOf as linePath } from '../kinds/line/path.ts'
import type { Detection } from '../formats/plan.ts'
import type { TargetClass } from '../targets/classes.ts'

/** A line's direction in the names of its sides, `Water → Land`; null for kinds without one. */
export const pathOf = (detection: Detection, direction: Direction | undefined): Said | null =>
  detection.kind === 'line' && direction ? linePath(detection, direction) : null

export interface TriggerFacts {
  site: { name: string; timeZone: string }
  camera: string
  detection: Detection
  /** Without a time: it came live. */
  trigger: Pick<Trigger, 'target' | 'direction' | 'cause' | 'severity'> & { time?: number }
  cls: TargetClass
  instant: number
  /** How many are attached. */
  pictures: number
  /** Why some are not. */
  missing: Said | string | null
}

const walkerOf = (cls: TargetClass): Said =>
  cls === 'unknown' ? said('happenings.target') : said(`classes.${cls}`)

/** What happened, as the kind says it. */
export function happening(
  detection: Detection,
  { target, cause, direction }: TriggerFacts['trigger'],
  who: Said = said('happenings.target')
): Said {
  const { kind, name } = detection
  const path = pathOf(detection, direction)
  if (path) return said('happenings.crossed', who, name, path)
  if (kind === 'tamper')
    return said(
      'happenings.tamper',
      name,
      cause ? said(`causes.${cause}`) : said('happenings.tampered')
    )
  if (kind === 'signalLoss') return said('happenings.videoLoss', name)
  if (kind === 'contact') return said('happenings.contact', name)
  if (kind === 'motion') return said('happenings.motion', name)
  return target === undefined
    ? said('happenings.triggered', name)
    : said('happenings.triggeredBy', name, who)
}

/** The subject and text of the mail that a trigger sends: the one place of actions where words are made. */
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
  const path = pathOf(detection, trigger.direction)
  const who = walkerOf(cls)
  const what = wordsOf(said('happenings.at', camera, happening(detection, trigger, who)))
  const lines = [
    mail.site(site.name),
    mail.camera(camera),
    detection.kind === 'line' ? mail.line(detection.name) : mail.detection(detection.name),
    path && mail.direction(wordsOf(path)),
    trigger.severity && mail.severity(wordsOf(said(`severities.${trigger.severity}`))),
    mail.time(instant, site.timeZone),
    trigger.target !== undefined && mail.target(wordsOf(who), trigger.target),
    trigger.time !== undefined && mail.clipTime(trigger.time)
  ].filter(Boolean)
  return {
    subject: what,
    text: `${what}\n\n${lines.join('\n')}\n\n${attached(pictures, missing && wordsOf(missing))}\n`
  }
}

function attached(pictures: number, missing: string | null): string {
  if (!pictures) return missing ? mail.noPictureWhy(missing) : mail.noPicture
  return missing ? mail.somePictures(pictures, missing) : mail.pictures(pictures)
}
