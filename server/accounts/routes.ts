import type { FastifyInstance, FastifyRequest } from 'fastify'
import { ChangeAccountSchema, ChangePasswordSchema, NewAccountSchema, SignInSchema, mayAsk, type AccountView } from '../../core/accounts/accounts.ts'
import { parseWith } from '../../core/formats/plan.ts'
import { notAllowed, notSignedIn } from '../errors.ts'
import { numberOf } from '../params.ts'
import type { Accounts } from './accounts.ts'

const COOKIE = 'wardoptic_session'

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks; null before the gate, and for what needs no account. */
    account: AccountView | null
  }
}

const tokenOf = (request: FastifyRequest): string | null => new RegExp(`(?:^|;\\s*)${COOKIE}=([\\w-]+)`).exec(request.headers.cookie ?? '')?.[1] ?? null
// The server is reached on loopback without encryption; a cookie marked "Secure" would not come back.
const cookie = (token: string, seconds: number): string => `${COOKIE}=${token}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${seconds}`
const YEAR = 365 * 24 * 60 * 60

/** Lets nobody at the API who may not: a hook over all routes, so that none is forgotten. */
export function guardRoles(http: FastifyInstance, accounts: Accounts): void {
  http.decorateRequest('account', null)
  http.addHook('onRequest', async (request) => {
    if (!request.url.startsWith('/api/')) return
    const token = tokenOf(request)
    const account = token === null ? null : await accounts.whoIs(token)
    request.account = account
    // What is not there is an installer's to know.
    const route = request.routeOptions.url ?? ''
    if (mayAsk(account?.role ?? null, request.method, route)) return
    throw account ? notAllowed(`as ${account.role} you may not do this`) : notSignedIn('sign in first')
  })
}

type ById = { Params: { id: string } }

export function accountRoutes(app: FastifyInstance, accounts: Accounts): void {
  app.get('/api/session', ({ account }) => account)
  app.post('/api/session', async ({ body }, reply) => {
    const { username, password } = parseWith(SignInSchema, body)
    const { account, token } = await accounts.signIn(username, password)
    return reply.header('set-cookie', cookie(token, YEAR)).send(account)
  })
  app.delete('/api/session', async (request, reply) => {
    await accounts.signOut(tokenOf(request)!)
    return reply.header('set-cookie', cookie('', 0)).status(204).send()
  })
  app.put('/api/session/password', async (request, reply) => {
    const { old, password } = parseWith(ChangePasswordSchema, request.body)
    await accounts.changePassword(request.account!.id, old, password, tokenOf(request)!)
    return reply.status(204).send()
  })

  app.get('/api/accounts', () => accounts.list())
  app.post('/api/accounts', async ({ body }, reply) => reply.status(201).send(await accounts.add(parseWith(NewAccountSchema, body))))
  app.put<ById>('/api/accounts/:id', ({ params, body }) => {
    const { password, ...change } = parseWith(ChangeAccountSchema, body)
    return accounts.change(numberOf(params.id, 'an account'), change, password)
  })
  app.delete<ById>('/api/accounts/:id', async ({ params }, reply) => {
    await accounts.remove(numberOf(params.id, 'an account'))
    return reply.status(204).send()
  })
}
