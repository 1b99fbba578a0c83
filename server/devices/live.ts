import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { Readable } from 'node:stream'
import { SIGNED_IN, allow, byCamera, type Api } from '../api/route.ts'
import { eventText, type LiveAnswers } from '../api/streams.ts'
import type { Database } from '../database.ts'
import { conflict } from '../errors.ts'
import { readCamera } from '../sites/queries.ts'
import type { Devices } from './service.ts'
import type { ShownChannel } from './pictures.ts'
import { DeviceError } from './link/deviceError.ts'

const BOUNDARY = 'wardoptic-picture'

/** Pictures as the parts of Motion JPEG. Source: RFC 2046, 5.1. */
async function* partsFrom(first: Buffer, rest: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  const part = (jpeg: Buffer): Buffer =>
    Buffer.concat([
      Buffer.from(`Content-Type: image/jpeg\r\nContent-Length: ${jpeg.length}\r\n\r\n`),
      jpeg,
      Buffer.from(`\r\n--${BOUNDARY}\r\n`)
    ])
  yield Buffer.from(`--${BOUNDARY}\r\n`)
  // Each with the boundary after it: a browser shows a picture once it knows that it has ended.
  yield part(first)
  for await (const jpeg of rest) yield part(jpeg)
}

/** What a camera shows now: its picture, its moving picture, and its targets and triggers as they come. */
export function liveRoutes(
  app: Api,
  database: Database,
  devices: Devices,
  live: LiveAnswers
): void {
  /** @throws ApiError when no device shows the camera */
  const showing = async (camera: string): Promise<ShownChannel> => {
    await readCamera(database, camera)
    const found = await devices.channelShowing(camera)
    if (!found) throw conflict(said('devices.noDeviceShowsThisCamera'))
    return found
  }
  const spoken = async <T>(work: Promise<T>): Promise<T> => {
    try {
      return await work
    } catch (error) {
      if (error instanceof DeviceError) throw conflict(error.said)
      throw error
    }
  }

  app.get(
    '/cameras/:camera/live.jpg',
    allow(SIGNED_IN, { params: byCamera }),
    async ({ params }, reply) => {
      const found = await showing(params.camera)
      const picture = await spoken(devices.pictures.snapshot(found))
      return reply.type('image/jpeg').send(picture)
    }
  )

  app.get(
    '/cameras/:camera/live.mjpg',
    { ...allow(SIGNED_IN, { params: byCamera }), exposeHeadRoute: false },
    async (request, reply) => {
      const found = await showing(request.params.camera)
      live.allowOne(request)
      const ended = new AbortController()
      const frames = devices.pictures.frames(found, ended.signal)
      // Whoever asks is told what is wrong, as long as nothing has been sent.
      const first = await spoken(frames.next()).catch((error: unknown) => {
        ended.abort()
        throw error
      })
      if (first.done) throw conflict(said('devices.streamEnded'))
      live.whileSignedIn(request, reply).addEventListener('abort', () => ended.abort())
      return reply.type(`multipart/x-mixed-replace; boundary=${BOUNDARY}`).send(
        Readable.from(partsFrom(first.value, frames)).on('error', () => {
          ended.abort()
          reply.raw.destroy()
        })
      )
    }
  )

  // Server-sent events: `targets` frame by frame, `heard` for what the device says, `trouble` when
  // it cannot be spoken with.
  app.get(
    '/cameras/:camera/live',
    { ...allow(SIGNED_IN, { params: byCamera }), exposeHeadRoute: false },
    async (request, reply) => {
      const found = await showing(request.params.camera)
      const { raw, signal } = live.begin(request, reply, 'text/event-stream')
      const say = (event: string, data: unknown): void => void raw.write(eventText(event, data))
      const unsubscribe = devices.subscriptions.hear((from, events) => {
        if (from === found.row.id)
          for (const { topic, rule, at, data } of events) say('heard', { topic, rule, at, data })
      })
      signal.addEventListener('abort', unsubscribe)
      try {
        // One of which nobody says what it sees still says what it does.
        if (!devices.saysTargets(found))
          return await new Promise<void>((resolve) =>
            signal.addEventListener('abort', () => resolve())
          )
        for await (const frame of devices.targets(found, signal)) {
          // A browser that reads too slowly misses some.
          if (!raw.writableNeedDrain) say('targets', frame)
        }
        say('trouble', { why: said('devices.streamEnded') })
      } catch (error) {
        if (!signal.aborted)
          say('trouble', {
            why: saidOfError(error)
          })
      }
      raw.end()
    }
  )
}
