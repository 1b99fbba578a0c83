import { OUTPUT_KINDS } from '../../core/formats/actions.ts'
import * as v from 'valibot'
import { parseWith } from '../../core/schema/parse.ts'

/** What a simulated device can do, as data (`demo/devices.json`): its differences from the others. */
const range = v.strictObject({ min: v.number(), max: v.number() })
const RuleSchema = v.strictObject({
  type: v.string(),
  most: v.optional(v.number()),
  parameters: v.array(v.string()),
  ranges: v.optional(v.record(v.string(), range), {})
})

export const LACKS = ['analytics', 'events', 'imaging', 'outputs', 'snapshot', 'storage'] as const
export type Lack = (typeof LACKS)[number]

const ChannelSchema = v.strictObject({
  token: v.optional(v.string(), 'analytics'),
  name: v.string(),
  /** The demo camera whose scene it looks at. */
  camera: v.string(),
  /** Which of that scene's scripts it sees, over and over again. */
  script: v.optional(v.string(), 'morning'),
  /** The id of a device whose rules this channel reaches: another route to the same settings. */
  through: v.optional(v.string()),
  rules: v.array(RuleSchema),
  /** What it can be told of where it looks, as docs/device-extension.md has it; left out: it has no such switch. */
  surroundings: v.optional(v.array(v.string()), []),
  /** Rules of all types together; left out: no such limit. */
  mostRules: v.optional(v.number()),
  /** Families of analysis, of which one runs at a time; left out: everything always runs. */
  modes: v.optional(v.array(v.strictObject({ type: v.string(), runs: v.array(v.string()) })), []),
  /** The family that runs from the start; left out: none. */
  mode: v.optional(v.string())
})

export const ModelSchema = v.strictObject({
  id: v.string(),
  name: v.string(),
  manufacturer: v.string(),
  model: v.string(),
  firmware: v.string(),
  serial: v.string(),
  /** The account it has from the start; left out: fresh from the box. */
  account: v.optional(v.strictObject({ username: v.string(), password: v.string() })),
  channels: v.array(ChannelSchema),
  /** Switches rules of these types on again by itself after so many seconds. */
  switchesBack: v.optional(v.strictObject({ types: v.array(v.string()), seconds: v.number() })),
  /** Gives pictures and metadata over RTSP, beside HTTP. */
  rtsp: v.optional(v.boolean(), false),
  /** Is spoken with over TLS, with a certificate of its own making. */
  tls: v.optional(v.boolean(), false),
  /** Has Media 2 beside Media 1. */
  media2: v.optional(v.boolean(), false),
  /** What most devices have and this one has not. */
  lacks: v.optional(v.array(v.picklist(LACKS)), []),
  /** Where it records to; left out: nowhere. */
  storage: v.optional(
    v.strictObject({
      megabytes: v.number(),
      free: v.number(),
      whenFull: v.picklist(['Overwrite', 'Stop']),
      outsideEvents: v.picklist(['Nothing', 'KeyFrames', 'All'])
    })
  ),
  /** Whether it is one of the demo site's devices; otherwise it waits to be found. */
  onSite: v.optional(v.boolean(), true),
  /** Its clock is off by this many seconds. */
  clockOff: v.optional(v.number(), 0),
  /** Contacts; `contact` names one of the scripts of its first channel that moves it. */
  inputs: v.optional(
    v.array(v.strictObject({ token: v.string(), contact: v.optional(v.string()) })),
    []
  ),
  outputs: v.optional(
    v.array(
      v.strictObject({
        token: v.string(),
        kind: v.picklist(OUTPUT_KINDS),
        name: v.string()
      })
    ),
    []
  )
})
export type Model = v.InferOutput<typeof ModelSchema>
export type ChannelModel = v.InferOutput<typeof ChannelSchema>

export const readModels = (value: unknown): Model[] => parseWith(v.array(ModelSchema), value)
