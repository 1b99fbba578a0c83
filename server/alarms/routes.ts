import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { AcknowledgeSchema, CloseSchema, HandSchema, NoteSchema, SendTriggerSchema } from '../../core/api.ts'
import { parseWith } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import type { DeviceRecordings } from '../deliveries/deviceRecordings.ts'
import type { Popups } from '../deliveries/popups.ts'
import type { Queue } from '../deliveries/queue.ts'
import { readResult, tryAgain } from '../deliveries/rows.ts'
import { busy, notFound } from '../errors.ts'
import { numberOf } from '../params.ts'
import { readSite } from '../sites/rows.ts'
import type { Alarms } from './alarms.ts'
import { countWaiting, readAlarm, readAlarms, readAttempts, readNotes } from './rows.ts'

type ById = { Params: { id: string } }
/** A pop-up that is a test belongs to no delivery. */
const TEST = '0'
const PAGE = 50
const ALIVE_MS = 15_000

/** @param folder of what deliveries left */
export function alarmRoutes(app: FastifyInstance, database: Database, alarms: Alarms, queue: Queue, popups: Popups, recordings: DeviceRecordings, folder: string): void {
  // A sender may hold its trigger until this is answered: then it is kept, with all that it sets off.
  app.post('/api/triggers', async ({ body }, reply) => {
    const taken = await alarms.send(parseWith(SendTriggerSchema, body))
    return reply.status(taken.again ? 200 : 201).send(taken)
  })

  app.get<{ Querystring: { before?: string; waiting?: string } }>('/api/alarms', async ({ query }) => {
    const site = await readSite(database)
    if (!site) throw notFound('a site')
    const before = query.before === undefined ? null : numberOf(query.before, 'an alarm', 'before')
    const list = await readAlarms(database, site.id, { waiting: query.waiting === 'true', before, limit: PAGE + 1 })
    return { alarms: list.slice(0, PAGE), more: list.length > PAGE, waiting: await countWaiting(database, site.id) }
  })
  app.get<ById>('/api/alarms/:id', ({ params }) => readAlarm(database, numberOf(params.id, 'an alarm')))
  app.post<ById>('/api/alarms/:id/acknowledge', ({ params, body, account }) => alarms.acknowledge(numberOf(params.id, 'an alarm'), { by: account!.name, ...parseWith(AcknowledgeSchema, body ?? {}) }))
  app.get<ById>('/api/alarms/:id/notes', ({ params }) => readNotes(database, numberOf(params.id, 'an alarm')))
  app.post<ById>('/api/alarms/:id/notes', ({ params, body, account }) => alarms.comment(numberOf(params.id, 'an alarm'), parseWith(NoteSchema, body).words, account!.name))
  app.post<ById>('/api/alarms/:id/hand', ({ params, body, account }) => alarms.hand(numberOf(params.id, 'an alarm'), parseWith(HandSchema, body).to, account!.name))
  app.post<ById>('/api/alarms/:id/close', ({ params, body, account }) => alarms.close(numberOf(params.id, 'an alarm'), parseWith(CloseSchema, body ?? {}).words, account!.name))

  // Server-sent events: `alarm` when one is new or has changed, `popup` for what is to be shown to operators.
  app.get('/api/alarms/live', { exposeHeadRoute: false }, (_request, reply) => {
    const { raw } = reply.hijack()
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    raw.write(': here\n\n')
    const deaf = popups.look((event, data) => void raw.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`))
    const alive = setInterval(() => raw.write(': here\n\n'), ALIVE_MS)
    raw.on('close', () => {
      clearInterval(alive)
      deaf()
    })
  })

  app.post<ById>('/api/deliveries/:id/shown', ({ params }, reply) => {
    popups.shown(params.id === TEST ? 0 : numberOf(params.id, 'a delivery'))
    return reply.status(204).send()
  })
  app.get<ById>('/api/deliveries/:id/attempts', ({ params }) => readAttempts(database, numberOf(params.id, 'a delivery')))
  app.post<ById>('/api/deliveries/:id/retry', async ({ params }, reply) => {
    if (!(await tryAgain(database, numberOf(params.id, 'a delivery'), Date.now()))) throw busy('only what was given up can be tried again')
    queue.kick()
    return reply.status(204).send()
  })
  app.get<ById>('/api/deliveries/:id/files', ({ params }) => recordings.keptOf(numberOf(params.id, 'a delivery')))
  app.get<{ Params: { id: string; file: string } }>('/api/deliveries/:id/files/:file', async ({ params }, reply) => {
    const id = numberOf(params.id, 'a delivery')
    const file = (await readResult(database, id))?.files?.find(({ name }) => name === params.file)
    if (!file) throw notFound('this file')
    const path = join(folder, String(id), file.name)
    const { size } = await stat(path).catch(() => {
      throw notFound('this file')
    })
    return reply.type(file.type).header('content-length', size).header('cache-control', 'private, max-age=3600').send(createReadStream(path))
  })
}
