import type { Endpoint, EndpointKind } from '../../core/formats/actions.ts'
import { email } from './kinds/email.ts'
import type { DeliveryKind } from './kinds/kind.ts'
import { output } from './kinds/output.ts'
import { popup } from './kinds/popup.ts'
import { recording } from './kinds/recording.ts'
import { snapshots } from './kinds/snapshots.ts'
import { station } from './kinds/station.ts'
import { webhook } from './kinds/webhook.ts'

/** How each kind of endpoint is delivered. */
const kinds: { [K in EndpointKind]: DeliveryKind<Extract<Endpoint, { kind: K }>> } = {
  strobe: output,
  speaker: output,
  relay: output,
  buzzer: output,
  email,
  station,
  webhook,
  popup,
  recording,
  snapshots
}

/** How endpoints of a kind are delivered, for an endpoint of whatever kind. */
export const deliveryKind = (kind: EndpointKind): DeliveryKind<Endpoint> =>
  kinds[kind] as DeliveryKind<Endpoint>

/** The pause after so many failed attempts, growing; null: it is given up. */
export function pauseAfter(kind: EndpointKind, failed: number): number | null {
  const { attempts, firstMs, longestMs } = deliveryKind(kind).patience
  return failed >= attempts ? null : Math.min(longestMs, firstMs * 2 ** (failed - 1))
}
