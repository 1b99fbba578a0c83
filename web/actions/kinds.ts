import type { Endpoint, EndpointKind } from '../../core/formats/actions.ts'
import { buzzer } from './kinds/buzzer.tsx'
import { email } from './kinds/email.tsx'
import { popup } from './kinds/popup.tsx'
import { recording } from './kinds/recording.tsx'
import { relay } from './kinds/relay.tsx'
import { snapshots } from './kinds/snapshots.tsx'
import { speaker } from './kinds/speaker.tsx'
import { station } from './kinds/station.tsx'
import { strobe } from './kinds/strobe.tsx'
import { webhook } from './kinds/webhook.tsx'
import type { EndpointFace } from './kinds/kind.ts'

/** Each kind of endpoint on the screen, in the order of the matrix. */
const kinds: { [K in EndpointKind]: EndpointFace<Extract<Endpoint, { kind: K }>> } = {
  strobe,
  speaker,
  relay,
  buzzer,
  email,
  station,
  webhook,
  popup,
  recording,
  snapshots
}

/** A kind on the screen, for an endpoint of whatever kind. */
export const faceOf = (kind: EndpointKind): EndpointFace<Endpoint> =>
  kinds[kind] as unknown as EndpointFace<Endpoint>

const ORDER = Object.keys(kinds) as EndpointKind[]
/** Kinds that are no output of a device: they can be made at any time. */
export const FREE_KINDS = ORDER.filter((kind) => kinds[kind].group !== 'outputs')

/** Outputs, then messages, then records; within a kind by name. */
export const byKind = (a: Endpoint, b: Endpoint): number =>
  ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.name.localeCompare(b.name)
