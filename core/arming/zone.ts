const MINUTE = 60_000
const DAY = 24 * 60 * MINUTE
const formats = new Map<string, Intl.DateTimeFormat>()

function formatOf(timeZone: string): Intl.DateTimeFormat {
  let format = formats.get(timeZone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-US', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric'
    })
    formats.set(timeZone, format)
  }
  return format
}

/**
 * Minutes by which the wall clock of a time zone is ahead of UTC at an instant, from the platform's own IANA database
 * (`Intl`). A date library would weigh more in the browser than all of arming; in the tests luxon is the reference.
 *
 * @param timeZone such as `Europe/London` @param instant milliseconds of UTC, after 1970
 * @throws RangeError for what is no time zone
 */
export function offsetAt(timeZone: string, instant: number): number {
  const [month, day, year, hour, minute, second] = formatOf(timeZone)
    .format(instant)
    .match(/\d+/g)!
    .map(Number) as [number, number, number, number, number, number]
  return Math.round((Date.UTC(year, month - 1, day, hour, minute, second) - instant) / MINUTE)
}

/** An instant on the wall clock of a time zone: `2026-11-24T18:30:05`. */
export const wallText = (instant: number, timeZone: string): string =>
  new Date(instant + offsetAt(timeZone, instant) * MINUTE).toISOString().slice(0, 19)

/**
 * The instant of such a text, with or without seconds; null for what is none. A time that comes twice is its first one;
 * one that does not exist is taken by the clock as it was before the change.
 */
export function wallInstant(text: string, timeZone: string): number | null {
  const wall = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d)?/.test(text)
    ? Date.parse(`${text.slice(0, 19)}Z`)
    : NaN
  if (!Number.isFinite(wall)) return null
  const before = offsetAt(timeZone, wall - DAY)
  const found = [before, offsetAt(timeZone, wall + DAY)]
    .map((offset) => wall - offset * MINUTE)
    .filter((t) => t + offsetAt(timeZone, t) * MINUTE === wall)
  return found.length ? Math.min(...found) : wall - before * MINUTE
}
