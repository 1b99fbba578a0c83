import { said } from '../messages/said.ts'
import type { EntryDetection } from './entry/schema.ts'
import type { ExitDetection } from './exit/schema.ts'
import { atLeast } from '../geometry/shapes.ts'
import type { Gates } from '../detections/gates.ts'
import { needOf } from '../detections/need.ts'
import type { GateReading, KindRun, Sighting } from '../detections/types.ts'
import { Zone } from '../detections/zone.ts'

interface PassageState {
  /** Shut until the target has been seen on the side it comes from. */
  open: boolean
  /** Whether it has ever been open; from then on it opens only below half of the need. */
  opened: boolean
  pending: boolean
  /** The share that has entered, or left, at the row just looked at. */
  share: number
}

/** Where a target is, on one side of the passage. */
export type PassagePlace = 'inZone' | 'outOfZone'

const placeOf = { inZone: said('why.isInZone'), outOfZone: said('why.isOutOfZone') }

/** What Zone entry and Zone exit share: the same passage, looked at from outside or from inside. */
export class PassageRun implements KindRun {
  private readonly gates: Gates
  private readonly zone: Zone
  private readonly need: number
  private readonly passed: (inside: number) => number
  private readonly there: PassagePlace
  private readonly before: PassagePlace

  /**
   * @param passed the share that has passed, of the share inside
   * @param places where one is after the passage, and where one must have been seen before
   */
  constructor(
    detection: EntryDetection | ExitDetection,
    passed: (inside: number) => number,
    places: readonly [there: PassagePlace, before: PassagePlace],
    gates: Gates
  ) {
    this.gates = gates
    this.passed = passed
    ;[this.there, this.before] = places
    this.zone = Zone.of(detection.zone)
    this.need = needOf(detection.sensitivity)
  }

  begin(): PassageState {
    return { open: false, opened: false, pending: false, share: 0 }
  }

  look(state: PassageState, s: Sighting): null | undefined {
    state.share = this.passed(this.zone.shareAt(s))
    const holds = atLeast(state.share, this.need)
    if (!holds) state.pending = false
    if (!state.open && !atLeast(state.share, state.opened ? this.need / 2 : this.need))
      state.open = state.opened = true
    if (state.open && holds) {
      state.open = false
      state.pending = true
    }
    if (!state.pending || !this.gates.pass(s)) return undefined
    state.pending = false
    return null
  }

  nearness(state: PassageState): number {
    return state.opened ? Math.min(1, state.share / this.need) : 0
  }

  readings(state: PassageState): GateReading[] {
    return [
      {
        gate: 'direction',
        passed: state.opened,
        measured: state.opened
          ? said('why.seenBefore', placeOf[this.before])
          : said('why.firstSeen', placeOf[this.there]),
        limit: said('why.seenBefore', placeOf[this.before])
      },
      {
        gate: 'share',
        passed: atLeast(state.share, this.need),
        measured: said(`why.${this.there}`, state.share),
        limit: said('why.atLeastShare', this.need),
        value: state.share,
        needed: this.need
      }
    ]
  }
}
