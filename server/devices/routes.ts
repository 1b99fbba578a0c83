import type { FastifyInstance } from 'fastify'
import { AccountSchema, AddDeviceSchema, ChannelChangeSchema, ModeSchema, SendSchema, TakeOverSchema, type FoundDevice } from '../../core/devices/views.ts'
import { parseWith } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import { busy, notFound } from '../errors.ts'
import { readCamera, readSite } from '../sites/rows.ts'
import type { Devices } from './devices.ts'
import { findDevices, type Neighbourhood } from './discovery.ts'
import { readDevice } from './rows.ts'
import type { Sendings } from './sending.ts'
import { Trouble } from './trouble.ts'

type ById = { Params: { id: string } }
type ByChannel = { Params: { id: string; token: string } }

/** What a device refuses is no fault of the server. */
async function said<T>(work: Promise<T>): Promise<T> {
  try {
    return await work
  } catch (error) {
    if (error instanceof Trouble) throw busy(error.message)
    throw error
  }
}

/** @param places where devices are asked for */
export function deviceRoutes(app: FastifyInstance, database: Database, devices: Devices, sendings: Sendings, places: readonly Neighbourhood[]): void {
  app.get('/api/devices', () => devices.list())
  app.get<ById>('/api/devices/:id', ({ params }) => devices.one(params.id))
  app.get<ById>('/api/devices/:id/events', ({ params }) => devices.events(params.id))

  app.post('/api/devices/find', async (): Promise<FoundDevice[]> => {
    const found = await findDevices(places)
    // Known are those that are there now, not when the question was asked.
    const known = await devices.list()
    return found.map((match) => ({ ...match, known: known.some(({ address }) => address === match.address) }))
  })

  app.post('/api/devices', async ({ body }, reply) => {
    const site = await readSite(database)
    if (!site) throw notFound('a site')
    const wanted = parseWith(AddDeviceSchema, body)
    if (wanted.camera !== null) await readCamera(database, wanted.camera)
    return reply.status(201).send(await devices.add(site.id, wanted))
  })

  app.post<ById>('/api/devices/:id/read', async ({ params }) => {
    await readDevice(database, params.id)
    await devices.readAfresh(params.id)
    return devices.one(params.id)
  })

  app.post<ById>('/api/devices/:id/account', ({ params, body }) => {
    const { username, password, first } = parseWith(AccountSchema, body)
    return said(devices.account(params.id, username, password, first))
  })

  app.put<ByChannel>('/api/devices/:id/channels/:token', async ({ params, body }) => {
    const change = parseWith(ChannelChangeSchema, body)
    if (change.camera) await readCamera(database, change.camera)
    return devices.changeChannel(params.id, params.token, change)
  })

  app.put<ByChannel>('/api/devices/:id/channels/:token/mode', ({ params, body }) => said(devices.setMode(params.id, params.token, parseWith(ModeSchema, body).type)))

  app.post<ByChannel>('/api/devices/:id/outputs/:token/test', ({ params }) => said(devices.testOutput(params.id, params.token)))

  app.post<ById>('/api/devices/:id/take-over', ({ params, body }) => {
    const { channel, rule } = parseWith(TakeOverSchema, body)
    return devices.takeOver(params.id, channel, rule)
  })

  app.post('/api/sendings', async ({ body }, reply) => {
    const rows = await Promise.all(parseWith(SendSchema, body).devices.map((id) => readDevice(database, id)))
    return reply.status(201).send(sendings.start(rows))
  })
  app.get<ById>('/api/sendings/:id', ({ params }) => sendings.read(params.id))

  app.delete<ById>('/api/devices/:id', async ({ params }, reply) => {
    await devices.remove(params.id)
    return reply.status(204).send()
  })
}
