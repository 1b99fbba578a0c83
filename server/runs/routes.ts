import { StartRunSchema } from '../../core/api.ts'
import { INSTALLER, allow, byId, type Api } from '../api/route.ts'
import type { Runs } from './service.ts'

export function runRoutes(app: Api, runs: Runs): void {
  app.post(
    '/clips/:id/runs',
    allow(INSTALLER, { params: byId, body: StartRunSchema }),
    async ({ params, body }, reply) =>
      reply.status(201).send(await runs.start(params.id, body.speed, body.hold))
  )
  app.get('/clips/:id/real-actions', allow(INSTALLER, { params: byId }), ({ params }) =>
    runs.realActions(params.id)
  )
  app.get('/runs/:id', allow(INSTALLER, { params: byId }), ({ params }) => runs.read(params.id))
  app.post('/runs/:id/stop', allow(INSTALLER, { params: byId }), ({ params }) =>
    runs.stop(params.id)
  )
}
