import * as v from 'valibot'
import { NAME_MOST, bool, filled, id, noLongerThan, number, oneOf } from '../schema/parts.ts'
import { SceneSchema } from '../formats/plan.ts'
import { coded } from '../messages/said.ts'
import { SiteArchiveSchema } from '../sites/archive.ts'

/**
 * A record (`wardoptic-record/1`, docs/handover.md): the state of a site at the moment at which a job was finished, with
 * what the devices held, what was proven, and what was left open. It never changes. What is said in it is in words, so
 * that it is read when codes have long changed. Its JSON Schema is docs/record.schema.json.
 */

const list = <const S extends v.GenericSchema>(item: S) => v.array(item, coded('sites.mustBeAList'))
const words = v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(4000))
const short = v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(300))
const instant = number(0, Number.MAX_SAFE_INTEGER)
const share = number(0, 1)
const whole = v.pipe(
  number(0, Number.MAX_SAFE_INTEGER),
  v.integer(coded('input.mustBeAWholeNumber'))
)
/** SHA-256 in hexadecimal. */
export const DigestSchema = v.pipe(
  v.string(coded('input.mustBeAText')),
  v.regex(/^[0-9a-f]{64}$/, coded('handover.mustBeADigest'))
)

/** A picture beside the record, known by its digest: the record's own digest holds it too. */
const PictureSchema = v.strictObject({ file: short, sha256: DigestSchema, at: v.nullable(instant) })
export type RecordPicture = v.InferOutput<typeof PictureSchema>

/** A setting that is not the same in two places. */
const DifferenceSchema = v.strictObject({ setting: short, before: words, after: words })

export const ChangeSchema = v.strictObject({
  area: oneOf(['site', 'camera', 'schedule', 'action', 'people', 'device', 'check']),
  /** The camera or the device that it is of; null: of the site. */
  where: v.nullable(short),
  /** Null: of the camera, the device or the site itself. */
  name: v.nullable(short),
  change: oneOf(['added', 'deleted', 'changed']),
  settings: list(DifferenceSchema)
})
export type Change = v.InferOutput<typeof ChangeSchema>

/** How one detection is held by one channel of a device. */
const HoldingSchema = v.strictObject({
  detection: id,
  state: oneOf(['same', 'differs', 'missing', 'drifted', 'unsupported', 'off', 'unread', 'own']),
  /** Settings that the device has otherwise, or cannot hold as they are wanted; `device` null: not at all. */
  settings: list(v.strictObject({ setting: short, plan: words, device: v.nullable(words) }))
})
export type Holding = v.InferOutput<typeof HoldingSchema>

const RuleSchema = v.strictObject({
  name: short,
  type: short,
  simple: v.record(v.string(), v.string()),
  points: list(v.pipe(v.array(v.number()), v.length(2)))
})

export const DeviceRecordSchema = v.strictObject({
  id,
  name: filled(NAME_MOST),
  address: short,
  state: short,
  /** Why it could not be read this time; null: it was. */
  trouble: v.nullable(words),
  readAt: v.nullable(instant),
  manufacturer: v.nullable(short),
  model: v.nullable(short),
  firmware: v.nullable(short),
  serial: v.nullable(short),
  /** Seconds; null: it does not say. */
  clockAhead: v.nullable(v.number()),
  /** SHA-256 of its certificate; null: it has none, or is not reached over TLS. */
  certificate: v.nullable(short),
  /** By which it is reached; no password is in a record. */
  account: v.nullable(short),
  /** Names of all accounts that it has; null: it does not say, or was not asked. */
  accounts: v.nullable(list(short)),
  storage: v.nullable(
    list(
      v.strictObject({
        place: short,
        bytes: v.nullable(v.number()),
        free: v.nullable(v.number()),
        whenFull: v.nullable(oneOf(['overwrite', 'stop']))
      })
    )
  ),
  outputs: list(v.strictObject({ token: short, name: short, testedAt: v.nullable(instant) })),
  channels: list(
    v.strictObject({
      token: short,
      name: short,
      camera: v.nullable(id),
      used: bool,
      rules: list(RuleSchema),
      holdings: list(HoldingSchema)
    })
  )
})
export type DeviceRecord = v.InferOutput<typeof DeviceRecordSchema>

/** How an action was tested. */
const EndpointRecordSchema = v.strictObject({
  id,
  testedAt: v.nullable(instant),
  /** Why the test failed; null: it passed, or there was none. */
  error: v.nullable(words),
  /** Why it cannot act as it stands; null: it is set up. */
  missing: v.nullable(words)
})

const EffectSchema = v.strictObject({
  name: short,
  expected: bool,
  acts: bool,
  /** Seconds after the trigger, of a walk that was walked. */
  after: v.nullable(v.number()),
  wrong: v.nullable(words)
})

