import { said, type Said, coded } from '../messages/said.ts'
import * as v from 'valibot'
import { SEVERITIES } from '../kinds/parts.ts'
import { bool, id, name, noLongerThan, oneOf } from '../schema/parts.ts'
import { BuzzerSchema } from '../actions/kinds/buzzer.ts'
import { EmailSchema } from '../actions/kinds/email.ts'
import { PopupSchema } from '../actions/kinds/popup.ts'
import { RecordingSchema } from '../actions/kinds/recording.ts'
import { RelaySchema } from '../actions/kinds/relay.ts'
import { SnapshotsSchema } from '../actions/kinds/snapshots.ts'
import { SpeakerSchema } from '../actions/kinds/speaker.ts'
import { StationSchema } from '../actions/kinds/station.ts'
import { StrobeSchema } from '../actions/kinds/strobe.ts'
import { WebhookSchema } from '../actions/kinds/webhook.ts'
import { address, whole, within } from '../actions/kinds/parts.ts'

export * from '../actions/kinds/strobe.ts'
export * from '../actions/kinds/speaker.ts'
export * from '../actions/kinds/relay.ts'
export * from '../actions/kinds/popup.ts'

/**
 * Alarm actions: what a trigger can run (endpoints: an output, a message, a recording), and what a detection runs
 * (its links, and what becomes of the alarm). One schema per kind, the schema is the type.
 */

const schemas = [
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
] as const
/** All kinds of endpoints, each described by its schema. */
export const ENDPOINT_KINDS = schemas.map(({ entries }) => entries.kind.literal)
export const EndpointSchema = v.variant(
  'kind',
  schemas,
  coded('input.mustBeOneOf', ENDPOINT_KINDS.join(', '))
)

export type Endpoint = v.InferOutput<typeof EndpointSchema>
export type EndpointKind = Endpoint['kind']
export type EndpointOf<K extends EndpointKind> = Extract<Endpoint, { kind: K }>
/** An endpoint that is an output of a device. */
export type OutputEndpoint = Extract<Endpoint, { output: unknown }>
export type OutputKind = OutputEndpoint['kind']
export const OUTPUT_KINDS = ENDPOINT_KINDS.filter((kind): kind is OutputKind =>
  schemas.some(({ entries }) => entries.kind.literal === kind && 'output' in entries)
)
export const isOutput = (endpoint: Endpoint): endpoint is OutputEndpoint => 'output' in endpoint

export const PRIORITIES = ['low', 'normal', 'high'] as const
export type Priority = (typeof PRIORITIES)[number]

/** The actions of a detection, and what becomes of its alarms. */
export const ActionsSchema = v.strictObject({
  /** Endpoints that a trigger runs. */
  links: v.optional(
    v.pipe(
      v.array(id, coded('formats.mustBeAListOf8')),
      v.maxLength(100, coded('formats.hasMoreThan100Links')),
      v.check((list) => new Set(list).size === list.length, coded('formats.namesAnEndpointTwice'))
    ),
    []
  ),
  /** Goes to the monitoring station; a trigger that says one itself (tamper) keeps its own. */
  severity: v.optional(oneOf(SEVERITIES), 'major'),
  /** The order in which alarms wait. */
  priority: v.optional(oneOf(PRIORITIES), 'normal'),
  /** People and groups whose alarm it is; none named: everybody's. */
  for: v.optional(v.array(id, coded('input.mustBeAListOf9')), []),
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
  /** Links that may be silent in part of the armed hours: marked as intended. */
  accepted: v.optional(v.array(id, coded('formats.mustBeAListOf8')), []),
  /** For so many seconds after actions ran, further triggers run none; they are kept and counted. */
  quietSeconds: v.optional(within(0, 86400, ' s'), 0)
})
export type Actions = v.InferOutput<typeof ActionsSchema>

const person = v.strictObject({ id, name, email: v.optional(address) })
const group = v.strictObject({ id, name, members: v.array(id, coded('input.mustBeAListOf10')) })
/** Who works for the site: names for alarms and addresses for mails. */
export const PeopleSchema = v.strictObject({
  people: v.array(person, coded('input.mustBeAListOf10')),
  groups: v.array(group, coded('formats.mustBeAListOf11'))
})
export type People = v.InferOutput<typeof PeopleSchema>

export const MAIL_ENCRYPTIONS = ['none', 'starttls', 'tls'] as const
/** The mail server that e-mails go out through. The password is kept apart, sealed. */
export const MailSchema = v.strictObject({
  host: v.pipe(
    v.string(coded('input.mustBeAHost')),
    v.trim(),
    v.regex(/^[\w.:-]{1,200}$/, coded('formats.mustBeAHostSuch'))
  ),
  port: whole(1, 65535),
  encryption: oneOf(MAIL_ENCRYPTIONS),
  username: v.nullable(v.pipe(v.string(coded('input.mustBeAText')), noLongerThan(200))),
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

/** Why an endpoint cannot act as it stands; null: it is set up. */
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
): Said | null {
  if ('recipients' in endpoint) {
    if (!mail) return said('actions.noMailServer')
    return addressesOf(endpoint, people).length ? null : said('actions.noRecipient')
  }
  if (isOutput(endpoint))
    return outputs.has(`${endpoint.device} ${endpoint.output}`)
      ? null
      : said('actions.noSuchOutput')
  return null
}
