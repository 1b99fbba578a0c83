import * as v from 'valibot'
import {
  AccountSchema,
  CertificateSchema,
  AddDeviceSchema,
  ChannelChangeSchema,
  ModeSchema,
  SendSchema,
  TakeOverSchema,
  type FoundDevice
} from '../../core/devices/views.ts'
import { INSTALLER, allow, byId, tokenText, type Api } from '../api/route.ts'
import type { Database } from '../database.ts'
import { said } from '../../core/messages/said.ts'
import { conflict, notFound } from '../errors.ts'
import { cameraOfSite } from '../sites/queries.ts'
import type { Devices } from './service.ts'
import { findDevices, type Neighbourhood } from './discovery.ts'
import {
  DevicePasswordSchema,
  NightPictureSchema,
  SetClockSchema
} from '../../core/devices/upkeep.ts'
import { readDevice, type DeviceRow } from './queries.ts'
import type { Sendings } from './sending.ts'
import { DeviceError } from './link/deviceError.ts'

const byToken = v.object({ ...byId.entries, token: tokenText })

/** What a device refuses is no fault of the server. */
async function answered<T>(work: Promise<T>): Promise<T> {
  try {
    return await work
  } catch (error) {
    if (error instanceof DeviceError) throw conflict(error.said)
    throw error
  }
}

/** @throws ApiError when one of them is none of the site's */
async function ownDevices(
  database: Database,
  site: string,
  ids: readonly string[]
): Promise<DeviceRow[]> {
  const rows = await Promise.all(ids.map((id) => readDevice(database, id)))
  const foreign = rows.find((row) => row.site !== site)
  if (foreign) throw notFound(said('things.device', foreign.id))
  return rows
}

/** @param places where devices are asked for */
export function deviceRoutes(
  app: Api,
  database: Database,
  devices: Devices,
  sendings: Sendings,
  places: readonly Neighbourhood[]
): void {
  app.get('/devices', allow(INSTALLER), ({ site }) => devices.list(site))
  app.get('/devices/:id', allow(INSTALLER, { params: byId }), ({ params }) =>
    devices.one(params.id)
  )
  app.get('/devices/:id/events', allow(INSTALLER, { params: byId }), ({ params }) =>
    devices.events(params.id)
  )

  app.post('/devices/find', allow(INSTALLER), async ({ site }): Promise<FoundDevice[]> => {
    const found = await findDevices(places)
    // Known are those that are there now, not when the question was asked.
    const known = await devices.list(site)
    return found.map((match) => ({
      ...match,
      known: known.some(({ address }) => address === match.address)
    }))
  })

  app.post(
    '/devices',
    allow(INSTALLER, { body: AddDeviceSchema }),
    async ({ body: wanted, site }, reply) => {
      if (wanted.camera !== null) await cameraOfSite(database, site, wanted.camera)
      return reply.status(201).send(await devices.add(site, wanted))
    }
  )

  app.post('/devices/:id/read', allow(INSTALLER, { params: byId }), async ({ params }) => {
    await readDevice(database, params.id)
    await devices.reader.readAfresh(params.id)
    return devices.one(params.id)
  })

  app.post(
    '/devices/:id/account',
    allow(INSTALLER, { params: byId, body: AccountSchema }),
    ({ params, body }) => {
      const { username, password, first } = body
      return answered(devices.account(params.id, username, password, first))
    }
  )

  app.post(
    '/devices/:id/certificate',
    allow(INSTALLER, { params: byId, body: CertificateSchema }),
    ({ params, body }) => answered(devices.trust(params.id, body.shown))
  )

  app.put(
    '/devices/:id/channels/:token',
    allow(INSTALLER, { params: byToken, body: ChannelChangeSchema }),
    async ({ params, body: change, site }) => {
      if (change.camera) await cameraOfSite(database, site, change.camera)
      return devices.changeChannel(params.id, params.token, change)
    }
  )

  app.get('/devices/:id/upkeep', allow(INSTALLER, { params: byId }), ({ params }) =>
    answered(devices.upkeep(params.id))
  )
  app.get('/devices/:id/abilities', allow(INSTALLER, { params: byId }), ({ params }) =>
    answered(devices.abilities(params.id))
  )
  app.put(
    '/devices/:id/clock',
    allow(INSTALLER, { params: byId, body: SetClockSchema }),
    ({ params, body }) => answered(devices.setClock(params.id, body.ntp))
  )
  app.put(
    '/devices/:id/channels/:token/night-picture',
    allow(INSTALLER, { params: byToken, body: NightPictureSchema }),
    async ({ params, body }, reply) => {
      await answered(devices.setNightPicture(params.id, params.token, body.mode))
      return reply.status(204).send()
    }
  )
  app.post(
    '/devices/password',
    allow(INSTALLER, { body: DevicePasswordSchema }),
    async ({ body, site }) => {
      await ownDevices(database, site, body.devices)
      return devices.setPasswords(body.devices, body.password)
    }
  )

  app.put(
    '/devices/:id/channels/:token/mode',
    allow(INSTALLER, { params: byToken, body: ModeSchema }),
    ({ params, body }) => answered(devices.setMode(params.id, params.token, body.type))
  )

  app.post(
    '/devices/:id/outputs/:token/test',
    allow(INSTALLER, { params: byToken }),
    ({ params }) => answered(devices.testOutput(params.id, params.token))
  )

  app.post(
    '/devices/:id/take-over',
    allow(INSTALLER, { params: byId, body: TakeOverSchema }),
    ({ params, body }) => {
      const { channel, rule } = body
      return devices.takeOver(params.id, channel, rule)
    }
  )

  app.post('/sendings', allow(INSTALLER, { body: SendSchema }), async ({ body, site }, reply) => {
    const rows = await ownDevices(database, site, body.devices)
    return reply.status(201).send(sendings.start(site, rows))
  })
  app.get('/sendings/:id', allow(INSTALLER, { params: byId }), ({ params, site }) =>
    sendings.read(site, params.id)
  )

  app.delete('/devices/:id', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await devices.remove(params.id)
    return reply.status(204).send()
  })
}