export const CheckRecordSchema = v.strictObject({
  camera: id,
  id: short,
  detection: id,
  name: words,
  /** How it is done: on a simulated walk, on a clip, by a person on site. */
  by: oneOf(['walk', 'clip', 'person']),
  expects: oneOf(['trigger', 'silence']),
  /** Null: it was never run. */
  result: v.nullable(
    v.strictObject({
      passed: bool,
      /** Under the settings of this record. */
      current: bool,
      at: instant,
      sentence: words,
      hits: whole,
      misses: whole,
      false: whole,
      effects: list(EffectSchema)
    })
  ),
  picture: v.nullable(PictureSchema),
  /** The targets that it was judged on, as MOTChallenge text; frame 1 is at its beginning. */
  tracks: v.nullable(
    v.strictObject({
      file: short,
      sha256: DigestSchema,
      fps: v.number(),
      width: whole,
      height: whole
    })
  )
})
export type CheckRecord = v.InferOutput<typeof CheckRecordSchema>

const CameraRecordSchema = v.strictObject({
  id,
  picture: v.nullable(PictureSchema),
  night: v.nullable(PictureSchema),
  /** Why there is no picture; null: there is one. */
  missing: v.nullable(words),
  /** How it hangs and looks, where it is measured. */
  pose: v.nullable(SceneSchema),
  /** Pixels of the picture of this record. */
  width: v.nullable(whole),
  height: v.nullable(whole)
})

export const OpenPointSchema = v.strictObject({
  /** Names the issue, the same in every record. */
  key: v.pipe(v.string(), noLongerThan(600)),
  severity: oneOf(['blocking', 'warning', 'hint']),
  camera: v.nullable(id),
  device: v.nullable(id),
  detection: v.nullable(id),
  sentence: words
})
export type OpenPoint = v.InferOutput<typeof OpenPointSchema>

/** An issue, or a gap in the hours, that somebody has accepted on purpose. */
const DeviationSchema = v.strictObject({
  sentence: words,
  reason: v.nullable(words),
  by: v.nullable(short),
  at: v.nullable(instant)
})
export type Deviation = v.InferOutput<typeof DeviationSchema>

/** A share with the interval in which it lies at 95 %. */
const ShareSchema = v.strictObject({ of: whole, count: whole, share, low: share, high: share })

/** One thing that a service visit looks at. */
export const ServiceItemSchema = v.strictObject({
  what: oneOf(['read', 'firmware', 'clock', 'storage', 'picture', 'checks', 'walk', 'output']),
  /** Of which device, camera or output; null: of the site. */
  where: v.nullable(short),
  result: oneOf(['good', 'look', 'not-done']),
  sentence: words
})
export type ServiceItem = v.InferOutput<typeof ServiceItemSchema>

export const RecordSchema = v.strictObject({
  format: oneOf(['wardoptic-record/1']),
  number: v.pipe(whole, v.minValue(1)),
  kind: oneOf(['handover', 'service']),
  /** Milliseconds of UTC. */
  madeAt: instant,
  madeBy: filled(NAME_MOST),
  client: v.pipe(v.string(), noLongerThan(200)),
  installer: v.pipe(v.string(), noLongerThan(200)),
  /** What else there is to say: service interval, cleaning, lighting. */
  note: v.pipe(v.string(), noLongerThan(4000)),
  /** Everything that is set up. */
  site: SiteArchiveSchema,
  cameras: list(CameraRecordSchema),
  devices: list(DeviceRecordSchema),
  endpoints: list(EndpointRecordSchema),
  checks: list(CheckRecordSchema),
  /** Of the checks that were run under these settings; null: none was. */
  recall: v.nullable(ShareSchema),
  precision: v.nullable(ShareSchema),
  open: list(OpenPointSchema),
  accepted: list(DeviationSchema),
  /** What could not be read or run while the record was made. */
  notPossible: list(words),
  service: v.nullable(
    v.strictObject({
      /** The record that it is compared with. */
      number: whole,
      digest: DigestSchema,
      madeAt: instant,
      items: list(ServiceItemSchema),
      changes: list(ChangeSchema)
    })
  )
})
export type SiteRecord = v.InferOutput<typeof RecordSchema>
/** What of a record is compared with another. */
export type RecordedState = Pick<SiteRecord, 'site' | 'devices' | 'endpoints' | 'checks'>

/** A signature: of whom, under which digest. */
export const SignatureSchema = v.strictObject({
  name: filled(NAME_MOST),
  role: oneOf(['client', 'installer', 'station']),
  at: instant,
  digest: DigestSchema,
  /**
   * As it was drawn: strokes of points `[x, y]`, shares of a frame three times as wide as high. Null: signed by hand on
   * paper.
   */
  strokes: v.nullable(
    v.pipe(
      v.array(
        v.pipe(
          v.array(v.strictTuple([share, share])),
          v.minLength(1),
          v.maxLength(2000, coded('handover.tooManyPoints'))
        )
      ),
      v.minLength(1, coded('handover.nothingDrawn')),
      v.maxLength(200, coded('handover.tooManyPoints'))
    )
  )
})
export type Signature = v.InferOutput<typeof SignatureSchema>
export const SignaturesSchema = v.array(SignatureSchema)
