import { onlyRow } from './columns.ts'
import { createHash } from 'node:crypto'
import { readFileSync, readdirSync } from 'node:fs'
import type { Connection, RowDataPacket } from 'mysql2/promise'

const FOLDER = new URL('./migrations/', import.meta.url)
/** Two starts over the same database at once: the second one waits for the first. */
const LOCK_SECONDS = 120

/** What MariaDB says where a change of a table has been made already: such a change is whole or was not made at all. */
const MADE_ALREADY = new Set([
  'ER_TABLE_EXISTS_ERROR',
  'ER_DUP_FIELDNAME',
  'ER_DUP_KEYNAME',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_BAD_TABLE_ERROR',
  'ER_FK_DUP_NAME',
  'ER_DUP_CONSTRAINT_NAME',
  'ER_TRG_ALREADY_EXISTS',
  'ER_BAD_FIELD_ERROR'
])

interface Kept extends RowDataPacket {
  name: string
  checksum: string | null
  steps: number
  finished: number
}

/**
 * The statements of a file of SQL, without its comments. None of them may hold others (BEGIN … END).
 *
 * @param sql statements that end with `;`, strings in single quotes, comments after `--`
 */
export function statementsOf(sql: string): string[] {
  const pieces = sql.match(/'(?:[^'\\]|\\.|'')*'|--[^\n]*|;|[^'\-;]+|-/gs) ?? []
  const statements = ['']
  for (const piece of pieces) {
    if (piece === ';') statements.push('')
    else if (!piece.startsWith('--')) statements[statements.length - 1] += piece
  }
  return statements.map((s) => s.trim()).filter(Boolean)
}

const isDataChange = (statement: string): boolean => /^(INSERT|UPDATE|DELETE)\b/i.test(statement)

/**
 * Brings a database up to date: the files of server/migrations in their order, each once. One start at a time; a file
 * that was cut off, however it came, goes on where it was.
 *
 * @param connection in the database
 * @param before called once before anything is changed in a database that holds something already
 * @param files name and content; left out: those of this program
 * @throws Error where the database is of a newer program, or of another one
 */
export async function migrate(
  connection: Connection,
  before: () => Promise<void> = async () => {},
  files: readonly { name: string; sql: string }[] = readFiles()
): Promise<void> {
  const [names] = await connection.query<RowDataPacket[]>('SELECT DATABASE() AS name')
  const lock = `wardoptic-migrations-${String(onlyRow(names).name)}`.slice(0, 64)
  const [locks] = await connection.query<RowDataPacket[]>('SELECT GET_LOCK(?, ?) AS got', [
    lock,
    LOCK_SECONDS
  ])
  if (onlyRow(locks).got !== 1)
    throw new Error(
      'another start is changing the database and does not come to an end; look for it'
    )
  try {
    const [known] = await connection.query<RowDataPacket[]>("SHOW TABLES LIKE 'migration'")
    // A database that somebody else has made may compare texts in another way.
    if (!known.length)
      await connection.query(
        `ALTER DATABASE \`${String(onlyRow(names).name)}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`
      )
    await connection.query(
      'CREATE TABLE IF NOT EXISTS migration (name VARCHAR(100) PRIMARY KEY, applied_at BIGINT NOT NULL)'
    )
    await connection.query(
      'ALTER TABLE migration ADD COLUMN IF NOT EXISTS checksum CHAR(64) NULL, ADD COLUMN IF NOT EXISTS steps INT NOT NULL DEFAULT 0, ADD COLUMN IF NOT EXISTS finished BOOLEAN NOT NULL DEFAULT TRUE'
    )
    const [kept] = await connection.query<Kept[]>(
      'SELECT name, checksum, steps, finished FROM migration ORDER BY name'
    )
    const newer = kept.find((row) => !files.some(({ name }) => name === row.name))
    if (newer)
      throw new Error(
        `the data was used by a newer Wardoptic (${newer.name}); start that one, or restore a backup from before`
      )
    const waiting = files.filter(
      ({ name }) => !kept.some((row) => row.name === name && row.finished)
    )
    if (waiting.length && kept.length) await before()
    for (const file of files)
      await apply(
        connection,
        file,
        kept.find((row) => row.name === file.name)
      )
  } finally {
    await connection.query('SELECT RELEASE_LOCK(?)', [lock])
  }
}

async function apply(
  connection: Connection,
  { name, sql }: { name: string; sql: string },
  kept: Kept | undefined
): Promise<void> {
  const checksum = createHash('sha256').update(sql).digest('hex')
  if (kept?.checksum && kept.checksum !== checksum)
    throw new Error(
      `${name} is not the file with which the database was changed; this is another version of the program`
    )
  if (kept?.finished) {
    if (!kept.checksum)
      await connection.query('UPDATE migration SET checksum = ? WHERE name = ?', [checksum, name])
    return
  }
  if (!kept)
    await connection.query(
      'INSERT INTO migration (name, applied_at, checksum, steps, finished) VALUES (?, ?, ?, 0, FALSE)',
      [name, Date.now(), checksum]
    )
  // Only the statement after the last one that was noted can have been made without being noted.
  const begun = kept?.steps ?? 0
  for (const [i, statement] of statementsOf(sql).entries()) {
    if (i < begun) {
      // What holds for the connection is said again.
      if (/^SET\b/i.test(statement)) await connection.query(statement)
      continue
    }
    if (isDataChange(statement)) await connection.beginTransaction()
    try {
      await connection.query(statement)
    } catch (error) {
      if (!(kept && i === begun && MADE_ALREADY.has((error as { code?: string }).code ?? ''))) {
        await connection.rollback()
        throw new Error(`${name}, statement ${i + 1}: ${(error as Error).message}`, {
          cause: error
        })
      }
    }
    await connection.query('UPDATE migration SET steps = ? WHERE name = ?', [i + 1, name])
    if (isDataChange(statement)) await connection.commit()
  }
  await connection.query('UPDATE migration SET finished = TRUE, applied_at = ? WHERE name = ?', [
    Date.now(),
    name
  ])
}

export function readFiles(): { name: string; sql: string }[] {
  return readdirSync(FOLDER)
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .map((name) => ({ name, sql: readFileSync(new URL(name, FOLDER), 'utf8') }))
}
