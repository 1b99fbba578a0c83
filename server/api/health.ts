import type { FastifyInstance } from 'fastify'
import type { Database } from '../database.ts'
import { RESERVE_BYTES, freeBytes } from '../space.ts'

/**
 * For whoever watches the server itself: 200 while it does its work, 503 with what is wrong. Tells nothing of the site,
 * and needs no account.
 */
export function healthRoute(http: FastifyInstance, database: Database, folder: string): void {
  http.get('/healthz', async (_request, reply) => {
    const free = await freeBytes(folder).catch(() => 0)
    await database.rows('SELECT 1').catch(() => [])
    const wrong = [
      ...(database.state.up ? [] : ['database']),
      ...(free < RESERVE_BYTES ? ['disk'] : [])
    ]
    return reply
      .status(wrong.length ? 503 : 200)
      .header('cache-control', 'no-store')
      .send({ status: wrong.length ? 'failing' : 'ok', failing: wrong })
  })
}
