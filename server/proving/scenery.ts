import { createHash } from 'node:crypto'
import type { Actions, Endpoint } from '../../core/formats/actions.ts'
import type { Check } from '../../core/formats/check.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Plan } from '../../core/formats/plan.ts'
import { grouped } from '../../core/grouped.ts'
import { settingsText } from '../../core/proving/standing.ts'
import { measureScene } from '../../core/scene/marks.ts'
import type { Surroundings } from '../../core/sites/surroundings.ts'
import { readContext, type ActionsContext } from '../alarms/context.ts'
import type { Database } from '../database.ts'
import { readAllDetections } from '../detections/queries.ts'
import { readCameras, type SiteAlone } from '../sites/queries.ts'
import { groundOf, type Ground } from './stage.ts'

/** A camera with all that its checks depend on. */
export interface Place {
  id: string
  ground: Ground | null
  surroundings: Surroundings
  plan: Plan
  actions: ReadonlyMap<string, Actions>
}

/** A site with all that its checks depend on. */
export interface Scenery {
  site: SiteAlone
  context: ActionsContext
  endpoints: Endpoint[]
  places: Map<string, Place>
  detections: { camera: string; detection: Detection }[]
}

/** All that checks depend on, as it is kept now. */
export async function readScenery(database: Database, siteId: string): Promise<Scenery> {
  const context = await readContext(database, siteId)
  const { site } = context
  const all = await readAllDetections(database, site.id)
  const detections = grouped(all, ({ camera }) => camera)
  const places = new Map<string, Place>()
  for (const { camera, scene, world, surroundings } of await readCameras(database, site.id)) {
    const { id } = camera
    const pose = scene.marks ? measureScene(scene.marks).pose : null
    const own = detections.get(id) ?? []
    places.set(id, {
      id,
      ground: groundOf(world, pose),
      surroundings,
      plan: {
        format: 'wardoptic-plan/1',
        timeZone: site.timeZone,
        ...(site.position && { position: site.position }),
        schedules: context.schedules,
        cameras: [
          {
            ...camera,
            ...(pose && { scene: pose }),
            ignore: scene.ignore,
            detections: own.map((d) => d.detection)
          }
        ]
      },
      actions: new Map(own.map((d) => [d.detection.id, d.actions.actions]))
    })
  }
  return {
    site,
    context,
    endpoints: [...context.actions.endpoints],
    places,
    detections: all.map(({ camera, detection }) => ({ camera, detection }))
  }
}

/** What a check's result hangs on, as a digest; empty: its detection is not there. */
export function settingsOf(check: Check, place: Place, endpoints: readonly Endpoint[]): string {
  const camera = place.plan.cameras[0]!
  const detection = camera.detections.find(({ id }) => id === check.detection)
  if (!detection) return ''
  return createHash('sha256')
    .update(
      settingsText(check, {
        detection,
        plan: place.plan,
        camera,
        actions: place.actions.get(detection.id) ?? NO_ACTIONS,
        endpoints
      })
    )
    .digest('hex')
}
