import type * as v from 'valibot'
import { InputError } from '../errors.ts'
import { said } from '../messages/said.ts'
import { parseWith } from '../schema/parse.ts'

/**
 * Reads a text line by line, whatever ends its lines and whether or not a byte order mark stands before it; empty lines
 * are left out.
 *
 * @param read called with each line, and its place for an error, such as `line 3`
 */
export function eachLine(text: string, read: (line: string, place: string) => void): void {
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .forEach((line, index) => {
      if (line.trim() !== '') read(line, `line ${index + 1}`)
    })
}

/** @throws InputError at the place, with what is wrong */
export function parseJson(text: string, place: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    throw new InputError(place, said('formats.isNotJson', (error as Error).message))
  }
}

/**
 * Reads a JSON value from each line.
 *
 * @param check looks further at a value; an InputError of it names the path within
 * @throws InputError naming the line, the path in it, and what would be right
 */
export function readJsonLines<S extends v.GenericSchema>(
  text: string,
  schema: S,
  check: (value: v.InferOutput<S>) => void = () => {}
): v.InferOutput<S>[] {
  const values: v.InferOutput<S>[] = []
  eachLine(text, (line, place) => {
    const value = parseJson(line, place)
    try {
      const parsed = parseWith(schema, value)
      check(parsed)
      values.push(parsed)
    } catch (error) {
      if (error instanceof InputError) throw new InputError(`${place}, ${error.place}`, error.said)
      throw error
    }
  })
  return values
}
