import { NewSiteSchema } from '../../core/sites/views.ts'
import { INSTALLER, SIGNED_IN, allow, byId, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { authorOf } from '../history/routes.ts'
import { listSites, makeSite, removeSite, restoreSite } from './manySites.ts'

/** Of this machine, until somebody says where the site is. */
const ownTimeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

/** The sites of the installation. */
export function sitesRoutes(app: Api, database: Database): void {
  app.get('/sites', allow(SIGNED_IN), ({ account }) => listSites(database, account!))

  app.post('/sites', allow(INSTALLER, { body: NewSiteSchema }), async (request, reply) => {
    const id = await database.transaction((sql) =>
      makeSite(sql, request.body, ownTimeZone(), authorOf(request), Date.now())
    )
    const sites = await listSites(database, request.account!)
    return reply.status(201).send(sites.find((s) => s.id === id))
  })

  app.delete('/sites/:id', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await database.transaction((sql) => removeSite(sql, params.id))
    return reply.status(204).send()
  })

  app.post('/sites/:id/restore', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await restoreSite(database, params.id)
    return reply.status(204).send()
  })
}
