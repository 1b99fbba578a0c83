import { server as msg } from '../core/messages/en/codes/server.ts'
import { existsSync } from 'node:fs'
import type { Server } from 'node:http'
import type { ServerOptions } from 'node:https'
import { join } from 'node:path'
import { FixSchema } from '../core/api.ts'
import type { DemoView } from '../core/demo/views.ts'
import type { Endpoint } from '../core/formats/actions.ts'
import { Leftovers } from './files.ts'
import { RetentionKeeper } from './retention/service.ts'
import { retentionRoutes } from './retention/routes.ts'
import {
  LogController,
  fastify,
  type FastifyBaseLogger as Logger,
  type FastifyInstance
} from 'fastify'
import { guardAccess } from './api/access.ts'
import { LOOPBACK, type Access } from './api/reached.ts'
import { healthRoute } from './api/health.ts'
import { servePage } from './api/page.ts'
import { registerApi, type DeclaredRoute } from './api/plugin.ts'
import { INSTALLER, allow } from './api/route.ts'
import { LiveAnswers } from './api/streams.ts'
import { benchRoutes } from './bench/routes.ts'
import { recordingRoutes } from './clips/recordingRoutes.ts'
import { ClipRecorder } from './clips/recorder.ts'
import { siteOfCamera, type SiteAlone } from './sites/queries.ts'
import { siteRoutes } from './sites/routes.ts'
import { sitesRoutes } from './sites/sitesRoutes.ts'
import type { analyseInWorker } from '../analysis/inWorker.ts'
import { Clips } from './clips/service.ts'
import { ClockWatch } from './clock.ts'
import { clipRoutes } from './clips/routes.ts'
import type { Database } from './database.ts'
import { Devices } from './devices/service.ts'
import type { Neighbourhood } from './devices/discovery.ts'
import { liveRoutes } from './devices/live.ts'
import { deviceRoutes } from './devices/routes.ts'
import { Sendings } from './devices/sending.ts'
import { actionsRoutes } from './actions/routes.ts'
import { Alarms } from './alarms/service.ts'
import { LiveTriggers } from './alarms/live.ts'
import { alarmRoutes } from './alarms/routes.ts'
import { Heartbeats } from './deliveries/heartbeats.ts'
import { Mailer } from './deliveries/mail.ts'
import { Pictures } from './deliveries/pictures.ts'
import { Popups } from './deliveries/popups.ts'
import { DeviceRecordings } from './deliveries/deviceRecordings.ts'
import { Queue } from './deliveries/queue.ts'
import { deliveryKind } from './deliveries/kinds.ts'
import type { SenderParts } from './deliveries/kinds/kind.ts'
import { answerError } from './errors.ts'
import { Accounts } from './accounts/service.ts'
import { Audit } from './accounts/audit.ts'
import { accountRoutes } from './accounts/routes.ts'
import { Sessions } from './accounts/sessions.ts'
import { openKeys } from './keys.ts'
import { authorOf, historyRoutes } from './history/routes.ts'
import { mailboxRoutes } from './mailbox/routes.ts'
import { searchRoutes } from './search/routes.ts'
import { handoverRoutes } from './handover/routes.ts'
import { DemoLife } from './demo/life.ts'
import { Handover } from './handover/service.ts'
import { lookBackRoutes } from './lookBack/routes.ts'
import { PhoneLinks } from './phone/links.ts'
import { phoneLinkRoutes, phoneRoutes } from './phone/routes.ts'
import { RecordedFilms } from './lookBack/films.ts'
import { reportsOf } from './lookBack/reports.ts'
import { LookBack } from './lookBack/service.ts'
import { TargetMemory } from './watch/memory.ts'
import { OwnAnalysis } from './watch/ownAnalysis.ts'
import { Evidence } from './watch/evidence.ts'
import { shiftRoutes } from './watch/shift.ts'
import { watchRoutes } from './watch/routes.ts'
import { directly, withHost } from './reach.ts'
import { scenesAt } from './proving/scenes.ts'
import type { SimulatorsView } from '../core/devices/views.ts'
import type { Simulators } from './simulators.ts'
import { Proving } from './proving/service.ts'
import { provingRoutes } from './proving/routes.ts'
import { WalkTests } from './proving/walkTests.ts'
import { Provers } from './proving/provers.ts'
import { applyFix } from './readiness/fixes.ts'
import { Readiness } from './readiness/service.ts'
import { runRoutes } from './runs/routes.ts'
import { Runs } from './runs/service.ts'

