import type { EndpointKind } from '../../core/formats/actions.ts'

/** How often something is tried, and how long until it is tried again. */
export interface Patience {
  attempts: number
  firstMs: number
  longestMs: number
}

/** A light that flashes half an hour late helps nobody; a message is still worth having. */
const short: Patience = { attempts: 4, firstMs: 2000, longestMs: 15_000 }
const long: Patience = { attempts: 12, firstMs: 2000, longestMs: 10 * 60_000 }

export const patienceOf = (kind: EndpointKind): Patience =>
  ['strobe', 'speaker', 'relay', 'buzzer', 'popup'].includes(kind) ? short : long

/** The pause after so many failed attempts, growing; null: it is given up. */
export function pauseAfter(kind: EndpointKind, failed: number): number | null {
  const { attempts, firstMs, longestMs } = patienceOf(kind)
  return failed >= attempts ? null : Math.min(longestMs, firstMs * 2 ** (failed - 1))
}
