import type { FastifyInstance } from 'fastify'
import { StartRunSchema } from '../../core/api.ts'
import { parseWith } from '../../core/formats/plan.ts'
import type { Runs } from './runs.ts'

type ById = { Params: { id: string } }

export function runRoutes(app: FastifyInstance, runs: Runs): void {
  app.post<ById>('/api/clips/:id/runs', async ({ params, body }, reply) => reply.status(201).send(await runs.start(params.id, parseWith(StartRunSchema, body).speed)))
  app.get<ById>('/api/runs/:id', ({ params }) => runs.read(params.id))
  app.post<ById>('/api/runs/:id/stop', ({ params }) => runs.stop(params.id))
}
