import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fastifyStatic from '@fastify/static'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { offline } from '../../core/messages/en/offline.ts'
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
  // Kept in browsers by web/public/sw.js.
  http.get('/offline', (_, reply) =>
    reply
      .type('text/html; charset=utf-8')
      .header('cache-control', 'no-store')
      .send(offlinePage.replace(NONCE, reply.cspNonce.style))
  )
  // Every place of the interface has its own address; the page finds it. A file that is not there is not the page.
  http.setNotFoundHandler((request, reply) =>
    isPlace(request)
      ? answer(request, reply)
      : reply.status(404).send(notFound(request.url.slice(0, 200)).view)
  )
}

/** It has all that it needs in itself: nothing else can be had when it is shown. */
const offlinePage = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8" />
<meta name="viewport" content="width=device-width, initial-scale=1" />
<title>${offline.title}</title>
<style nonce="__CSP_NONCE__">
body { margin: 0; min-height: 100vh; display: grid; place-content: center; justify-items: start; gap: 14px; padding: 24px; box-sizing: border-box; font: 17px/1.5 sans-serif; background: #f7f5f0; color: #1b2430; }
h1 { font-size: 22px; margin: 0; }
p { margin: 0; max-width: 34em; }
a { display: block; padding: 12px 20px; border-radius: 6px; background: #1f6f5c; color: #fff; text-decoration: none; }
</style>
</head>
<body>
<h1>${offline.title}</h1>
<p>${offline.notHere}</p>
<a href="">${offline.tryAgain}</a>
</body>
</html>
`

const pathOf = ({ url }: FastifyRequest): string => url.split('?')[0]!

function isPlace(request: FastifyRequest): boolean {
  return (
    request.method === 'GET' &&
    (request.headers.accept ?? '').includes('text/html') &&
    !/\.\w+$|^\/+(assets|api)(\/|$)/i.test(pathOf(request))
  )
}
