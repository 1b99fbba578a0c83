import type { FastifyInstance } from 'fastify'
import { AccountSchema, AddDeviceSchema } from '../../core/api.ts'
import { parseWith } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import { busy, notFound } from '../errors.ts'
import { readCamera, readSite } from '../sites/rows.ts'
import type { Devices } from './devices.ts'
import { Trouble } from './link.ts'

type ById = { Params: { id: string } }

export function deviceRoutes(app: FastifyInstance, database: Database, devices: Devices): void {
  app.get('/api/devices', () => devices.list())

  app.post('/api/devices', async ({ body }, reply) => {
    const site = await readSite(database)
    if (!site) throw notFound('a site')
    const wanted = parseWith(AddDeviceSchema, body)
    if (wanted.camera !== null) await readCamera(database, wanted.camera)
    return reply.status(201).send(await devices.add(site.id, wanted))
  })

  app.post<ById>('/api/devices/:id/read', async ({ params }) => {
    await devices.one(params.id)
    await devices.read(params.id)
    return devices.one(params.id)
  })

  app.post<ById>('/api/devices/:id/account', async ({ params, body }) => {
    const { username, password, first } = parseWith(AccountSchema, body)
    try {
      return await devices.account(params.id, username, password, first)
    } catch (error) {
      if (error instanceof Trouble) throw busy(error.message)
      throw error
    }
  })

  app.post<ById>('/api/devices/:id/send', async ({ params }) => {
    const results = await devices.send(params.id)
    return { results, device: await devices.one(params.id) }
  })

  app.delete<ById>('/api/devices/:id', async ({ params }, reply) => {
    await devices.remove(params.id)
    return reply.status(204).send()
  })
}
