import { backup as msg } from '../../core/messages/en/codes/backup.ts'
import { mkdir, readdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { DatabaseAddress } from '../database.ts'
import { backUp } from './backup.ts'

const KEPT = 3

/**
 * Before a newer program changes the database: its tables, into `backups` of the data folder; the
 * newest few are kept.
 */
export async function backUpDatabase(
  folder: string,
  address: DatabaseAddress,
  name: string,
  say: (words: string) => void
): Promise<void> {
  const home = join(folder, 'backups')
  await mkdir(home, { recursive: true, mode: 0o700 })
  const file = join(
    home,
    `before-upgrade-${new Date().toISOString().replace(/[:.]/g, '-')}.wardoptic`
  )
  await backUp(file, { address, name, folder, passphrase: null, databaseOnly: true })
  say(msg.theDatabaseIsBroughtUp(file))
  const old = (await readdir(home))
    .filter((f) => f.startsWith('before-upgrade-') && f.endsWith('.wardoptic'))
    .sort()
    .slice(0, -KEPT)
  for (const name of old) await rm(join(home, name), { force: true })
}
