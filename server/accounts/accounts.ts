import { createHash, randomBytes } from 'node:crypto'
import { LEAST_PASSWORD, type AccountView, type NewAccount } from '../../core/accounts/accounts.ts'
import { InputError } from '../../core/errors.ts'
import type { Database } from '../database.ts'
import { busy, notSignedIn, tooMany } from '../errors.ts'
import { hashed, isPassword } from './passwords.ts'
import { deleteAccount, endOldSessions, endSession, endSessionsOf, findByName, findSession, insertAccount, insertSession, listAccounts, prolongSession, readAccount, updateAccount } from './rows.ts'

/** A session ends when nothing has been asked for so long. */
const SESSION_MS = 12 * 60 * 60_000
/** A session that was looked up is believed for so long; what changes it here is forgotten at once. */
const BELIEVED_MS = 5000
/** After so many wrong passwords in a row, the next is not looked at for a while. */
const MOST_WRONG = 5
const PAUSE_MS = 30_000

/** A session's token is only ever kept as its digest: who reads the database cannot sign in with it. */
const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex')

/** Who may come in, and who is in. */
export class Accounts {
  private readonly database: Database
  private readonly believed = new Map<string, { account: AccountView; until: number }>()
  private readonly wrong = new Map<string, { times: number; until: number }>()

  constructor(database: Database) {
    this.database = database
  }

  /** @returns the token that the browser keeps @throws ApiError when name or password are wrong, or were too often */
  async signIn(username: string, password: string): Promise<{ account: AccountView; token: string }> {
    const now = Date.now()
    const before = this.wrong.get(username)
    if (before && before.times >= MOST_WRONG && before.until > now) throw tooMany(`the password was wrong ${before.times} times; wait ${Math.ceil((before.until - now) / 1000)} s`)
    const found = await findByName(this.database, username)
    if (!(await isPassword(password, found?.password ?? null)) || !found) {
      this.wrong.set(username, { times: (before?.times ?? 0) + 1, until: now + PAUSE_MS })
      throw notSignedIn('name or password is wrong')
    }
    this.wrong.delete(username)
    await endOldSessions(this.database, now)
    return { account: found.account, token: await this.open(found.account.id) }
  }

  /** A session for an account. */
  async open(account: number): Promise<string> {
    const token = randomBytes(32).toString('base64url')
    const now = Date.now()
    await insertSession(this.database, digestOf(token), account, now, now + SESSION_MS)
    return token
  }

  /** Who a token is of; null: nobody, or no more. */
  async whoIs(token: string): Promise<AccountView | null> {
    const now = Date.now()
    const digest = digestOf(token)
    const known = this.believed.get(digest)
    if (known && known.until > now) return known.account
    const found = await findSession(this.database, digest, now)
    if (!found) return null
    if (found.expires - now < SESSION_MS / 2) await prolongSession(this.database, digest, now + SESSION_MS)
    this.believed.set(digest, { account: found.account, until: now + BELIEVED_MS })
    return found.account
  }

  async signOut(token: string): Promise<void> {
    this.believed.delete(digestOf(token))
    await endSession(this.database, digestOf(token))
  }

  list(): Promise<AccountView[]> {
    return listAccounts(this.database)
  }

  /** @throws InputError when the name is taken */
  async add({ password, ...account }: NewAccount): Promise<AccountView> {
    if (await findByName(this.database, account.username)) throw new InputError('$.username', `"${account.username}" is taken`)
    const id = await insertAccount(this.database, account, await hashed(password), Date.now())
    return (await readAccount(this.database, id)).account
  }

  /** @throws ApiError when nobody would be left who may set things up */
  async change(id: number, change: Pick<AccountView, 'name' | 'role' | 'person'>, password: string | undefined): Promise<AccountView> {
    if (change.role !== 'installer') await this.keepInstaller(id)
    await updateAccount(this.database, id, change, password === undefined ? null : await hashed(password))
    if (password !== undefined) await endSessionsOf(this.database, id, null)
    this.believed.clear()
    return (await readAccount(this.database, id)).account
  }

  async remove(id: number): Promise<void> {
    await this.keepInstaller(id)
    await deleteAccount(this.database, id)
    this.believed.clear()
  }

  /** One's own password; other sessions of the account end. */
  async changePassword(id: number, old: string, password: string, token: string): Promise<void> {
    const { account, password: kept } = await readAccount(this.database, id)
    if (!(await isPassword(old, kept))) throw new InputError('$.old', 'is not your password')
    await updateAccount(this.database, id, account, await hashed(password))
    await endSessionsOf(this.database, id, digestOf(token))
    this.believed.clear()
  }

  private async keepInstaller(id: number): Promise<void> {
    const all = await this.list()
    if (!all.some((a) => a.id !== id && a.role === 'installer')) throw busy('nobody would be left who may set things up; make somebody else an installer first')
  }

  /** Where nobody can come in yet: those given, or one installer with a password made up. @returns who was made, with their passwords */
  async begin(wanted: readonly NewAccount[]): Promise<NewAccount[]> {
    if ((await this.list()).length) return []
    const made = wanted.length ? [...wanted] : [{ username: 'installer', name: 'Installer', role: 'installer', person: null, password: randomBytes(9).toString('base64url').slice(0, Math.max(12, LEAST_PASSWORD)) } satisfies NewAccount]
    for (const account of made) await this.add(account)
    return made
  }
}
