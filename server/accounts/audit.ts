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
  /** Of which site, where it is of one. */
  site?: string | null
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

  async note({
    what,
    account,
    username,
    client,
    detail = '',
    site = null,
    status
  }: Noted): Promise<void> {
    await this.database.run(
      'INSERT INTO audit (at, account_id, username, address, what, detail, site_id, status) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [
        this.now(),
        account?.id ?? null,
        [...username].slice(0, 40).join(''),
        client.address,
        what.slice(0, 120),
        [...detail].slice(0, 400).join(''),
        site?.slice(0, 64) ?? null,
        status
      ]
    )
  }

  /** A request that changes something, once it is answered. */
  async request(request: FastifyRequest, status: number): Promise<void> {
    const { account, method, params, routeOptions, site } = request
    if (
      !account ||
      /^(GET|HEAD|OPTIONS)$/.test(method) ||
      routeOptions.url === undefined ||
      routeOptions.config.unaudited ||
      routeOptions.url === '/api/session'
    )
      return
    const detail = Object.entries((params ?? {}) as Record<string, string>)
      .flatMap(([name, value]) => (name === 'site' ? [] : value))
      .join(' ')
    await this.note({
      // What is done at a site is called the same for all of them.
      what: `${method} ${routeOptions.url.replace('/sites/:site', '')}`,
      account,
      username: account.username,
      client: clientOf(request),
      detail,
      site: site || null,
      status
    }).catch(this.log)
  }

  /** The newest, newest first, before an entry. */
  async read(before: number | null): Promise<AuditView> {
    const rows = await this.database.rows<AuditView['entries'][number]>(
      `SELECT audit.id, at, username, address, what, detail, site.name AS site, status FROM audit LEFT JOIN site ON site.id = site_id WHERE audit.id < ? ORDER BY audit.id DESC LIMIT ${PAGE + 1}`,
      [before ?? Number.MAX_SAFE_INTEGER]
    )
    return { entries: rows.slice(0, PAGE), more: rows.length > PAGE }
  }
}
