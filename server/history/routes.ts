import { parseWith } from '../../core/schema/parse.ts'
import { SaidSchema } from '../../core/schema/said.ts'
import { said, saidOf, type Said } from '../../core/messages/said.ts'
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

/**
 * Who makes an edit, and what the browser calls it: a code with its values, or a text (a header carries those of any
 * script percent-encoded).
 */
export function noteOf(request: FastifyRequest, label: Said): EditNote {
  const author = authorOf(request)
  const given = request.headers['x-edit-label']
  if (typeof given !== 'string') return { ...author, label }
  try {
    const text = decodeURIComponent(given).trim()
    const asked = saidOf(text)
    return {
      ...author,
      label: typeof asked === 'string' ? asked || label : parseWith(SaidSchema, asked)
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
      querystring: v.object({ before: v.optional(numberText(said('things.anEdit'))) })
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
      params: v.object({ ...byCamera.entries, id: numberText(said('things.anEdit')) })
    }),
    async ({ params }) => {
      const { site, camera } = await readCamera(database, params.camera)
      return readStateAt(database, site.id, camera.id, params.id)
    }
  )
}
