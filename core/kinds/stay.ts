import { said } from '../messages/said.ts'
import type { StayDetection } from './schemas.ts'
import { ALLOWANCE, atLeast } from '../geometry/shapes.ts'
import type { GateReading, KindRun, Moment, Sighting } from '../detections/types.ts'
import type { Gates } from '../detections/gates.ts'
import { needOf } from '../detections/need.ts'
import { Zone } from '../detections/zone.ts'

/** A target's stay in the zone. */
interface Stay {
  target: number
  start: number
  lastIn: number
  lastFrame: number
  fired: boolean
  /** With `atLeast` above 1: since when it counts. */
  qualifiedAt: number | null
}

interface StayState {
  stay: Stay | null
  /** Whether the target has been seen out, or may count although it was first seen inside. */
  mayCount: boolean
  /** The row just looked at; for the ladder. */
  share: number
  inside: boolean
  dwelt: number
}

/** What intrusion and loitering share: a target that stays in a zone. They differ in their grace alone. */
export class StayRun implements KindRun {
  readonly together: boolean
  private readonly detection: StayDetection
  private readonly grace: number
  private readonly gates: Gates
  private readonly zone: Zone
  private readonly need: number
  /** With `atLeast` above 1: the stays that count now, and whether the last trigger still stands. */
  private readonly qualified = new Set<Stay>()
  private standing = false

  constructor(detection: StayDetection, grace: number, gates: Gates) {
    this.detection = detection
    this.together = detection.atLeast > 1
    this.grace = grace
    this.gates = gates
    this.zone = Zone.of(detection.zone)
    this.need = needOf(detection.sensitivity)
  }

  begin(): StayState {
    return {
      stay: null,
      mayCount: this.detection.countFirstSeenInside,
      share: 0,
      inside: false,
      dwelt: 0
    }
  }

  look(state: StayState, s: Sighting): null | undefined {
    state.share = this.zone.shareAt(s)
    state.inside = atLeast(state.share, this.need)
    // A row in that follows a row in is no interruption, however small the grace.
    const follows = state.inside && state.stay?.lastFrame === s.frame - 1
    if (state.stay && !follows && this.hasEnded(state.stay, s.time)) state.stay = null
    if (!state.inside) {
      state.mayCount = true
      state.dwelt = state.stay ? s.time - state.stay.start : 0
      return undefined
    }
    const stay = (state.stay ??= {
      target: s.target,
      start: s.time,
      lastIn: s.time,
      lastFrame: s.frame,
      fired: false,
      qualifiedAt: null
    })
    stay.lastIn = s.time
    stay.lastFrame = s.frame
    state.dwelt = s.time - stay.start
    if (!state.mayCount || !atLeast(state.dwelt, this.detection.dwellSeconds)) return undefined
    if (this.together) {
      if (stay.qualifiedAt === null && this.gates.passTarget(s)) {
        stay.qualifiedAt = s.time
        this.qualified.add(stay)
      }
      return undefined
    }
    if (stay.fired || !this.gates.pass(s)) return undefined
    stay.fired = true
    return null
  }

  endFrame({ time, instant, emptyBefore }: Moment): number[] | undefined {
    const { atLeast: enough } = this.detection
    if (emptyBefore !== null && this.countAt(emptyBefore) < enough) this.standing = false
    for (const stay of this.qualified) if (this.hasEnded(stay, time)) this.qualified.delete(stay)
    if (this.qualified.size < enough) this.standing = false
    if (this.standing || this.qualified.size < enough || !this.gates.passMoment(time, instant))
      return undefined
    this.standing = true
    return [...new Set([...this.qualified].map((stay) => stay.target))].sort((a, b) => a - b)
  }

  /** How many stays counted at a frame in which nobody was seen. */
  private countAt(time: number): number {
    let count = 0
    for (const stay of this.qualified)
      if (stay.qualifiedAt! <= time && !this.hasEnded(stay, time)) count++
    return count
  }

  private hasEnded(stay: Stay, time: number): boolean {
    return time - stay.lastIn > this.grace + ALLOWANCE
  }

  nearness(state: StayState): number {
    const { dwellSeconds } = this.detection
    const body = Math.min(1, state.share / this.need)
    return (
      (body +
        (state.inside ? (dwellSeconds > 0 ? Math.min(1, state.dwelt / dwellSeconds) : 1) : 0)) /
      2
    )
  }

  readings(state: StayState): GateReading[] {
    const { dwellSeconds, atLeast: enough } = this.detection
    const readings: GateReading[] = [
      {
        gate: 'share',
        passed: state.inside,
        measured: said('why.inZone', state.share),
        limit: said('why.atLeastShare', this.need),
        value: state.share,
        needed: this.need
      },
      {
        gate: 'dwell',
        passed: state.inside && state.mayCount && atLeast(state.dwelt, dwellSeconds),
        measured: state.mayCount ? said('why.inZoneFor', state.dwelt) : said('why.firstSeenInside'),
        limit: state.mayCount
          ? said('why.atLeastSeconds', dwellSeconds)
          : said('why.seenOutsideBefore'),
        value: state.dwelt,
        needed: dwellSeconds
      }
    ]
    if (this.together) {
      const count = this.qualified.size
      readings.push({
        gate: 'together',
        passed: count >= enough,
        measured: said('why.countInZone', count),
        limit: said('why.atLeastCount', enough),
        value: count,
        needed: enough
      })
    }
    return readings
  }
}
