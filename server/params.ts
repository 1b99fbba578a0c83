import { InputError } from '../core/errors.ts'

/** The version that a deletion names in its address. @throws InputError for what is none */
export function versionOf(text: string | undefined): number {
  const version = Number(text)
  if (!Number.isInteger(version) || version < 1) throw new InputError('version', 'must be the version that was read, a whole number from 1')
  return version
}
