import { ApiError } from '../apiError.ts'
import { Failure, InputError } from '../errors.ts'
import { fields } from './en/fields.ts'
import type { Said } from './said.ts'
import { wordsOf } from './words.ts'

/** The place and what is said of it; null: an error that nobody made for people. */
function parts(error: unknown): { place: string; said: Said | string } | null {
  if (error instanceof InputError) return error
  if (error instanceof ApiError) return { place: error.view.path ?? '', said: error.view.said }
  if (error instanceof Failure) return { place: '', said: error.said }
  return null
}

/** An error as a command or a log shows it, with the exact place. */
export function errorWords(error: unknown): string {
  const known = parts(error)
  if (!known) return error instanceof Error ? error.message : String(error)
  const words = wordsOf(known.said)
  return known.place ? `${known.place}: ${words}` : words
}

/** What fields are called, by their names in the data. */
export type FieldNames = Readonly<Record<string, string>>

/** What the field at a path is called on screen: the innermost name that has one. */
function fieldWords(place: string, own: FieldNames): string {
  const names = place.match(/[A-Za-z]+/g) ?? []
  const known: FieldNames = { ...fields, ...own }
  const name = names.findLast((one) => Object.hasOwn(known, one))
  return name ? known[name]! : place.replace(/^\$\.?/, '')
}

/**
 * An error as a screen shows it: a whole sentence. What is wrong with a field is said of the field ("must be 1 to 60 s")
 * and follows its name.
 *
 * @param names what the form calls its fields; others have the names of `fields`
 */
export function problemWords(error: unknown, names: FieldNames = {}): string {
  const known = parts(error)
  if (!known) return error instanceof Error ? error.message : String(error)
  return saidOfField(known.said, known.place, names)
}

/** The same of something said. */
export function saidOfField(said: Said | string, place = '', names: FieldNames = {}): string {
  const words = wordsOf(said)
  if (!/^\p{Ll}/u.test(words)) return words
  const field = fieldWords(place, names)
  const text = field ? `${field} ${words}` : words
  // The name of a file stays as it is.
  const begun = field.includes('.') ? text : `${text[0]!.toUpperCase()}${text.slice(1)}`
  return `${begun}${/[.!?…]$/.test(text) ? '' : '.'}`
}
