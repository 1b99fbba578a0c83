import * as v from 'valibot'
import { TAMPER_CAUSES } from '../kinds/schemas.ts'
import { WalkSchema } from './walk.ts'
import { id, name, number, text } from '../schema/parts.ts'

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
      through: v.optional(v.picklist(['truth', 'pictures'], 'must be truth or pictures'), 'truth')
    }),
    v.strictObject({
      how: v.literal('clip'),
      clip: v.pipe(
        v.string('must be the id of a clip'),
        v.maxLength(64, 'is longer than 64 characters')
      ),
      from: seconds,
      to: seconds
    }),
    v.strictObject({ how: v.literal('person'), words: text(400), seconds: number(5, 3600, ' s') })
  ],
  'must be by one of walk, clip, person'
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
      times: v.optional(v.pipe(number(1, 100), v.integer('must be a whole number'))),
      direction: v.optional(
        v.picklist(['leftToRight', 'rightToLeft'], 'must be leftToRight or rightToLeft')
      ),
      cause: v.optional(v.picklist(TAMPER_CAUSES, `must be one of ${TAMPER_CAUSES.join(', ')}`))
    }),
    v.strictObject({ what: v.literal('silence') })
  ],
  'must expect a trigger or silence'
)

/** What the trigger must set off, or must not: an endpoint's hours, a link. */
const EffectSchema = v.strictObject({
  endpoint: id,
  acts: v.boolean('must be true or false'),
  /** Of a mail: pictures besides the event's own. */
  pictures: v.optional(number(0, 10)),
  /** Of a recording: at least so many seconds before the trigger. */
  beforeSeconds: v.optional(number(0, 3600, ' s'))
})

export const CheckSchema = v.pipe(
  v.strictObject({
    id: v.pipe(
      v.string('must be a text'),
      v.regex(/^[A-Za-z0-9_.-]{1,120}$/, 'must be 1 to 120 letters, digits, ., - or _')
    ),
    detection: id,
    name,
    about: v.picklist(ABOUT, `must be one of ${ABOUT.join(', ')}`),
    /** Left out: it has no side of its own (nuisance). Inside the limit, so that it passes, or just outside. */
    side: v.optional(v.picklist(['inside', 'outside'], 'must be inside or outside')),
    by: BySchema,
    /** The instant at which the walk starts, milliseconds of UTC; of a clip, the clip's own counts. */
    at: v.pipe(number(0, 4102444800000), v.integer('must be a whole number of milliseconds')),
    expect: ExpectSchema,
    effects: v.optional(v.array(EffectSchema, 'must be a list of effects'), [])
  }),
  v.check(
    ({ expect }) => expect.what === 'silence' || expect.to >= expect.from,
    'expects a trigger in a window that ends before it begins; to must not be before from'
  ),
  v.check(
    ({ by }) => by.how !== 'clip' || by.to > by.from,
    'has a stretch of a clip that ends before it begins; to must be after from'
  )
)

export type Check = v.InferOutput<typeof CheckSchema>
export type CheckEffect = v.InferOutput<typeof EffectSchema>
