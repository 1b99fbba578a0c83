import * as v from 'valibot'
import { SEVERITIES } from '../kinds/parts.ts'
import { bool, id, name } from '../schema/parts.ts'

/**
 * Alarm actions: what a trigger can set off (endpoints: an output, a message, a recording), and what a detection sets off
 * (its links, and what becomes of the alarm). One schema per kind, the schema is the type.
 */

/** A number out of range is refused with what it was and the range; it is never cut. */
const within = (min: number, max: number, unit = '') => {
  const right = `must be a number from ${min} to ${max}${unit}`
  const said = (issue: { input: number }): string => `is ${issue.input}; ${right}`
  return v.pipe(v.number(right), v.finite(right), v.minValue(min, said), v.maxValue(max, said))
}
const whole = (min: number, max: number, unit = '') =>
  v.pipe(
    within(min, max, unit),
    v.integer((issue) => `is ${issue.input}; must be a whole number from ${min} to ${max}${unit}`)
  )
const token = v.pipe(
  v.string('must be the token of an output'),
  v.minLength(1, 'must not be empty'),
  v.maxLength(64, 'is longer than 64 characters')
)
const address = v.pipe(
  v.string('must be an e-mail address'),
  v.trim(),
  v.maxLength(254, 'is longer than 254 characters'),
  v.email(
    (issue) =>
      `is "${String(issue.input).slice(0, 60)}"; must be an e-mail address such as duty@example.org`
  )
)

/** What every endpoint has: who it is, and its own hours; without, it may act at any time. */
const common = { id, name, schedule: v.optional(id) }
/** An output of a device. */
const ofDevice = { ...common, device: id, output: token }

export const STROBE_PATTERNS = ['slow', 'medium', 'fast', 'steady'] as const
export const RELAY_MODES = ['pulse', 'follow', 'untilAcknowledged'] as const
/** Phrases that ship with the application (`server/voices`); the words are those that are spoken. */
export const PHRASES = {
  recorded: 'This area is watched. You are being recorded.',
  leave: 'You are in a restricted area. Please leave at once.',
  called: 'An alarm has been raised. Help is on its way.',
  water: 'Danger, deep water. Please step back from the edge.',
  closed: 'This place is closed. Please leave by the way you came.'
} as const
export type Phrase = keyof typeof PHRASES

// Ranges of strobe, voice and relay: docs/references.md, facts of the trade (common practice, no source).
export const StrobeSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('strobe'),
  seconds: whole(1, 60, ' s'),
  pattern: v.picklist(STROBE_PATTERNS, `must be one of ${STROBE_PATTERNS.join(', ')}`)
})
export const SpeakerSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('speaker'),
  /** A shipped phrase, or a file that was taken in (core/formats/wave.ts). */
  voice: v.union(
    [
      v.strictObject({
        phrase: v.picklist(
          Object.keys(PHRASES) as Phrase[],
          `must be one of ${Object.keys(PHRASES).join(', ')}`
        )
      }),
      v.strictObject({ file: id })
    ],
    'must be { "phrase": … } or { "file": … }'
  ),
  repeats: whole(1, 50),
  /** Percent of the loudest that the device can. */
  volume: whole(1, 100, ' %')
})
export const RelaySchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('relay'),
  /**
   * Pulse: closed for the seconds. Follow: until the seconds have passed since the last trigger. Or
   * closed until the alarm is acknowledged.
   */
  mode: v.picklist(RELAY_MODES, `must be one of ${RELAY_MODES.join(', ')}`),
  seconds: whole(1, 600, ' s')
})
export const BuzzerSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('buzzer'),
  seconds: whole(1, 60, ' s')
})

/** Pictures around the event's own: how many before and after, and how far apart. */
const pictures = {
  before: v.optional(whole(0, 5), 0),
  after: v.optional(whole(0, 5), 0),
  stepSeconds: v.optional(within(0.5, 10, ' s'), 1)
}

