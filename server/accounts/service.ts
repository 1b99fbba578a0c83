import { said } from '../../core/messages/said.ts'
import { randomBytes, randomInt, randomUUID } from 'node:crypto'
import type { AccountView, NewAccount } from '../../core/accounts/accounts.ts'
import { InputError } from '../../core/errors.ts'
import type { Database, Sql } from '../database.ts'
import type { Encryption } from '../devices/encryption.ts'
import { conflict, notAllowed, notSignedIn } from '../errors.ts'
import { Attempts } from './attempts.ts'
import type { Audit } from './audit.ts'
import { hashed, isPassword, refuseCommon } from './passwords.ts'
import {
  deleteAccount,
  findByName,
  insertAccount,
  listAccounts,
  lockAccounts,
  readAccount,
  setPassword,
  updateAccount
} from './queries.ts'
import type { Client, Session, Sessions } from './sessions.ts'

/** Letters and digits that are not taken for one another. */
const CODE_LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
const CODE_LENGTH = 20

export interface SignedIn {
  account: AccountView
  /** Of the session. */
  token: string
  /** What the browser keeps to be known again under this name. */
  device: string
}

/** Who may come in. */
export class Accounts {
  private readonly database: Database
  private readonly encryption: Encryption
  private readonly sessions: Sessions
  private readonly audit: Audit
  private readonly attempts: Attempts
  private readonly now: () => number
  /** The code with which the first account is made; null: there is one. */
  private code: string | null = null

  constructor(
    database: Database,
    encryption: Encryption,
    sessions: Sessions,
    audit: Audit,
    now: () => number = Date.now
  ) {
    this.database = database
    this.encryption = encryption
    this.sessions = sessions
    this.audit = audit
    this.now = now
    this.attempts = new Attempts()
  }

  /**
   * @param mark that the browser has from an earlier sign-in
   * @throws ApiError when name or password are wrong, or were too often
   */
  async signIn(
    username: string,
    password: string,
    client: Client,
    mark: string | undefined
  ): Promise<SignedIn> {
    // Counted before anything is looked up: many at once are as many.
    const right = this.attempts.begin(
      { address: client.address, device: this.deviceOf(mark, username) },
      username
    )
    const found = await findByName(this.database, username)
    if (!(await isPassword(password, found?.password ?? null, this.encryption.secret)) || !found) {
      await this.audit.note({
        what: 'wrong-password',
        account: found?.account ?? null,
        username,
        client,
        status: 401
      })
      throw notSignedIn(said('accounts.wrongUserNameOrPassword'))
    }
    right()
    // A digest from before is made again, now that the password is known.
    if (!found.password.startsWith('scrypt-keyed'))
      await setPassword(
        this.database,
        found.account.id,
        await hashed(password, this.encryption.secret),
        this.now()
      )
    await this.audit.note({
      what: 'signed-in',
      account: found.account,
      username,
      client,
      status: 200
    })
    return {
      account: found.account,
      token: await this.sessions.begin(found.account.id, client),
      device: this.markFor(username)
    }
  }

  /** The browser's mark: sealed, so that nobody makes one; it says only that a sign-in under a name was right once. */
  private markFor(username: string): string {
    return this.encryption
      .encrypt(JSON.stringify({ username, device: randomUUID() }))
      .toString('base64url')
  }

  private deviceOf(mark: string | undefined, username: string): string | null {
    if (mark === undefined) return null
    try {
      const of = JSON.parse(this.encryption.decrypt(Buffer.from(mark, 'base64url'))) as {
        username: string
        device: string
      }
      return of.username === username ? of.device : null
    } catch {
      return null
    }
  }

  async signOut({ id, account }: Session, client: Client): Promise<void> {
    await this.sessions.end(account.id, id)
    await this.audit.note({
      what: 'signed-out',
      account,
      username: account.username,
      client,
      status: 200
    })
  }

  list(): Promise<AccountView[]> {
    return listAccounts(this.database)
  }

  /** @throws InputError when a name is taken, or the password is one that is guessed first */
  async add({ password, ...account }: NewAccount): Promise<AccountView> {
    await refuseCommon(password, [account.username, account.name], '$.password')
    const digest = await hashed(password, this.encryption.secret)
    return this.database.transaction(async (sql) => {
      const all = await lockAccounts(sql)
      if (all.some((a) => a.username === account.username))
        throw new InputError('$.username', said('accounts.isTaken', account.username))
      refuseNamesake(account.name, all)
      return { ...account, id: await insertAccount(sql, account, digest, this.now()) }
    })
  }

  /** @throws ApiError when nobody would be left who may set things up */
  async change(
    id: number,
    change: Pick<AccountView, 'name' | 'role' | 'sites'>,
    password: string | undefined
  ): Promise<AccountView> {
    const { account: before } = await readAccount(this.database, id)
    if (password !== undefined)
      await refuseCommon(password, [before.username, change.name], '$.password')
    const digest = password === undefined ? null : await hashed(password, this.encryption.secret)
    const account = await this.database.transaction(async (sql) => {
      const all = await lockAccounts(sql)
      refuseNamesake(
        change.name,
        all.filter((a) => a.id !== id)
      )
      if (change.role !== 'installer') keepInstaller(all, id)
      await updateAccount(sql, id, change)
      if (digest !== null) await setPassword(sql, id, digest, this.now())
      return (await readAccount(sql, id)).account
    })
    // A changed role applies at once, also to open streams.
    const powers = ({ role, sites }: AccountView): string => JSON.stringify([role, sites])
    if (password !== undefined || powers(before) !== powers(account)) await this.sessions.endAll(id)
    return account
  }

