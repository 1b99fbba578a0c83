import type { Sql, Value } from './database.ts'

/**
 * Things that several people edit at a time: each has a version, and is written over exactly the one that its editor has
 * seen. A table of them has the columns `version` and `changed_at`; where they can be deleted, `deleted` as well.
 */

type Columns = Readonly<Record<string, Value>>

const equals = (columns: Columns, between: string): string =>
  Object.keys(columns)
    .map((name) => `${name} = ?`)
    .join(between)

/**
 * Writes over exactly the version named; 0 makes a new one.
 *
 * @param values columns by name, never from outside @param first those that only a new one is given
 * @returns whether it was written; false: there is another version, or none
 */
export async function writeVersion(
  sql: Sql,
  table: string,
  key: Columns,
  values: Columns,
  version: number,
  now: number,
  first: Columns = {}
): Promise<boolean> {
  if (version !== 0) {
    const { affectedRows } = await sql.run(
      `UPDATE ${table} SET ${equals(values, ', ')}, version = version + 1, changed_at = ? WHERE ${equals(key, ' AND ')} AND version = ?`,
      [...Object.values(values), now, ...Object.values(key), version]
    )
    return affectedRows === 1
  }
  const all = { ...key, ...values, ...first, version: 1, changed_at: now }
  const { affectedRows } = await sql.run(
    `INSERT IGNORE INTO ${table} (${Object.keys(all).join(', ')}) VALUES (${Object.keys(all)
      .map(() => '?')
      .join(', ')})`,
    Object.values(all)
  )
  return affectedRows === 1
}

/**
 * Deletes exactly the version named; one that is deleted already may be so again, as by a deletion that was undone and done
 * again before it could be saved. Under the next version it can be brought back.
 *
 * @returns whether it was
 */
export async function deleteVersion(
  sql: Sql,
  table: string,
  key: Columns,
  version: number,
  now: number
): Promise<boolean> {
  const { affectedRows } = await sql.run(
    `UPDATE ${table} SET deleted = TRUE, version = version + 1, changed_at = ? WHERE ${equals(key, ' AND ')} AND version = ?`,
    [now, ...Object.values(key), version]
  )
  return affectedRows === 1
}
