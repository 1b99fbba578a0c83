import { coded } from '../core/messages/said.ts'
import * as v from 'valibot'
import { checkFaults, happening } from '../core/formats/walk.ts'
import { parseWith } from '../core/schema/parse.ts'

export {
  ACTOR_KINDS,
  FAULT_KINDS,
  LIGHTS,
  type ActorKind,
  type FaultKind,
  type WalkActor as ScriptActor
} from '../core/formats/walk.ts'

/**
 * A camera's scene and what happens in it, as data. Metres on the ground: x to the right, z away from the camera's foot
 * point, y up; seconds from the start of the script. What is left out has its default; what is unknown is refused with
 * its path.
 */

const number = (min: number, max: number, unit = '') => {
  const right = coded('input.mustBeANumberFrom', min, max, unit)
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, right), v.maxValue(max, right))
}
const metre = number(-500, 500, ' m')
const text = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.minLength(1, coded('input.mustNotBeEmpty')),
  v.maxLength(120, coded('input.isLongerThanCharacters', 120))
)
const id = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.regex(/^[A-Za-z0-9_-]{1,64}$/, coded('input.mustBe1To64'))
)
const colour = v.pipe(
  v.string(coded('scenes.mustBeAColour')),
  v.regex(/^#[0-9a-f]{6}$/i, coded('scenes.mustBeAColourSuch'))
)
/** `[x, z]`, or `[x, z, y]` for what is not on the ground. */
const place = v.union(
  [v.strictTuple([metre, metre]), v.strictTuple([metre, metre, metre])],
  coded('scenes.mustBeAPlaceX')
)

const ThingSchema = v.variant(
  'kind',
  [
    /** A flat piece: ground, a wall, a roof. */
    v.strictObject({
      kind: v.literal('face'),
      colour,
      corners: v.pipe(
        v.array(place, coded('scenes.mustBeAListOf')),
        v.minLength(3, coded('scenes.needsAtLeast3Corners'))
      )
    }),
    /** An upright wall between two places. */
    v.strictObject({
      kind: v.literal('wall'),
      colour,
      from: place,
      to: place,
      bottom: v.optional(metre, 0),
      top: metre
    }),
    v.strictObject({
      kind: v.literal('block'),
      colour,
      at: place,
      size: v.strictTuple([metre, metre, metre], coded('scenes.mustBeWidthDepthHeight')),
      turn: v.optional(number(-180, 180, '°'), 0)
    }),
    v.strictObject({
      kind: v.literal('posts'),
      colour,
      from: place,
      to: place,
      count: number(1, 200),
      height: metre,
      width: v.optional(metre, 0.12)
    }),
    /** Open water, with glints that drift on it. */
    v.strictObject({
      kind: v.literal('water'),
      shore: v.pipe(v.array(place), v.minLength(2, coded('scenes.needsAtLeast2Places')))
    }),
    v.strictObject({ kind: v.literal('tree'), at: place, height: metre }),
    v.strictObject({
      kind: v.literal('reeds'),
      from: place,
      to: place,
      count: number(1, 400),
      height: metre
    }),
    v.strictObject({ kind: v.literal('lamp'), at: place, height: metre })
  ],
  coded('scenes.mustBeOneOfFace')
)

export const SceneSchema = v.strictObject({
  id,
  name: text,
  camera: v.strictObject({
    height: number(0.5, 60, ' m'),
    tilt: number(-20, 89, '°'),
    fieldOfView: number(5, 120, '°')
  }),
  width: v.optional(number(64, 3840), 640),
  height: v.optional(number(36, 2160), 360),
  fps: v.optional(number(1, 60), 10),
  backdrop: v.optional(v.picklist(['sea', 'land', 'room'], coded('scenes.mustBeOneOfSea')), 'land'),
  things: v.array(ThingSchema, coded('scenes.mustBeAListOf2'))
})

export const ScriptSchema = v.strictObject({ id, name: text, ...happening })

export type Scene = v.InferOutput<typeof SceneSchema>
export type Thing = Scene['things'][number]
export type Place = v.InferOutput<typeof place>
export type Script = v.InferOutput<typeof ScriptSchema>

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
  checkFaults(script.faults)
  return script
}
