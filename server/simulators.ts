import type { Service } from './reach.ts'

/**
 * Simulators that run beside the server, as they announce themselves at their start. What the server does with an outside
 * world goes through `Reach` and `Scenes`; without simulators nothing of it changes.
 */
export interface Simulators {
  /** The host that stands for them in settings, as their ports differ at each start. */
  host: string
  ports: Readonly<Record<Service, number>>
  /** Addresses: of their pages, and of the messages in their mailbox. */
  pages: string
  mailbox: string
}
