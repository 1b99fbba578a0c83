import type { Detection } from '../formats/plan.ts'

/** What Watch shows besides what is live. */
export interface WatchView {
  site: { id: string; name: string; timeZone: string }
  cameras: {
    id: string
    name: string
    detections: Detection[]
    /** Ids of those that no device holds: nobody watches for them. */
    unheld: string[]
    /** A device shows it. */ live: boolean
  }[]
  /** Whom an alarm can be assigned to. */
  people: string[]
}
