import { said } from '../../core/messages/said.ts'
import type { FastifyReply } from 'fastify'
import * as v from 'valibot'
import {
  ChangeAccountSchema,
  ChangePasswordSchema,
  FirstAccountSchema,
  NewAccountSchema,
  SESSION_LONGEST_MS,
  SignInSchema,
  type EntranceView,
  type SessionsView
} from '../../core/accounts/accounts.ts'
import {
  ANYONE,
  INSTALLER,
  SIGNED_IN,
  allow,
  byNumber,
  numberText,
  slowly,
  type Api
} from '../api/route.ts'
import type { Accounts, SignedIn } from './service.ts'
import type { Audit } from './audit.ts'
import { clientOf, cookieName, cookieOptions, type Sessions } from './sessions.ts'

/** By this a browser is known again under the name that it signed in with; it lets nobody in. */
const DEVICE_COOKIE = 'wardoptic_device'
const DEVICE_SECONDS = 90 * 24 * 60 * 60

const anAccount = byNumber(said('accounts.anAccount'))

export function accountRoutes(
  app: Api,
  accounts: Accounts,
  sessions: Sessions,
  audit: Audit,
  secure: boolean
): void {
  const kept = cookieOptions(secure)
  const answer = (reply: FastifyReply, { account, token, device }: SignedIn) =>
    reply
      .setCookie(cookieName(secure), token, { ...kept, maxAge: SESSION_LONGEST_MS / 1000 })
      .setCookie(DEVICE_COOKIE, device, { ...kept, path: '/api/session', maxAge: DEVICE_SECONDS })
      .send(account)

  app.get('/entrance', allow(ANYONE), (): EntranceView => ({ first: accounts.isFirst }))
  app.post(
    '/first-account',
    slowly(allow(ANYONE, { body: FirstAccountSchema })),
    async (request, reply) => {
      const { code, ...account } = request.body
      return answer(reply.status(201), await accounts.addFirst(code, account, clientOf(request)))
    }
  )

  app.get('/session', allow(SIGNED_IN), ({ account }) => account)
  app.post('/session', slowly(allow(ANYONE, { body: SignInSchema })), async (request, reply) => {
    const { username, password } = request.body
    return answer(
      reply,
      await accounts.signIn(username, password, clientOf(request), request.cookies[DEVICE_COOKIE])
    )
  })
  app.delete('/session', allow(SIGNED_IN), async (request, reply) => {
    await accounts.signOut(request.session!, clientOf(request))
    return reply.clearCookie(cookieName(secure), kept).status(204).send()
  })
  app.put(
    '/session/password',
    allow(SIGNED_IN, { body: ChangePasswordSchema }),
    async (request, reply) => {
      await accounts.changePassword(
        request.session!,
        request.body.old,
        request.body.password,
        clientOf(request)
      )
      return reply.status(204).send()
    }
  )

  // One's own sessions, here and elsewhere.
  app.get('/session/all', allow(SIGNED_IN), async ({ session }): Promise<SessionsView> => ({
    current: session!.id,
    sessions: await sessions.list(session!.account.id)
  }))
  app.delete('/session/all', allow(SIGNED_IN), async ({ session }, reply) => {
    await sessions.endAll(session!.account.id, session!.id)
    return reply.status(204).send()
  })
  app.delete(
    '/session/all/:id',
    allow(SIGNED_IN, { params: byNumber(said('things.aSession')) }),
    async ({ session, params }, reply) => {
      await sessions.end(session!.account.id, params.id)
      return reply.status(204).send()
    }
  )

  app.get('/accounts', allow(INSTALLER), () => accounts.list())
  app.post('/accounts', allow(INSTALLER, { body: NewAccountSchema }), async ({ body }, reply) =>
    reply.status(201).send(await accounts.add(body))
  )
  app.put(
    '/accounts/:id',
    allow(INSTALLER, { params: anAccount, body: ChangeAccountSchema }),
    ({ params, body: { password, ...change } }) => accounts.change(params.id, change, password)
  )
  app.delete(
    '/accounts/:id',
    allow(INSTALLER, { params: anAccount }),
    async ({ params }, reply) => {
      await accounts.remove(params.id)
      return reply.status(204).send()
    }
  )
  app.get(
    '/audit',
    allow(INSTALLER, {
      querystring: v.object({ before: v.optional(numberText(said('accounts.anEntry'))) })
    }),
    ({ query }) => audit.read(query.before ?? null)
  )
}
