import { said } from '../../core/messages/said.ts'
import { InputError } from '../../core/errors.ts'
import { checkFaults } from '../../core/formats/walk.ts'
import { NamedChecksSchema, SaveCheckSchema } from '../../core/proving/views.ts'
import {
  INSTALLER,
  allow,
  byCamera,
  byCameraAndId,
  byNumber,
  orNothing,
  versionQuery,
  type Api
} from '../api/route.ts'
import type { Database } from '../database.ts'
import { findDetection } from '../detections/queries.ts'
import { authorOf } from '../history/routes.ts'
import { readCamera } from '../sites/queries.ts'
import { WalkOrderSchema } from '../../core/proving/live.ts'
import type { Proving } from './service.ts'
import type { WalkTests } from './walkTests.ts'
import { deleteCheck, readResult, saveCheck } from './queries.ts'

const aRun = byNumber(said('things.aRun'))
const propose = allow(INSTALLER)
const someChecks = orNothing(NamedChecksSchema)

export function provingRoutes(
  app: Api,
  database: Database,
  proving: Proving,
  walks: WalkTests
): void {
  app.get('/proving', allow(INSTALLER), ({ site }) => proving.read(site))
  // Works out what to check, in processes of its own; the results are read like all others.
  app.post(
    '/proving/propose',
    { ...propose, config: { ...propose.config, unaudited: true } },
    ({ site }) => proving.read(site, true)
  )
  app.post('/proving/take', allow(INSTALLER, { body: someChecks }), async ({ body, site }) => ({
    taken: await proving.take(site, body.checks)
  }))
  app.post('/proving/runs', allow(INSTALLER, { body: someChecks }), async (request, reply) =>
    reply
      .status(201)
      .send(await proving.runs.start(request.site, request.body.checks, authorOf(request)))
  )
  app.get('/proving/runs/:id', allow(INSTALLER, { params: aRun }), ({ params }) =>
    proving.runs.view(params.id)
  )
  app.post('/proving/runs/:id/stop', allow(INSTALLER, { params: aRun }), ({ params }) =>
    proving.runs.stop(params.id)
  )
  app.post('/proving/runs/:id/go-on', allow(INSTALLER, { params: aRun }), ({ params }) =>
    proving.runs.resume(params.id)
  )
  app.get(
    '/cameras/:camera/checks/:id/result',
    allow(INSTALLER, { params: byCameraAndId }),
    ({ params }) => readResult(database, params.camera, params.id)
  )

  // A walk test: null, or the newest of the camera since the server started.
  app.get(
    '/cameras/:camera/walk',
    allow(INSTALLER, { params: byCamera }),
    async ({ params }, reply) =>
      reply.type('application/json').send(JSON.stringify(walks.view(params.camera)))
  )
  app.post(
    '/cameras/:camera/walk',
    allow(INSTALLER, { params: byCamera, body: WalkOrderSchema }),
    async (request, reply) => {
      const { check } = request.body
      if (check.by.how === 'walk') checkFaults(check.by.walk.faults, '$.check.by.walk.faults')
      return reply
        .status(201)
        .send(await walks.start(request.params.camera, check, authorOf(request)))
    }
  )
  app.post('/cameras/:camera/walk/finish', allow(INSTALLER, { params: byCamera }), ({ params }) =>
    walks.finish(params.camera)
  )
  app.delete('/cameras/:camera/walk', allow(INSTALLER, { params: byCamera }), ({ params }) =>
    walks.stop(params.camera)
  )

  app.put(
    '/cameras/:camera/checks/:id',
    allow(INSTALLER, { params: byCameraAndId, body: SaveCheckSchema }),
    async ({ params, body }) => {
      const { check, version } = body
      if (params.id !== check.id)
        throw new InputError(
          '$.check.id',
          said('input.isAndThe', check.id, params.id.slice(0, 120))
        )
      await readCamera(database, params.camera)
      if (!(await findDetection(database, params.camera, check.detection)))
        throw new InputError('$.check.detection', said('proving.namesAndThe', check.detection))
      if (check.by.how === 'walk') checkFaults(check.by.walk.faults, '$.check.by.walk.faults')
      return database.transaction((sql) =>
        saveCheck(sql, params.camera, check, version, Date.now())
      )
    }
  )

  app.delete(
    '/cameras/:camera/checks/:id',
    allow(INSTALLER, { params: byCameraAndId, querystring: versionQuery }),
    async ({ params, query }) => {
      return database.transaction((sql) =>
        deleteCheck(sql, params.camera, params.id, query.version, Date.now())
      )
    }
  )
}
