import type { FastifyRequest } from 'fastify'
import type { AccountView, AuditView } from '../../core/accounts/accounts.ts'
import type { Database } from '../database.ts'
import { clientOf, type Client } from './sessions.ts'

const PAGE = 100

interface Noted {
  what: string
  account: Pick<AccountView, 'id'> | null
  username: string
  client: Client
  detail?: string
  status: number
}

/**
 * The audit log: sign-ins, and everything that accounts changed or tried to. Nothing takes an
 * entry away but its age.
 */
export class Audit {
  private readonly database: Database
  private readonly log: (error: unknown) => void
  private readonly now: () => number

  constructor(database: Database, log: (error: unknown) => void, now: () => number = Date.now) {
    this.database = database
    this.log = log
    this.now = now
  }

  async note({ what, account, username, client, detail = '', status }: Noted): Promise<void> {
    await this.database.run(
      'INSERT INTO audit (at, account_id, username, address, what, detail, status) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [
        this.now(),
        account?.id ?? null,
        [...username].slice(0, 40).join(''),
        client.address,
        what.slice(0, 120),
        [...detail].slice(0, 400).join(''),
        status
      ]
    )
  }

  /** A request that changes something, once it is answered. */
  async request(request: FastifyRequest, status: number): Promise<void> {
    const { account, method, params, routeOptions } = request
    if (
      !account ||
      /^(GET|HEAD|OPTIONS)$/.test(method) ||
      routeOptions.url === undefined ||
      routeOptions.config.unaudited ||
      routeOptions.url === '/api/session'
    )
      return
    const detail = Object.values((params ?? {}) as Record<string, string>).join(' ')
    await this.note({
      what: `${method} ${routeOptions.url}`,
      account,
      username: account.username,
      client: clientOf(request),
      detail,
      status
    }).catch(this.log)
  }

  /** The newest, newest first, before an entry. */
  async read(before: number | null): Promise<AuditView> {
    const rows = await this.database.rows<AuditView['entries'][number]>(
      `SELECT id, at, username, address, what, detail, status FROM audit WHERE id < ? ORDER BY id DESC LIMIT ${PAGE + 1}`,
      [before ?? Number.MAX_SAFE_INTEGER]
    )
    return { entries: rows.slice(0, PAGE), more: rows.length > PAGE }
  }
}
