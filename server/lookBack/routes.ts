import type { FastifyReply } from 'fastify'
import * as v from 'valibot'
import { InputError, saidOfError } from '../../core/errors.ts'
import { LONGEST_CLIP_MS, TEN_MINUTES, lengthOf } from '../../core/lookBack/rows.ts'
import type { PicturesView, StripView } from '../../core/lookBack/views.ts'
import { ReportedClipSchema } from '../../core/api.ts'
import { SaveLookBackSchema, type LookBackSettingsView } from '../../core/lookBack/settings.ts'
import {
  CountSchema,
  MarkAlarmSchema,
  NewMarkSchema,
  RecommendSchema,
  SweepSchema,
  type CountView,
  type NuisancesView,
  type SweepView
} from '../../core/marks/views.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { said } from '../../core/messages/said.ts'
import { measureScene } from '../../core/scene/marks.ts'
import type { Place } from '../../core/tuning/stretches.ts'
import { readSettings, saveSetting } from '../actions/queries.ts'
import {
  ACTING,
  INSTALLER,
  SIGNED_IN,
  allow,
  byCamera,
  byNumber,
  numberText,
  type Api
} from '../api/route.ts'
import type { LiveAnswers } from '../api/streams.ts'
import { readAlarm } from '../alarms/queries.ts'
import type { Database } from '../database.ts'
import { notFound } from '../errors.ts'
import { authorOf, noteOf } from '../history/routes.ts'
import { findClip } from '../clips/queries.ts'
import type { Stretch } from '../clips/reported.ts'
import type { Clips } from '../clips/service.ts'
import { listCameraIds, readCamera } from '../sites/queries.ts'
import type { Proving } from '../proving/service.ts'
import type { TargetMemory } from '../watch/memory.ts'
import type { OwnAnalysis } from '../watch/ownAnalysis.ts'
import { markedOf } from './markedClips.ts'
import { countNuisances, deleteMark, listMarks, markAlarm, saveMark } from './markQueries.ts'
import type { LookBack } from './service.ts'

const DAY_MS = 86_400_000
/** Longer than this nothing is asked about at once. */
const MOST_DAYS = 366
/** A browser is given no more than this at once: it holds every row. */
const MOST_TRACKS_DAYS = 1
const NUISANCE_DAYS = 14

const anInstant = numberText(said('things.anInstant'))
const range = v.object({ from: anInstant, to: anInstant })
const anAlarm = byNumber(said('alarms.anAlarm'))
const aPicture = v.object({ ...byCamera.entries, at: anInstant })
const aMark = v.object({ ...byCamera.entries, id: numberText(said('things.aMark')) })

/** @throws InputError when it ends before it begins, or is too long */
function checkRange({ from, to }: Stretch, days = MOST_DAYS): void {
  if (to <= from) throw new InputError('to', said('lookBack.mustBeLater'))
  if (to - from > days * DAY_MS)
    throw new InputError(
      'to',
      days === 1 ? said('lookBack.isLongerThanADay') : said('lookBack.isLongerThan', days)
    )
}

/** Until whoever asks has gone: a detection that is being drawn is asked about again and again. */
function whileAsked({ raw }: Pick<FastifyReply, 'raw'>): AbortSignal {
  const gone = new AbortController()
  raw.on('close', () => {
    if (!raw.writableFinished) gone.abort()
  })
  return gone.signal
}

export interface LookBackParts {
  database: Database
  lookBack: LookBack
  clips: Clips
  memory: TargetMemory
  analyses: OwnAnalysis
  proving: Proving
  answers: LiveAnswers
}

