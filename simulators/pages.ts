import { errorWords } from '../core/messages/errorWords.ts'
import { simulators as msg } from '../core/messages/en/codes/simulators.ts'
import fastify, { type FastifyReply } from 'fastify'
import { InputError } from '../core/errors.ts'
import { isOneOf } from '../core/isOneOf.ts'
import { SEVERITIES } from '../core/kinds/parts.ts'
import {
  MOODS,
  hooksPage,
  mailPage,
  outputsPage,
  panelPage,
  stationPage,
  type Hook,
  type World
} from './pageHtml.ts'
import type { StationMood } from './station.ts'
import { LiveWalks } from './walks.ts'

const MAX_HOOK_BYTES = 1 << 20

/** What a form's button said. */
const valueOf = (body: unknown): string => new URLSearchParams(String(body)).get('value') ?? ''

/**
 * Small pages on loopback to see and operate the simulators; `/hooks` takes webhooks, `/state` says everything as JSON.
 */
export async function startPages(world: World): Promise<{ port: number; close(): Promise<void> }> {
  const hooks: Hook[] = []
  const walks = new LiveWalks(world.devices, world.contacts)
  const app = fastify({ bodyLimit: MAX_HOOK_BYTES, forceCloseConnections: true })
  // Whatever comes is kept as it came.
  app.removeAllContentTypeParsers()
  app.addContentTypeParser('*', { parseAs: 'string' }, (_, body, done) => done(null, body))

  const page =
    (make: () => string | Promise<string>) =>
    async (_: unknown, reply: FastifyReply): Promise<FastifyReply> =>
      reply.type('text/html; charset=utf-8').send(await make())
  app.get(
    '/',
    page(() => stationPage(world))
  )
  app.get(
    '/station',
    page(() => stationPage(world))
  )
  app.get(
    '/panel',
    page(() => panelPage(world))
  )
  app.get(
    '/outputs',
    page(() => outputsPage(world))
  )
  app.get(
    '/mailbox',
    page(() => mailPage(world))
  )
  app.get(
    '/hooks',
    page(() => hooksPage(hooks))
  )
  app.get<{ Params: { device: string; token: string } }>(
    '/outputs/:device/:token.wav',
    ({ params }, reply) => {
      const device = world.devices.find((d) => d.model.id === params.device)
      const voice = device?.outputs.act(params.token)?.voice
      return voice
        ? reply.type('audio/wav').header('cache-control', 'no-store').send(voice)
        : reply.callNotFound()
    }
  )
  app.get('/state', () => ({
    station: {
      mood: world.station.mood,
      accepts: world.station.accepts,
      messages: world.station.messages
    },
    outputs: world.devices.flatMap((d) =>
      d.outputs.list.map(({ token }) => ({
        device: d.model.id,
        token,
        active: d.outputs.isActive(token, d.now()),
        settings: d.outputs.act(token)?.settings ?? null
      }))
    ),
    hooks,
    recordings: world.devices.flatMap((d) =>
      d.recordings.all().map((r) => ({ device: d.model.id, ...r }))
    )
  }))

  for (const path of ['/hooks', '/hook'])
    app.post<{ Body: string | undefined }>(path, ({ body, headers }, reply) => {
      hooks.push({
        at: Date.now(),
        key: String(headers['idempotency-key'] ?? ''),
        body: body ?? ''
      })
      return reply.code(204).send()
    })
  app.post('/station/mood', ({ body }, reply) => {
    const mood = valueOf(body)
    if (!isOneOf(Object.keys(MOODS) as StationMood[], mood)) return reply.callNotFound()
    world.station.mood = mood
    return reply.redirect('/station', 303)
  })
  app.post('/station/accepts', ({ body }, reply) => {
    const severity = valueOf(body)
    if (!isOneOf(SEVERITIES, severity)) return reply.callNotFound()
    world.station.accepts = severity
    return reply.redirect('/station', 303)
  })
  app.post<{ Params: { name: string } }>('/contacts/:name', ({ body, params }, reply) => {
    const value = valueOf(body)
    const contact = world.held.find(({ name }) => name === params.name)
    if (!contact || !['on', 'off', 'free'].includes(value)) return reply.callNotFound()
    world.contacts.hold(contact.name, value === 'free' ? null : value === 'on')
    return reply.redirect('/panel', 303)
  })
  app.post<{ Params: { camera: string } }>(
    '/scenes/:camera/walk',
    async ({ body, params: { camera } }, reply) => {
      try {
        const began = await walks.begin(camera, JSON.parse(String(body)))
        return began === null
          ? reply.code(404).send({ message: msg.noSimulatedDeviceLooksAt(camera) })
          : { began }
      } catch (error) {
        if (!(error instanceof InputError) && !(error instanceof SyntaxError)) throw error
        return reply.code(422).send({ message: errorWords(error) })
      }
    }
  )
  app.post<{ Params: { camera: string } }>('/scenes/:camera/end', ({ params }) => {
    walks.end(params.camera)
    return { began: 0 }
  })

  const address = await app.listen({ port: 0, host: '127.0.0.1' })
  return {
    port: Number(new URL(address).port),
    close: async () => {
      walks.close()
      await app.close()
    }
  }
}

/** The contacts of the demo site. */
export const DEMO_CONTACTS: World['held'] = [
  { name: 'panel', words: msg.alarmPanel, on: msg.set, off: msg.unset },
  { name: 'door', words: msg.waitingRoomDoor, on: msg.closed, off: msg.open }
]
