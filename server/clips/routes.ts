import { coded, said } from '../../core/messages/said.ts'
import { Readable } from 'node:stream'
import * as v from 'valibot'
import { pictureAt } from '../../analysis/pictures.ts'
import { ClipChangeSchema, LearnAnewSchema, MakeClipSchema } from '../../core/api.ts'
import { InputError } from '../../core/errors.ts'
import { INSTALLER, allow, byCamera, byId, type Api } from '../api/route.ts'
import { sendFile } from '../api/files.ts'
import { readScene, readScript } from '../../simulation/script.ts'
import type { Database } from '../database.ts'
import { notFound } from '../errors.ts'
import { readCamera } from '../sites/queries.ts'
import type { Clips } from './service.ts'
import { changeClip, readClip } from './queries.ts'
import { parseWith } from '../../core/schema/parse.ts'

/** Names the place of an error from where the caller sees it. */
function within<T>(place: string, read: () => T): T {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    throw new InputError(error.place.replace(/^\$/, place), error.said)
  }
}

const seconds = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.regex(/^\d{1,7}(\.\d{1,6})?$/, coded('clips.mustBeSecondsFromThe')),
  v.transform(Number)
)
const newClip = v.object({
  name: v.optional(v.string(coded('input.mustBeAText')), 'Clip'),
  start: v.optional(
    v.pipe(
      v.string(coded('input.mustBeAText')),
      v.regex(/^\d{1,13}$/, coded('input.mustBeAnInstantIn')),
      v.transform(Number)
    )
  )
})
const footage = v.custom<Readable>(
  (value) => value instanceof Readable,
  coded('clips.mustBeAVideoFile')
)

export function clipRoutes(app: Api, database: Database, clips: Clips): void {
  app.register(async (instance) => {
    const files = instance as unknown as Api
    // Only clips are sent as raw bytes: they are never held in memory.
    files.removeAllContentTypeParsers()
    files.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
      done(null, payload)
    )
    files.post(
      '/cameras/:camera/clips',
      {
        ...allow(INSTALLER, { params: byCamera, querystring: newClip, body: footage }),
        bodyLimit: Number.MAX_SAFE_INTEGER
      },
      async (request, reply) => {
        const { params, query, body } = request
        await readCamera(database, params.camera)
        const { name, start } = parseWith(ClipChangeSchema, query)
        return reply.status(201).send(
          await clips.add(params.camera, name ?? 'Clip', start ?? null, body, {
            bytesSaid: Number(request.headers['content-length'] ?? 0)
          })
        )
      }
    )
  })

  app.get('/clips/:id', allow(INSTALLER, { params: byId }), ({ params }) => clips.read(params.id))

  app.patch(
    '/clips/:id',
    allow(INSTALLER, { params: byId, body: ClipChangeSchema }),
    async ({ params, body }) => {
      const clip = await readClip(database, params.id)
      await changeClip(database, clip, body.name ?? clip.name, body.start ?? clip.start)
      return clips.read(clip.id)
    }
  )

  app.delete('/clips/:id', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    await clips.remove(params.id)
    return reply.status(204).send()
  })

  app.post('/clips/:id/stop', allow(INSTALLER, { params: byId }), ({ params }) =>
    clips.stop(params.id)
  )
  app.post('/clips/:id/analyse', allow(INSTALLER, { params: byId }), ({ params }) =>
    clips.analyseAgain(params.id)
  )

  app.get('/clips/:id/tracks', allow(INSTALLER, { params: byId }), async (request, reply) => {
    await clips.requireWhole(request.params.id)
    return sendFile(clips.file(request.params.id, 'tracks.csv'), 'text/csv', request, reply)
  })

  app.get('/clips/:id/faces', allow(INSTALLER, { params: byId }), async (request, reply) => {
    await clips.requireWhole(request.params.id)
    return sendFile(clips.file(request.params.id, 'faces.csv'), 'text/csv', request, reply)
  })

  app.get('/clips/:id/measures', allow(INSTALLER, { params: byId }), async (request, reply) => {
    await clips.requireWhole(request.params.id)
    return sendFile(
      clips.file(request.params.id, 'measures.bin'),
      'application/octet-stream',
      request,
      reply
    )
  })

  app.get('/clips/:id/truth', allow(INSTALLER, { params: byId }), async (request, reply) => {
    await clips.requireWhole(request.params.id)
    const clip = await readClip(database, request.params.id)
    if (!clip.made) throw notFound(said('things.truth'))
    return sendFile(clips.file(clip.id, 'truth.csv'), 'text/csv', request, reply)
  })

  app.post(
    '/clips/:id/reference',
    allow(INSTALLER, { params: byId, body: LearnAnewSchema }),
    ({ params, body }) => clips.learnAnew(params.id, body.at)
  )

  app.post(
    '/cameras/:camera/made-clips',
    allow(INSTALLER, { params: byCamera, body: MakeClipSchema }),
    async ({ params, body }, reply) => {
      const { world } = await readCamera(database, params.camera)
      if (!world) throw new InputError('camera', said('clips.hasNoSimulatedSceneClips'))
      const { name, start, script } = body
      const play = {
        scene: readScene(world.scene),
        script: within('$.script', () => readScript(script))
      }
      return reply
        .status(201)
        .send(await clips.make(params.camera, name, start ?? Date.now(), play))
    }
  )

  app.get('/clips/:id/video', allow(INSTALLER, { params: byId }), async (request, reply) => {
    await clips.requireWhole(request.params.id)
    return sendFile(clips.file(request.params.id, 'view.mp4'), 'video/mp4', request, reply)
  })

  app.get(
    '/clips/:id/picture',
    allow(INSTALLER, { params: byId, querystring: v.object({ at: v.optional(seconds, '0') }) }),
    async ({ params, query }, reply) => {
      await clips.requireWhole(params.id)
      return reply
        .type('image/png')
        .header('cache-control', 'private, max-age=3600')
        .send(await pictureAt(clips.file(params.id, 'view.mp4'), query.at))
    }
  )
}
