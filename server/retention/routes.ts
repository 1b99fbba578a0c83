import { said } from '../../core/messages/said.ts'
import { SaveRetentionSchema, type RetentionView } from '../../core/retention.ts'
import { readSettings, saveSetting } from '../actions/queries.ts'
import { INSTALLER, allow, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { noteOf } from '../history/routes.ts'
import { retentionHome } from './queries.ts'
import type { RetentionKeeper } from './service.ts'

export function retentionRoutes(app: Api, database: Database, keeper: RetentionKeeper): void {
  app.get('/retention', allow(INSTALLER), async (): Promise<RetentionView> => ({
    ...(await readSettings(database, await retentionHome(database))).retention,
    ...(await keeper.view())
  }))
  app.put(
    '/settings/retention',
    allow(INSTALLER, { body: SaveRetentionSchema }),
    async (request): Promise<RetentionView> => {
      const id = await retentionHome(database)
      const { retention, version } = request.body
      const saved = await database.transaction((sql) =>
        saveSetting(
          sql,
          id,
          'retention',
          retention,
          version,
          noteOf(request, said('edits.retention')),
          Date.now()
        )
      )
      return { ...saved.retention, ...(await keeper.view()) }
    }
  )
}
