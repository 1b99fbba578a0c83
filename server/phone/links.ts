import { said } from '../../core/messages/said.ts'
import { accountAt, type AccountView, type Role } from '../../core/accounts/accounts.ts'
import type { Check } from '../../core/formats/check.ts'
import { PHONE_LINK_MS, type NewPhoneLink, type PhoneLinkView } from '../../core/proving/phone.ts'
import type { FastifyRequest } from 'fastify'
import {
  digestOf,
  newToken,
  type Client,
  type Session,
  type Sessions
} from '../accounts/sessions.ts'
import type { Database } from '../database.ts'
import { notAllowed, notFound, notSignedIn } from '../errors.ts'
import {
  deleteOldLinks,
  findLink,
  insertLink,
  listLinks,
  openLink,
  type PhoneLink
} from './queries.ts'

declare module 'fastify' {
  interface FastifyRequest {
    /** What it is asked for by a phone; null: by no phone. */
    phone: PhoneLink | null
  }
}

/**
 * Walk tests that are opened on a phone: a code that is good once lets it in for one walk, until an hour after it was made,
 * or until somebody revokes it. Its session is of another kind than a sign-in: no other route takes it.
 */
export class PhoneLinks {
  private readonly database: Database
  private readonly sessions: Sessions
  private readonly now: () => number

  constructor(database: Database, sessions: Sessions, now: () => number = Date.now) {
    this.database = database
    this.sessions = sessions
    this.now = now
  }

  async make(camera: string, check: Check, account: number): Promise<NewPhoneLink> {
    const now = this.now()
    await deleteOldLinks(this.database, now)
    const token = newToken()
    const expiresAt = now + PHONE_LINK_MS
    const link = { tokenHash: digestOf(token), account, camera, check, now, expiresAt }
    return { id: await insertLink(this.database, link), token, expiresAt }
  }

  /** Those of a camera that have not ended, the newest first. */
  list(camera: string): Promise<PhoneLinkView[]> {
    return listLinks(this.database, camera, this.now())
  }

  /** @throws ApiError when the camera has none of that number */
  async revoke(camera: string, id: number): Promise<void> {
    if (!(await this.list(camera)).some((l) => l.id === id))
      throw notFound(said('things.phoneLink'))
    await this.sessions.endPhone(id)
    await this.database.run('DELETE FROM phone_link WHERE id = ?', [id])
  }

  /**
   * Lets in who has the code, once.
   * @returns the token that the phone keeps @throws ApiError when the code was used, has ended or never was
   */
  async open(token: string, client: Client): Promise<{ token: string; link: PhoneLink }> {
    const link = await openLink(this.database, digestOf(token), this.now())
    if (!link) throw notSignedIn(said('proving.phoneCodeIsOver'))
    return { token: await this.sessions.beginPhone(link.account.id, link, client), link }
  }

  /**
   * Who asks from a phone.
   * @throws ApiError when it is not let in, or who made the link may no longer set up the site
   */
  async admit(
    request: FastifyRequest,
    secure: boolean
  ): Promise<{ session: Session; account: AccountView & { role: Role }; phone: PhoneLink }> {
    const session = await this.sessions.ofPhone(request, secure)
    const link = session && (await findLink(this.database, session.link!, this.now()))
    if (!link) throw notSignedIn(said('proving.phoneIsOut'))
    const account = accountAt(session.account, link.site)
    if (account?.role !== 'installer') throw notAllowed(said('proving.phoneIsOut'))
    return { session, account, phone: link }
  }
}