/** Looking back, marks and tuning. */
export function lookBackRoutes(
  app: Api,
  { database, lookBack, clips, memory, analyses, proving, answers }: LookBackParts
): void {
  /** Where a detection is as it is drawn: hours and ignore areas from the page, the scene as it was saved. */
  const placeOf = async (
    camera: string,
    {
      schedules,
      ignore
    }: { schedules: Place['plan']['schedules']; ignore: Place['camera']['ignore'] }
  ): Promise<Place> => {
    const { site, scene } = await readCamera(database, camera)
    const pose = scene.marks ? measureScene(scene.marks).pose : null
    return {
      plan: {
        schedules,
        timeZone: site.timeZone,
        ...(site.position && { position: site.position })
      },
      camera: { ignore, ...(pose && { scene: pose }) }
    }
  }
  const settingsView = async (site: string): Promise<LookBackSettingsView> => {
    const saved = (await readSettings(database, site)).lookBack
    return {
      ...saved,
      ...(await lookBack.sizeOf(site)),
      ...analyses.view(saved.lookBack.analysed)
    }
  }
  const marked = (camera: string, { detection, from, to }: Stretch & { detection: Detection }) =>
    markedOf(database, clips, camera, detection.id, { from, to })

  app.get('/settings/look-back', allow(INSTALLER), ({ site }) => settingsView(site))
  app.put(
    '/settings/look-back',
    allow(INSTALLER, { body: SaveLookBackSchema }),
    async (request): Promise<LookBackSettingsView> => {
      const { site, body } = request
      const own = await listCameraIds(database, site)
      for (const list of ['without', 'analysed'] as const)
        body.lookBack[list].forEach((camera, i) => {
          if (!own.includes(camera))
            throw new InputError(`$.lookBack.${list}[${i}]`, said('lookBack.noSuchCamera', camera))
        })
      await database.transaction((sql) =>
        saveSetting(
          sql,
          site,
          'lookBack',
          body.lookBack,
          body.version,
          noteOf(request, said('edits.lookBack')),
          Date.now()
        )
      )
      await memory.leaveOut()
      await analyses.look()
      await lookBack.forget(body.lookBack.without)
      return settingsView(site)
    }
  )

  app.get(
    '/cameras/:camera/look-back',
    allow(ACTING, { params: byCamera, querystring: range }),
    async ({ params, query, site }): Promise<StripView> => {
      await readCamera(database, params.camera)
      checkRange(query)
      const settings = (await readSettings(database, site)).lookBack.lookBack
      const { tens, heard } = await lookBack.ask({
        type: 'strip',
        camera: params.camera,
        from: query.from,
        to: query.to
      })
      return {
        from: query.from,
        to: query.to,
        tens: [...tens]
          .map(([at, counts]) => ({ at, counts }))
          .filter(({ at }) => at + TEN_MINUTES > query.from && at < query.to)
          .sort((a, b) => a.at - b.at),
        heard,
        left: settings.without.includes(params.camera),
        days: settings.days
      }
    }
  )
  app.get(
    '/cameras/:camera/look-back/tracks',
    allow(ACTING, { params: byCamera, querystring: range }),
    async ({ params, query }, reply) => {
      await readCamera(database, params.camera)
      checkRange(query, MOST_TRACKS_DAYS)
      const { bytes } = await lookBack.ask({
        type: 'tracks',
        camera: params.camera,
        from: query.from,
        to: query.to
      })
      return reply
        .type('application/octet-stream')
        .send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength))
    }
  )

  app.get(
    '/cameras/:camera/look-back/pictures',
    allow(ACTING, { params: byCamera, querystring: range }),
    async ({ params, query }): Promise<PicturesView> => {
      await readCamera(database, params.camera)
      checkRange(query, MOST_TRACKS_DAYS)
      return {
        at: await lookBack.ask({
          type: 'pictures',
          camera: params.camera,
          from: query.from,
          to: query.to
        })
      }
    }
  )
  app.get(
    '/cameras/:camera/look-back/pictures/:at',
    allow(ACTING, { params: aPicture }),
    async ({ params }, reply) => {
      await readCamera(database, params.camera)
      const { camera, at } = params
      const jpeg = await lookBack.ask({ type: 'picture', camera, at })
      if (!jpeg) throw notFound(said('things.aPicture'))
      return reply
        .type('image/jpeg')
        .header('cache-control', 'private, max-age=86400')
        .send(Buffer.from(jpeg.buffer, jpeg.byteOffset, jpeg.byteLength))
    }
  )

  app.post(
    '/cameras/:camera/look-back/clips',
    allow(INSTALLER, { params: byCamera, body: ReportedClipSchema }),
    async ({ params, body: { name, from, to } }, reply) => {
      await readCamera(database, params.camera)
      checkRange({ from, to })
      if (to - from > LONGEST_CLIP_MS)
        throw new InputError('$.to', said('lookBack.isLongerThanAnHour'))
      return reply.status(201).send(await clips.report(params.camera, name, { from, to }))
    }
  )

  const asking = allow(INSTALLER, { params: byCamera, body: CountSchema })
  app.post(
    '/cameras/:camera/look-back/counts',
    { ...asking, config: { ...asking.config, unaudited: true } },
    async ({ params, body }, reply): Promise<CountView> => {
      checkRange(body)
      const { heard, counted } = await lookBack.ask(
        {
          type: 'count',
          camera: params.camera,
          from: body.from,
          to: body.to,
          place: await placeOf(params.camera, body),
          detections: body.detections
        },
        undefined,
        whileAsked(reply)
      )
      return {
        heardMs: lengthOf(heard),
        counted: [...counted].map(([detection, of]) => ({ detection, ...of }))
      }
    }
  )
  const sweeping = allow(INSTALLER, { params: byCamera, body: SweepSchema })
  app.post(
    '/cameras/:camera/look-back/sweep',
    { ...sweeping, config: { ...sweeping.config, unaudited: true } },
    async ({ params, body }, reply): Promise<SweepView> => {
      checkRange(body)
      return lookBack.sweep(
        {
          camera: params.camera,
          from: body.from,
          to: body.to,
          place: await placeOf(params.camera, body),
          detection: body.detection,
          setting: body.setting,
          ...(await marked(params.camera, body))
        },
        whileAsked(reply)
      )
    }
  )
  const recommending = allow(INSTALLER, { params: byCamera, body: RecommendSchema })
  // A line of JSON for each step of the progress, then one with the answer; whoever leaves stops it.
  app.post(
    '/cameras/:camera/look-back/recommend',
    { ...recommending, config: { ...recommending.config, unaudited: true } },
    async (request, reply) => {
      const { params, body } = request
      checkRange(body)
      const job = {
        type: 'recommend' as const,
        camera: params.camera,
        from: body.from,
        to: body.to,
        place: await placeOf(params.camera, body),
        detection: body.detection,
        ...(await marked(params.camera, body)),
        walks: await proving.keptWalks(params.camera, body.detection.id)
      }
      const { raw, signal } = answers.begin(request, reply, 'application/x-ndjson')
      const say = (line: object): void => void raw.write(`${JSON.stringify(line)}\n`)
      let told = 0
      try {
        const found = await lookBack.ask(
          job,
          (share) => {
            if (share < told + 0.01) return
            told = share
            say({ share })
          },
          signal
        )
        say({ found })
      } catch (error) {
        if (!signal.aborted) say({ error: saidOfError(error) })
      }
      raw.end()
    }
  )

  app.get('/cameras/:camera/marks', allow(ACTING, { params: byCamera }), async ({ params }) => {
    await readCamera(database, params.camera)
    return listMarks(database, params.camera)
  })
  app.post(
    '/cameras/:camera/marks',
    allow(ACTING, { params: byCamera, body: NewMarkSchema }),
    async (request, reply) => {
      const { params, body, site } = request
      await readCamera(database, params.camera)
      if (body.clip !== null && (await findClip(database, body.clip))?.camera !== params.camera)
        throw notFound(said('things.clip', body.clip))
      await database.transaction((sql) =>
        saveMark(sql, { site, camera: params.camera, ...body }, authorOf(request), Date.now())
      )
      return reply.status(201).send(await listMarks(database, params.camera))
    }
  )
  app.delete('/cameras/:camera/marks/:id', allow(ACTING, { params: aMark }), async ({ params }) => {
    if (!(await deleteMark(database, params.camera, params.id)))
      throw notFound(said('things.aMark'))
    return listMarks(database, params.camera)
  })
  app.post(
    '/alarms/:id/mark',
    allow(ACTING, { params: anAlarm, body: MarkAlarmSchema }),
    async (request) => {
      const { params, body } = request
      await readAlarm(database, params.id)
      await markAlarm(database, params.id, body.mark, body.reason, authorOf(request), Date.now())
      return readAlarm(database, params.id)
    }
  )
  app.get('/nuisances', allow(SIGNED_IN), async ({ site }): Promise<NuisancesView> => ({
    days: NUISANCE_DAYS,
    detections: await countNuisances(database, site, Date.now() - NUISANCE_DAYS * DAY_MS)
  }))
}
