import { existsSync } from 'node:fs'
import { join } from 'node:path'
import fastifyStatic from '@fastify/static'
import { fastify, type FastifyInstance } from 'fastify'
import { benchRoutes } from './bench.ts'
import { Clips } from './clips/clips.ts'
import { clipRoutes } from './clips/routes.ts'
import type { Database } from './database.ts'
import { Devices } from './devices/devices.ts'
import type { Neighbourhood } from './devices/discovery.ts'
import { liveRoutes } from './devices/live.ts'
import { deviceRoutes } from './devices/routes.ts'
import { Seal } from './devices/seal.ts'
import { Sendings } from './devices/sending.ts'
import { Deliveries, type MailServer } from './deliveries/deliveries.ts'
import { answerError, notFound } from './errors.ts'
import { historyRoutes } from './history/routes.ts'
import { mailboxRoutes } from './mailbox/routes.ts'
import { Readiness } from './readiness/readiness.ts'
import { runRoutes } from './runs/routes.ts'
import { Runs } from './runs/runs.ts'

export interface AppOptions {
  database: Database
  /** Where clips are kept. */
  folder: string
  /** The built interface; left out: only the API. */
  web?: string
  mostClipBytes: number
  mail: MailServer
  /** HTTP address of the mailbox stand-in. */
  mailbox: string | null
  /** Where devices are asked for. */
  places: readonly Neighbourhood[]
  log: boolean
}

export interface App {
  http: FastifyInstance
  clips: Clips
  devices: Devices
  close(): Promise<void>
}

/** The server, ready to listen: services first, then their routes. */
export async function makeApp({ database, folder, web, mostClipBytes, mail, mailbox, places, log }: AppOptions): Promise<App> {
  const http = fastify({ logger: log ? { level: 'error', stream: process.stderr } : false, bodyLimit: 2 * 2 ** 20, forceCloseConnections: true })
  const logError = (error: unknown): void => http.log.error(error)
  const clips = new Clips(database, join(folder, 'clips'), mostClipBytes, logError)
  const deliveries = new Deliveries(database, clips, mail, logError)
  const runs = new Runs(database, clips, () => deliveries.kick(), logError)
  const devices = new Devices(database, new Seal(join(folder, 'device.key')), logError)
  const sendings = new Sendings((id) => devices.send(id))

  http.setErrorHandler(answerError)
  guardLoopback(http)
  benchRoutes(http, database, clips)
  historyRoutes(http, database)
  clipRoutes(http, database, clips)
  runRoutes(http, runs)
  const readiness = new Readiness(database, clips)
  http.get('/api/readiness', () => readiness.read())
  deviceRoutes(http, database, devices, sendings, places)
  liveRoutes(http, database, devices)
  mailboxRoutes(http, mailbox)
  if (web && existsSync(web)) {
    await http.register(fastifyStatic, {
      root: web,
      preCompressed: true,
      cacheControl: false,
      // Files of the build are named after what is in them; the page that names them is asked for each time.
      setHeaders: (response, path) => void response.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache')
    })
    // Every place of the interface has its own address; the page finds it.
    http.setNotFoundHandler((request, reply) => {
      if (request.url.startsWith('/api/') || request.method !== 'GET') return reply.status(404).send(notFound(request.url).view)
      return reply.sendFile('index.html')
    })
  }

  await runs.resume()
  await clips.resume()
  deliveries.start()
  return {
    http,
    clips,
    devices,
    close: async () => {
      await http.close()
      await sendings.close()
      await Promise.all([runs.close(), clips.close(), devices.close()])
      await deliveries.close()
    }
  }
}

/**
 * The server is for this machine: a page of another site, opened in the same browser, must not reach it. Requests
 * name a loopback host, and one that changes something comes from the application itself.
 */
function guardLoopback(http: FastifyInstance): void {
  const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/
  http.addHook('onRequest', async (request, reply) => {
    const { host = '', origin } = request.headers
    const foreign = origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== host)
    if (!local.test(host) || (foreign && request.method !== 'GET')) return reply.status(403).send({ code: 'bad-input', message: 'this server answers only pages of its own, on this machine' })
  })
}
