import { onlyRow } from '../columns.ts'
import { createReadStream, createWriteStream } from 'node:fs'
import { readdir, rename, rm, stat } from 'node:fs/promises'
import { join, relative } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise'
import { pack, type Pack } from 'tar-stream'
import { FILES_LOCK, type DatabaseAddress } from '../database.ts'
import { KEY_FILES } from '../keys.ts'
import { encryptStream } from './sealedStream.ts'
import { dumpTables } from './tables.ts'

export const MANIFEST = 'manifest.json'
export const TABLES = 'tables.jsonl.gz'
/**
 * What of the data folder is kept: what rows name, what the simulators remember, and the keys.
 * Pictures that are painted again, logs and the database's own files are not.
 */
export const FOLDERS = ['clips', 'evidence', 'records', 'mailbox', 'devices', 'tls'] as const
export const SINGLE_FILES: readonly string[] = Object.values(KEY_FILES)

export interface Manifest {
  format: 'wardoptic-backup/1'
  /** Milliseconds of UTC. */
  madeAt: number
  /** Migrations that the database has had. */
  migrations: string[]
  /** Without files: made before an upgrade, which leaves them as they are. */
  databaseOnly: boolean
}

export interface BackupOptions {
  address: DatabaseAddress
  name: string
  /** Of the data. */
  folder: string
  /** Null: whoever has the file can read it. */
  passphrase: string | null
  databaseOnly?: boolean
}

export interface BackupSummary {
  bytes: number
  files: number
}

/**
 * Writes one state of database and files into one file, while the application may be running: the tables as they are at
 * one moment, then the files; none that these rows name is taken away meanwhile. The file appears when it is whole.
 *
 * @throws Error where something cannot be read or written; nothing is left behind then
 */
export async function backUp(
  file: string,
  { address, name, folder, passphrase, databaseOnly = false }: BackupOptions
): Promise<BackupSummary> {
  const connection = await createConnection({
    ...address,
    database: name,
    supportBigNumbers: true,
    bigNumberStrings: true,
    dateStrings: true
  })
  const part = `${file}.part`
  try {
    const [locks] = await connection.query<RowDataPacket[]>('SELECT GET_LOCK(?, 5) AS got', [
      FILES_LOCK(name)
    ])
    if (Number(onlyRow(locks).got) !== 1)
      throw new Error('another backup is being made; wait for it')
    await connection.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ')
    await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT')
    const archive = pack()
    let files = 0
    const filling = (async () => {
      files = await fill(archive, connection, folder, databaseOnly)
      archive.finalize()
    })().catch((error: Error) => archive.destroy(error))
    await pipeline(
      Readable.from(encryptStream(archive as AsyncIterable<Uint8Array>, passphrase)),
      createWriteStream(part, { mode: 0o600 })
    )
    await filling
    await rename(part, file)
    return { bytes: (await stat(file)).size, files }
  } catch (error) {
    await rm(part, { force: true })
    throw error
  } finally {
    connection.destroy()
  }
}

async function fill(
  archive: Pack,
  connection: Connection,
  folder: string,
  databaseOnly: boolean
): Promise<number> {
  const [migrations] = await connection.query<RowDataPacket[]>(
    'SELECT name FROM migration WHERE finished ORDER BY name'
  )
  const manifest: Manifest = {
    format: 'wardoptic-backup/1',
    madeAt: Date.now(),
    migrations: migrations.map((m) => String(m.name)),
    databaseOnly
  }
  archive.entry({ name: MANIFEST }, JSON.stringify(manifest))
  // The size of an entry stands before it: the tables go to a file first.
  const tables = join(folder, `tables-${process.pid}.part`)
  try {
    await pipeline(
      Readable.from(dumpTables(connection)),
      createGzip(),
      createWriteStream(tables, { mode: 0o600 })
    )
    await add(archive, tables, TABLES)
  } finally {
    await rm(tables, { force: true })
  }
  if (databaseOnly) return 0
  let files = 0
  for (const name of SINGLE_FILES)
    if (await add(archive, join(folder, name), `files/${name}`)) files++
  for (const home of FOLDERS) {
    const all = await readdir(join(folder, home), { recursive: true, withFileTypes: true }).catch(
      () => []
    )
    for (const entry of all) {
      const path = join(entry.parentPath, entry.name)
      // What is being written will be made again, or came after the tables.
      if (
        entry.isFile() &&
        !entry.name.includes('.part') &&
        (await add(archive, path, `files/${relative(folder, path)}`))
      )
        files++
    }
  }
  return files
}

/** @returns whether it was there */
async function add(archive: Pack, path: string, name: string): Promise<boolean> {
  const known = await stat(path).catch(() => null)
  if (!known) return false
  const entry = archive.entry({ name, size: known.size, mode: 0o600, mtime: known.mtime })
  // No more than was said, should it grow meanwhile.
  if (known.size === 0) entry.end(Buffer.alloc(0))
  else await pipeline(createReadStream(path, { end: known.size - 1 }), entry)
  return true
}
