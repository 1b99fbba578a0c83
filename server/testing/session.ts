import type { Role } from '../../core/accounts/accounts.ts'
import { insertAccount, listAccounts } from '../accounts/queries.ts'
import { Sessions, cookieName } from '../accounts/sessions.ts'
import type { Database } from '../database.ts'

/**
 * A session of the first account of a role, which is made where there is none, as the header of a
 * browser. Nobody can sign in to one that is made here.
 */
export async function cookieOf(database: Database, role: Role): Promise<string> {
  const known = (await listAccounts(database)).find((a) => a.role === role)
  const id =
    known?.id ??
    (await insertAccount(
      database,
      { username: `${role}-${Date.now()}`, name: `${role} ${Date.now()}`, role, sites: [] },
      'none',
      Date.now()
    ))
  return cookieOfAccount(database, id)
}

export const cookieOfAccount = async (database: Database, account: number): Promise<string> =>
  `${cookieName(false)}=${await new Sessions(database).begin(account, { address: '127.0.0.1', agent: 'test' })}`