  async remove(id: number): Promise<void> {
    await this.database.transaction(async (sql) => {
      const all = await lockAccounts(sql)
      await readAccount(sql, id)
      keepInstaller(all, id)
      await deleteAccount(sql, id)
    })
    await this.sessions.endAll(id)
  }

  /** One's own password; other sessions of the account end. */
  async changePassword(
    { id, account }: Session,
    old: string,
    password: string,
    client: Client
  ): Promise<void> {
    // Whoever finds an open browser cannot try passwords without end either.
    const right = this.attempts.begin(
      { address: client.address, device: `session ${id}` },
      account.username
    )
    const { password: kept } = await readAccount(this.database, account.id)
    if (!(await isPassword(old, kept, this.encryption.secret)))
      throw new InputError('$.old', said('accounts.isNotYourPassword'))
    right()
    await refuseCommon(password, [account.username, account.name], '$.password')
    await setPassword(
      this.database,
      account.id,
      await hashed(password, this.encryption.secret),
      this.now()
    )
    await this.sessions.endAll(account.id, id)
  }

  /**
   * Where nobody can come in yet: makes those that are given, or a code with which the first
   * account is made in the browser.
   * @returns the code
   */
  async prepare(wanted: readonly NewAccount[]): Promise<string | null> {
    if ((await this.list()).length) return null
    for (const account of wanted) await this.add(account)
    if (wanted.length) return null
    return (this.code = Array.from(
      { length: CODE_LENGTH },
      (_, i) => (i && i % 5 === 0 ? '-' : '') + CODE_LETTERS[randomInt(CODE_LETTERS.length)]
    ).join(''))
  }

  /** Whether the first account is still to be made. */
  get isFirst(): boolean {
    return this.code !== null
  }

  /** Makes the first account, an installer's, and signs it in. @throws ApiError when the code is wrong */
  async addFirst(
    code: string,
    account: Pick<NewAccount, 'username' | 'password' | 'name'>,
    client: Client
  ): Promise<SignedIn> {
    if (this.code === null) throw notAllowed(said('accounts.theFirstAccountHasBeen'))
    const right = this.attempts.begin({ address: client.address, device: null }, 'first-account')
    if (plainCode(code) !== plainCode(this.code))
      throw notAllowed(said('accounts.thisIsNotTheCode'))
    right()
    const made = await this.add({ ...account, role: 'installer', sites: [] })
    this.code = null
    await this.audit.note({
      what: 'first-account',
      account: made,
      username: made.username,
      client,
      status: 201
    })
    return {
      account: made,
      token: await this.sessions.begin(made.id, client),
      device: this.markFor(made.username)
    }
  }
}

const plainCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '')

/** Records hold names: two accounts must not be taken for one another. @throws InputError */
function refuseNamesake(name: string, others: readonly AccountView[]): void {
  const plain = (text: string): string =>
    text.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim()
  const namesake = others.find((a) => plain(a.name) === plain(name))
  if (namesake)
    throw new InputError('$.name', said('accounts.isTheNameOfAlready', namesake.username))
}

/** @throws ApiError */
function keepInstaller(all: readonly AccountView[], id: number): void {
  if (!all.some((a) => a.id !== id && a.role === 'installer'))
    throw conflict(said('accounts.thisIsTheLastInstaller'))
}

/**
 * Lets somebody in again who holds the machine itself: gives an account a new password, or makes an installer of that name.
 * All its sessions end. The database is all that it needs, so that it works beside a server that runs.
 *
 * @returns the password, to be changed after the first sign-in
 */
export async function recoverInstaller(
  database: Database,
  secret: Buffer,
  username: string,
  now: number
): Promise<string> {
  const password = randomBytes(15).toString('base64url')
  const digest = await hashed(password, secret)
  await database.transaction(async (sql: Sql) => {
    const all = await lockAccounts(sql)
    const known = all.find((a) => a.username === username)
    if (known) {
      await updateAccount(sql, known.id, { ...known, role: 'installer' })
      await setPassword(sql, known.id, digest, now)
      await sql.run('DELETE FROM session WHERE account_id = ?', [known.id])
    } else
      await insertAccount(
        sql,
        { username, name: freeName(username, all), role: 'installer', sites: [] },
        digest,
        now
      )
    await sql.run(
      'INSERT INTO audit (at, account_id, username, address, what, detail, status) VALUES (?, NULL, ?, ?, ?, ?, 200)',
      [now, username, 'localhost', 'recovered', '']
    )
  })
  return password
}

function freeName(username: string, all: readonly AccountView[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? username : `${username} ${n}`
    if (!all.some((a) => a.name.toLowerCase() === name)) return name
  }
}