export const EmailSchema = v.strictObject({
  ...common,
  kind: v.literal('email'),
  /** Addresses; people and groups of the site may stand beside them (`people`). */
  recipients: v.pipe(
    v.array(address, 'must be a list of e-mail addresses'),
    v.maxLength(20, 'has more than 20 addresses'),
    v.check((list) => new Set(list).size === list.length, 'names an address twice')
  ),
  people: v.optional(v.array(id, 'must be a list of people and groups'), []),
  ...pictures
})

export const StationSchema = v.strictObject({
  ...common,
  kind: v.literal('station'),
  host: v.pipe(
    v.string('must be a host'),
    v.trim(),
    v.regex(/^[\w.:-]{1,200}$/, 'must be a host such as station.example.org')
  ),
  port: whole(1, 65535),
  /**
   * The account under which the station knows this site. Source: ANSI/SIA DC-09 (from memory): 3 to
   * 16 hexadecimal digits.
   */
  account: v.pipe(
    v.string('must be the account'),
    v.regex(
      /^[0-9A-Fa-f]{3,16}$/,
      (issue) => `is "${String(issue.input).slice(0, 20)}"; must be 3 to 16 hexadecimal digits`
    ),
    v.toUpperCase()
  ),
  /** The lowest severity that the station accepts. */
  accepts: v.picklist(SEVERITIES, `must be one of ${SEVERITIES.join(', ')}`),
  /** How often the station is told that the site is there; 0: never. */
  heartbeatSeconds: v.union(
    [v.literal(0), whole(10, 86400, ' s')],
    'must be 0, or from 10 to 86400 s'
  )
})

export const WebhookSchema = v.strictObject({
  ...common,
  kind: v.literal('webhook'),
  url: v.pipe(
    v.string('must be an address'),
    v.maxLength(500, 'is longer than 500 characters'),
    v.check(
      (text) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol),
      'must be an address such as https://example.org/alarms'
    )
  )
})

export const POPUP_SOUNDS = ['none', 'chime', 'alarm'] as const
export const PopupSchema = v.strictObject({
  ...common,
  kind: v.literal('popup'),
  sound: v.picklist(POPUP_SOUNDS, `must be one of ${POPUP_SOUNDS.join(', ')}`)
})

export const RecordingSchema = v.strictObject({
  ...common,
  kind: v.literal('recording'),
  /** Null: the camera of the detection itself. */
  camera: v.nullable(id),
  beforeSeconds: whole(0, 60, ' s'),
  afterSeconds: whole(1, 600, ' s')
})

export const SnapshotsSchema = v.strictObject({
  ...common,
  kind: v.literal('snapshots'),
  camera: v.nullable(id),
  ...pictures
})

const kinds = [
  'strobe',
  'speaker',
  'relay',
  'buzzer',
  'email',
  'station',
  'webhook',
  'popup',
  'recording',
  'snapshots'
] as const
export const EndpointSchema = v.variant(
  'kind',
  [
    StrobeSchema,
    SpeakerSchema,
    RelaySchema,
    BuzzerSchema,
    EmailSchema,
    StationSchema,
    WebhookSchema,
    PopupSchema,
    RecordingSchema,
    SnapshotsSchema
  ],
  `must be one of ${kinds.join(', ')}`
)

export type Endpoint = v.InferOutput<typeof EndpointSchema>
export type EndpointKind = Endpoint['kind']
export type EndpointOf<K extends EndpointKind> = Extract<Endpoint, { kind: K }>
/** An endpoint that is an output of a device. */
export type OutputEndpoint = EndpointOf<'strobe' | 'speaker' | 'relay' | 'buzzer'>
export const isOutput = (endpoint: Endpoint): endpoint is OutputEndpoint => 'output' in endpoint

export const PRIORITIES = ['low', 'normal', 'high'] as const
export type Priority = (typeof PRIORITIES)[number]

