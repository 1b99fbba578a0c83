import { said } from '../../core/messages/said.ts'
import * as v from 'valibot'
import { unheldOf } from '../../core/devices/standing.ts'
import { checkFaults } from '../../core/formats/walk.ts'
import {
  OpenPhoneSchema,
  PHONE_LINK_MS,
  type PhoneLinksView,
  type PhoneView
} from '../../core/proving/phone.ts'
import { WalkOrderSchema } from '../../core/proving/live.ts'
import { clientOf, cookieOptions, phoneCookieName } from '../accounts/sessions.ts'
import type { Audit } from '../accounts/audit.ts'
import { originsOf } from '../api/access.ts'
import type { Access } from '../api/reached.ts'
import {
  ANYONE,
  INSTALLER,
  PHONE,
  allow,
  byCamera,
  numberText,
  slowly,
  type Api
} from '../api/route.ts'
import type { LiveAnswers } from '../api/streams.ts'
import type { Database } from '../database.ts'
import { listChannels } from '../devices/channelQueries.ts'
import type { Devices } from '../devices/service.ts'
import { findDetection } from '../detections/queries.ts'
import { conflict, notFound } from '../errors.ts'
import { authorOf } from '../history/routes.ts'
import type { WalkTests } from '../proving/walkTests.ts'
import { readCamera } from '../sites/queries.ts'
import { show } from '../watch/show.ts'
import type { PhoneLinks } from './links.ts'
import type { PhoneLink } from './queries.ts'

const byCameraAndLink = v.object({
  ...byCamera.entries,
  link: numberText(said('things.aPhoneLink'))
})

/** At the desk: links of a camera, made, looked at and revoked. */
export function phoneLinkRoutes(
  app: Api,
  database: Database,
  links: PhoneLinks,
  access: Access
): void {
  app.get(
    '/cameras/:camera/walk/links',
    allow(INSTALLER, { params: byCamera }),
    async ({ params, socket }): Promise<PhoneLinksView> => ({
      links: await links.list(params.camera),
      origins: originsOf(access, socket.localPort ?? 0)
    })
  )
  app.post(
    '/cameras/:camera/walk/links',
    allow(INSTALLER, { params: byCamera, body: WalkOrderSchema }),
    async ({ params: { camera }, body: { check }, account }, reply) => {
      if (check.by.how === 'clip') throw conflict(said('proving.thisCheckLooksAtA'))
      if (check.by.how === 'walk') checkFaults(check.by.walk.faults, '$.check.by.walk.faults')
      await readCamera(database, camera)
      if (!(await findDetection(database, camera, check.detection)))
        throw notFound(said('things.detection', check.detection))
      return reply.status(201).send(await links.make(camera, check, account!.id))
    }
  )
  app.delete(
    '/cameras/:camera/walk/links/:link',
    allow(INSTALLER, { params: byCameraAndLink }),
    async ({ params }, reply) => {
      await links.revoke(params.camera, params.link)
      return reply.status(204).send()
    }
  )
}

/** On the phone: one walk test, its live picture, and nothing else. */
export function phoneRoutes(
  app: Api,
  {
    database,
    links,
    walks,
    devices,
    live,
    audit,
    secure
  }: {
    database: Database
    links: PhoneLinks
    walks: WalkTests
    devices: Devices
    live: LiveAnswers
    audit: Audit
    secure: boolean
  }
): void {
  const cookie = phoneCookieName(secure)
  const kept = cookieOptions(secure)
  app.post('/phone', slowly(allow(ANYONE, { body: OpenPhoneSchema })), async (request, reply) => {
    const client = clientOf(request)
    const { token, link } = await links.open(request.body.token, client)
    await audit.note({
      what: 'opened-on-phone',
      account: link.account,
      username: link.account.username,
      client,
      detail: link.camera,
      site: link.site,
      status: 204
    })
    return reply
      .setCookie(cookie, token, { ...kept, maxAge: PHONE_LINK_MS / 1000 })
      .status(204)
      .send()
  })
  app.delete('/phone', allow(PHONE), async ({ phone }, reply) => {
    await links.revoke(phone!.camera, phone!.id)
    return reply.clearCookie(cookie, kept).status(204).send()
  })

  app.get('/phone', allow(PHONE), async ({ phone, account }): Promise<PhoneView> => {
    const { check, expiresAt } = phone!
    const [{ site, camera }, detection, channels] = await Promise.all([
      readCamera(database, phone!.camera),
      findDetection(database, phone!.camera, check.detection),
      listChannels(database, phone!.site)
    ])
    if (!detection) throw notFound(said('things.detection', check.detection))
    return {
      site: { name: site.name, timeZone: site.timeZone },
      camera: { id: camera.id, name: camera.name },
      detection,
      unheld: unheldOf(camera.id, [detection], channels).length > 0,
      check,
      by: account!.name,
      expiresAt
    }
  })
  app.get('/phone/walk', allow(PHONE), ({ phone }, reply) =>
    reply.type('application/json').send(JSON.stringify(walks.view(phone!.camera)))
  )
  app.post('/phone/walk', allow(PHONE), async (request, reply) => {
    const { camera, check } = request.phone!
    return reply.status(201).send(await walks.start(camera, check, authorOf(request)))
  })
  app.post('/phone/walk/finish', allow(PHONE), ({ phone }) => {
    refuseOther(walks, phone!)
    return walks.finish(phone!.camera)
  })
  app.delete('/phone/walk', allow(PHONE), ({ phone }) => {
    refuseOther(walks, phone!)
    return walks.stop(phone!.camera)
  })
  app.get('/phone/stream', { ...allow(PHONE), exposeHeadRoute: false }, async (request, reply) => {
    const { raw, signal } = live.begin(request, reply, 'application/octet-stream')
    void show(devices, request.phone!.camera, raw, signal)
  })
}

/** @throws ApiError when another walk than the one that the phone is let in for goes on before the camera */
function refuseOther(walks: WalkTests, { camera, check }: PhoneLink): void {
  const view = walks.view(camera)
  if (view && view.check.id !== check.id) throw conflict(said('proving.anotherWalkGoesOn'))
}
