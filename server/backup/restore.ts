import { coded, said } from '../../core/messages/said.ts'
import { onlyRow } from '../columns.ts'
import { createReadStream, createWriteStream } from 'node:fs'
import { chmod, mkdir, readdir, rename, rm } from 'node:fs/promises'
import { dirname, join, normalize, sep } from 'node:path'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip } from 'node:zlib'
import { createConnection, type RowDataPacket } from 'mysql2/promise'
import { extract, type Header } from 'tar-stream'
import { InputError } from '../../core/errors.ts'
import type { DatabaseAddress } from '../database.ts'
import { DATABASE_NAME } from '../launch/installation.ts'
import type { DatabaseChoice } from '../launch/databaseUrl.ts'
import { startMariaDb } from '../launch/mariadb.ts'
import { migrate, readFiles } from '../migrations.ts'
import { FOLDERS, MANIFEST, SINGLE_FILES, TABLES, type Manifest } from './backup.ts'
import { decryptStream } from './sealedStream.ts'
import { loadTables } from './tables.ts'

type Entry = Readable & { header: Header }

const HELD = 'restored-tables.part'

/**
 * Makes a data folder of a backup. The folder appears when all of it is there; the database of one's own must be empty.
 *
 * @param passphrase asked for where the backup was sealed
 * @param choice a database of one's own; null: one in the folder
 * @throws InputError for what is no backup, or is damaged; the folder is as before then
 */
export async function restore(
  file: string,
  folder: string,
  passphrase: () => Promise<string>,
  choice: DatabaseChoice | null = null
): Promise<Manifest> {
  if ((await readdir(folder).catch(() => [])).length)
    throw new InputError('--data', said('backup.isNotEmptyGive', folder))
  const part = `${folder}.restoring`
  await rm(part, { recursive: true, force: true })
  await mkdir(part, { recursive: true, mode: 0o700 })
  try {
    const manifest = await unpack(file, part, passphrase)
    if (choice) await fillDatabase(choice.address, choice.name, join(part, HELD), manifest)
    else {
      const { address, stop } = await startMariaDb(part)
      try {
        await fillDatabase(address, DATABASE_NAME, join(part, HELD), manifest)
      } finally {
        await stop()
      }
    }
    await rm(join(part, HELD), { force: true })
    await rm(folder, { recursive: true, force: true })
    await rename(part, folder)
    return manifest
  } catch (error) {
    await rm(part, { recursive: true, force: true })
    throw error
  }
}

/** Files to their places, the tables beside them. */
async function unpack(
  file: string,
  folder: string,
  passphrase: () => Promise<string>
): Promise<Manifest> {
  let manifest: Manifest | null = null
  let hasTables = false
  const archive = extract()
  const reading = pipeline(
    Readable.from(decryptStream(createReadStream(file), passphrase)),
    archive
  )
  // The loop reports errors from below as well.
  reading.catch(() => {})
  for await (const entry of archive as AsyncIterable<Entry>) {
    const { name } = entry.header
    if (name === MANIFEST) manifest = readManifest(await textOf(entry))
    else if (name === TABLES) {
      await pipeline(entry, createGunzip(), createWriteStream(join(folder, HELD), { mode: 0o600 }))
      hasTables = true
    } else {
      const path = placeOf(name, folder)
      await mkdir(dirname(path), { recursive: true })
      await pipeline(entry, createWriteStream(path))
      if (/\.key$|key\.pem$/.test(name)) await chmod(path, 0o600)
    }
  }
  await reading
  if (!manifest || !hasTables)
    throw new InputError(coded('places.backup'), said('backup.holdsNoDatabase'))
  return manifest
}

/** Only what a backup holds, and only below the folder. */
function placeOf(name: string, folder: string): string {
  const path = normalize(name)
  const inner = path.replace(/^files[/\\]/, '')
  const known =
    SINGLE_FILES.includes(inner) || FOLDERS.some((home) => inner.startsWith(`${home}${sep}`))
  if (inner === path || path.split(sep).includes('..') || !known)
    throw new InputError(coded('places.backup'), said('backup.holdsWhichIs', name.slice(0, 80)))
  return join(folder, inner)
}

async function textOf(entry: Entry): Promise<string> {
  const parts: Buffer[] = []
  for await (const part of entry) parts.push(part as Buffer)
  return Buffer.concat(parts).toString('utf8')
}

function readManifest(text: string): Manifest {
  const manifest = JSON.parse(text) as Manifest
  const known = readFiles().map(({ name }) => name)
  const newer = manifest.migrations.find((name) => !known.includes(name))
  if (newer) throw new InputError(coded('places.backup'), said('backup.wasMadeByANewer', newer))
  return manifest
}

/** Made when the first line is asked for: what is read before anybody listens is lost. */
async function* linesOf(file: string): AsyncGenerator<string> {
  yield* createInterface({ input: createReadStream(file), crlfDelay: Infinity })
}

async function fillDatabase(
  address: DatabaseAddress,
  name: string,
  tables: string,
  { migrations }: Manifest
): Promise<void> {
  const connection = await createConnection(address)
  try {
    await connection.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4`)
    await connection.query(`USE \`${name}\``)
    const [counted] = await connection.query<RowDataPacket[]>(
      'SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = DATABASE()'
    )
    if (onlyRow(counted).n)
      throw new InputError('--database', said('backup.theDatabaseIsNotEmpty', name))
    // The form that it had when it was saved; what came later follows.
    const files = readFiles()
    await migrate(
      connection,
      undefined,
      files.filter((f) => migrations.includes(f.name))
    )
    await loadTables(connection, linesOf(tables))
    await migrate(connection, undefined, files)
  } finally {
    await connection.end()
  }
}
