import { Failure } from '../errors.ts'
import { fields } from './en/fields.ts'
import { capital } from './format.ts'
import { saidOf, type Said } from './said.ts'
import { wordsOf } from './words.ts'

/** Of an error that nobody made for people: what its maker wrote. */
const ownWords = (error: unknown): string =>
  error instanceof Error ? error.message : String(error)

/** An error as a command or a log shows it, with the exact place. */
export function errorWords(error: unknown): string {
  if (!(error instanceof Failure)) return ownWords(error)
  const words = wordsOf(error.said)
  return error.place ? `${wordsOf(saidOf(error.place))}: ${words}` : words
}

/** What fields are called, by their names in the data. */
export type FieldNames = Readonly<Record<string, string>>

/** What the field at a path is called on screen: the innermost name that has one. */
function fieldWords(place: string, own: FieldNames): string {
  const said = saidOf(place)
  if (typeof said !== 'string') return capital(wordsOf(said))
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
  return error instanceof Failure ? saidOfField(error.said, error.place, names) : ownWords(error)
}

/** The same of something said. */
export function saidOfField(said: Said | string, place = '', names: FieldNames = {}): string {
  const words = wordsOf(said)
  if (!/^\p{Ll}/u.test(words)) return words
  const field = fieldWords(place, names)
  const text = field ? `${field} ${words}` : words
  // The name of a file stays as it is.
  const begun = field.includes('.') ? text : capital(text)
  return `${begun}${/[.!?…]$/.test(text) ? '' : '.'}`
}
