import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { HistoryView } from '../../core/history/states.ts'
import type { Database } from '../database.ts'
import { numberOf } from '../params.ts'
import { readCamera } from '../sites/rows.ts'
import { readEdits, readStateAt, type EditNote } from './rows.ts'

const PAGE = 100

/** Who makes an edit, and what the browser calls it (a header carries words of any script percent-encoded). */
export function noteOf(request: FastifyRequest, label: string): EditNote {
  const by = request.account?.name ?? 'somebody'
  const said = request.headers['x-edit-label']
  try {
    return { by, label: (typeof said === 'string' && decodeURIComponent(said).trim()) || label }
  } catch {
    return { by, label }
  }
}

/** Who changed what on a camera, and how it was at any of these moments. */
export function historyRoutes(app: FastifyInstance, database: Database): void {
  app.get<{ Params: { camera: string }; Querystring: { before?: string } }>('/api/cameras/:camera/history', async ({ params, query }): Promise<HistoryView> => {
    const { site, camera } = await readCamera(database, params.camera)
    const entries = await readEdits(database, site.id, camera.id, query.before === undefined ? null : numberOf(query.before, 'an entry of the history', 'before'), PAGE + 1)
    return { entries: entries.slice(0, PAGE), more: entries.length > PAGE }
  })

  app.get<{ Params: { camera: string; id: string } }>('/api/cameras/:camera/history/:id', async ({ params }) => {
    const { site, camera } = await readCamera(database, params.camera)
    return readStateAt(database, site.id, camera.id, numberOf(params.id, 'an entry of the history', 'id'))
  })
}
