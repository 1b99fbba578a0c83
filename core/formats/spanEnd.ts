/** One end of an arming span: minutes from local midnight, or an event of the sun and minutes from it. */
export type SpanEnd = { minutes: number } | { sun: 'sunrise' | 'sunset'; offset: number }

const pattern = /^(?:(\d\d):(\d\d)|(sunrise|sunset)(?:([+-])(\d\d):(\d\d))?)$/

/** Reads `18:30`, `24:00`, `sunset-00:30`, `sunrise`; null for anything else. */
export function parseSpanEnd(text: string): SpanEnd | null {
  const m = pattern.exec(text)
  if (!m) return null
  const minutes = (hours: string, rest: string): number => (+rest < 60 ? +hours * 60 + +rest : NaN)
  if (m[3]) {
    const offset = m[4] ? minutes(m[5]!, m[6]!) : 0
    return offset <= 720
      ? { sun: m[3] as 'sunrise' | 'sunset', offset: m[4] === '-' ? -offset : offset }
      : null
  }
  const at = minutes(m[1]!, m[2]!)
  return at <= 1440 ? { minutes: at } : null
}

export const isSpanEnd = (text: string): boolean => parseSpanEnd(text) !== null

/** Whether a span's start comes before its end; only two fixed times can be compared before the day is known. */
export function sameDayOrder(from: string, to: string): boolean {
  const a = parseSpanEnd(from)
  const b = parseSpanEnd(to)
  return !a || !b || !('minutes' in a) || !('minutes' in b) || a.minutes < b.minutes
}