export interface AppOptions {
  database: Database
  /** Where clips are kept. */
  folder: string
  /** The built interface; left out: only the API. */
  web?: string
  mostClipBytes: number
  /** Those that run beside it; null: none do. */
  simulators: Simulators | null
  /** Where devices are asked for. */
  places: readonly Neighbourhood[]
  log?: boolean
  /** Where it is written; left out: to standard error, errors alone. */
  logger?: Logger
  /** How it is reached; left out: on this machine alone. */
  access?: Access
  /** Key and certificate, where it is reached over TLS. */
  tls?: ServerOptions
  /** Makes lost keys anew. */
  newKeys?: boolean
  /** How clips are analysed; left out: in a thread of their own. */
  analyse?: typeof analyseInWorker
}

export interface App {
  http: FastifyInstance
  /** What the API can be asked, and by whom. */
  routes: readonly DeclaredRoute[]
  accounts: Accounts
  sessions: Sessions
  clips: Clips
  devices: Devices
  /** Gives the demo site its past. */
  demo: DemoLife
  close(): Promise<void>
}

/** The server, ready to listen: services first, then their routes. */
export async function makeApp({
  database,
  folder,
  web,
  mostClipBytes,
  simulators,
  places,
  log = true,
  logger,
  access = LOOPBACK,
  tls,
  newKeys = false,
  analyse
}: AppOptions): Promise<App> {
  const http = fastify({
    ...(tls && { https: tls }),
    ...(logger
      ? { loggerInstance: logger }
      : { logger: log ? { level: 'error', stream: process.stderr } : false }),
    logController: new LogController({ disableRequestLogging: true }),
    bodyLimit: 2 * 2 ** 20,
    forceCloseConnections: true,
    // Answers that it gives by itself have the form of all others.
    frameworkErrors: answerError
  }) as FastifyInstance<Server>
  const logError = (error: unknown): void => http.log.error(error)
  const leftovers = new Leftovers(database, logError)
  const lookBack = new LookBack(database, join(folder, 'look-back'), logError)
  const clips = new Clips(
    database,
    join(folder, 'clips'),
    mostClipBytes,
    leftovers,
    logError,
    reportsOf(
      lookBack,
      (camera) => devices.pictureNow(camera),
      (camera, stretch) => films.of(camera, stretch)
    ),
    analyse
  )
  const keys = await openKeys(database, folder, newKeys)
  const encryption = keys.devices
  const devices = new Devices(database, encryption, logError)
  const popups = new Popups()
  const reach = simulators ? withHost(simulators.host, simulators.ports) : directly
  const mailer = new Mailer(reach)
  const parts: SenderParts = {
    database,
    devices,
    clips,
    pictures: new Pictures(database, clips, devices),
    popups,
    mailer,
    encryption,
    reach,
    folder: join(folder, 'evidence')
  }
  const queue = new Queue(
    database,
    (due) => deliveryKind(due.endpoint.kind).send(parts, due, due.endpoint),
    () => popups.tell('alarm', {}),
    logError
  )
  const heartbeats = new Heartbeats(database, reach, logError)
  const memory = new TargetMemory(database, devices, lookBack, logError)
  const analyses = new OwnAnalysis(database, devices, lookBack, logError)
  devices.ownAnalysis = analyses
  const evidence = new Evidence(
    database,
    parts.pictures,
    clips,
    {
      between: (...of) =>
        analyses.has(of[0]) ? Promise.resolve(analyses.between(...of)) : memory.between(...of)
    },
    join(folder, 'evidence', 'triggers'),
    logError
  )
  const alarms = new Alarms(
    database,
    () => queue.wake(),
    (taken) => {
      evidence.note(taken)
      walks.taken(taken).catch(logError)
      popups.tell('alarm', { alarm: taken.alarm }, taken.site)
    }
  )
  const live = new LiveTriggers(database, devices, alarms, logError, {
    walkAt: (...of) => walks.walkAt(...of),
    momentOf: (...of) => walks.momentOf(...of)
  })
  devices.subscriptions.whenHeard((sql, device, events) => live.heard(sql, device, events))
  const recorder = new ClipRecorder(devices.pictures, clips, logError)
  const runs = new Runs(database, clips, alarms, simulators?.host ?? null, logError)
  const proving = new Proving(database, clips, new Provers(join(folder, 'walks')), logError)
  const readiness = new Readiness(database, clips, proving)
  const walks = new WalkTests(
    database,
    devices,
    proving,
    async (camera) => (await readiness.read(await siteOfCamera(database, camera))).findings,
    simulators && scenesAt(simulators.pages),
    logError
  )
  const handover = new Handover(
    { database, clips, devices, proving, readiness, folder: join(folder, 'records') },
    logError
  )
  const test = (endpoint: Endpoint, site: SiteAlone) =>
    deliveryKind(endpoint.kind).test(parts, endpoint, site)
  const demo = new DemoLife(
    { database, clips, devices, proving, handover, lookBack: lookBack.folder, folder, test },
    logError
  )
  const recordings = new DeviceRecordings(database, devices, parts.folder)
  const films: RecordedFilms = new RecordedFilms(database, clips, recordings)
  const sendings = new Sendings((id) => devices.sender.send(id))
  const clock = new ClockWatch(database, (words) => http.log.warn(words))
  const retention = new RetentionKeeper(database, parts.folder, leftovers, logError)

  http.setErrorHandler(answerError)
  await guardAccess(http, access)
  const sessions = new Sessions(database)
  const audit = new Audit(database, logError)
  const accounts = new Accounts(database, keys.accounts, sessions, audit)
  const answers = new LiveAnswers(sessions)
  const phones = new PhoneLinks(database, sessions)
  const routes = await registerApi(
    http,
    { database, sessions, phones, audit, secure: access.secure },
    (api) => {
      accountRoutes(api, accounts, sessions, audit, access.secure)
      phoneRoutes(api, {
        database,
        links: phones,
        walks,
        devices,
        live: answers,
        audit,
        secure: access.secure
      })
      sitesRoutes(api, database, devices)
      retentionRoutes(api, database, retention)
    },
    (api) => {
      siteRoutes(api, database, clips)
      benchRoutes(api, database, clips, devices)
      recordingRoutes(api, database, devices, recorder)
      historyRoutes(api, database)
      clipRoutes(api, database, clips)
      runRoutes(api, runs)
      provingRoutes(api, database, proving, walks)
      phoneLinkRoutes(api, database, phones, access)
      api.get('/readiness', allow(INSTALLER), ({ site }) => readiness.read(site))
      api.post('/readiness/fixes', allow(INSTALLER, { body: FixSchema }), (request) =>
        applyFix(database, readiness, request.site, request.body, authorOf(request))
      )
      deviceRoutes(api, database, devices, sendings, places)
      liveRoutes(api, database, devices, answers)
      actionsRoutes(api, {
        database,
        devices,
        heartbeats,
        encryption,
        test
      })
      searchRoutes(api, database)
      watchRoutes(api, database, devices, evidence, answers)
      shiftRoutes(api, database, sessions)
      handoverRoutes(api, database, handover)
      lookBackRoutes(api, { database, lookBack, clips, memory, analyses, proving, answers })
      alarmRoutes(api, {
        database,
        alarms,
        queue,
        popups,
        recordings,
        live: answers,
        folder: parts.folder
      })
      mailboxRoutes(api, simulators?.mailbox ?? null)
      api.get('/demo', allow(INSTALLER), ({ site }): DemoView => demo.view(site))
      api.get('/simulators', allow(INSTALLER), (): SimulatorsView => ({
        running: simulators && { host: simulators.host, pages: simulators.pages }
      }))
    }
  )
  healthRoute(http, database, folder)
  if (web && existsSync(web)) await servePage(http, web)

  await runs.resume()
  await proving.runs.stopLeft()
  await clips.resume()
  await handover.resume()
  queue.start()
  heartbeats.start()
  live.start()
  memory.start()
  analyses.start()
  lookBack.start()
  retention.start()
  clock.start()
  // Open pages are told, so that nobody takes silence for quiet.
  const unwatch = database.watch((state) => {
    if (state.up) http.log.info(msg.theDatabaseAnswersAgain)
    else http.log.error(new Error(state.why ?? 'the database is away'))
    popups.tell('database', state)
  })
  return {
    http,
    routes,
    accounts,
    sessions,
    clips,
    devices,
    demo,
    close: async () => {
      await http.close()
      await demo.close()
      unwatch()
      await clock.close()
      await retention.close()
      await leftovers.close()
      await sendings.close()
      await evidence.close()
      await recordings.close()
      await recorder.close()
      await walks.close()
      await handover.close()
      await Promise.all([
        runs.close(),
        proving.close(),
        clips.close(),
        memory.close(),
        analyses.close(),
        live.close(),
        heartbeats.close()
      ])
      await Promise.all([devices.close(), queue.close(), lookBack.close()])
      mailer.close()
    }
  }
}
