import { said } from '../../core/messages/said.ts'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { UsageError } from '../../core/cli/options.ts'
import type { DatabaseAddress } from '../database.ts'
import type { DatabaseChoice } from './databaseUrl.ts'
import { SECRET_FILE, startMariaDb } from './mariadb.ts'
import { whoRuns } from './running.ts'

export const DATABASE_NAME = 'wardoptic'

/** The database of a data folder, for a command beside the application. */
export interface Installation {
  address: DatabaseAddress
  name: string
  /** The application runs over it now. */
  running: boolean
  stop: () => Promise<void>
}

/**
 * Reaches the database of a data folder: the one that the application has started, or one that is started for the
 * command alone.
 *
 * @param choice a database of one's own; null: the one in the folder
 * @throws UsageError where there is no data
 */
export async function openInstallation(
  folder: string,
  choice: DatabaseChoice | null
): Promise<Installation> {
  const running = whoRuns(folder)
  if (choice) return { ...choice, running: running !== null, stop: async () => {} }
  const secret = join(folder, SECRET_FILE)
  if (!existsSync(secret)) throw new UsageError(said('start.holdsNoDataOf', folder))
  if (running) {
    if (running.databasePort === undefined)
      throw new UsageError(said('start.wardopticIsJustStartingOr'))
    return {
      address: {
        host: '127.0.0.1',
        port: running.databasePort,
        user: 'wardoptic',
        password: readFileSync(secret, 'utf8').trim()
      },
      name: DATABASE_NAME,
      running: true,
      stop: async () => {}
    }
  }
  const { address, stop } = await startMariaDb(folder)
  return { address, name: DATABASE_NAME, running: false, stop }
}
