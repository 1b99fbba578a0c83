import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'

/** A duration as rules have it, such as PT5S. */
export const duration = (seconds: number): string => `PT${seconds}S`

/**
 * Seconds of a duration in hours, minutes and seconds, such as PT1M30S; null: it is none. A plain number is taken for
 * seconds, as some devices write it. Source: W3C XML Schema 1.1, part 2, `duration` (from memory).
 */
export function secondsIn(text: string): number | null {
  const m =
    /^(?:PT(?=.)(?:(\d{1,6})H)?(?:(\d{1,6})M)?(?:(\d{1,9}(?:\.\d+)?)S)?|(\d{1,9}(?:\.\d+)?))$/.exec(
      text.trim()
    )
  if (!m) return null
  const [hours, minutes, seconds, plain] = m.slice(1).map((part) => Number(part ?? 0))
  return hours! * 3600 + minutes! * 60 + seconds! + plain!
}

/** @throws InputError for what is no duration */
export function secondsOf(text: string): number {
  const seconds = secondsIn(text)
  if (seconds === null)
    throw new InputError(coded('places.duration'), said('formats.isMustBe6', text.slice(0, 20)))
  return seconds
}
