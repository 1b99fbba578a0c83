import type { FastifyRequest } from 'fastify'
import * as v from 'valibot'
import type { HistoryView } from '../../core/history/states.ts'
import { INSTALLER, allow, byCamera, numberText, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { readCamera } from '../sites/queries.ts'
import { readEdits, readStateAt, type Author, type EditNote } from './queries.ts'

const PAGE = 100

/** Who asks, by name and, as names change, by account. */
export const authorOf = ({ account }: FastifyRequest): Author => ({
  by: account?.name ?? 'somebody',
  byId: account?.id ?? null
})

/** Who makes an edit, and what the browser calls it (a header carries words of any script percent-encoded). */
export function noteOf(request: FastifyRequest, label: string): EditNote {
  const author = authorOf(request)
  const said = request.headers['x-edit-label']
  try {
    return {
      ...author,
      label: (typeof said === 'string' && decodeURIComponent(said).trim()) || label
    }
  } catch {
    return { ...author, label }
  }
}

/** Who changed what on a camera, and how it was at any of these moments. */
export function historyRoutes(app: Api, database: Database): void {
  app.get(
    '/cameras/:camera/history',
    allow(INSTALLER, {
      params: byCamera,
      querystring: v.object({ before: v.optional(numberText('an entry of the history')) })
    }),
    async ({ params, query }): Promise<HistoryView> => {
      const { site, camera } = await readCamera(database, params.camera)
      const entries = await readEdits(database, site.id, camera.id, query.before ?? null, PAGE + 1)
      return { entries: entries.slice(0, PAGE), more: entries.length > PAGE }
    }
  )

  app.get(
    '/cameras/:camera/history/:id',
    allow(INSTALLER, {
      params: v.object({ ...byCamera.entries, id: numberText('an entry of the history') })
    }),
    async ({ params }) => {
      const { site, camera } = await readCamera(database, params.camera)
      return readStateAt(database, site.id, camera.id, params.id)
    }
  )
}
