import { NewSiteSchema } from '../../core/sites/views.ts'
import * as v from 'valibot'
import { said } from '../../core/messages/said.ts'
import { filled } from '../../core/schema/parts.ts'
import { INSTALLER, SIGNED_IN, allow, byId, fileBody, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import { authorOf } from '../history/routes.ts'
import { importSite, previewImport, unpack } from './archive.ts'
import { readSiteAlone } from './queries.ts'
import { listSites, makeSite, removeSite, restoreSite } from './manySites.ts'

/** Of this machine, until somebody says where the site is. */
const ownTimeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

const MAX_ARCHIVE = 100 * 2 ** 20
const whichImport = v.object({
  /** The id of a site that is changed; left out: a new one is made. */
  into: v.optional(filled(64)),
  preview: v.optional(v.string())
})

/** The sites of the installation. */
export function sitesRoutes(app: Api, database: Database, devices: Devices): void {
  app.get('/sites', allow(SIGNED_IN), ({ account }) => listSites(database, account!))

  app.post('/sites', allow(INSTALLER, { body: NewSiteSchema }), async (request, reply) => {
    const id = await database.transaction((sql) =>
      makeSite(sql, request.body, ownTimeZone(), authorOf(request), Date.now())
    )
    const sites = await listSites(database, request.account!)
    return reply.status(201).send(sites.find((s) => s.id === id))
  })

  app.register(async (instance) => {
    const files = instance as unknown as Api
    files.addContentTypeParser(
      'application/zip',
      { parseAs: 'buffer', bodyLimit: MAX_ARCHIVE },
      (_request, payload, done) => done(null, payload)
    )
    /** `preview`: what would change, and nothing does. */
    files.post(
      '/sites/import',
      {
        ...allow(INSTALLER, { querystring: whichImport, body: fileBody(said('sites.aZipFile')) }),
        bodyLimit: MAX_ARCHIVE
      },
      async (request, reply) => {
        const { into = null, preview } = request.query
        const sent = unpack(request.body)
        if (into !== null) await readSiteAlone(database, into)
        if (preview !== undefined) return previewImport(database, sent, into, Date.now())
        const id = await database.transaction((sql) =>
          importSite(sql, sent, into, authorOf(request), Date.now())
        )
        return reply.status(201).send({ id })
      }
    )
  })

  app.delete('/sites/:id', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await database.transaction((sql) => removeSite(sql, params.id))
    await devices.leave(params.id)
    return reply.status(204).send()
  })

  app.post('/sites/:id/restore', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await restoreSite(database, params.id)
    return reply.status(204).send()
  })
}
