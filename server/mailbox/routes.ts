import { coded, said } from '../../core/messages/said.ts'
import * as v from 'valibot'
import { INSTALLER, allow, type Api } from '../api/route.ts'
import { notFound } from '../errors.ts'

/** A message, or a part of one; a path cannot leave the mailbox. */
const message = v.object({
  '*': v.pipe(
    v.string(),
    v.regex(/^(?:[\w-]+(?:\.[\w-]+)*\/?){0,4}$/, coded('mailbox.mustBeAMessageOf'))
  )
})

/** Proxies the mailbox simulator, so that the application can show what has arrived there. */
export function mailboxRoutes(app: Api, address: string | null): void {
  app.get('/mailbox/*', allow(INSTALLER, { params: message }), async ({ params }, reply) => {
    if (!address) throw notFound(said('things.mailbox'))
    const answer = await fetch(new URL(`/messages/${params['*']}`, address))
    if (answer.status === 404) throw notFound(said('things.message'))
    return reply
      .status(answer.status)
      .type(answer.headers.get('content-type') ?? 'application/json')
      .send(Buffer.from(await answer.arrayBuffer()))
  })
}
