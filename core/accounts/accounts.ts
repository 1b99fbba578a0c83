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

export const LEAST_PASSWORD = 10
const username = v.pipe(v.string('must be a text'), v.trim(), v.toLowerCase(), v.regex(/^[a-z0-9._-]{2,40}$/, 'must be 2 to 40 letters, digits, ., - or _'))
const password = v.pipe(v.string('must be a text'), v.minLength(LEAST_PASSWORD, `must have at least ${LEAST_PASSWORD} characters`), v.maxLength(200, 'is longer than 200 characters'))
const name = v.pipe(v.string('must be a text'), v.trim(), v.minLength(1, 'must not be empty'), v.maxLength(80, 'is longer than 80 characters'))
const role = v.picklist(ROLES, `must be one of ${ROLES.join(', ')}`)
const person = v.optional(v.nullable(v.pipe(v.string('must be the id of a person'), v.maxLength(64, 'is longer than 64 characters'))), null)

export const SignInSchema = v.strictObject({ username: v.pipe(v.string('must be a text'), v.trim(), v.toLowerCase(), v.maxLength(40, 'is longer than 40 characters')), password: v.pipe(v.string('must be a text'), v.maxLength(200, 'is longer than 200 characters')) })
export const NewAccountSchema = v.strictObject({ username, password, name, role, person })
export type NewAccount = v.InferOutput<typeof NewAccountSchema>
/** The password stays when it is left out. */
export const ChangeAccountSchema = v.strictObject({ name, role, person, password: v.optional(password) })
export const ChangePasswordSchema = v.strictObject({ old: v.pipe(v.string('must be a text'), v.maxLength(200, 'is longer than 200 characters')), password })

const signedIn: readonly Role[] = ROLES
const acting: readonly Role[] = ['installer', 'operator']

/**
 * What may be asked for by others than an installer, as `METHOD route`. Whatever is not named here is an installer's:
 * a new route is out of others' reach until somebody says otherwise.
 */
const open: Record<string, readonly Role[]> = {
  'GET /api/session': signedIn,
  'DELETE /api/session': signedIn,
  'PUT /api/session/password': signedIn,
  'GET /api/site': signedIn,
  'GET /api/watch': signedIn,
  'GET /api/watch/stream': signedIn,
  'GET /api/cameras/:camera/live': signedIn,
  'GET /api/cameras/:camera/live.jpg': signedIn,
  'GET /api/cameras/:camera/live.mjpg': signedIn,
  'GET /api/alarms': signedIn,
  'GET /api/alarms/:id': signedIn,
  'GET /api/alarms/live': signedIn,
  'GET /api/alarms/:id/notes': signedIn,
  'GET /api/triggers': signedIn,
  'GET /api/triggers/counts': signedIn,
  'GET /api/triggers/ways': signedIn,
  'GET /api/triggers.csv': signedIn,
  'GET /api/triggers/:id/picture': signedIn,
  'GET /api/triggers/:id/account': signedIn,
  'GET /api/deliveries/:id/attempts': signedIn,
  'GET /api/deliveries/:id/files': signedIn,
  'GET /api/deliveries/:id/files/:file': signedIn,
  'POST /api/deliveries/:id/shown': signedIn,
  'POST /api/deliveries/:id/retry': acting,
  'POST /api/alarms/:id/acknowledge': acting,
  'POST /api/alarms/:id/notes': acting,
  'POST /api/alarms/:id/hand': acting,
  'POST /api/alarms/:id/close': acting
}
/** What needs no account: to sign in. */
const FREE = ['POST /api/session']

/** Whether somebody of a role (null: not signed in) may ask for a route of the API. @param route its pattern, such as `/api/alarms/:id` */
export function mayAsk(role: Role | null, method: string, route: string): boolean {
  const asked = `${method === 'HEAD' ? 'GET' : method} ${route}`
  if (FREE.includes(asked)) return true
  if (role === null) return false
  return role === 'installer' || (open[asked]?.includes(role) ?? false)
}
