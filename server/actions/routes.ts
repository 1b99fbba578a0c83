import { coded, said, type Said } from '../../core/messages/said.ts'
import { randomUUID } from 'node:crypto'
import * as v from 'valibot'
import {
  SaveActionsSchema,
  SaveEndpointSchema,
  SaveInputsSchema,
  SaveMailSchema,
  SavePeopleSchema,
  SaveUsualSchema,
  type SiteActionsView
} from '../../core/api.ts'
import { setsOff } from '../../core/devices/outputs.ts'
import { InputError, saidOfError } from '../../core/errors.ts'
import { isOneOf } from '../../core/isOneOf.ts'
import { PHRASES, isOutput, type Endpoint } from '../../core/formats/actions.ts'
import { writeCalendar } from '../../core/formats/iCalendar.ts'
import {
  INSTALLER,
  allow,
  byCameraAndId,
  byId,
  fileBody,
  versionQuery,
  type Api
} from '../api/route.ts'
import { MAX_WAVE_BYTES, readWave } from '../../core/formats/wave.ts'
import type { Database } from '../database.ts'
import { readAllDetections, saveActions } from '../detections/queries.ts'
import type { Devices } from '../devices/service.ts'
import { listChannels } from '../devices/channelQueries.ts'
import { listDevices } from '../devices/queries.ts'
import type { Encryption } from '../devices/encryption.ts'
import type { Heartbeats } from '../deliveries/heartbeats.ts'
import { conflict, notFound } from '../errors.ts'
import { noteOf } from '../history/routes.ts'
import {
  deleteSchedule,
  listCameras,
  readSchedules,
  readSite,
  readSiteAlone,
  saveInputs,
  type SiteAlone
} from '../sites/queries.ts'
import { readInThread } from './calendars.ts'
import { readPhrase } from './voices.ts'
import {
  deleteEndpoint,
  insertVoice,
  listVoices,
  noteEndpointTest,
  readEndpoint,
  readEndpoints,
  readSettings,
  readVoice,
  saveEndpoint,
  saveSetting
} from './queries.ts'

export interface ActionsParts {
  database: Database
  devices: Devices
  heartbeats: Heartbeats
  encryption: Encryption
  /** Tests an endpoint. @returns what was confirmed */
  test: (endpoint: Endpoint, site: SiteAlone) => Promise<Said | string>
}

const MAX_CALENDAR_BYTES = 2 * 2 ** 20

/** @throws InputError for bytes that are no UTF-8 */
function textOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new InputError(coded('places.calendar'), said('actions.isNotUtf8SaveIt'))
  }
}

