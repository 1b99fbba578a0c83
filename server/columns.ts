import { saidText, type Said } from '../core/messages/said.ts'

/** A value of a column of JSON, which is read as its text. */
export const parsed = <T>(json: unknown): T => JSON.parse(json as string) as T

/** So much of what is read again and again is remembered, in characters of its texts. */
const MAX_REMEMBERED = 8 * 2 ** 20
const remembered = new Map<string, unknown>()
let characters = 0

/**
 * As `parsed`, for what is read again and again and seldom changes. The same text gives the same value: it is parsed once,
 * and comparing it is comparing one reference. It is frozen, as it is everybody's.
 */
export function parsedOnce<T>(json: unknown): T {
  const text = json as string
  let value = remembered.get(text)
  if (value === undefined) {
    value = frozen(JSON.parse(text))
    if (characters + text.length > MAX_REMEMBERED) {
      remembered.clear()
      characters = 0
    }
    remembered.set(text, value)
    characters += text.length
  }
  return value as T
}

function frozen(value: unknown): unknown {
  if (typeof value === 'object' && value !== null) {
    Object.values(value).forEach(frozen)
    Object.freeze(value)
  }
  return value
}

/** The row of a query that always has one, such as a count. @throws TypeError when it has none */
export function onlyRow<T>([row]: readonly T[]): T {
  if (row === undefined) throw new TypeError('a query that always gives a row gave none')
  return row
}

/** As the columns for errors and outcomes keep it. */
export const outcomeText = (of: Said | string): string => saidText(of, 1000)
