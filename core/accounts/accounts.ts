import { filled, noLongerThan, oneOf } from '../schema/parts.ts'
import { coded } from '../messages/said.ts'
import * as v from 'valibot'

/** Who signs in, and what they may do. */

/** An installer sets everything up; an operator deals with alarms; a viewer looks. */
export const ROLES = ['installer', 'operator', 'viewer'] as const
export type Role = (typeof ROLES)[number]

/** Somebody who is signed in. */
export interface AccountView {
  id: number
  username: string
  name: string
  /** On every site; null: only on those named. */
  role: Role | null
  /** Where it has a role of its own, in place of the one on every site. */
  sites: SiteRole[]
}

export interface SiteRole {
  /** The id of a site. */
  site: string
  role: Role
}

/** The role that an account has at a site; null: none. */
export const roleAt = ({ role, sites }: Pick<AccountView, 'role' | 'sites'>, site: string) =>
  sites.find((s) => s.site === site)?.role ?? role

/** An account as a site sees it: its role is the one there. @returns null: it has none */
export function accountAt(
  account: AccountView,
  site: string
): (AccountView & { role: Role }) | null {
  const role = roleAt(account, site)
  return role && { ...account, role }
}

/** OWASP ASVS 4.0.3, 2.1.1 and 2.1.2: at least 12 characters, at most 128. */
export const MIN_PASSWORD = 12
export const MAX_PASSWORD = 128
/**
 * ASVS 4.0.3, 3.3.2 (level 2): whoever is signed in signs in again after 12 hours, or after 30
 * minutes in which nothing was asked.
 */
export const SESSION_LONGEST_MS = 12 * 60 * 60_000
export const SESSION_IDLE_MS = 30 * 60_000
const username = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.trim(),
  v.toLowerCase(),
  v.regex(/^[a-z0-9._-]{2,40}$/, coded('accounts.mustBe2To40'))
)
const password = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.minLength(MIN_PASSWORD, coded('accounts.mustHaveAtLeastCharacters', MIN_PASSWORD)),
  noLongerThan(MAX_PASSWORD)
)
const name = filled(80)
const role = v.nullable(oneOf(ROLES))
const MAX_SITES = 2000
const sites = v.optional(
  v.pipe(
    v.array(
      v.strictObject({ site: filled(64), role: oneOf(ROLES) }),
      coded('accounts.mustBeRoles')
    ),
    v.maxLength(MAX_SITES, coded('accounts.mustBeRoles')),
    v.check(
      (list) => new Set(list.map((s) => s.site)).size === list.length,
      coded('accounts.siteTwice')
    )
  ),
  []
)

export const SignInSchema = v.strictObject({
  username: v.pipe(
    v.string(coded('input.mustBeAText')),
    v.trim(),
    v.toLowerCase(),
    noLongerThan(40)
  ),
  password: v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(200))
})
export const NewAccountSchema = v.strictObject({ username, password, name, role, sites })
export type NewAccount = v.InferOutput<typeof NewAccountSchema>
/** The password stays when it is left out. */
export const ChangeAccountSchema = v.strictObject({
  name,
  role,
  sites,
  password: v.optional(password)
})
export const ChangePasswordSchema = v.strictObject({
  old: v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(200)),
  password
})

/** The first account of an installation, made by who holds the code that its start printed. */
export const FirstAccountSchema = v.strictObject({
  code: v.pipe(v.string(coded('input.mustBeAText')), v.trim(), noLongerThan(40)),
  username,
  password,
  name
})

/** Where somebody is signed in. */
export interface SessionView {
  id: number
  createdAt: number
  usedAt: number
  /** When it ends at the latest. */
  expiresAt: number
  /** Network address, and what the browser calls itself. */
  address: string
  agent: string
  /** The camera before which a walk test was opened on a phone; null: an ordinary sign-in. */
  walk: string | null
}
/** One's own sessions; `current` is the one that asks. */
export interface SessionsView {
  current: number
  sessions: SessionView[]
}

/** What a browser has to know before anybody is signed in. */
export interface EntranceView {
  /** Nobody can sign in yet: the first account is made with the code that the start printed. */
  first: boolean
}

/** Something that happened to an account, or that one did. */
export interface AuditEntry {
  id: number
  at: number
  username: string
  address: string
  /** A code of what happened, or the route that was asked for, such as `PUT /api/accounts/:id`. */
  what: string
  detail: string
  /** The name of the site where it was done; null: of no site. */
  site: string | null
  /** The HTTP status of the answer. */
  status: number
}
export interface AuditView {
  entries: AuditEntry[]
  more: boolean
}