/** Actions: reading and saving all that the places Arming and Actions edit. */
export function actionsRoutes(
  app: Api,
  { database, devices, heartbeats, encryption, test }: ActionsParts
): void {
  app.get('/actions', allow(INSTALLER), async (request): Promise<SiteActionsView> => {
    const site = await readSite(database, request.site)
    const [detections, schedules, endpoints, settings, rows, channels, voices] = await Promise.all([
      readAllDetections(database, site.id),
      readSchedules(database, site.id),
      readEndpoints(database, site.id),
      readSettings(database, site.id),
      listDevices(database, site.id),
      listChannels(database, site.id),
      listVoices(database, site.id)
    ])
    const byCamera = endpoints.flatMap(({ endpoint: e }) => {
      if (!isOutput(e)) return []
      const held =
        rows.find((r) => r.id === e.device)?.outputs.find((o) => o.token === e.output)?.held ?? null
      return channels
        .filter((c) => c.device === e.device && c.used && c.camera !== null)
        .flatMap((c) =>
          c.held
            .filter(({ name }) => setsOff(held, c.token, name))
            .map(({ name }) => `${c.camera} ${name} ${e.id}`)
        )
    })
    return {
      site,
      detections,
      schedules,
      endpoints,
      mail: settings.mail,
      people: settings.people,
      usual: settings.usual,
      outputs: rows.flatMap((row) =>
        row.outputs.map(({ token, kind, name }) => ({
          device: row.id,
          deviceName: row.name,
          token,
          kind,
          name,
          cameras: channels
            .filter((c) => c.device === row.id && c.camera !== null)
            .map((c) => c.camera!)
        }))
      ),
      contacts: rows.flatMap((row) =>
        row.inputs.map((token) => ({ device: row.id, deviceName: row.name, token }))
      ),
      voices,
      inputs: Object.fromEntries(
        site.inputs.map(({ id, device, token }) => [
          id,
          device && token ? devices.subscriptions.contact(device, token) : null
        ])
      ),
      stations: heartbeats.of(site.id),
      byCamera
    }
  })

  app.put(
    '/cameras/:camera/detections/:id/actions',
    allow(INSTALLER, { params: byCameraAndId, body: SaveActionsSchema }),
    async (request) => {
      const { params, body } = request
      const { actions, version } = body
      const site = await readSiteAlone(database, request.site)
      await checkNames(actions, '$.actions', site.id)
      return database.transaction((sql) =>
        saveActions(
          sql,
          params.camera,
          params.id,
          actions,
          version,
          noteOf(request, said('edits.actions')),
          Date.now()
        )
      )
    }
  )

  /** What actions name must be there: a link into nothing would be silent. */
  const checkNames = async (
    actions: { links: string[]; for: string[]; acknowledge: { switch?: { endpoint: string } } },
    path: string,
    siteId: string
  ): Promise<void> => {
    const [endpoints, { people }] = [
      await readEndpoints(database, siteId),
      await readSettings(database, siteId)
    ]
    const known = (id: string): boolean => endpoints.some(({ endpoint }) => endpoint.id === id)
    const bad = actions.links.findIndex((link) => !known(link))
    if (bad >= 0)
      throw new InputError(`${path}.links[${bad}]`, said('actions.namesAndThe', actions.links[bad]))
    const wanted = actions.acknowledge.switch
    if (
      wanted &&
      !endpoints.some(({ endpoint }) => endpoint.id === wanted.endpoint && isOutput(endpoint))
    )
      throw new InputError(
        `${path}.acknowledge.switch.endpoint`,
        said('actions.namesAndThe2', wanted.endpoint)
      )
    const who = actions.for.findIndex(
      (id) => ![...people.people.people, ...people.people.groups].some((p) => p.id === id)
    )
    if (who >= 0)
      throw new InputError(`${path}.for[${who}]`, said('actions.namesAndThe3', actions.for[who]))
  }

  app.put(
    '/endpoints/:id',
    allow(INSTALLER, { params: byId, body: SaveEndpointSchema }),
    async (request) => {
      const { params, body } = request
      const site = await readSiteAlone(database, request.site)
      const { endpoint, version } = body
      if (params.id !== endpoint.id)
        throw new InputError('$.endpoint.id', said('input.isAndThe', endpoint.id, params.id))
      if (
        endpoint.schedule &&
        !(await readSchedules(database, site.id)).some(
          ({ schedule }) => schedule.id === endpoint.schedule
        )
      )
        throw new InputError('$.endpoint.schedule', said('input.namesAndThe4', endpoint.schedule))
      if (
        'camera' in endpoint &&
        endpoint.camera !== null &&
        !(await listCameras(database, site.id)).some(({ id }) => id === endpoint.camera)
      )
        throw new InputError('$.endpoint.camera', said('actions.namesAndThe5', endpoint.camera))
      if (endpoint.kind === 'speaker' && 'file' in endpoint.voice)
        await readVoice(database, site.id, endpoint.voice.file)
      if (isOutput(endpoint)) {
        const twin = (await readEndpoints(database, site.id)).find(
          ({ endpoint: e }) =>
            isOutput(e) &&
            e.id !== endpoint.id &&
            e.device === endpoint.device &&
            e.output === endpoint.output
        )
        if (twin)
          throw new InputError(
            '$.endpoint.output',
            said('actions.isSetUpAlreadyAs', twin.endpoint.name)
          )
      }
      return database.transaction((sql) =>
        saveEndpoint(
          sql,
          site.id,
          endpoint,
          version,
          noteOf(request, said('edits.edit', endpoint.name)),
          Date.now()
        )
      )
    }
  )

  app.delete(
    '/endpoints/:id',
    allow(INSTALLER, { params: byId, querystring: versionQuery }),
    async (request) => {
      const { version } = request.query
      const site = await readSiteAlone(database, request.site)
      return database.transaction((sql) =>
        deleteEndpoint(
          sql,
          site.id,
          request.params.id,
          version,
          noteOf(request, said('edits.delete', request.params.id)),
          Date.now()
        )
      )
    }
  )

  app.post('/endpoints/:id/test', allow(INSTALLER, { params: byId }), async (request) => {
    const site = await readSiteAlone(database, request.site)
    const { params } = request
    const { endpoint } = await readEndpoint(database, site.id, params.id)
    try {
      const outcome = await test(endpoint, site)
      await noteEndpointTest(database, site.id, endpoint.id, null, Date.now())
      return { outcome }
    } catch (error) {
      const why = saidOfError(error)
      await noteEndpointTest(database, site.id, endpoint.id, why, Date.now())
      throw conflict(why)
    }
  })

  app.delete(
    '/schedules/:id',
    allow(INSTALLER, { params: byId, querystring: versionQuery }),
    async (request) => {
      const { id } = request.params
      const { version } = request.query
      const site = await readSiteAlone(database, request.site)
      const users = [
        ...(await readAllDetections(database, site.id))
          .filter(({ detection }) => detection.schedule === id)
          .map(({ detection }) => detection.name),
        ...(await readEndpoints(database, site.id))
          .filter(({ endpoint }) => endpoint.schedule === id)
          .map(({ endpoint }) => endpoint.name)
      ]
      if (users.length) throw conflict(said('actions.theseHoursAreUsedBy', users.join(', ')))
      return database.transaction((sql) =>
        deleteSchedule(
          sql,
          site.id,
          id,
          version,
          noteOf(request, said('edits.deleteSchedule')),
          Date.now()
        )
      )
    }
  )

  app.put('/inputs', allow(INSTALLER, { body: SaveInputsSchema }), async (request) => {
    const { inputs } = request.body
    const site = await readSiteAlone(database, request.site)
    const twice = inputs.findIndex((x, i) => inputs.findIndex((y) => y.id === x.id) < i)
    if (twice >= 0)
      throw new InputError(`$.inputs[${twice}].id`, said('actions.isUsedTwice', inputs[twice]!.id))
    const used = (await readAllDetections(database, site.id)).flatMap(({ detection: d }) => [
      ...(d.armInput ? [{ input: d.armInput.input, name: d.name }] : []),
      ...(d.kind === 'contact' ? [{ input: d.input, name: d.name }] : [])
    ])
    const lost = used.find(({ input }) => !inputs.some((i) => i.id === input))
    if (lost) throw new InputError('$.inputs', said('actions.mustHaveUses', lost.input, lost.name))
    await database.transaction((sql) =>
      saveInputs(sql, site.id, inputs, noteOf(request, said('edits.contacts')), Date.now())
    )
    return { inputs }
  })

  app.put('/settings/mail', allow(INSTALLER, { body: SaveMailSchema }), async (request) => {
    const { mail, password, version } = request.body
    const site = await readSiteAlone(database, request.site)
    return (
      await database.transaction((sql) =>
        saveSetting(
          sql,
          site.id,
          'mail',
          mail,
          version,
          noteOf(request, said('edits.mailServer')),
          Date.now(),
          password === undefined
            ? undefined
            : password === null
              ? null
              : encryption.encrypt(password)
        )
      )
    ).mail
  })
  app.put('/settings/people', allow(INSTALLER, { body: SavePeopleSchema }), async (request) => {
    const { people, version } = request.body
    const all = [...people.people, ...people.groups].map(({ id }) => id)
    const twice = all.findIndex((id, i) => all.indexOf(id) < i)
    if (twice >= 0) throw new InputError('$.people', said('actions.hasTheId', all[twice]))
    people.groups.forEach((g, i) =>
      g.members.forEach((m, k) => {
        if (!people.people.some((p) => p.id === m))
          throw new InputError(
            `$.people.groups[${i}].members[${k}]`,
            said('actions.namesAndThere', m)
          )
      })
    )
    const site = await readSiteAlone(database, request.site)
    return (
      await database.transaction((sql) =>
        saveSetting(
          sql,
          site.id,
          'people',
          people,
          version,
          noteOf(request, said('edits.people')),
          Date.now()
        )
      )
    ).people
  })
  app.put('/settings/usual', allow(INSTALLER, { body: SaveUsualSchema }), async (request) => {
    const { actions, version } = request.body
    const site = await readSiteAlone(database, request.site)
    await checkNames(actions, '$.actions', site.id)
    return (
      await database.transaction((sql) =>
        saveSetting(
          sql,
          site.id,
          'usual',
          actions,
          version,
          noteOf(request, said('edits.defaultActions')),
          Date.now()
        )
      )
    ).usual
  })

  app.register(async (instance) => {
    const files = instance as unknown as Api
    files.addContentTypeParser(
      ['audio/wav', 'text/calendar'],
      { parseAs: 'buffer', bodyLimit: MAX_CALENDAR_BYTES },
      (_request, body, done) => done(null, body)
    )

    files.post(
      '/voices',
      allow(INSTALLER, {
        querystring: v.object({ name: v.optional(v.string(coded('input.mustBeAText')), 'Voice') }),
        body: fileBody(said('actions.aWaveFileSentAs'))
      }),
      async ({ query, body: content, site }, reply) => {
        // Refused before it is kept, with the byte at which it is wrong.
        const { seconds } = readWave(new Uint8Array(content.subarray(0, MAX_WAVE_BYTES + 1)))
        const voice = {
          id: `voice-${randomUUID().slice(0, 8)}`,
          name: query.name.trim().slice(0, 80) || 'Voice',
          seconds,
          content
        }
        await insertVoice(database, site, voice, Date.now())
        return reply
          .status(201)
          .send({ id: voice.id, name: voice.name, seconds, bytes: content.length })
      }
    )

    /** Reads a calendar as a schedule; it is kept only when it is saved as one. */
    files.post(
      '/calendars',
      allow(INSTALLER, {
        querystring: v.object({
          id: v.optional(
            v.pipe(
              v.string(coded('input.mustBeAText')),
              v.regex(/^[\w-]{1,64}$/, coded('input.mustBe1To64'))
            )
          )
        }),
        body: fileBody(said('actions.aCalendarSentAsTextCalendar'))
      }),
      async (request) => {
        const { query, body } = request
        const site = await readSiteAlone(database, request.site)
        return readInThread({
          text: textOf(body),
          id: query.id ?? `hours-${randomUUID().slice(0, 8)}`,
          site: { timeZone: site.timeZone, position: site.position ?? undefined },
          from: Date.now()
        })
      }
    )
  })

  app.get('/phrases/:id', allow(INSTALLER, { params: byId }), async ({ params }, reply) => {
    if (!isOneOf(PHRASES, params.id)) throw notFound(said('things.phrase', params.id.slice(0, 64)))
    return reply.type('audio/wav').send(readPhrase(params.id))
  })
  app.get('/voices/:id', allow(INSTALLER, { params: byId }), async ({ params, site }, reply) =>
    reply.type('audio/wav').send(await readVoice(database, site, params.id))
  )

  app.get(
    '/schedules/:id/calendar.ics',
    allow(INSTALLER, { params: byId }),
    async (request, reply) => {
      const { params } = request
      const site = await readSiteAlone(database, request.site)
      const kept = (await readSchedules(database, site.id)).find(
        ({ schedule }) => schedule.id === params.id
      )
      if (!kept) throw notFound(said('things.schedule', params.id.slice(0, 64)))
      const name = kept.schedule.name.replace(/[^\w-]+/g, '-') || 'hours'
      return reply
        .type('text/calendar; charset=utf-8')
        .header('content-disposition', `attachment; filename="${name}.ics"`)
        .send(
          writeCalendar(
            kept.schedule,
            { timeZone: site.timeZone, position: site.position ?? undefined },
            Date.now()
          )
        )
    }
  )
}
