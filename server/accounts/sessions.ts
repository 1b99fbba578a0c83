import { said } from '../../core/messages/said.ts'
import { createHash, randomBytes } from 'node:crypto'
import type { FastifyRequest } from 'fastify'
import {
  SESSION_IDLE_MS,
  SESSION_LONGEST_MS,
  type AccountView,
  type SessionView
} from '../../core/accounts/accounts.ts'
import type { Database } from '../database.ts'
import { notFound } from '../errors.ts'
import {
  endOldSessions,
  endSession,
  endSessionOfLink,
  endSessionsOf,
  findSession,
  insertSession,
  noteSessionUsed,
  readPresent,
  readSessions
} from './sessionQueries.ts'

/** That a session is used is written down no oftener than this. */
const NOTED_MS = 60_000
const MAX_NOTED = 5000
/** Whoever has a page open asks for something every few seconds, of which some is written down. */
const PRESENT_MS = 3 * NOTED_MS

/** Somebody who is signed in, in one browser. */
export interface Session {
  id: number
  account: AccountView
  /** When it ends at the latest, ms of UTC. */
  expires: number
  /** The link by which a phone was let in (server/phone/links.ts); null: somebody has signed in. */
  link: number | null
}

/** Where a request comes from. */
export interface Client {
  address: string
  agent: string
}

declare module 'fastify' {
  interface FastifyRequest {
    session: Session | null
    /** Who asks; null before the gate, and for what needs no account. */
    account: AccountView | null
    /** The id of the site that is asked about; empty for what belongs to no site. */
    site: string
    /** Refuses what is not of that site; asked before it is known who asks. */
    ofSite: Promise<void> | null
  }
}

export const clientOf = (request: FastifyRequest): Client => ({
  address: request.ip.slice(0, 60),
  agent: (request.headers['user-agent'] ?? '').slice(0, 200)
})

/** A session's token is only ever kept as its digest: who reads the database cannot sign in with it. */
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex')
export const newToken = (): string => randomBytes(32).toString('base64url')

/** How its cookie is kept: unseen by scripts, and sent to this server alone. */
export const cookieOptions = (secure: boolean) =>
  // Without encryption, on loopback, a cookie marked "Secure" would not come back.
  ({ path: '/', httpOnly: true, sameSite: 'strict', secure }) as const

/** A name with this prefix is taken by browsers only over an encrypted connection (ASVS 4.0.3, 3.4.4). */
export const cookieName = (secure: boolean): string =>
  secure ? '__Host-wardoptic_session' : 'wardoptic_session'
/** Of a phone that was let in for one walk test: a browser may have signed in as well. */
export const phoneCookieName = (secure: boolean): string =>
  secure ? '__Host-wardoptic_phone' : 'wardoptic_phone'

/**
 * Who is in. Nothing is remembered between two requests: a session that has ended in the database has ended. Whatever
 * stays open for longer, a live stream, is ended with its session.
 */
export class Sessions {
  private readonly database: Database
  private readonly now: () => number
  private readonly notedAt = new Map<number, number>()
  private readonly open = new Map<() => void, { session: number; account: number }>()

  constructor(database: Database, now: () => number = Date.now) {
    this.database = database
    this.now = now
  }

  /**
   * Begins a session, with a token that was never used before (ASVS 4.0.3, 3.2.1).
   * @returns the token that the browser keeps
   */
  begin(account: number, client: Client): Promise<string> {
    return this.insert(account, client, this.now() + SESSION_LONGEST_MS, null)
  }

  /** Begins one of a phone, that ends with its link. @returns the token that the phone keeps */
  beginPhone(
    account: number,
    { id, expiresAt }: { id: number; expiresAt: number },
    client: Client
  ): Promise<string> {
    return this.insert(account, client, expiresAt, id)
  }

  private async insert(
    account: number,
    { address, agent }: Client,
    expires: number,
    link: number | null
  ): Promise<string> {
    const token = newToken()
    const now = this.now()
    await endOldSessions(this.database, now, now - SESSION_IDLE_MS)
    const tokenHash = digestOf(token)
    await insertSession(this.database, { tokenHash, account, now, expires, address, agent, link })
    return token
  }

  /** Whether a request names a session, which need not be one any more. */
  isNamed(request: FastifyRequest, secure: boolean): boolean {
    return request.cookies[cookieName(secure)] !== undefined
  }

  /** The session that a request names; null: none, or no more. One of a phone is none. */
  async of(request: FastifyRequest, secure: boolean): Promise<Session | null> {
    const found = await this.find(request.cookies[cookieName(secure)])
    return found?.link === null ? found : null
  }

  /** The session of a phone that a request names; null: none, or no more. */
  async ofPhone(request: FastifyRequest, secure: boolean): Promise<Session | null> {
    const found = await this.find(request.cookies[phoneCookieName(secure)])
    return found?.link === null ? null : found
  }

  private async find(token: string | undefined): Promise<Session | null> {
    if (token === undefined) return null
    const now = this.now()
    const found = await findSession(this.database, digestOf(token), now, now - SESSION_IDLE_MS)
    if (!found) return null
    await this.noteUsed(found.id, now)
    return found
  }

  private async noteUsed(id: number, now: number): Promise<void> {
    if (now - (this.notedAt.get(id) ?? 0) < NOTED_MS) return
    if (this.notedAt.size > MAX_NOTED) this.notedAt.clear()
    this.notedAt.set(id, now)
    await noteSessionUsed(this.database, id, now)
  }

  /** Whether a session still is one; whatever asks uses it. */
  async isRunning({ id, expires }: Session): Promise<boolean> {
    const now = this.now()
    if (
      expires <= now ||
      !(await readSessions(this.database, { session: id }, now, now - SESSION_IDLE_MS)).length
    )
      return false
    await this.noteUsed(id, now)
    return true
  }

  /** Something that stays open for as long as its session. @param end ends it @returns forgets it */
  whileIn({ id, account }: Session, end: () => void): () => void {
    this.open.set(end, { session: id, account: account.id })
    return () => void this.open.delete(end)
  }

  /** How much an account has open. */
  openOf(account: number): number {
    return [...this.open.values()].filter((o) => o.account === account).length
  }

  /** Who has signed in and asked for something within some minutes, by name; since when, in whichever browser was first. */
  present(): Promise<{ account: AccountView; since: number }[]> {
    const now = this.now()
    return readPresent(this.database, now, now - PRESENT_MS)
  }

  async list(account: number): Promise<SessionView[]> {
    const now = this.now()
    return readSessions(this.database, { account }, now, now - SESSION_IDLE_MS)
  }

  /** Ends one of an account's own. @throws ApiError when it has none of that number */
  async end(account: number, session: number): Promise<void> {
    if (!(await endSession(this.database, account, session))) throw notFound(said('things.session'))
    this.endOpen((o) => o.session === session)
  }

  /** Ends that of a phone, by its link. */
  async endPhone(link: number): Promise<void> {
    const ended = await endSessionOfLink(this.database, link)
    this.endOpen((o) => o.session === ended)
  }

  /** Ends all of an account's but one. */
  async endAll(account: number, but: number | null = null): Promise<void> {
    await endSessionsOf(this.database, account, but)
    this.endOpen((o) => o.account === account && o.session !== but)
  }

  private endOpen(which: (o: { session: number; account: number }) => boolean): void {
    for (const [end, of] of [...this.open]) if (which(of)) end()
  }
}
