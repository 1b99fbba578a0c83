import { coded, said } from '../../core/messages/said.ts'
import * as v from 'valibot'
import type { WatchView } from '../../core/watch/views.ts'
import { unheldOf } from '../../core/devices/standing.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { listChannels } from '../devices/channelQueries.ts'
import { readSettings } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import { readAllDetections } from '../detections/queries.ts'
import type { Devices } from '../devices/service.ts'
import { notFound } from '../errors.ts'
import type { Evidence } from './evidence.ts'
import { SIGNED_IN, allow, byNumber, type Api } from '../api/route.ts'
import type { LiveAnswers } from '../api/streams.ts'
import { listCameras, readSiteAlone } from '../sites/queries.ts'
import { show } from './show.ts'

const aTrigger = byNumber(said('things.aTrigger'))
/** What somebody who watches sees: the cameras with their shapes, and all their pictures over one connection. */
export function watchRoutes(
  app: Api,
  database: Database,
  devices: Devices,
  evidence: Evidence,
  live: LiveAnswers
): void {
  app.get('/triggers/:id/account', allow(SIGNED_IN, { params: aTrigger }), ({ params }) =>
    evidence.account(params.id)
  )
  app.get(
    '/triggers/:id/picture',
    allow(SIGNED_IN, { params: aTrigger }),
    async ({ params }, reply) => {
      return reply
        .type('image/jpeg')
        .header('cache-control', 'private, max-age=86400')
        .send(await evidence.picture(params.id))
    }
  )

  app.get('/watch', allow(SIGNED_IN), async (request): Promise<WatchView> => {
    const site = await readSiteAlone(database, request.site)
    const [cameras, all, { people }, channels] = await Promise.all([
      listCameras(database, site.id),
      readAllDetections(database, site.id),
      readSettings(database, site.id),
      listChannels(database, site.id)
    ])
    const shown = await devices.camerasShown(site.id, channels)
    const drawn = (camera: string): Detection[] =>
      all
        .filter((d) => d.camera === camera && d.detection.enabled && !d.detection.parked)
        .map((d) => d.detection)
    return {
      site: { id: site.id, name: site.name, timeZone: site.timeZone },
      cameras: cameras.map(({ id, name }) => {
        const detections = drawn(id)
        const unheld = unheldOf(id, detections, channels)
        return { id, name, detections, unheld, live: shown.has(id) }
      }),
      people: people.people.people.map((p) => p.name)
    }
  })

  app.get(
    '/watch/stream',
    {
      ...allow(SIGNED_IN, {
        querystring: v.object({ cameras: v.optional(v.string(coded('input.mustBeAText'))) })
      }),
      exposeHeadRoute: false
    },
    async (request, reply) => {
      const there = (await listCameras(database, request.site)).map(({ id }) => id)
      const asked = request.query.cameras?.split(',') ?? there
      const cameras = asked.filter((id) => there.includes(id))
      if (!cameras.length) throw notFound(said('things.camera', asked.join().slice(0, 64)))
      const { raw, signal } = live.begin(request, reply, 'application/octet-stream')
      // Each camera once, however often it is named.
      for (const camera of new Set(cameras)) void show(devices, camera, raw, signal)
    }
  )
}
