import { coded, said } from '../messages/said.ts'
import { WeatherSchema } from './weather.ts'
import * as v from 'valibot'
import { InputError } from '../errors.ts'
import { bool, id, number, oneOf, text } from '../schema/parts.ts'

/**
 * Who walks through a camera's view and what happens meanwhile, as data: what checks and scripts are made of. Metres on
 * the ground: x to the right, z away from the camera's foot point, y up; seconds from the start.
 */

const metre = number(-500, 500, ' m')
const seconds = number(0, 86400, ' s')
const name = text(120)

export const ACTOR_KINDS = [
  'adult',
  'child',
  'crouching',
  'group',
  'dog',
  'gull',
  'car',
  'van',
  'bicycle'
] as const
/** `[x, z]`, `[x, z, pause]` or `[x, z, pause, y]`. */
const wayPoint = v.union(
  [
    v.strictTuple([metre, metre]),
    v.strictTuple([metre, metre, seconds]),
    v.strictTuple([metre, metre, seconds, metre])
  ],
  coded('formats.mustBeAWayPointX')
)

export const ActorSchema = v.strictObject({
  kind: v.picklist(ACTOR_KINDS, (issue) =>
    coded('formats.isMustBeOne', JSON.stringify(issue.input), ACTOR_KINDS.join(', '))
  ),
  from: v.optional(seconds, 0),
  /** Metres per second; left out: the kind's own. */
  speed: v.optional(number(0.05, 40, ' m/s')),
  /** Metres; left out: the kind's own. */
  tall: v.optional(number(0.2, 4, ' m')),
  way: v.pipe(
    v.array(wayPoint, coded('formats.mustBeAListOf6')),
    v.minLength(2, coded('formats.needsAtLeast2WayPoints'))
  ),
  /** Of a group: how many. */
  members: v.optional(number(2, 8), 3),
  mask: v.optional(bool, false),
  /** Who it is, for a list of known faces. */
  name: v.optional(name),
  coat: v.optional(
    v.picklist(
      ['navy', 'red', 'green', 'grey', 'ochre', 'white', 'black'],
      coded('formats.mustBeOneOfNavy')
    )
  )
})

export const FAULT_KINDS = [
  'covered',
  'sprayed',
  'defocused',
  'knocked',
  'lightsOut',
  'washedOut',
  'cableCut',
  'frozen'
] as const
export const FaultSchema = v.strictObject({
  kind: oneOf(FAULT_KINDS),
  from: seconds,
  to: v.optional(seconds)
})

export const LIGHTS = ['day', 'dusk', 'night', 'infrared'] as const

/** What happens while a script or a check runs. */
export const happening = {
  seconds: number(1, 7200, ' s'),
  light: v.optional(oneOf(LIGHTS), 'day'),
  weather: v.optional(WeatherSchema, {}),
  /** Cars' lamps that sweep over the picture. */
  headlights: v.optional(
    v.array(v.strictObject({ from: seconds, takes: v.optional(number(0.5, 60, ' s'), 4) })),
    []
  ),
  /** An insect that crawls on the lens. */
  insects: v.optional(v.array(v.strictObject({ from: seconds, to: seconds })), []),
  faults: v.optional(v.array(FaultSchema), []),
  actors: v.optional(v.array(ActorSchema, coded('formats.mustBeAListOf7')), []),
  /** Contacts and the panel's set state, on the same clock. */
  inputs: v.optional(v.record(id, v.array(v.strictObject({ at: seconds, set: bool }))), {}),
  seed: v.optional(v.pipe(number(0, 4294967295), v.integer(coded('input.mustBeAWholeNumber'))), 1)
}

export const WalkSchema = v.strictObject(happening)
export type Walk = v.InferOutput<typeof WalkSchema>
export type WalkActor = v.InferOutput<typeof ActorSchema>
export type ActorKind = Exclude<WalkActor['kind'], 'group'>
export type FaultKind = (typeof FAULT_KINDS)[number]
export type Light = (typeof LIGHTS)[number]

/** What each kind is when nothing else is said: metres tall, metres per second. */
export const USUAL_ACTORS: Record<ActorKind, { tall: number; speed: number }> = {
  adult: { tall: 1.76, speed: 1.35 },
  child: { tall: 1.2, speed: 1.2 },
  crouching: { tall: 1.0, speed: 0.7 },
  dog: { tall: 0.62, speed: 2.1 },
  gull: { tall: 0.5, speed: 4.5 },
  car: { tall: 1.45, speed: 5 },
  van: { tall: 2.3, speed: 5 },
  bicycle: { tall: 1.7, speed: 4 }
}

/** @throws InputError for a fault that ends before it begins */
export function checkFaults(faults: Walk['faults'], place = '$.faults'): void {
  faults.forEach(({ from, to }, i) => {
    if (to !== undefined && to <= from)
      throw new InputError(`${place}[${i}].to`, said('formats.isSMustBeAfter', to, from))
  })
}
