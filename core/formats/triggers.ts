import type { Trigger } from '../detections/index.ts'

/**
 * A trigger as a JSON line (docs/detections.md, *Files*): kinds without a direction leave it out, and a zone that
 * counts several lists `targets` in place of `target`.
 */
export function triggerLine({ detection, kind, target, targets, frame, time, direction }: Trigger): string {
  return JSON.stringify({ detection, kind, ...(targets ? { targets } : { target }), frame, time, ...(direction && { direction }) })
}
