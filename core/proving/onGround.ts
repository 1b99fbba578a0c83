import { USUAL_ACTORS, type ActorKind } from '../formats/walk.ts'
import type { Tracks } from '../targets/tracks.ts'
import { actor, boxesOf, plainWalk, secondsOf, type Ground, type Stage, type Way } from './stage.ts'

/** What ways over the ground are tried with. */

export const STEPS = 24

/** A camera's scene, and of what kind those are that walk on it. */
export interface Walkers {
  stage: Stage
  who: ActorKind
}

export const tracksOn = ({ stage, who }: Walkers, way: Way): Tracks => {
  const { speed } = USUAL_ACTORS[who]
  return stage.tracksOf(
    plainWalk(Math.max(1, secondsOf(way, speed) + 0.5), [actor(who, way, { speed })])
  )
}

/** Whether a way has more than its first moments in the picture. */
export const isSeen = (walkers: Walkers, way: Way): boolean =>
  boxesOf(tracksOn(walkers, way), 1).length >= 1.2 * walkers.stage.fps

export const along = (from: Ground, direction: Ground, metres: number): Ground => [
  from[0] + direction[0] * metres,
  from[1] + direction[1] * metres
]
export const unit = (a: Ground, b: Ground): Ground | null => {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1])
  return length > 0.05 ? [(b[0] - a[0]) / length, (b[1] - a[1]) / length] : null
}
export const round = ([x, z]: Ground): Ground => [
  Math.round(x * 100) / 100,
  Math.round(z * 100) / 100
]
/** Whether the feet stay before the camera. */
export const isInFront = (way: Way): boolean => way.every(([, z]) => z > 0.5)

/** A part of a way and back again, as far as asked. */
export function turnBack(
  walkers: Walkers,
  [from, to]: readonly [from: Way[number], to: Way[number]],
  fits: (tracks: Tracks) => boolean
): Way | null {
  for (let i = 1; i < STEPS; i++) {
    const turn = round([
      from[0] + ((to[0] - from[0]) * i) / STEPS,
      from[1] + ((to[1] - from[1]) * i) / STEPS
    ])
    const way: Way = [from, [...turn, 0.6], from]
    if (fits(tracksOn(walkers, way))) return way
  }
  return null
}
