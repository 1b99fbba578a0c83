import type { FastifyReply } from 'fastify'
import * as v from 'valibot'
import {
  AcceptIssueSchema,
  IssueKeySchema,
  MakeRecordSchema,
  SignSchema,
  StartVisitSchema,
  type RecordsView
} from '../../core/handover/views.ts'
import { said } from '../../core/messages/said.ts'
import { fileName } from '../api/fileName.ts'
import { ACTING, INSTALLER, allow, numberText, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { authorOf } from '../history/routes.ts'
import { readSiteAlone } from '../sites/queries.ts'
import { endVisit, takeBackAccepted } from './queries.ts'
import type { Handover } from './service.ts'

const byRecord = v.object({ number: numberText(said('things.aRecord')) })

/** Records: made and signed by installers, read by operators too. */
export function handoverRoutes(app: Api, database: Database, handover: Handover): void {
  /** A file of a record, under the name of its site. */
  const answer = async (
    reply: FastifyReply,
    { site, params: { number } }: { site: string; params: { number: number } },
    [type, ending, disposition]: readonly [string, string, string],
    content: Uint8Array
  ): Promise<FastifyReply> => {
    const { name } = await readSiteAlone(database, site)
    const file = `${fileName(name, 'site')}-${number}.${ending}`
    return reply
      .type(type)
      .header('content-disposition', `${disposition}; filename="${file}"`)
      .send(Buffer.from(content))
  }

  app.get('/handover', allow(INSTALLER), ({ site }) => handover.view(site))

  app.get('/records', allow(ACTING), async ({ site }): Promise<RecordsView> => ({
    records: await handover.records(site)
  }))

  app.post('/records', allow(INSTALLER, { body: MakeRecordSchema }), (request) =>
    handover.start(request.site, request.body, authorOf(request))
  )

  app.delete('/handover/job', allow(INSTALLER), async ({ site }) => {
    await handover.stop(site)
    return {}
  })

  app.get('/records/:number/pdf', allow(ACTING, { params: byRecord }), async (request, reply) =>
    answer(
      reply,
      request,
      ['application/pdf', 'pdf', 'inline'],
      await handover.pages(request.site, request.params.number)
    )
  )

  app.get('/records/:number/zip', allow(ACTING, { params: byRecord }), async (request, reply) =>
    answer(
      reply,
      request,
      ['application/zip', 'zip', 'attachment'],
      await handover.zip(request.site, request.params.number)
    )
  )

  app.get('/records/:number/changes', allow(INSTALLER, { params: byRecord }), (request) =>
    handover.changes(request.site, request.params.number)
  )

  app.post(
    '/records/:number/signatures',
    allow(INSTALLER, { params: byRecord, body: SignSchema }),
    (request) => handover.sign(request.site, request.params.number, request.body, authorOf(request))
  )

  app.post('/handover/accepted', allow(INSTALLER, { body: AcceptIssueSchema }), async (request) => {
    const { key, reason } = request.body
    await handover.accept(request.site, key, reason, authorOf(request), Date.now())
    return {}
  })

  app.delete(
    '/handover/accepted',
    allow(INSTALLER, { querystring: IssueKeySchema }),
    async (request) => {
      await takeBackAccepted(database, request.site, request.query.key)
      return {}
    }
  )

  app.post('/handover/visit', allow(INSTALLER, { body: StartVisitSchema }), async (request) => {
    await handover.startVisit(request.site, request.body.record, authorOf(request), Date.now())
    return {}
  })

  app.delete('/handover/visit', allow(INSTALLER), async ({ site }) => {
    await endVisit(database, site)
    return {}
  })
}