/** What a detection sets off, and what becomes of its alarms. */
export const ActionsSchema = v.strictObject({
  /** Endpoints that a trigger sets off. */
  links: v.optional(
    v.pipe(
      v.array(id, 'must be a list of endpoints'),
      v.maxLength(100, 'has more than 100 links'),
      v.check((list) => new Set(list).size === list.length, 'names an endpoint twice')
    ),
    []
  ),
  /** Goes to the monitoring station; a trigger that says one itself (tamper) keeps its own. */
  severity: v.optional(v.picklist(SEVERITIES, `must be one of ${SEVERITIES.join(', ')}`), 'major'),
  /** The order in which alarms wait. */
  priority: v.optional(v.picklist(PRIORITIES, `must be one of ${PRIORITIES.join(', ')}`), 'normal'),
  /** People and groups whose alarm it is; nobody named: everybody's. */
  for: v.optional(v.array(id, 'must be a list of people and groups'), []),
  acknowledge: v.optional(
    v.strictObject({
      /** Whether a comment must be written. */
      comment: v.optional(bool, false),
      /** Whether it is asked once more before. */
      confirm: v.optional(bool, false),
      /** An output that acknowledging switches. */
      switch: v.optional(v.strictObject({ endpoint: id, on: bool }))
    }),
    { comment: false, confirm: false }
  ),
  /**
   * A trigger within so many seconds of the alarm's last one joins it while nobody has acknowledged
   * it; 0: each its own alarm.
   */
  groupSeconds: v.optional(within(0, 86400, ' s'), 60),
  /** Links that may be silent in a part of the armed hours: somebody has said that it is meant so. */
  accepted: v.optional(v.array(id, 'must be a list of endpoints'), []),
  /** For so many seconds after actions were set off, further triggers set off none; they are kept and counted. */
  quietSeconds: v.optional(within(0, 86400, ' s'), 0)
})
export type Actions = v.InferOutput<typeof ActionsSchema>

const person = v.strictObject({ id, name, email: v.optional(address) })
const group = v.strictObject({ id, name, members: v.array(id, 'must be a list of people') })
/** Who works for the site: names for alarms and addresses for mails. */
export const PeopleSchema = v.strictObject({
  people: v.array(person, 'must be a list of people'),
  groups: v.array(group, 'must be a list of groups')
})
export type People = v.InferOutput<typeof PeopleSchema>

export const MAIL_ENCRYPTIONS = ['none', 'starttls', 'tls'] as const
/** The mail server that e-mails go out through. The password is kept apart, sealed. */
export const MailSchema = v.strictObject({
  host: v.pipe(
    v.string('must be a host'),
    v.trim(),
    v.regex(/^[\w.:-]{1,200}$/, 'must be a host such as mail.example.org')
  ),
  port: whole(1, 65535),
  encryption: v.picklist(MAIL_ENCRYPTIONS, `must be one of ${MAIL_ENCRYPTIONS.join(', ')}`),
  username: v.nullable(
    v.pipe(v.string('must be a text'), v.maxLength(200, 'is longer than 200 characters'))
  ),
  sender: address
})
export type Mail = v.InferOutput<typeof MailSchema>

/**
 * The addresses that an e-mail goes to: its own, and those of its people and of the members of its
 * groups; each once.
 */
export function addressesOf(email: EndpointOf<'email'>, { people, groups }: People): string[] {
  const members = email.people.flatMap((who) => groups.find((g) => g.id === who)?.members ?? [who])
  return [
    ...new Set([
      ...email.recipients,
      ...members.flatMap((member) => people.find((p) => p.id === member)?.email ?? [])
    ])
  ]
}

/** Why an endpoint cannot act as it stands, in words; null: it is set up. */
export function missingOf(
  endpoint: Endpoint,
  {
    mail,
    people,
    outputs
  }: {
    mail: Mail | null
    people: People
    /** Outputs that devices have, as `device token`. */ outputs: ReadonlySet<string>
  }
): string | null {
  if (endpoint.kind === 'email') {
    if (!mail) return 'there is no mail server yet'
    return addressesOf(endpoint, people).length ? null : 'it has no recipient'
  }
  if (isOutput(endpoint))
    return outputs.has(`${endpoint.device} ${endpoint.output}`) ? null : 'no device has this output'
  return null
}
