import { SaveCameraSchema, SaveSiteSchema } from '../../core/api.ts'
import { InputError } from '../../core/errors.ts'
import { isTiedToSun } from '../../core/formats/plan.ts'
import { said } from '../../core/messages/said.ts'
import { INSTALLER, SIGNED_IN, allow, byCamera, versionQuery, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { noteOf } from '../history/routes.ts'
import type { Clips } from '../clips/service.ts'
import { fileName } from '../api/fileName.ts'
import { exportSite, readArchive } from './archive.ts'
import { deleteCamera, saveCamera, saveSite } from './cameras.ts'
import { readCamera, readSchedules, readSite, readSiteAlone } from './queries.ts'

/** The site and its cameras: what they are called, where they are, and which there are. */
export function siteRoutes(app: Api, database: Database, clips: Clips): void {
  app.get('/archive', allow(INSTALLER), async ({ site }, reply) => {
    const { name } = await readSiteAlone(database, site)
    const file = `${fileName(name, 'site')}.zip`
    return reply
      .type('application/zip')
      .header('content-disposition', `attachment; filename="${file}"`)
      .send(
        await exportSite({ database, clips }, site, await readArchive(database, site, Date.now()))
      )
  })

  app.get('/site', allow(SIGNED_IN), ({ site }) => readSite(database, site))

  app.put('/site', allow(INSTALLER, { body: SaveSiteSchema }), async (request) => {
    const site = await readSiteAlone(database, request.site)
    const { settings, version } = request.body
    const tied = settings.position
      ? undefined
      : (await readSchedules(database, site.id)).find(({ schedule }) => isTiedToSun(schedule))
    if (tied)
      throw new InputError('$.settings.position', said('plan.positionNeeded', tied.schedule.name))
    return database.transaction((sql) =>
      saveSite(sql, site.id, settings, version, noteOf(request, said('edits.site')), Date.now())
    )
  })

  app.put(
    '/cameras/:camera/settings',
    allow(INSTALLER, { params: byCamera, body: SaveCameraSchema }),
    async (request) => {
      const site = await readSiteAlone(database, request.site)
      const { settings, version } = request.body
      return database.transaction((sql) =>
        saveCamera(
          sql,
          site.id,
          request.params.camera,
          settings,
          version,
          noteOf(request, said('edits.edit', settings.name)),
          Date.now()
        )
      )
    }
  )

  app.delete(
    '/cameras/:camera/settings',
    allow(INSTALLER, { params: byCamera, querystring: versionQuery }),
    async (request) => {
      const { site, camera } = await readCamera(database, request.params.camera)
      return database.transaction((sql) =>
        deleteCamera(
          sql,
          site.id,
          camera.id,
          request.query.version,
          noteOf(request, said('edits.delete', camera.name)),
          Date.now()
        )
      )
    }
  )
}
