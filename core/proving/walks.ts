import type { ShapeDetection } from '../kinds/schemas.ts'
import { USUAL_ACTORS, type ActorKind, type Walk, type WalkActor } from '../formats/walk.ts'
import type { Draft } from './drafts.ts'
import { actor, bare, plainWalk, secondsOf, type Stage, type Way } from './stage.ts'

/** A walk's last moments, in which nothing more must happen. */
const TAIL = 1.5

/** Walks of the usual walker, and when their trigger is to be expected. */
export class Walks {
  readonly stage: Stage
  readonly d: ShapeDetection
  readonly who: ActorKind

  constructor(stage: Stage, d: ShapeDetection, who: ActorKind) {
    this.stage = stage
    this.d = d
    this.who = who
  }

  walk(way: Way, { kind = this.who, ...more }: Partial<WalkActor> = {}): Walk {
    const usual = kind === 'group' ? 'adult' : kind
    const speed = more.speed ?? USUAL_ACTORS[usual].speed
    return plainWalk(Math.ceil((more.from ?? 0) + secondsOf(way, speed) + TAIL), [
      actor(kind, way, { speed, ...more })
    ])
  }

  /** When the condition of the kind itself is met on a walk, seconds; null: it is not. */
  moment(walk: Walk, direction?: 'leftToRight' | 'rightToLeft'): number | null {
    return (
      bare(this.d, this.stage.tracksOf(walk), { atLeast: 1 }).find(
        (t) => direction === undefined || t.direction === direction
      )?.time ?? null
    )
  }

  trigger(walk: Walk, direction?: 'leftToRight' | 'rightToLeft'): Draft['expect'] {
    const at = this.moment(walk, direction) ?? 0
    return {
      what: 'trigger',
      from: Math.max(0, at - 0.5),
      to: Math.min(walk.seconds, at + this.d.confirmSeconds + 2),
      ...(direction && { direction })
    }
  }
}
