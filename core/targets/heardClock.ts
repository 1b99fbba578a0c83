/** By how much the guess of the least delay is loosened with each instant, ms: clocks drift apart by less. */
const LOOSENED_MS = 0.05
/** What seems to come later than this was not late: somebody has set the device's clock. */
const SET_MS = 5000

/**
 * Maps instants of a device's clock to this machine's. What is heard comes late by a delay that is never the
 * same; between its instants the device's own clock is right. The least recent delay counts as none.
 */
export class HeardClock {
  private ahead = Infinity

  /**
   * @param said by the device, ms
   * @param heard by the clock here, ms
   * @returns `said` by the clock here, not after `heard`
   */
  at(said: number, heard: number): number {
    const now = heard - said
    this.ahead = now > this.ahead + SET_MS ? now : Math.min(now, this.ahead + LOOSENED_MS)
    return said + this.ahead
  }

  /**
   * An instant that was mapped before, by what is known now: what was heard first may have come late.
   *
   * @param said by the device, ms
   * @param before what `at` gave for it
   * @returns not after `before`
   */
  again(said: number, before: number): number {
    const now = said + this.ahead
    // Farther back than a delay can be: the device's clock has been set since.
    return before - now > SET_MS ? before : Math.min(before, now)
  }
}
