import { server as msg } from '../core/messages/en/codes/server.ts'
import { onlyRow } from './columns.ts'
import { existsSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import type { Database } from './database.ts'
import { Encryption } from './devices/encryption.ts'

/** The keys of an installation, beside its data. */
export interface Keys {
  /** Passwords of devices and of the mail server are sealed with it. */
  devices: Encryption
  /** Digests of passwords are keyed with it, and browsers that are known are marked. */
  accounts: Encryption
}

/** Their files, in the data folder. */
export const KEY_FILES = { devices: 'device.key', accounts: 'accounts.key' } as const

/**
 * Opens the keys. One that nothing depends on yet is made.
 *
 * @param anew sets aside what is left of a key that is lost, and makes a new one
 * @throws LostKey when something depends on a key that is not there
 */
export async function openKeys(database: Database, folder: string, anew: boolean): Promise<Keys> {
  const open = (name: string, needs: string | null): Encryption => {
    const file = join(folder, name)
    try {
      return Encryption.withKey(file, needs)
    } catch (error) {
      if (!anew) throw error
      if (existsSync(file)) renameSync(file, `${file}.lost-${Date.now()}`)
      process.stderr.write(msg.isMadeAnewN(name, needs ?? msg.nothingNeededIt))
      return Encryption.withKey(file, null)
    }
  }
  return {
    devices: open(KEY_FILES.devices, await sealed(database)),
    accounts: open(KEY_FILES.accounts, await keyed(database))
  }
}

async function sealed(database: Database): Promise<string | null> {
  const devices = await database.rows<{ name: string }>(
    'SELECT name FROM device WHERE password_sealed IS NOT NULL ORDER BY name'
  )
  const mail = await database.rows(
    "SELECT 1 FROM site_setting WHERE name = 'mail' AND sealed IS NOT NULL"
  )
  const needing = [...devices.map((d) => d.name), ...(mail.length ? [msg.theMailServer] : [])]
  return needing.length ? msg.withoutItThesePasswordsMust(needing.join(', ')) : null
}

async function keyed(database: Database): Promise<string | null> {
  const { n } = onlyRow(
    await database.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM account WHERE password LIKE 'scrypt-keyed%'"
    )
  )
  return n ? msg.withoutItNobodyCanSign(n) : null
}
