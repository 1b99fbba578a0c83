import { readFileSync } from 'node:fs'
import * as v from 'valibot'
import { ActionsSchema } from '../../core/formats/actions.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { SignatureSchema } from '../../core/handover/record.ts'
import { MARKS, MARK_REASONS } from '../../core/marks/marks.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { QUALITIES } from '../../simulation/reported.ts'

/** What Skerrow Landing has lived through before somebody looks at it first: demo/life.json. */

const count = v.pipe(v.number(), v.integer(), v.minValue(0))
/** Of the site's clock. */
const clock = v.pipe(v.string(), v.regex(/^([01]\d|2[0-3]):[0-5]\d$/))
const pair = v.tuple([v.number(), v.number()])

const HabitSchema = v.strictObject({
  script: v.string(),
  actors: v.optional(v.array(count)),
  perDay: v.number(),
  hours: pair,
  pauses: v.optional(pair),
  quality: v.optional(v.picklist(Object.keys(QUALITIES) as (keyof typeof QUALITIES)[])),
  /** What is said of the alarms that come of it. */
  mark: v.optional(v.picklist(MARKS)),
  reason: v.optional(v.picklist(MARK_REASONS))
})

const StorySchema = v.strictObject({
  /** More detections, by camera. */
  detections: v.record(
    v.string(),
    v.array(v.strictObject({ detection: DetectionSchema, actions: ActionsSchema }))
  ),
  /** Actions of the detections that were delivered, by detection. */
  linked: v.record(v.string(), ActionsSchema),
  /** In demo/clips as <camera>-<script>.mp4. */
  clips: v.array(
    v.strictObject({
      camera: v.string(),
      script: v.string(),
      name: v.string(),
      daysAgo: count,
      at: clock
    })
  ),
  /** Devices that the plan has been sent to. */
  send: v.array(v.string()),
  /** Actions that have been tested. */
  test: v.array(v.string()),
  habits: v.record(v.string(), v.array(HabitSchema)),
  inputs: v.strictObject({
    /** The panel, each day. */
    panel: v.strictObject({ set: clock, unset: clock }),
    door: v.strictObject({ opened: v.array(v.strictObject({ daysAgo: count, at: clock })) })
  }),
  /** A camera that could not be heard for a while. */
  outage: v.strictObject({
    camera: v.string(),
    daysAgo: count,
    from: clock,
    hours: v.number()
  }),
  /** User names. */
  people: v.strictObject({ watches: v.string(), installs: v.string() }),
  comments: v.strictObject({
    wanted: v.array(v.string()),
    nuisance: v.array(v.string()),
    unmarked: v.array(v.string())
  }),
  checks: v.strictObject({
    /** How many proposals of each detection are kept. */
    perDetection: count,
    /** How their ids end, the likeliest first. */
    kinds: v.array(v.string()),
    /** Detections that nobody has proven. */
    without: v.array(v.string())
  }),
  /** The handover of last spring. */
  record: v.strictObject({
    at: v.string(),
    client: v.string(),
    installer: v.string(),
    note: v.string(),
    signed: v.omit(SignatureSchema, ['at', 'digest'])
  }),
  /** What somebody has changed after it. */
  since: v.array(
    v.strictObject({
      camera: v.string(),
      detection: v.string(),
      with: v.record(v.string(), v.any())
    })
  )
})

export type Story = v.InferOutput<typeof StorySchema>

const file = new URL('../../demo/life.json', import.meta.url)

/** @throws InputError with the JSON path of the first fault */
export const readStory = (): Story => parseWith(StorySchema, JSON.parse(readFileSync(file, 'utf8')))
