import type { FastifyInstance, FastifyRequest } from 'fastify'
import { InputError } from '../../core/errors.ts'
import type { HistoryView } from '../../core/history/states.ts'
import type { Database } from '../database.ts'
import { readCamera } from '../sites/rows.ts'
import { readEdits, readStateAt, type EditNote } from './rows.ts'

const PAGE = 100

const header = (request: FastifyRequest, name: string, usual: string): string => {
  const value = request.headers[name]
  try {
    // Names may be in any script; a header carries them percent-encoded.
    return (typeof value === 'string' && decodeURIComponent(value).trim()) || usual
  } catch {
    return usual
  }
}

/** Who says that he makes an edit, and what he calls it. There are no accounts yet: a name, not a proof. */
export const noteOf = (request: FastifyRequest, label: string): EditNote => ({ by: header(request, 'x-edit-by', 'somebody'), label: header(request, 'x-edit-label', label) })

const entryId = (text: string | undefined, place: string): number => {
  if (!/^\d{1,15}$/.test(text ?? '')) throw new InputError(place, 'must be the number of an entry of the history')
  return Number(text)
}

/** Who changed what on a camera, and how it was at any of these moments. */
export function historyRoutes(app: FastifyInstance, database: Database): void {
  app.get<{ Params: { camera: string }; Querystring: { before?: string } }>('/api/cameras/:camera/history', async ({ params, query }): Promise<HistoryView> => {
    const { site, camera } = await readCamera(database, params.camera)
    const entries = await readEdits(database, site.id, camera.id, query.before === undefined ? null : entryId(query.before, 'before'), PAGE + 1)
    return { entries: entries.slice(0, PAGE), more: entries.length > PAGE }
  })

  app.get<{ Params: { camera: string; id: string } }>('/api/cameras/:camera/history/:id', async ({ params }) => {
    const { site, camera } = await readCamera(database, params.camera)
    return readStateAt(database, site.id, camera.id, entryId(params.id, 'id'))
  })
}
