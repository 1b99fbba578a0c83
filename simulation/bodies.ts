import type { GroundPoint } from '../core/scene/camera.ts'
import type { ActorKind } from './script.ts'
import type { Pose } from './world.ts'

/** An upright box on wheels, part of a car or van: metres along its heading, across it, and up. */
export class BodyPart {
  readonly along: readonly [from: number, to: number]
  readonly across: number
  readonly up: readonly [from: number, to: number]
  readonly role: 'body' | 'glass'

  constructor(
    along: readonly [number, number],
    across: number,
    up: readonly [number, number],
    role: 'body' | 'glass'
  ) {
    this.along = along
    this.across = across
    this.up = up
    this.role = role
  }

  /** The eight corners in the world, of a car that stands as the pose says; lower four first, going around. */
  corners({ at, heading: [hx, hz] }: Pick<Pose, 'at' | 'heading'>): Required<GroundPoint>[] {
    const half = this.across / 2
    return this.up.flatMap((y) =>
      (
        [
          [this.along[0], -half],
          [this.along[1], -half],
          [this.along[1], half],
          [this.along[0], half]
        ] as const
      ).map(([a, b]) => ({ x: at.x + a * hx - b * hz, y: at.y + y, z: at.z + a * hz + b * hx }))
    )
  }
}

const bodies: Partial<Record<ActorKind, BodyPart[]>> = {
  car: [
    new BodyPart([-2.1, 2.1], 1.76, [0.28, 0.86], 'body'),
    new BodyPart([-1.5, 0.9], 1.6, [0.86, 1.45], 'glass')
  ],
  van: [
    new BodyPart([-2.6, 1.9], 1.95, [0.32, 2.3], 'body'),
    new BodyPart([1.9, 2.6], 1.9, [0.32, 1.35], 'body')
  ]
}

/** The boxes that a vehicle is made of; undefined for those who have legs, wings or pedals. */
export const bodyOf = (kind: ActorKind): BodyPart[] | undefined => bodies[kind]
