/** What the server says of the demo site. */

/** How the demo site gets its past, in this order. */
export const DEMO_STEPS = ['plan', 'past', 'clips', 'devices', 'checks', 'record', 'since'] as const

export interface DemoView {
  /** It is the demo site, which has a past or is being given one. */
  hasPast: boolean
  /** What is being done, and which share of it is; null: nothing. */
  filling: { step: (typeof DEMO_STEPS)[number]; share: number } | null
}
