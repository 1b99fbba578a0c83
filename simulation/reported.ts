import { isBlind } from './faults/faults.ts'
import { CLASSES, type TargetClass } from '../core/targets/classes.ts'
import type { TargetRow } from '../core/targets/tracks.ts'
import { randomFrom } from './random.ts'
import type { Play } from './script.ts'
import { truth } from './truth.ts'
import { actorsOf } from './world.ts'

/** How well a camera's own analysis does. */
export interface Quality {
  /** Standard deviation of a box's edges, as a share of its size. */
  jitter: number
  /** Chance that a target is missed in a frame. */
  missed: number
  /** Chance in a frame that a target is lost for a while and comes back under another id. */
  lost: number
  /** Chance in a frame that the class begins to be taken for another one, for about a second. */
  mistaken: number
  /** Seconds until a new target has its class; until then it is unknown. */
  classAfter: number
  /** Smallest height, as a share of the picture, that is seen at all. */
  smallest: number
}

export const QUALITIES = {
  true: { jitter: 0, missed: 0, lost: 0, mistaken: 0, classAfter: 0, smallest: 0 },
  good: {
    jitter: 0.02,
    missed: 0.01,
    lost: 0.0005,
    mistaken: 0.0005,
    classAfter: 0.3,
    smallest: 0.03
  },
  poor: { jitter: 0.07, missed: 0.08, lost: 0.006, mistaken: 0.008, classAfter: 1, smallest: 0.07 }
} satisfies Record<string, Quality>

interface Seen {
  id: number
  since: number
  lostUntil: number
  mistakenUntil: number
  as: TargetClass
}

/** How far from a box's size it must be inside the picture to be seen. */
const MIN_IN_VIEW = 0.35
/**
 * The targets of a script frame by frame, as a camera of some quality reports them; boxes cut at
 * the picture's edge.
 */
export function reportedTargets(play: Play, quality: Quality): TargetRow[] {
  const { scene, script } = play
  const random = randomFrom(script.seed + 81)
  const normal = (): number =>
    Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const actors = actorsOf(script)
  const seen = new Map<number, Seen>()
  let nextId = actors.length + 1
  const rows: TargetRow[] = []
  const frames = Math.round(script.seconds * scene.fps)
  for (let frame = 1; frame <= frames; frame++) {
    const time = (frame - 1) / scene.fps
    if (isBlind(script, time)) continue
    for (const { id, cls, box } of truth(play, time, actors)) {
      const [left, top] = [Math.max(0, box.x), Math.max(0, box.y)]
      const [w, h] = [Math.min(1, box.x + box.w) - left, Math.min(1, box.y + box.h) - top]
      if (w <= 0 || h <= 0 || w * h < MIN_IN_VIEW * box.w * box.h || h < quality.smallest) continue
      let state = seen.get(id)
      if (!state)
        seen.set(id, (state = { id, since: time, lostUntil: -1, mistakenUntil: -1, as: cls }))
      if (random() < quality.lost) {
        state.lostUntil = time + 0.6 + random()
        state.id = nextId++
        state.since = state.lostUntil
      }
      if (random() < quality.mistaken) {
        state.mistakenUntil = time + 0.5 + random()
        state.as = CLASSES[Math.floor(random() * CLASSES.length)]!
      }
      const skipped = random() < quality.missed
      const [jx, jy, jw, jh] = [normal(), normal(), normal(), normal()]
      if (skipped || time < state.lostUntil) continue
      const size = (v: number, by: number): number => v * Math.max(0.5, 1 + quality.jitter * by)
      const row = {
        x: left + w * quality.jitter * jx,
        y: top + h * quality.jitter * jy,
        w: size(w, jw),
        h: size(h, jh)
      }
      const x = Math.min(0.999, Math.max(0, row.x))
      const y = Math.min(0.999, Math.max(0, row.y))
      rows.push({
        frame,
        id: state.id,
        x,
        y,
        w: Math.min(row.w, 1 - x),
        h: Math.min(row.h, 1 - y),
        cls:
          time - state.since < quality.classAfter - 1e-9
            ? 'unknown'
            : time < state.mistakenUntil
              ? state.as
              : cls,
        confidence: 1
      })
    }
  }
  return rows
}
