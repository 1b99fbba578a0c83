import * as v from 'valibot'
import { InputError } from '../core/errors.ts'
import { parseWith } from '../core/formats/plan.ts'

/**
 * A camera's scene and what happens in it, as data. Metres on the ground: x to the right, z away from the camera's foot
 * point, y up; seconds from the start of the script. What is left out has its default; what is unknown is refused with
 * its path.
 */

const number = (min: number, max: number, unit = '') => {
  const right = `must be a number from ${min} to ${max}${unit}`
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}
const metre = number(-500, 500, ' m')
const seconds = number(0, 86400, ' s')
const share = v.optional(number(0, 1), 0)
const text = v.pipe(v.string('must be a text'), v.minLength(1, 'must not be empty'), v.maxLength(120, 'is longer than 120 characters'))
const id = v.pipe(v.string('must be a text'), v.regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _'))
const colour = v.pipe(v.string('must be a colour'), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as "#8d8a80"'))
/** `[x, z]`, or `[x, z, y]` for what is not on the ground. */
const place = v.union([v.strictTuple([metre, metre]), v.strictTuple([metre, metre, metre])], 'must be a place [x, z] or [x, z, y] in metres')

const ThingSchema = v.variant(
  'kind',
  [
    /** A flat piece: ground, a wall, a roof. */
    v.strictObject({ kind: v.literal('face'), colour, corners: v.pipe(v.array(place, 'must be a list of places'), v.minLength(3, 'needs at least 3 corners')) }),
    /** An upright wall between two places. */
    v.strictObject({ kind: v.literal('wall'), colour, from: place, to: place, bottom: v.optional(metre, 0), top: metre }),
    v.strictObject({ kind: v.literal('block'), colour, at: place, size: v.strictTuple([metre, metre, metre], 'must be [width, depth, height] in metres'), turn: v.optional(number(-180, 180, '°'), 0) }),
    v.strictObject({ kind: v.literal('posts'), colour, from: place, to: place, count: number(1, 200), height: metre, width: v.optional(metre, 0.12) }),
    /** Open water, with glints that drift on it. */
    v.strictObject({ kind: v.literal('water'), shore: v.pipe(v.array(place), v.minLength(2, 'needs at least 2 places')) }),
    v.strictObject({ kind: v.literal('tree'), at: place, height: metre }),
    v.strictObject({ kind: v.literal('reeds'), from: place, to: place, count: number(1, 400), height: metre }),
    v.strictObject({ kind: v.literal('lamp'), at: place, height: metre })
  ],
  'must be one of face, wall, block, posts, water, tree, reeds, lamp'
)

export const SceneSchema = v.strictObject({
  id,
  name: text,
  camera: v.strictObject({ height: number(0.5, 60, ' m'), tilt: number(-20, 89, '°'), fieldOfView: number(5, 120, '°') }),
  width: v.optional(number(64, 3840), 640),
  height: v.optional(number(36, 2160), 360),
  fps: v.optional(number(1, 60), 10),
  backdrop: v.optional(v.picklist(['sea', 'land', 'room'], 'must be one of sea, land, room'), 'land'),
  things: v.array(ThingSchema, 'must be a list of things')
})

export const ACTOR_KINDS = ['adult', 'child', 'crouching', 'group', 'dog', 'gull', 'car', 'van', 'bicycle'] as const
/** `[x, z]`, `[x, z, pause]` or `[x, z, pause, y]`. */
const wayPoint = v.union([v.strictTuple([metre, metre]), v.strictTuple([metre, metre, seconds]), v.strictTuple([metre, metre, seconds, metre])], 'must be a way-point [x, z], [x, z, seconds to stay] or [x, z, seconds to stay, metres above ground]')

export const ActorSchema = v.strictObject({
  kind: v.picklist(ACTOR_KINDS, (issue) => `is ${JSON.stringify(issue.input)}; must be one of ${ACTOR_KINDS.join(', ')}`),
  from: v.optional(seconds, 0),
  /** Metres per second; left out: the kind's own. */
  speed: v.optional(number(0.05, 40, ' m/s')),
  /** Metres; left out: the kind's own. */
  tall: v.optional(number(0.2, 4, ' m')),
  way: v.pipe(v.array(wayPoint, 'must be a list of way-points'), v.minLength(2, 'needs at least 2 way-points')),
  /** Of a group: how many. */
  members: v.optional(number(2, 8), 3),
  mask: v.optional(v.boolean('must be true or false'), false),
  /** Who it is, for a list of known faces. */
  name: v.optional(text),
  coat: v.optional(v.picklist(['navy', 'red', 'green', 'grey', 'ochre', 'white', 'black'], 'must be one of navy, red, green, grey, ochre, white, black'))
})

export const FAULT_KINDS = ['covered', 'sprayed', 'defocused', 'knocked', 'lightsOut', 'washedOut', 'cableCut', 'frozen'] as const
const FaultSchema = v.strictObject({ kind: v.picklist(FAULT_KINDS, `must be one of ${FAULT_KINDS.join(', ')}`), from: seconds, to: v.optional(seconds) })

export const LIGHTS = ['day', 'dusk', 'night', 'infrared'] as const
const WeatherSchema = v.strictObject({ wind: share, rain: share, snow: share, fog: share, clouds: share })

export const ScriptSchema = v.strictObject({
  id,
  name: text,
  seconds: number(1, 7200, ' s'),
  light: v.optional(v.picklist(LIGHTS, `must be one of ${LIGHTS.join(', ')}`), 'day'),
  weather: v.optional(WeatherSchema, {}),
  /** Cars' lamps that sweep over the picture. */
  headlights: v.optional(v.array(v.strictObject({ from: seconds, takes: v.optional(number(0.5, 60, ' s'), 4) })), []),
  /** An insect that crawls on the lens. */
  insects: v.optional(v.array(v.strictObject({ from: seconds, to: seconds })), []),
  faults: v.optional(v.array(FaultSchema), []),
  actors: v.optional(v.array(ActorSchema, 'must be a list of actors'), []),
  /** Contacts and the panel's set state, on the same clock. */
  inputs: v.optional(v.record(id, v.array(v.strictObject({ at: seconds, set: v.boolean('must be true or false') }))), {}),
  seed: v.optional(v.pipe(number(0, 4294967295), v.integer('must be a whole number')), 1)
})

export type Scene = v.InferOutput<typeof SceneSchema>
export type Thing = Scene['things'][number]
export type Place = v.InferOutput<typeof place>
export type Script = v.InferOutput<typeof ScriptSchema>
export type ScriptActor = v.InferOutput<typeof ActorSchema>
export type ActorKind = Exclude<ScriptActor['kind'], 'group'>
export type FaultKind = (typeof FAULT_KINDS)[number]
export type Light = (typeof LIGHTS)[number]

/** A script on its scene: what there is to be seen. */
export interface Play {
  scene: Scene
  script: Script
}

/** @throws InputError with the JSON path of the first fault and what would be right */
export const readScene = (value: unknown): Scene => parseWith(SceneSchema, value)

/** @throws InputError with the JSON path of the first fault and what would be right */
export function readScript(value: unknown): Script {
  const script = parseWith(ScriptSchema, value)
  script.faults.forEach(({ from, to }, i) => {
    if (to !== undefined && to <= from) throw new InputError(`$.faults[${i}].to`, `is ${to} s; must be after its start, ${from} s`)
  })
  return script
}
