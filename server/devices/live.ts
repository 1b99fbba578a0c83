import { Readable } from 'node:stream'
import type { FastifyInstance } from 'fastify'
import type { Database } from '../database.ts'
import { busy } from '../errors.ts'
import { readCamera } from '../sites/rows.ts'
import type { Devices } from './devices.ts'
import { partsOf } from './streams.ts'
import { Trouble } from './trouble.ts'

type ByCamera = { Params: { camera: string } }

/** What a camera shows now: its picture, its moving picture, and its targets and triggers as they come. */
export function liveRoutes(app: FastifyInstance, database: Database, devices: Devices): void {
  /** @throws ApiError when no device shows the camera */
  const showing = async (camera: string): Promise<{ device: string; channel: string; profile: string; link: ReturnType<Devices['link']> }> => {
    await readCamera(database, camera)
    const found = await devices.channelShowing(camera)
    if (!found) throw busy('no device shows this camera now; look at its state under Devices')
    return { device: found.row.id, channel: found.channel.token, profile: found.channel.profile, link: devices.link(found.row) }
  }
  const spoken = async <T>(work: Promise<T>): Promise<T> => {
    try {
      return await work
    } catch (error) {
      if (error instanceof Trouble) throw busy(error.message)
      throw error
    }
  }

  app.get<ByCamera>('/api/cameras/:camera/live.jpg', async ({ params }, reply) => {
    const { link, profile } = await showing(params.camera)
    const picture = await spoken(link.snapshot(profile))
    return reply.header('cache-control', 'no-store').type('image/jpeg').send(picture)
  })

  app.get<ByCamera>('/api/cameras/:camera/live.mjpg', { exposeHeadRoute: false }, async ({ params }, reply) => {
    const { link, profile } = await showing(params.camera)
    const ended = new AbortController()
    const answer = await spoken(link.pictures(profile, ended.signal))
    const type = answer.headers.get('content-type') ?? ''
    if (!/^multipart\/x-mixed-replace/.test(type) || !answer.body) {
      ended.abort()
      throw busy('the device’s stream is not Motion JPEG')
    }
    reply.raw.on('close', () => ended.abort())
    return reply.header('cache-control', 'no-store').type(type).send(Readable.from(partsOf(answer, ended.signal)).on('error', () => reply.raw.destroy()))
  })

  // Server-sent events: `targets` frame by frame, `heard` for what the device says, `trouble` when it cannot be spoken with.
  app.get<ByCamera>('/api/cameras/:camera/live', { exposeHeadRoute: false }, async ({ params }, reply) => {
    const { link, profile, device } = await showing(params.camera)
    const ended = new AbortController()
    const { raw } = reply.hijack()
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    const say = (event: string, data: unknown): void => void raw.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`)
    const deaf = devices.ears.hear((from, events) => {
      if (from === device) for (const { topic, rule, at, data } of events) say('heard', { topic, rule, at, data })
    })
    raw.on('close', () => {
      deaf()
      ended.abort()
    })
    try {
      for await (const frame of link.targets(profile, ended.signal)) {
        // A browser that reads too slowly misses some.
        if (!raw.writableNeedDrain) say('targets', frame)
      }
      say('trouble', { message: 'the device has ended its stream' })
    } catch (error) {
      if (!ended.signal.aborted) say('trouble', { message: error instanceof Trouble ? error.message : (error as Error).message })
    }
    raw.end()
  })
}
