import type { Trigger } from '../detections/index.ts'

/**
 * A trigger as a JSON line (docs/detections.md, *Files*): kinds without a direction leave it out, a zone that counts
 * several lists `targets` in place of `target`, kinds that look at the whole picture name neither, and tamper names its
 * cause and severity.
 */
export function triggerLine({
  detection,
  kind,
  target,
  targets,
  frame,
  time,
  direction,
  cause,
  severity
}: Trigger): string {
  return JSON.stringify({
    detection,
    kind,
    ...(targets ? { targets } : target !== undefined && { target }),
    frame,
    time,
    ...(direction && { direction }),
    ...(cause && { cause }),
    ...(severity && { severity })
  })
}
