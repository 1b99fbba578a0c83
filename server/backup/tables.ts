import { coded, said } from '../../core/messages/said.ts'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { InputError } from '../../core/errors.ts'

/**
 * The tables of a database as lines of JSON: for each table a line that names its columns and the next number that it
 * gives, then a line for each row. Values are as the database keeps them; bytes are `{"b": base64}`.
 */

interface TableLine {
  table: string
  columns: string[]
  next: number | null
}
/** The last line: how many rows there were in all. */
interface EndLine {
  rows: number
}
type Cell = string | number | null | { b: string }

const ROWS_AT_ONCE = 200
const MAX_STATEMENT = 4 * 2 ** 20

interface Field {
  name: string
  string(): string | null
  buffer(): Buffer | null
}

/** As text, or as bytes: never read as anything else. @param bytes names of the columns that hold bytes */
const asKept =
  (bytes: ReadonlySet<string>) =>
  (field: Field): unknown =>
    bytes.has(field.name) ? field.buffer() : field.string()

async function tablesIn(connection: Connection): Promise<{ name: string; next: number | null }[]> {
  const [rows] = await connection.query<RowDataPacket[]>(
    "SELECT table_name AS name, auto_increment AS next FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' AND table_name <> 'migration' ORDER BY table_name"
  )
  return rows.map(({ name, next }) => ({
    name: String(name),
    next: next === null ? null : Number(next)
  }))
}

/** All tables as they are at one moment, in the transaction of the caller; without those of migrations. */
export async function* dumpTables(connection: Connection): AsyncGenerator<string> {
  let count = 0
  for (const { name, next } of await tablesIn(connection)) {
    const [columns] = await connection.query<RowDataPacket[]>(
      'SELECT column_name AS name, data_type AS type FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position',
      [name]
    )
    const names = columns.map((c) => String(c.name))
    const bytes = new Set(
      columns.filter((c) => /blob|binary|bit/.test(String(c.type))).map((c) => String(c.name))
    )
    yield `${JSON.stringify({ table: name, columns: names, next } satisfies TableLine)}\n`
    const stream = (
      connection as unknown as {
        connection: { query(options: object): { stream(o: object): AsyncIterable<unknown[]> } }
      }
    ).connection
      .query({
        sql: `SELECT ${names.map((n) => `\`${n}\``).join()} FROM \`${name}\``,
        rowsAsArray: true,
        typeCast: asKept(bytes)
      })
      .stream({ highWaterMark: 100 })
    for await (const row of stream) {
      count++
      yield `${JSON.stringify(row.map((value): Cell => (Buffer.isBuffer(value) ? { b: value.toString('base64') } : (value as Cell))))}\n`
    }
  }
  yield `${JSON.stringify({ rows: count } satisfies EndLine)}\n`
}

/** Writes the tables into a database that has them, empty. @throws InputError for what does not fit */
export async function loadTables(
  connection: Connection,
  lines: AsyncIterable<string>
): Promise<void> {
  const known = new Set((await tablesIn(connection)).map(({ name }) => name))
  await connection.query('SET foreign_key_checks = 0')
  let table: TableLine | null = null
  let rows: unknown[][] = []
  let bytes = 0
  let [count, promised] = [0, -1]
  const write = async (): Promise<void> => {
    if (table && rows.length)
      await connection.query(
        `INSERT INTO \`${table.table}\` (${table.columns.map((c) => `\`${c}\``).join()}) VALUES ?`,
        [rows]
      )
    rows = []
    bytes = 0
  }
  const end = async (): Promise<void> => {
    await write()
    if (table?.next)
      await connection.query(
        `ALTER TABLE \`${table.table}\` AUTO_INCREMENT = ${Math.trunc(table.next)}`
      )
  }
  for await (const line of lines) {
    const value = JSON.parse(line) as TableLine | EndLine | Cell[]
    if (!Array.isArray(value) && 'rows' in value) promised = value.rows
    else if (!Array.isArray(value)) {
      await end()
      table = value
      if (!known.has(table.table) || !table.columns.every((c) => /^\w+$/.test(c)))
        throw new InputError(coded('places.backup'), said('backup.hasTheTableWhich', table.table))
      // What migrations or triggers have put in it is in the backup as well.
      await connection.query(`DELETE FROM \`${table.table}\``)
    } else {
      count++
      rows.push(
        value.map((cell) =>
          cell !== null && typeof cell === 'object' ? Buffer.from(cell.b, 'base64') : cell
        )
      )
      bytes += line.length
      if (rows.length >= ROWS_AT_ONCE || bytes > MAX_STATEMENT) await write()
    }
  }
  await end()
  if (count !== promised)
    throw new InputError(
      coded('places.backup'),
      said('backup.hasOfRows', count, Math.max(0, promised))
    )
  await connection.query('SET foreign_key_checks = 1')
}
