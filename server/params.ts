import { InputError } from '../core/errors.ts'

/** The version that a deletion names in its address. @throws InputError for what is none */
export function versionOf(text: string | undefined): number {
  const version = Number(text)
  if (!Number.isInteger(version) || version < 1) throw new InputError('version', 'must be the version that was read, a whole number from 1')
  return version
}

/**
 * The number that an address names.
 *
 * @param of what it is of, such as `a run`
 * @param place the part of the address that it stands in
 * @throws InputError for what is none
 */
export const numberOf = (text: string | undefined, of: string, place = 'id'): number => {
  if (!/^\d{1,15}$/.test(text ?? '')) throw new InputError(place, `must be the number of ${of}`)
  return Number(text)
}
