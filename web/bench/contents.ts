import type { BenchView } from '../../core/api.ts'
import type { Actions } from '../../core/formats/actions.ts'
import type { Schedule } from '../../core/formats/plan.ts'
import type { Versioned } from '../sync/document.ts'
import { orNothing, placedId, sceneOf, type Placed, type Scene } from '../sync/kinds.ts'

export type Value = Placed | Schedule | Actions | Scene

/** Everything that is edited on a Bench, as the server holds it. */
export function contentsOf(view: BenchView): Versioned<Value>[] {
  return [
    { key: `scene:${view.camera.id}`, value: sceneOf(view.scene), version: view.scene.version },
    ...view.schedules.map(({ schedule, version }) => ({
      key: `schedule:${schedule.id}`,
      value: schedule,
      version
    })),
    ...view.detections.map(({ detection, position, version }) => ({
      key: `detection:${placedId(view.camera.id, detection.id)}`,
      value: { camera: view.camera.id, detection, position },
      version
    })),
    ...[
      ...view.detections.map(({ detection: { id }, actions }) => ({ id, actions })),
      ...view.dormant
    ].map(({ id, actions: { actions, version } }) => ({
      key: `actions:${placedId(view.camera.id, id)}`,
      value: orNothing(actions),
      version
    }))
  ]
}
