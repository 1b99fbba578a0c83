import { coded, said } from '../../core/messages/said.ts'
import cookies from '@fastify/cookie'
import rateLimit from '@fastify/rate-limit'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import type { Stream } from 'node:stream'
import type { GenericSchema } from 'valibot'
import type { Audit } from '../accounts/audit.ts'
import type { Sessions } from '../accounts/sessions.ts'
import type { PhoneLinks } from '../phone/links.ts'
import { answerError, notAllowed, notFound, notSignedIn, tooMany } from '../errors.ts'
import { accountAt } from '../../core/accounts/accounts.ts'
import type { Sql } from '../database.ts'
import { ownerOf, refuseForeign, type Params } from './owners.ts'
import { INSTALLER, SIGNED_IN, type Api, type Who } from './route.ts'
import { refuseIllFormed, validatorCompiler } from './validation.ts'

/** One route as it was declared. */
export interface DeclaredRoute {
  method: string
  /** Its pattern, such as `/api/alarms/:id`. */
  url: string
  roles: Who
  /** What it reads, as declared. */
  schema: { querystring?: GenericSchema; body?: GenericSchema }
}

export interface ApiParts {
  database: Sql
  sessions: Sessions
  phones: PhoneLinks
  audit: Audit
  /** The session's cookie is marked so that it never leaves an encrypted connection. */
  secure: boolean
}

/**
 * The API under `/api`: sign-in, roles, reading of what is asked and the shape of errors belong to it. Who may ask is
 * decided by the route that was matched, never by the address as it was written, so that no spelling reaches a route
 * around it; and what says no roles does not start. Of what belongs to a site, the role at that site counts, and only
 * what is the site's own is there.
 *
 * @param routes of the installation @param siteRoutes of one site, under `/api/sites/:site`
 * @returns all that can be asked, as it was declared
 */
export async function registerApi(
  http: FastifyInstance,
  { database, sessions, phones, audit, secure }: ApiParts,
  routes: (api: Api) => void,
  siteRoutes: (api: Api) => void = () => {}
): Promise<readonly DeclaredRoute[]> {
  const declared: DeclaredRoute[] = []
  const refuse = ({ params, routeOptions }: FastifyRequest, site: string): Promise<void> =>
    refuseForeign(database, site, routeOptions.url ?? '', params as Params)
  await http.register(
    async (plugin) => {
      plugin.addHook('onRoute', ({ method, url, config, schema }) => {
        const roles = config?.roles
        if (roles === undefined || roles.length === 0)
          throw new Error(
            `${[method].flat().join()} ${url} does not say who may ask for it (allow(…) in server/api/route.ts)`
          )
        for (const one of [method].flat())
          declared.push({
            method: one,
            url,
            roles,
            schema: (schema ?? {}) as DeclaredRoute['schema']
          })
      })
      await plugin.register(cookies)
      await plugin.register(rateLimit, {
        global: false,
        errorResponseBuilder: (_request, { after }) =>
          tooMany(said('api.tooManyRequestsWait', after))
      })
      plugin.setValidatorCompiler(validatorCompiler)
      plugin.setErrorHandler(answerError)
      // Only JSON is parsed: other texts would be held in memory whole.
      plugin.removeContentTypeParser('text/plain')
      plugin.decorateRequest('session', null)
      plugin.decorateRequest('account', null)
      plugin.decorateRequest('site', '')
      plugin.decorateRequest('phone', null)
      plugin.decorateRequest('ofSite', null)
      plugin.addHook('onRequest', async (request) => {
        const roles = request.routeOptions.config?.roles ?? INSTALLER
        if (roles === 'phone') {
          const { session, account, phone } = await phones.admit(request, secure)
          Object.assign(request, { session, account, phone, site: phone.site })
          return
        }
        const { site } = request.params as { site?: string }
        // Together with who asks; what comes of it is said only to whoever has a role there.
        request.ofSite =
          site !== undefined && sessions.isNamed(request, secure)
            ? inAdvance(refuse(request, site))
            : null
        const session = await sessions.of(request, secure)
        request.session = session
        if (site === undefined) request.account = session?.account ?? null
        else {
          request.site = site
          request.account = session && accountAt(session.account, site)
          // Whoever has no role at a site is not told whether it exists.
          if (session && !request.account) throw notFound(said('things.site'))
        }
        // Only an installer is told what is not there.
        admit(request, roles)
      })
      plugin.addHook('preValidation', async ({ params, query, body }) => {
        for (const [part, place] of [
          [params, coded('places.address')],
          [query, coded('places.address')],
          [body, '$']
        ] as const)
          if (!isStream(part)) refuseIllFormed(part, place)
      })
      plugin.addHook('onSend', async (_request, reply, payload) => {
        // What is said to one account is not for the next one in the same browser, nor for a cache on the way.
        if (!reply.hasHeader('cache-control')) reply.header('cache-control', 'no-store')
        reply.header('vary', 'Cookie')
        return payload
      })
      plugin.addHook('onResponse', async (request, reply) =>
        audit.request(request, reply.statusCode)
      )
      plugin.setNotFoundHandler((request, reply) =>
        reply.status(404).send(notFound(request.url.slice(0, 200)).view)
      )
      routes(plugin)
      await plugin.register(
        async (ofSite) => {
          ofSite.addHook('onRoute', ({ url }) => void ownerOf(url))
          ofSite.addHook('onRequest', (request) => request.ofSite ?? refuse(request, request.site))
          siteRoutes(ofSite)
        },
        { prefix: '/sites/:site' }
      )
    },
    { prefix: '/api' }
  )
  return declared
}

/** Work that somebody waits for later, or never: until then its error is nobody's. */
function inAdvance<T>(work: Promise<T>): Promise<T> {
  work.catch(() => {})
  return work
}

const isStream = (part: unknown): boolean => typeof (part as Stream | null)?.pipe === 'function'

function admit({ account }: FastifyRequest, roles: Exclude<Who, 'phone'>): void {
  if (roles === 'anyone') return
  if (!account) throw notSignedIn(said('api.signInFirst'))
  if (roles === SIGNED_IN) return
  if (!account.role) throw notAllowed(said('api.onlyOfAllSites'))
  if (!roles.includes(account.role)) throw notAllowed(said('api.asYouMayNotDo', account.role))
}

/** What an answer that is written by hand must carry as well. */
export const headersOf = (reply: FastifyReply): Record<string, string> => ({
  ...(reply.getHeaders() as Record<string, string>),
  vary: 'Cookie',
  'cache-control': 'no-store'
})
