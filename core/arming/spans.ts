import { parseSpanEnd, type SpanEnd } from '../formats/spanEnd.ts'
import { WEEKDAYS, type Schedule, type Span, type Weekday } from '../formats/plan.ts'

/** Minutes of a day. */
export const DAY_MINUTES = 1440

/** Writes minutes from midnight as `18:30`. */
export const clockText = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

/** Writes a span's end: `18:30`, `sunset-00:30`, `sunrise`. */
export function endText(end: SpanEnd): string {
  if ('minutes' in end) return clockText(end.minutes)
  return end.offset === 0
    ? end.sun
    : `${end.sun}${end.offset < 0 ? '-' : '+'}${clockText(Math.abs(end.offset))}`
}

/** The minutes of an end that is a fixed time; null: it follows the sun. */
export const fixedMinutes = (text: string): number | null => {
  const end = parseSpanEnd(text)
  return end && 'minutes' in end ? end.minutes : null
}

const isFixed = ([from, to]: Span): boolean =>
  fixedMinutes(from) !== null && fixedMinutes(to) !== null

/** A day's spans in order, those with fixed times made one where they touch or overlap. */
export function tidy(spans: readonly Span[]): Span[] {
  const fixed = spans
    .filter(isFixed)
    .map(([a, b]) => [fixedMinutes(a)!, fixedMinutes(b)!] as [number, number])
    .filter(([a, b]) => a < b)
    .sort((x, y) => x[0] - y[0])
  const merged: [number, number][] = []
  for (const [a, b] of fixed) {
    const last = merged[merged.length - 1]
    if (last && a <= last[1]) last[1] = Math.max(last[1], b)
    else merged.push([a, b])
  }
  return [
    ...merged.map(([a, b]): Span => [clockText(a), clockText(b)]),
    ...spans.filter((s) => !isFixed(s))
  ]
}

/** Adds a span to a day. @param from, to minutes from midnight, in either order */
export const added = (spans: readonly Span[], from: number, to: number): Span[] =>
  tidy([...spans, [clockText(Math.min(from, to)), clockText(Math.max(from, to))]])

/** Takes a stretch out of a day's spans with fixed times. */
export function cleared(spans: readonly Span[], from: number, to: number): Span[] {
  return tidy(
    spans.flatMap((span): Span[] => {
      if (!isFixed(span)) return [span]
      const [a, b] = [fixedMinutes(span[0])!, fixedMinutes(span[1])!]
      const parts: Span[] = []
      if (a < from) parts.push([clockText(a), clockText(Math.min(b, from))])
      if (b > to) parts.push([clockText(Math.max(a, to)), clockText(b)])
      return parts
    })
  )
}

/**
 * Moves one end of a span, or both, by minutes, as far as the day and its other end allow. Ends
 * tied to the sun move by their offset.
 */
export function moved([from, to]: Span, by: number, what: 'from' | 'to' | 'both'): Span {
  const [a, b] = [parseSpanEnd(from)!, parseSpanEnd(to)!]
  const shift = (end: SpanEnd, least: number, most: number): SpanEnd =>
    'minutes' in end
      ? { minutes: Math.min(most, Math.max(least, end.minutes + by)) }
      : { ...end, offset: Math.min(720, Math.max(-720, end.offset + by)) }
  if (what === 'from')
    return [endText(shift(a, 0, 'minutes' in b ? b.minutes - 1 : DAY_MINUTES - 1)), to]
  if (what === 'to')
    return [from, endText(shift(b, 'minutes' in a ? a.minutes + 1 : 1, DAY_MINUTES))]
  if ('minutes' in a && 'minutes' in b) {
    const real = Math.min(DAY_MINUTES - b.minutes, Math.max(-a.minutes, by))
    return [clockText(a.minutes + real), clockText(b.minutes + real)]
  }
  return [endText(shift(a, 0, DAY_MINUTES)), endText(shift(b, 0, DAY_MINUTES))]
}

/** A week in which some days are as another one. */
export const copied = (
  week: Schedule['week'],
  from: Weekday,
  to: readonly Weekday[]
): Schedule['week'] =>
  Object.fromEntries(
    WEEKDAYS.map((day) => [day, to.includes(day) ? week[from] : week[day]])
  ) as Schedule['week']

/** A schedule in which a date has an exception, or (null) none any more. */
export function withException(
  schedule: Schedule,
  date: string,
  exception: { name?: string; spans: Span[] } | null
): Schedule {
  const others = schedule.exceptions.filter((e) => e.date !== date)
  const exceptions = exception
    ? [
        ...others,
        { date, ...(exception.name && { name: exception.name }), spans: tidy(exception.spans) }
      ]
    : others
  return { ...schedule, exceptions: exceptions.sort((a, b) => (a.date < b.date ? -1 : 1)) }
}
