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
import { actionsRoutes } from './actions/routes.ts'
import { testEndpoint } from './actions/tests.ts'
import { Alarms } from './alarms/alarms.ts'
import { LiveTriggers } from './alarms/live.ts'
import { alarmRoutes } from './alarms/routes.ts'
import { Heartbeats } from './deliveries/heartbeats.ts'
import { Mailer } from './deliveries/mail.ts'
import { Pictures } from './deliveries/pictures.ts'
import { Popups } from './deliveries/popups.ts'
import { DeviceRecordings } from './deliveries/deviceRecordings.ts'
import { Queue } from './deliveries/queue.ts'
import { makeSenders, type SenderParts } from './deliveries/senders.ts'
import { answerError, notFound } from './errors.ts'
import { Accounts } from './accounts/accounts.ts'
import { accountRoutes, guardRoles } from './accounts/routes.ts'
import { historyRoutes } from './history/routes.ts'
import { mailboxRoutes } from './mailbox/routes.ts'
import { searchRoutes } from './search/routes.ts'
import { TargetMemory } from './watch/memory.ts'
import { Evidence } from './watch/evidence.ts'
import { watchRoutes } from './watch/routes.ts'
import type { StandInPorts } from './standIns.ts'
import { Proving } from './proving/proving.ts'
import { provingRoutes } from './proving/routes.ts'
import { WalkTests } from './proving/walkTests.ts'
import { Provers } from './proving/provers.ts'
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
  /** Where the stand-ins are. */
  standIns: StandInPorts | null
  /** Where devices are asked for. */
  places: readonly Neighbourhood[]
  log: boolean
}

export interface App {
  http: FastifyInstance
  /** What the API can be asked, as `METHOD route`. */
  routes: readonly string[]
  accounts: Accounts
  clips: Clips
  devices: Devices
  close(): Promise<void>
}

/** The server, ready to listen: services first, then their routes. */
export async function makeApp({ database, folder, web, mostClipBytes, standIns, places, log }: AppOptions): Promise<App> {
  const http = fastify({ logger: log ? { level: 'error', stream: process.stderr } : false, bodyLimit: 2 * 2 ** 20, forceCloseConnections: true })
  const logError = (error: unknown): void => http.log.error(error)
  const clips = new Clips(database, join(folder, 'clips'), mostClipBytes, logError)
  const seal = new Seal(join(folder, 'device.key'))
  const devices = new Devices(database, seal, logError)
  const popups = new Popups()
  const mailer = new Mailer(standIns)
  const parts: SenderParts = { database, devices, clips, pictures: new Pictures(database, clips, devices), popups, mailer, seal, standIns, folder: join(folder, 'evidence') }
  const queue = new Queue(database, makeSenders(parts), () => popups.tell('alarm', {}), logError)
  const heartbeats = new Heartbeats(database, standIns, logError)
  const memory = new TargetMemory(database, devices, logError)
  const evidence = new Evidence(database, parts.pictures, clips, memory, join(folder, 'evidence', 'triggers'), logError)
  const alarms = new Alarms(database, () => queue.kick(), (taken) => {
    evidence.note(taken)
    walks.taken(taken).catch(logError)
    popups.tell('alarm', { alarm: taken.alarm })
  })
  const live = new LiveTriggers(database, devices, alarms, logError, (camera, instant) => walks.walkAt(camera, instant))
  devices.ears.whenHeard((sql, device, events) => live.heard(sql, device, events))
  const runs = new Runs(database, clips, alarms, logError)
  const proving = new Proving(database, clips, new Provers(join(folder, 'walks')), logError)
  const readiness = new Readiness(database, clips, proving)
  const walks = new WalkTests(database, devices, proving, async () => (await readiness.read()).findings, standIns && `http://127.0.0.1:${standIns.pages}`, logError)
  const recordings = new DeviceRecordings(database, devices, parts.folder)
  const sendings = new Sendings((id) => devices.send(id))

  http.setErrorHandler(answerError)
  const routes: string[] = []
  http.addHook('onRoute', ({ method, url }) => void (url.startsWith('/api/') && routes.push(...[method].flat().map((m) => `${m} ${url}`))))
  guardLoopback(http)
  const accounts = new Accounts(database)
  guardRoles(http, accounts)
  accountRoutes(http, accounts)
  benchRoutes(http, database, clips)
  historyRoutes(http, database)
  clipRoutes(http, database, clips)
  runRoutes(http, runs)
  provingRoutes(http, database, proving, walks)
  http.get('/api/readiness', () => readiness.read())
  deviceRoutes(http, database, devices, sendings, places)
  liveRoutes(http, database, devices)
  actionsRoutes(http, { database, devices, heartbeats, seal, test: (endpoint, site) => testEndpoint(parts, endpoint, site) })
  searchRoutes(http, database)
  watchRoutes(http, database, devices, evidence)
  alarmRoutes(http, database, alarms, queue, popups, recordings, parts.folder)
  mailboxRoutes(http, standIns && `http://127.0.0.1:${standIns.mailbox}`)
  http.get('/api/stand-ins', () => ({ pages: standIns && `http://127.0.0.1:${standIns.pages}` }))
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
  await proving.resume()
  await clips.resume()
  queue.start()
  heartbeats.start()
  live.start()
  memory.start()
  return {
    http,
    routes,
    accounts,
    clips,
    devices,
    close: async () => {
      await http.close()
      await sendings.close()
      evidence.close()
      await recordings.close()
      await walks.close()
      await Promise.all([runs.close(), proving.close(), clips.close(), memory.close(), live.close(), heartbeats.close()])
      await Promise.all([devices.close(), queue.close()])
      mailer.close()
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
