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
  role: Role
  /** The person of the site that this is; null: nobody of them. */
  person: string | null
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
const role = oneOf(ROLES)
const person = v.optional(
  v.nullable(v.pipe(v.string(coded('accounts.mustBeTheIdOf')), noLongerThan(64))),
  null
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
export const NewAccountSchema = v.strictObject({ username, password, name, role, person })
export type NewAccount = v.InferOutput<typeof NewAccountSchema>
/** The password stays when it is left out. */
export const ChangeAccountSchema = v.strictObject({
  name,
  role,
  person,
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
  /** The HTTP status of the answer. */
  status: number
}
export interface AuditView {
  entries: AuditEntry[]
  more: boolean
}
