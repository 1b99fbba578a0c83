import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'

/** A duration as rules have it, such as PT5S. */
export const duration = (seconds: number): string => `PT${seconds}S`

/** @throws InputError for what is no duration in seconds */
export function secondsOf(text: string): number {
  const m = /^(?:PT)?(\d+(?:\.\d+)?)S?$/.exec(text)
  if (!m)
    throw new InputError(coded('places.duration'), said('formats.isMustBe6', text.slice(0, 20)))
  return Number(m[1])
}
