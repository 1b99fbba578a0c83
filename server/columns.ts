import { saidText, type Said } from '../core/messages/said.ts'

/** MariaDB keeps JSON as text, and mysql2 parses some of it. */
export const parsed = <T>(json: unknown): T =>
  (typeof json === 'string' ? JSON.parse(json) : json) as T

/** The row of a query that always has one, such as a count. @throws TypeError when it has none */
export function onlyRow<T>([row]: readonly T[]): T {
  if (row === undefined) throw new TypeError('a query that always gives a row gave none')
  return row
}

/** As the columns for errors and outcomes keep it. */
export const outcomeText = (of: Said | string): string => saidText(of, 1000)
