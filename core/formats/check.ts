import { SaidSchema } from '../schema/said.ts'
import { coded } from '../messages/said.ts'
import * as v from 'valibot'
import { TAMPER_CAUSES } from '../kinds/schemas.ts'
import { WalkSchema } from './walk.ts'
import { bool, id, name, noLongerThan, number, oneOf, text } from '../schema/parts.ts'

/** A check: one planned proof, a walk with an expected trigger or an expected silence (docs/proving.md). */

/** What a check is about: a gate of its detection, or something besides the gates. */
export const ABOUT = [
  'passes',
  'direction',
  'share',
  'class',
  'size',
  'confirm',
  'dwell',
  'together',
  'ignore',
  'holdOff',
  'armed',
  'armInput',
  'face',
  'mask',
  'list',
  'cells',
  'cause',
  'delay',
  'contact',
  'outputs',
  'nuisance'
] as const
export type About = (typeof ABOUT)[number]

const seconds = number(0, 7200, ' s')

/** A walk on the camera's scene, a stretch of a clip, or a person on site who does what is written. */
const BySchema = v.variant(
  'how',
  [
    v.strictObject({
      how: v.literal('walk'),
      walk: WalkSchema,
      /**
       * Targets as they truly are, or found in pictures that are painted and analysed as any
       * others: weather tells only there.
       */
      through: v.optional(
        v.picklist(['truth', 'pictures'], coded('formats.mustBeTruthOrPictures')),
        'truth'
      )
    }),
    v.strictObject({
      how: v.literal('clip'),
      clip: v.pipe(v.string(coded('formats.mustBeTheIdOf')), noLongerThan(64)),
      from: seconds,
      to: seconds
    }),
    v.strictObject({ how: v.literal('person'), words: text(400), seconds: number(5, 3600, ' s') })
  ],
  coded('formats.mustBeByOneOf')
)

/** Seconds count from the start of the walk, of the clip's stretch, or from "walking now". */
const ExpectSchema = v.variant(
  'what',
  [
    v.strictObject({
      what: v.literal('trigger'),
      /** The window in which it must fall. */
      from: seconds,
      to: seconds,
      /** How many there must be in all, where that matters. */
      times: v.optional(v.pipe(number(1, 100), v.integer(coded('input.mustBeAWholeNumber')))),
      direction: v.optional(
        v.picklist(['leftToRight', 'rightToLeft'], coded('input.mustBeLefttorightOrRighttoleft'))
      ),
      cause: v.optional(oneOf(TAMPER_CAUSES))
    }),
    v.strictObject({ what: v.literal('silence') })
  ],
  coded('formats.mustExpectATriggerOr')
)

/** The actions that the trigger must run, or must not: an endpoint's hours, a link. */
const EffectSchema = v.strictObject({
  endpoint: id,
  acts: bool,
  /** Of a mail: pictures besides the event's own. */
  pictures: v.optional(number(0, 10)),
  /** Of a recording: at least so many seconds before the trigger. */
  beforeSeconds: v.optional(number(0, 3600, ' s'))
})

export const CheckSchema = v.pipe(
  v.strictObject({
    id: v.pipe(
      v.string(coded('input.mustBeAText')),
      v.regex(/^[A-Za-z0-9_.-]{1,120}$/, coded('formats.mustBe1To120'))
    ),
    detection: id,
    /** As somebody has named it, or what was proposed. */
    name: v.union([name, SaidSchema], coded('input.mustBeATextOf', 80)),
    about: oneOf(ABOUT),
    /** Left out: it has no side of its own (nuisance). Inside the limit, so that it passes, or just outside. */
    side: v.optional(v.picklist(['inside', 'outside'], coded('formats.mustBeInsideOrOutside'))),
    by: BySchema,
    /** The instant at which the walk starts, milliseconds of UTC; of a clip, the clip's own counts. */
    at: v.pipe(number(0, 4102444800000), v.integer(coded('input.mustBeAWholeNumber2'))),
    expect: ExpectSchema,
    effects: v.optional(v.array(EffectSchema, coded('formats.mustBeAListOf12')), [])
  }),
  v.check(
    ({ expect }) => expect.what === 'silence' || expect.to >= expect.from,
    coded('formats.expectsATriggerInA')
  ),
  v.check(({ by }) => by.how !== 'clip' || by.to > by.from, coded('formats.hasAStretchOfA'))
)

export type Check = v.InferOutput<typeof CheckSchema>
export type CheckEffect = v.InferOutput<typeof EffectSchema>
