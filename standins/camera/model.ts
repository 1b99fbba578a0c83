import * as v from 'valibot'
import { parseWith } from '../../core/formats/plan.ts'

/** What a simulated device can do, as data (`demo/devices.json`): its differences from the others. */
const range = v.strictObject({ min: v.number(), max: v.number() })
const RuleSchema = v.strictObject({ type: v.string(), most: v.optional(v.number()), parameters: v.array(v.string()), ranges: v.optional(v.record(v.string(), range), {}) })

export const ModelSchema = v.strictObject({
  id: v.string(),
  /** The camera of the demo site whose scene it looks at. */
  camera: v.string(),
  name: v.string(),
  manufacturer: v.string(),
  model: v.string(),
  firmware: v.string(),
  serial: v.string(),
  /** The account it has from the start; left out: fresh from the box. */
  account: v.optional(v.strictObject({ username: v.string(), password: v.string() })),
  rules: v.array(RuleSchema),
  /** Rules of all types together; left out: no such limit. */
  mostRules: v.optional(v.number()),
  /** Switches rules of these types on again by itself after so many seconds. */
  switchesBack: v.optional(v.strictObject({ types: v.array(v.string()), seconds: v.number() })),
  /** Its clock is off by this many seconds. */
  clockOff: v.optional(v.number(), 0),
  inputs: v.optional(v.array(v.string()), []),
  relays: v.optional(v.array(v.string()), [])
})
export type Model = v.InferOutput<typeof ModelSchema>

export const readModels = (value: unknown): Model[] => parseWith(v.array(ModelSchema), value)
