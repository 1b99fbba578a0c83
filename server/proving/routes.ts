import type { FastifyInstance } from 'fastify'
import { InputError } from '../../core/errors.ts'
import { parseWith } from '../../core/formats/plan.ts'
import { checkFaults } from '../../core/formats/walk.ts'
import { NamedChecksSchema, SaveCheckSchema } from '../../core/proving/views.ts'
import type { Database } from '../database.ts'
import { findDetection } from '../detections/rows.ts'
import { noteOf } from '../history/routes.ts'
import { readCamera } from '../sites/rows.ts'
import { WalkOrderSchema } from '../../core/proving/live.ts'
import type { Proving } from './proving.ts'
import type { WalkTests } from './walkTests.ts'
import { deleteCheck, readResult, saveCheck } from './rows.ts'
import { numberOf, versionOf } from '../params.ts'

const numbered = (text: string): number => numberOf(text, 'a run')
type ById = { Params: { id: string } }
type OfCamera = { Params: { camera: string; id: string } }

export function provingRoutes(app: FastifyInstance, database: Database, proving: Proving, walks: WalkTests): void {
  app.get('/api/proving', () => proving.read())
  app.post('/api/proving/take', async ({ body }) => ({ taken: await proving.take(parseWith(NamedChecksSchema, body ?? {}).checks) }))
  app.post('/api/proving/runs', async (request, reply) => reply.status(201).send(await proving.start(parseWith(NamedChecksSchema, request.body ?? {}).checks, noteOf(request, '').by)))
  app.get<ById>('/api/proving/runs/:id', ({ params }) => proving.view(numbered(params.id)))
  app.post<ById>('/api/proving/runs/:id/stop', ({ params }) => proving.stop(numbered(params.id)))
  app.post<ById>('/api/proving/runs/:id/go-on', ({ params }) => proving.goOn(numbered(params.id)))
  app.get<OfCamera>('/api/cameras/:camera/checks/:id/result', ({ params }) => readResult(database, params.camera, params.id))

  // A walk test: null, or the newest of the camera since the server started.
  app.get<{ Params: { camera: string } }>('/api/cameras/:camera/walk', async ({ params }, reply) => reply.type('application/json').send(JSON.stringify(walks.view(params.camera))))
  app.post<{ Params: { camera: string } }>('/api/cameras/:camera/walk', async (request, reply) => {
    const { check } = parseWith(WalkOrderSchema, request.body)
    if (check.by.how === 'walk') checkFaults(check.by.walk.faults, '$.check.by.walk.faults')
    return reply.status(201).send(await walks.start(request.params.camera, check, noteOf(request, '').by))
  })
  app.post<{ Params: { camera: string } }>('/api/cameras/:camera/walk/finish', ({ params }) => walks.finish(params.camera))
  app.delete<{ Params: { camera: string } }>('/api/cameras/:camera/walk', ({ params }) => walks.stop(params.camera))

  app.put<OfCamera>('/api/cameras/:camera/checks/:id', async ({ params, body }) => {
    const { check, version } = parseWith(SaveCheckSchema, body)
    if (params.id !== check.id) throw new InputError('$.check.id', `is "${check.id}", and the address says "${params.id.slice(0, 120)}"; they must be the same`)
    await readCamera(database, params.camera)
    if (!(await findDetection(database, params.camera, check.detection))) throw new InputError('$.check.detection', `names "${check.detection}", and the camera has no such detection`)
    if (check.by.how === 'walk') checkFaults(check.by.walk.faults, '$.check.by.walk.faults')
    return database.transaction((sql) => saveCheck(sql, params.camera, check, version, Date.now()))
  })

  app.delete<OfCamera & { Querystring: { version?: string } }>('/api/cameras/:camera/checks/:id', async ({ params, query }) => {
    const version = versionOf(query.version)
    return database.transaction((sql) => deleteCheck(sql, params.camera, params.id, version, Date.now()))
  })
}
