import { said } from '../../core/messages/said.ts'
import helmet from '@fastify/helmet'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import { notAllowed } from '../errors.ts'
import { InputError } from '../../core/errors.ts'
import { LOOPBACK, type Access } from './reached.ts'

/** Where browsers on other machines reach it. @param port that it listens at @returns none: only this machine does */
export function originsOf({ secure, names, fronts }: Access, port: number): string[] {
  const usual = port === (secure ? 443 : 80)
  const hosts = [
    ...names.filter((n) => !LOOPBACK.names.includes(n)).map((n) => (usual ? n : `${n}:${port}`)),
    ...fronts.filter((f) => /:\d+$/.test(f))
  ]
  return [...new Set(hosts)].map((host) => `${secure ? 'https' : 'http'}://${host}`)
}

/**
 * What holds for every request, whatever it is for: which names the server answers to, who may send it something, and
 * the headers that tell a browser what its pages may do (OWASP ASVS 4.0.3, 14.4 and 14.5).
 */
export async function guardAccess(http: FastifyInstance, access: Access): Promise<void> {
  await http.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'"],
        'worker-src': ["'self'"],
        // Styles that the interface makes at run time carry the nonce of its page.
        'style-src': ["'self'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'media-src': ["'self'", 'blob:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'manifest-src': ["'self'"],
        'form-action': ["'self'"],
        'base-uri': ["'none'"],
        'frame-ancestors': ["'none'"]
      }
    },
    // Only where it is encrypted, and for no longer than the certificate may be changed for.
    strictTransportSecurity: access.secure
      ? { maxAge: 30 * 24 * 60 * 60, includeSubDomains: false }
      : false,
    referrerPolicy: { policy: 'no-referrer' },
    crossOriginEmbedderPolicy: true,
    xFrameOptions: { action: 'deny' },
    enableCSPNonces: true
  })
  http.addHook('onRequest', async (request) => {
    checkTarget(request)
    checkSource(request, access)
  })
}

/** A whole address as the target, or `*`, is for proxies and is none of this server's (RFC 9112, 3.2). */
function checkTarget({ raw }: FastifyRequest): void {
  if (!raw.url?.startsWith('/')) throw new InputError('', said('api.aRequestNamesItsTarget'))
}

/**
 * A page of another site, opened in the same browser, must not reach this server, under whatever name it calls it.
 * Requests name a host that is known, and what changes something comes from a page of this very server.
 */
function checkSource(request: FastifyRequest, { secure, names, fronts }: Access): void {
  const { host = '', origin } = request.headers
  const asked = host.toLowerCase()
  const port = request.socket.localPort
  // A port that is the usual one is not named.
  const own = (name: string): boolean =>
    asked === `${name}:${port}` || (asked === name && port === (secure ? 443 : 80))
  if (!names.some(own) && !fronts.includes(asked))
    throw notAllowed(said('api.thisServerDoesNotAnswer'))
  if (/^(GET|HEAD|OPTIONS)$/.test(request.method)) return
  const foreign =
    origin === undefined
      ? request.headers['sec-fetch-site'] === 'cross-site'
      : origin.toLowerCase() !== `${secure ? 'https' : 'http'}://${asked}`
  if (foreign) throw notAllowed(said('api.thisServerTakesChangesOnly'))
}
