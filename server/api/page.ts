import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fastifyStatic from '@fastify/static'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { notFound } from '../errors.ts'
import { preloads } from './preload.ts'

const NONCE = /__CSP_NONCE__/g

/** The built interface: its files, and the page for every address of a place. @param folder of the build */
export async function servePage(http: FastifyInstance, folder: string): Promise<void> {
  const page = readFileSync(join(folder, 'index.html'), 'utf8')
  const early = preloads(folder, page)
  const answer = (request: FastifyRequest, reply: FastifyReply): FastifyReply =>
    reply
      .type('text/html; charset=utf-8')
      .header('cache-control', 'no-store')
      .send(
        page
          .replace('</head>', () => `${early(pathOf(request))}\n</head>`)
          .replace(NONCE, reply.cspNonce.style)
      )
  await http.register(fastifyStatic, {
    root: folder,
    index: false,
    preCompressed: true,
    cacheControl: false,
    allowedPath: (path) =>
      path !== '/index.html' && !path.split('/').some((part) => part.startsWith('.')),
    // Files of the build are named after what is in them.
    setHeaders: (response, path) => {
      response.setHeader(
        'cache-control',
        path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'
      )
      response.setHeader('vary', 'Accept-Encoding')
    }
  })
  http.get('/', answer)
  // Every place of the interface has its own address; the page finds it. A file that is not there is not the page.
  http.setNotFoundHandler((request, reply) =>
    isPlace(request)
      ? answer(request, reply)
      : reply.status(404).send(notFound(request.url.slice(0, 200)).view)
  )
}

const pathOf = ({ url }: FastifyRequest): string => url.split('?')[0]!

function isPlace(request: FastifyRequest): boolean {
  return (
    request.method === 'GET' &&
    (request.headers.accept ?? '').includes('text/html') &&
    !/\.\w+$|^\/+(assets|api)(\/|$)/i.test(pathOf(request))
  )
}
