import { memoized } from '../core/memoized.ts'
import { saidText, type Said } from '../core/messages/said.ts'

/** A value of a column of JSON, which is read as its text. */
export const parsed = <T>(json: unknown): T => JSON.parse(json as string) as T

const parseCached = memoized(JSON.parse, 8 * 2 ** 20)

/** As `parsed`, cached, for what is read often and seldom changes. It is frozen. */
export const parsedOnce = <T>(json: unknown): T => parseCached(json as string) as T

/** The row of a query that always has one, such as a count. @throws TypeError when it has none */
export function onlyRow<T>([row]: readonly T[]): T {
  if (row === undefined) throw new TypeError('a query that always gives a row gave none')
  return row
}

/** As the columns for errors and outcomes keep it. */
export const outcomeText = (of: Said | string): string => saidText(of, 1000)
