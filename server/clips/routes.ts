import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import type { Readable } from 'node:stream'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { pictureAt } from '../../analysis/pictures.ts'
import { ClipChangeSchema, LearnAnewSchema, MakeClipSchema } from '../../core/api.ts'
import { InputError } from '../../core/errors.ts'
import { parseWith } from '../../core/formats/plan.ts'
import { readScene, readScript } from '../../simulation/script.ts'
import type { Database } from '../database.ts'
import { busy, notFound } from '../errors.ts'
import { readCamera } from '../sites/rows.ts'
import type { Clips } from './clips.ts'
import { changeClip, readClip } from './rows.ts'

type ById = { Params: { id: string } }

/** The clip must have been analysed before its pictures or targets can be asked for. */
async function readyClip(database: Database, id: string): Promise<void> {
  const clip = await readClip(database, id)
  if (clip.state !== 'ready') throw busy(`${clip.name} has not been analysed; analyse it first`)
}

/** Names the place of an error from where the caller sees it. */
function within<T>(place: string, read: () => T): T {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    throw new InputError(error.place.replace(/^\$/, place), error.message.slice(error.place.length + 2))
  }
}

/** Answers with a file, or the part of it that the browser asks for; video players seek by parts. */
async function sendFile(file: string, type: string, request: FastifyRequest, reply: FastifyReply): Promise<unknown> {
  const { size } = await stat(file)
  reply.header('accept-ranges', 'bytes').type(type)
  const m = /^bytes=(\d*)-(\d*)$/.exec(request.headers.range ?? '')
  if (!m || (m[1] === '' && m[2] === '')) return reply.header('content-length', size).send(createReadStream(file))
  const first = m[1] === '' ? Math.max(0, size - Number(m[2])) : Number(m[1])
  const last = m[1] === '' || m[2] === '' ? size - 1 : Math.min(Number(m[2]), size - 1)
  if (first >= size || first > last) return reply.status(416).header('content-range', `bytes */${size}`).send()
  reply.status(206).header('content-range', `bytes ${first}-${last}/${size}`).header('content-length', last - first + 1)
  return reply.send(createReadStream(file, { start: first, end: last }))
}

export function clipRoutes(app: FastifyInstance, database: Database, clips: Clips): void {
  // A clip is sent as it is; it is never held in memory.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload))

  app.post<{ Params: { camera: string }; Querystring: { name?: string; start?: string } }>('/api/cameras/:camera/clips', { bodyLimit: Number.MAX_SAFE_INTEGER }, async (request, reply) => {
    await readCamera(database, request.params.camera)
    const { name, start } = parseWith(ClipChangeSchema, { name: request.query.name ?? 'Clip', ...(request.query.start !== undefined && { start: Number(request.query.start) }) })
    if (!request.body) throw new InputError(name ?? 'clip', 'is empty; choose a video file')
    return reply.status(201).send(await clips.add(request.params.camera, name ?? 'Clip', start ?? null, request.body as Readable))
  })

  app.get<ById>('/api/clips/:id', ({ params }) => clips.read(params.id))

  app.patch<ById>('/api/clips/:id', async ({ params, body }) => {
    const change = parseWith(ClipChangeSchema, body)
    const clip = await readClip(database, params.id)
    await changeClip(database, clip, change.name ?? clip.name, change.start ?? clip.start)
    return clips.read(clip.id)
  })

  app.delete<ById>('/api/clips/:id', async ({ params }, reply) => {
    await clips.remove(params.id)
    return reply.status(204).send()
  })

  app.post<ById>('/api/clips/:id/stop', ({ params }) => clips.stop(params.id))
  app.post<ById>('/api/clips/:id/analyse', ({ params }) => clips.analyseAgain(params.id))

  app.get<ById>('/api/clips/:id/tracks', async (request, reply) => {
    await readyClip(database, request.params.id)
    return sendFile(clips.file(request.params.id, 'tracks.csv'), 'text/csv', request, reply)
  })

  app.get<ById>('/api/clips/:id/faces', async (request, reply) => {
    await readyClip(database, request.params.id)
    return sendFile(clips.file(request.params.id, 'faces.csv'), 'text/csv', request, reply)
  })

  app.get<ById>('/api/clips/:id/measures', async (request, reply) => {
    await readyClip(database, request.params.id)
    return sendFile(clips.file(request.params.id, 'measures.bin'), 'application/octet-stream', request, reply)
  })

  app.get<ById>('/api/clips/:id/truth', async (request, reply) => {
    await readyClip(database, request.params.id)
    const clip = await readClip(database, request.params.id)
    if (!clip.made) throw notFound('the true targets of a clip that was not made here')
    return sendFile(clips.file(clip.id, 'truth.csv'), 'text/csv', request, reply)
  })

  app.post<ById>('/api/clips/:id/reference', ({ params, body }) => clips.learnAnew(params.id, parseWith(LearnAnewSchema, body).at))

  app.post<{ Params: { camera: string } }>('/api/cameras/:camera/made-clips', async ({ params, body }, reply) => {
    const { world } = await readCamera(database, params.camera)
    if (!world) throw new InputError('camera', 'has no simulated scene; clips can be made only for cameras of the demo site')
    const { name, start, script } = parseWith(MakeClipSchema, body)
    const play = { scene: readScene(world.scene), script: within('$.script', () => readScript(script)) }
    return reply.status(201).send(await clips.make(params.camera, name, start ?? Date.now(), play))
  })

  app.get<ById>('/api/clips/:id/video', async (request, reply) => {
    await readyClip(database, request.params.id)
    return sendFile(clips.file(request.params.id, 'view.mp4'), 'video/mp4', request, reply)
  })

  app.get<ById & { Querystring: { at?: string } }>('/api/clips/:id/picture', async ({ params, query }, reply) => {
    await readyClip(database, params.id)
    const at = Number(query.at ?? 0)
    if (!(at >= 0)) throw new InputError('at', 'must be seconds from the start of the clip')
    return reply.type('image/png').header('cache-control', 'max-age=3600').send(await pictureAt(clips.file(params.id, 'view.mp4'), at))
  })
}
