import { createHash } from 'node:crypto'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Proposals } from '../../core/proving/propose.ts'
import type { Provers } from './provers.ts'
import type { Place, Scenery } from './scenery.ts'

/** What is known of the proposals for one state of a detection's settings. */
type Proposed =
  | { state: 'asked'; done: Promise<void> }
  | { state: 'known'; found: Proposals }
  | { state: 'failed'; times: number; again: number }

/** What failed is asked for again after this, then after twice as long each time, and no more after so many times. */
const FAILED_AGAIN_MS = 30_000
const MAX_FAILED = 4
/** Proposals of earlier settings are kept for whoever goes back to them, so many at most. */
const MAX_PROPOSED = 4000

const NOTHING_PROPOSED: Proposals = { checks: [], gaps: [] }
const DAY = 24 * 60 * 60_000

/** The checks that are proposed for detections, worked out once for each state of their settings. */
export class KnownProposals {
  private readonly provers: Provers
  private readonly log: (error: unknown) => void
  private readonly proposed = new Map<string, Proposed>()

  constructor(provers: Provers, log: (error: unknown) => void) {
    this.provers = provers
    this.log = log
  }

  /**
   * What is proposed for a detection.
   *
   * @param mayAsk whether it is asked for where it is not known, in a process of its own
   * @returns 'asked': it is being worked out; 'unknown': nobody has asked for it
   */
  of(
    place: Place,
    detection: Detection,
    { site, context, endpoints }: Scenery,
    mayAsk: boolean
  ): Proposals | 'asked' | 'unknown' {
    const from = Math.floor(Date.now() / DAY) * DAY
    const camera = place.plan.cameras[0]!
    const actions = place.actions.get(detection.id) ?? NO_ACTIONS
    const ask = {
      detection,
      ignore: camera.ignore,
      actions,
      endpoints,
      site: {
        timeZone: site.timeZone,
        position: site.position ?? undefined,
        schedules: context.schedules
      },
      from,
      surroundings: place.surroundings
    }
    const inputs = Object.fromEntries(site.inputs.map(({ id, name }) => [id, name]))
    const key = createHash('sha256')
      .update(JSON.stringify([ask, place.ground, inputs, camera.ignore]))
      .digest('hex')
    const known = this.proposed.get(key)
    if (known?.state === 'known') {
      // What was asked for last is forgotten last.
      this.proposed.delete(key)
      this.proposed.set(key, known)
      return known.found
    }
    if (known?.state === 'asked') return 'asked'
    if (known && (known.times >= MAX_FAILED || Date.now() < known.again)) return NOTHING_PROPOSED
    if (!mayAsk) return 'unknown'
    const times = known?.times ?? 0
    const done = this.provers.ask({ what: 'propose', ask, ground: place.ground, inputs }).then(
      (found) => this.remember(key, { state: 'known', found }),
      (error: unknown) => {
        this.remember(key, {
          state: 'failed',
          times: times + 1,
          again: Date.now() + FAILED_AGAIN_MS * 2 ** times
        })
        this.log(error)
      }
    )
    this.remember(key, { state: 'asked', done })
    return 'asked'
  }

  private remember(key: string, proposed: Proposed): void {
    this.proposed.delete(key)
    this.proposed.set(key, proposed)
    for (const [oldest, { state }] of this.proposed) {
      if (this.proposed.size <= MAX_PROPOSED) break
      if (state !== 'asked') this.proposed.delete(oldest)
    }
  }

  /** Resolves when those that are being worked out now are known. */
  async asked(): Promise<void> {
    await Promise.all(
      [...this.proposed.values()].flatMap((p) => (p.state === 'asked' ? p.done : []))
    )
  }
}
