import { said } from '../../core/messages/said.ts'
import {
  SaveDetectionSchema,
  SaveSceneSchema,
  SaveScheduleSchema,
  type BenchView
} from '../../core/api.ts'
import { InputError } from '../../core/errors.ts'
import { isInMetres, isTiedToSun, type Plan } from '../../core/formats/plan.ts'
import { readEndpoints } from '../actions/queries.ts'
import { listClips } from '../clips/queries.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import {
  deleteDetection,
  readDetections,
  readDormant,
  saveDetection
} from '../detections/queries.ts'
import { measureScene } from '../../core/scene/marks.ts'
import { noteOf } from '../history/routes.ts'
import {
  readCamera,
  readSchedules,
  readSiteAlone,
  saveScene,
  saveSchedule
} from '../sites/queries.ts'
import {
  INSTALLER,
  allow,
  byCamera,
  byCameraAndId,
  byId,
  versionQuery,
  type Api
} from '../api/route.ts'

/** A camera's part of the plan, as it is kept now. */
export async function readPlanOf(database: Database, cameraId: string): Promise<Plan> {
  const { site, camera, scene } = await readCamera(database, cameraId)
  const [detections, schedules] = await Promise.all([
    readDetections(database, cameraId),
    readSchedules(database, site.id)
  ])
  return {
    format: 'wardoptic-plan/1',
    timeZone: site.timeZone,
    ...(site.position && { position: site.position }),
    schedules: schedules.map((kept) => kept.schedule),
    cameras: [
      {
        ...camera,
        ...(scene.marks && { scene: measureScene(scene.marks).pose }),
        ignore: scene.ignore,
        detections: detections.map((kept) => kept.detection)
      }
    ]
  }
}

const sameId = (path: string, body: string, place: string): void => {
  if (path !== body) throw new InputError(place, said('plan.isAndThe', body, path))
}

/** Reading and saving what the Bench edits. */
export function benchRoutes(app: Api, database: Database, clips: Clips, devices: Devices): void {
  app.get(
    '/cameras/:camera',
    allow(INSTALLER, { params: byCamera }),
    // Nothing waits for anything else: on a busy server each question takes as long as all that stands before it.
    async ({ site: siteId, params: { camera: id } }): Promise<BenchView> => {
      const [row, detections, dormant, schedules, endpoints, kept, shown] = await Promise.all([
        readCamera(database, id),
        readDetections(database, id),
        readDormant(database, id),
        readSchedules(database, siteId),
        readEndpoints(database, siteId),
        listClips(database, id),
        devices.channelShowing(id)
      ])
      const { site, camera, surroundings, scene, world } = row
      return {
        site,
        camera,
        surroundings,
        scene,
        detections,
        dormant,
        schedules,
        endpoints,
        world,
        live: shown !== null,
        clips: kept.map((clip) => clips.withProgress(clip))
      }
    }
  )

  app.get('/cameras/:camera/plan', allow(INSTALLER, { params: byCamera }), ({ params }) =>
    readPlanOf(database, params.camera)
  )

  app.put(
    '/cameras/:camera/detections/:id',
    allow(INSTALLER, { params: byCameraAndId, body: SaveDetectionSchema }),
    async (request) => {
      const { params } = request
      const { site, scene } = await readCamera(database, params.camera)
      const { detection, position, version } = request.body
      sameId(params.id, detection.id, '$.detection.id')
      if (
        detection.schedule &&
        !(await readSchedules(database, site.id)).some(
          ({ schedule }) => schedule.id === detection.schedule
        )
      )
        throw new InputError('$.detection.schedule', said('input.namesAndThe4', detection.schedule))
      // Without a calibrated scene it could never fire.
      if (!scene.marks && isInMetres(detection))
        throw new InputError('$.detection.size', said('plan.isInMetresAndThe'))
      const known = (input: string): boolean => site.inputs.some(({ id }) => id === input)
      const inputs = said(
        'plan.theSiteHas',
        site.inputs.length ? site.inputs.map(({ id }) => id).join(', ') : said('plan.noInputs')
      )
      if (detection.armInput && !known(detection.armInput.input))
        throw new InputError(
          '$.detection.armInput.input',
          said('plan.names', detection.armInput.input, inputs)
        )
      if (detection.kind === 'contact' && !known(detection.input))
        throw new InputError('$.detection.input', said('plan.names', detection.input, inputs))
      return database.transaction((sql) =>
        saveDetection(
          sql,
          params.camera,
          detection,
          position,
          version,
          noteOf(request, said('edits.edit', detection.name)),
          Date.now()
        )
      )
    }
  )

  app.put(
    '/cameras/:camera/scene',
    allow(INSTALLER, { params: byCamera, body: SaveSceneSchema }),
    async (request) => {
      const { camera } = request.params
      await readCamera(database, camera)
      const wanted = request.body
      if (!wanted.marks) {
        const inMetres = (await readDetections(database, camera)).find(({ detection }) =>
          isInMetres(detection)
        )
        if (inMetres)
          throw new InputError('$.marks', said('plan.mustStayHasASize', inMetres.detection.name))
      }
      return database.transaction((sql) =>
        saveScene(sql, camera, wanted, noteOf(request, said('edits.scene')), Date.now())
      )
    }
  )

  app.delete(
    '/cameras/:camera/detections/:id',
    allow(INSTALLER, { params: byCameraAndId, querystring: versionQuery }),
    async (request) => {
      const { params, query } = request
      return database.transaction((sql) =>
        deleteDetection(
          sql,
          params.camera,
          params.id,
          query.version,
          noteOf(request, said('edits.delete', params.id)),
          Date.now()
        )
      )
    }
  )

  app.put(
    '/schedules/:id',
    allow(INSTALLER, { params: byId, body: SaveScheduleSchema }),
    async (request) => {
      const { params, body } = request
      const site = await readSiteAlone(database, request.site)
      const { schedule, version } = body
      sameId(params.id, schedule.id, '$.schedule.id')
      if (!site.position && isTiedToSun(schedule))
        throw new InputError('$.schedule', said('plan.isTiedToTheSun'))
      return database.transaction((sql) =>
        saveSchedule(
          sql,
          site.id,
          schedule,
          version,
          noteOf(request, said('edits.editSchedule', schedule.name)),
          Date.now()
        )
      )
    }
  )
}
