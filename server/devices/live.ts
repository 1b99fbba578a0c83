import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { Readable } from 'node:stream'
import { SIGNED_IN, allow, byCamera, type Api } from '../api/route.ts'
import { eventText, type LiveAnswers } from '../api/streams.ts'
import type { Database } from '../database.ts'
import { conflict } from '../errors.ts'
import { readCamera } from '../sites/queries.ts'
import type { Devices } from './service.ts'
import { partsOf } from './streams.ts'
import { DeviceError } from './deviceError.ts'

/** What a camera shows now: its picture, its moving picture, and its targets and triggers as they come. */
export function liveRoutes(
  app: Api,
  database: Database,
  devices: Devices,
  live: LiveAnswers
): void {
  /** @throws ApiError when no device shows the camera */
  const showing = async (
    camera: string
  ): Promise<{
    device: string
    channel: string
    profile: string
    link: ReturnType<Devices['link']>
  }> => {
    await readCamera(database, camera)
    const found = await devices.channelShowing(camera)
    if (!found) throw conflict(said('devices.noDeviceShowsThisCamera'))
    return {
      device: found.row.id,
      channel: found.channel.token,
      profile: found.channel.profile,
      link: devices.link(found.row)
    }
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
      const { link, profile } = await showing(params.camera)
      const picture = await spoken(link.snapshot(profile))
      return reply.type('image/jpeg').send(picture)
    }
  )

  app.get(
    '/cameras/:camera/live.mjpg',
    { ...allow(SIGNED_IN, { params: byCamera }), exposeHeadRoute: false },
    async (request, reply) => {
      const { link, profile } = await showing(request.params.camera)
      live.allowOne(request)
      const ended = new AbortController()
      const answer = await spoken(link.pictures(profile, ended.signal))
      const type = answer.headers.get('content-type') ?? ''
      if (!/^multipart\/x-mixed-replace/.test(type) || !answer.body) {
        ended.abort()
        throw conflict(said('devices.theDevicesStreamIsNot'))
      }
      live.whileSignedIn(request, reply).addEventListener('abort', () => ended.abort())
      return reply
        .type(type)
        .send(Readable.from(partsOf(answer, ended.signal)).on('error', () => reply.raw.destroy()))
    }
  )

  // Server-sent events: `targets` frame by frame, `heard` for what the device says, `trouble` when
  // it cannot be spoken with.
  app.get(
    '/cameras/:camera/live',
    { ...allow(SIGNED_IN, { params: byCamera }), exposeHeadRoute: false },
    async (request, reply) => {
      const { link, profile, device } = await showing(request.params.camera)
      const { raw, signal } = live.begin(request, reply, 'text/event-stream')
      const say = (event: string, data: unknown): void => void raw.write(eventText(event, data))
      const unsubscribe = devices.subscriptions.hear((from, events) => {
        if (from === device)
          for (const { topic, rule, at, data } of events) say('heard', { topic, rule, at, data })
      })
      signal.addEventListener('abort', unsubscribe)
      try {
        for await (const frame of link.targets(profile, signal)) {
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
