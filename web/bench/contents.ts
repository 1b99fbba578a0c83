import type { BenchView, KeptScene } from '../../core/api.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'

/** One thing that is edited and kept on its own. */
export interface Placed {
  detection: Detection
  position: number
}
/** What the camera looks at: where nothing counts, and what it was measured from. */
export type Scene = Pick<KeptScene, 'ignore' | 'marks'>
type Values = { detection: Placed; schedule: Schedule; email: string; scene: Scene }
type Kind = keyof Values
export type Value = Values[Kind]
export type Key = `${Kind}:${string}`

export const idOf = (key: Key): string => key.slice(key.indexOf(':') + 1)

export const nameOf = (value: Value | null): string | null => {
  if (value === null || typeof value === 'string') return value
  return 'detection' in value ? value.detection.name : 'ignore' in value ? 'The scene' : value.name
}

export const sceneOf = ({ ignore, marks }: KeptScene): Scene => ({ ignore, marks })

/** Everything that is edited on a Bench, as the server holds it. */
export function contentsOf(view: BenchView): { key: Key; value: Value | null; version: number }[] {
  return [
    { key: `scene:${view.camera.id}` as const, value: sceneOf(view.scene), version: view.scene.version },
    ...view.schedules.map(({ schedule, version }) => ({ key: `schedule:${schedule.id}` as const, value: schedule, version })),
    ...view.detections.map(({ detection, position, version }) => ({ key: `detection:${detection.id}` as const, value: { detection, position }, version })),
    ...view.detections.map(({ detection, email }) => ({ key: `email:${detection.id}` as const, value: email.to, version: email.version }))
  ]
}
