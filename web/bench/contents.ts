import type { BenchView, KeptScene } from '../../core/api.ts'
import type { Actions } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { canonical } from '../../core/history/states.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { Held } from '../kept/things.ts'

/** One thing that is edited and kept on its own. */
export interface Placed {
  detection: Detection
  position: number
}
/** What the camera looks at: where nothing counts, and what it was measured from. */
export type Scene = Pick<KeptScene, 'ignore' | 'marks'>
export type Value = Placed | Schedule | Actions | Scene

export const nameOf = (value: Value | null): string | null => {
  if (value === null) return null
  return 'detection' in value
    ? value.detection.name
    : 'ignore' in value
      ? 'The scene'
      : 'links' in value
        ? 'What it sets off'
        : value.name
}

export const sceneOf = ({ ignore, marks }: KeptScene): Scene => ({ ignore, marks })

/** Actions that say nothing are none. */
export const orNothing = (actions: Actions): Actions | null =>
  canonical(actions) === canonical(NO_ACTIONS) ? null : actions

/** Everything that is edited on a Bench, as the server holds it. */
export function contentsOf(view: BenchView): Held<Value>[] {
  return [
    { key: `scene:${view.camera.id}`, value: sceneOf(view.scene), version: view.scene.version },
    ...view.schedules.map(({ schedule, version }) => ({
      key: `schedule:${schedule.id}`,
      value: schedule,
      version
    })),
    ...view.detections.map(({ detection, position, version }) => ({
      key: `detection:${detection.id}`,
      value: { detection, position },
      version
    })),
    ...[
      ...view.detections.map(({ detection: { id }, actions }) => ({ id, actions })),
      ...view.dormant
    ].map(({ id, actions: { actions, version } }) => ({
      key: `actions:${id}`,
      value: orNothing(actions),
      version
    }))
  ]
}
