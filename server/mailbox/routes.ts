import type { FastifyInstance } from 'fastify'
import { notFound } from '../errors.ts'

/** Hands on to the mailbox stand-in, so that the application can show what has arrived there. */
export function mailboxRoutes(app: FastifyInstance, address: string | null): void {
  app.get<{ Params: { '*': string } }>('/api/mailbox/*', async ({ params }, reply) => {
    if (!address) throw notFound('a mailbox stand-in')
    const answer = await fetch(new URL(`/messages/${params['*']}`, address))
    if (answer.status === 404) throw notFound('this message')
    return reply.status(answer.status).type(answer.headers.get('content-type') ?? 'application/json').send(Buffer.from(await answer.arrayBuffer()))
  })
}
