import { coded, said } from '../../core/messages/said.ts'
import { join } from 'node:path'
import * as v from 'valibot'
import {
  AcknowledgeSchema,
  CloseSchema,
  HandSchema,
  NoteSchema,
  SendTriggerSchema
} from '../../core/api.ts'
import { sendFile } from '../api/files.ts'
import {
  ACTING,
  INSTALLER,
  SIGNED_IN,
  allow,
  byNumber,
  numberText,
  orNothing,
  type Api
} from '../api/route.ts'
import { eventText, type LiveAnswers } from '../api/streams.ts'
import type { Database } from '../database.ts'
import type { DeviceRecordings } from '../deliveries/deviceRecordings.ts'
import type { Popups } from '../deliveries/popups.ts'
import type { Queue } from '../deliveries/queue.ts'
import { readResult, tryAgain } from '../deliveries/queries.ts'
import { conflict, notFound } from '../errors.ts'
import { cameraOfSite } from '../sites/queries.ts'
import type { Alarms } from './service.ts'
import { authorOf } from '../history/routes.ts'
import { countWaiting, readAlarm, readAlarms, readAttempts, readNotes } from './queries.ts'

const anAlarm = byNumber(said('alarms.anAlarm'))
const aDelivery = byNumber(said('things.aDelivery'))
const whichAlarms = v.object({
  before: v.optional(numberText(said('alarms.anAlarm'))),
  /** `open`: all that is not closed. */
  state: v.optional(
    v.picklist(
      ['waiting', 'acknowledged', 'closed', 'open'],
      coded('alarms.mustBeWaitingAcknowledgedClosed')
    )
  )
})
const shown = allow(ACTING, { params: aDelivery })
/** What machines send, a hundred a second at times; what came of it stands in the alarms. */
const sending = allow(INSTALLER, { body: SendTriggerSchema })
const PAGE = 50
/** All new alarms are shown; nobody can look through more than these. */
const WAITING_PAGE = 200
const ALIVE_MS = 15_000

export interface AlarmParts {
  database: Database
  alarms: Alarms
  queue: Queue
  popups: Popups
  recordings: DeviceRecordings
  live: LiveAnswers
  /** Of what deliveries left. */
  folder: string
}

export function alarmRoutes(
  app: Api,
  { database, alarms, queue, popups, recordings, live, folder }: AlarmParts
): void {
  // A sender may hold its trigger until this is answered: then it is stored, with all its deliveries.
  app.post(
    '/triggers',
    { ...sending, config: { ...sending.config, unaudited: true } },
    async ({ body, site }, reply) => {
      await cameraOfSite(database, site, body.camera)
      const taken = await alarms.send(body)
      return reply.status(taken.again ? 200 : 201).send(taken)
    }
  )

  app.get('/alarms', allow(SIGNED_IN, { querystring: whichAlarms }), async ({ query, site }) => {
    const page = query.state === 'waiting' ? WAITING_PAGE : PAGE
    const list = await readAlarms(database, site, {
      state: query.state ?? null,
      before: query.before ?? null,
      limit: page + 1
    })
    return {
      alarms: list.slice(0, page),
      more: list.length > page,
      waiting: await countWaiting(database, site)
    }
  })
  app.get('/alarms/:id', allow(SIGNED_IN, { params: anAlarm }), ({ params }) =>
    readAlarm(database, params.id)
  )
  app.post(
    '/alarms/:id/acknowledge',
    allow(ACTING, { params: anAlarm, body: orNothing(AcknowledgeSchema) }),
    (request) => alarms.acknowledge(request.params.id, { ...authorOf(request), ...request.body })
  )
  app.get('/alarms/:id/notes', allow(SIGNED_IN, { params: anAlarm }), ({ params }) =>
    readNotes(database, params.id)
  )
  app.post('/alarms/:id/notes', allow(ACTING, { params: anAlarm, body: NoteSchema }), (request) =>
    alarms.comment(request.params.id, request.body.words, authorOf(request))
  )
  app.post('/alarms/:id/hand', allow(ACTING, { params: anAlarm, body: HandSchema }), (request) =>
    alarms.hand(request.params.id, request.body.to, authorOf(request))
  )
  app.post(
    '/alarms/:id/close',
    allow(ACTING, { params: anAlarm, body: orNothing(CloseSchema) }),
    (request) => alarms.close(request.params.id, request.body.words, authorOf(request))
  )

  // Server-sent events: `alarm` when one is new or has changed, `popup` for what is to be shown to operators.
  app.get('/alarms/live', { ...allow(SIGNED_IN), exposeHeadRoute: false }, (request, reply) => {
    const { raw, signal } = live.begin(request, reply, 'text/event-stream')
    raw.write(': here\n\n')
    // Who only looks is not one of those whom a pop-up is for: that it was on that screen confirms nothing.
    const leave = popups.look({
      site: request.site,
      acts: request.account!.role !== 'viewer',
      say: (event, data) => void raw.write(eventText(event, data))
    })
    const alive = setInterval(() => raw.write(': here\n\n'), ALIVE_MS)
    signal.addEventListener('abort', () => {
      clearInterval(alive)
      leave()
    })
  })

  // A pop-up that is a test is number 0, of no delivery.
  app.post(
    '/deliveries/:id/shown',
    { ...shown, config: { ...shown.config, unaudited: true } },
    ({ params }, reply) => {
      popups.shown(params.id)
      return reply.status(204).send()
    }
  )
  app.get('/deliveries/:id/attempts', allow(SIGNED_IN, { params: aDelivery }), ({ params }) =>
    readAttempts(database, params.id)
  )
  app.post(
    '/deliveries/:id/retry',
    allow(ACTING, { params: aDelivery }),
    async ({ params }, reply) => {
      if (!(await tryAgain(database, params.id, Date.now())))
        throw conflict(said('alarms.onlyWhatWasGivenUp'))
      queue.wake()
      return reply.status(204).send()
    }
  )
  app.get('/deliveries/:id/files', allow(SIGNED_IN, { params: aDelivery }), ({ params }) =>
    recordings.keptOf(params.id)
  )
  app.get(
    '/deliveries/:id/files/:file',
    allow(SIGNED_IN, { params: v.object({ ...aDelivery.entries, file: v.string() }) }),
    async (request, reply) => {
      const { id, file: name } = request.params
      const file = (await readResult(database, id))?.files?.find((f) => f.name === name)
      if (!file) throw notFound(said('things.file'))
      return sendFile(
        join(folder, String(id), file.name),
        file.type,
        request,
        reply.header('cache-control', 'private, max-age=3600')
      )
    }
  )
}
