import type { Ladder, Trigger } from '../../../core/detections/index.ts'
import type { ClipView, SiteView } from '../../../core/api.ts'
import type { Schedule } from '../../../core/formats/plan.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'
import type { Placed } from '../document.ts'
import type { TimedStay } from '../../../core/tuning/stays.ts'
import type { Playhead } from '../playhead.ts'

export interface TimelineProps {
  clip: ClipView
  site: Omit<SiteView, 'cameras'>
  playhead: Playhead
  placed: Placed[]
  schedules: Schedule[]
  spans: TargetSpan[]
  triggersOf: ReadonlyMap<string, readonly Trigger[]>
  ladders: Ladder[]
  /** When targets are timed, by detection. */
  timed: ReadonlyMap<string, readonly TimedStay[]>
  detection: string | null
  /** The shape of the selected one is being dragged. */
  dragging: boolean
  target: number | null
  at: number | null
  onDetection: (id: string) => void
  onMoment: (detection: string | null, target: number | null, frame: number | null) => void
}
