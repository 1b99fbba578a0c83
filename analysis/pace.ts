/** Less than so many seconds of work says nothing about the rest. */
const LEAST_SECONDS = 3
/** The pace is that of the last so many seconds: the detector falls behind only after a while. */
const WINDOW_SECONDS = 20

/** How long work will still take, by how fast it has gone lately; what comes before the first step does not count. */
export class Pace {
  private readonly now: () => number
  private readonly steps: { at: number; done: number }[] = []

  /** @param now milliseconds, from any beginning */
  constructor(now: () => number = () => performance.now()) {
    this.now = now
  }

  /**
   * Seconds that are left; null: not known yet, or not known of how much.
   *
   * @param done of `expected`, in any unit; more each time
   */
  left(done: number, expected: number | null): number | null {
    const at = this.now()
    this.steps.push({ at, done })
    while (this.steps.length > 2 && at - this.steps[1]!.at >= 1000 * WINDOW_SECONDS)
      this.steps.shift()
    const [first] = this.steps as [{ at: number; done: number }]
    const seconds = (at - first.at) / 1000
    if (expected === null || seconds < LEAST_SECONDS || done <= first.done) return null
    return Math.max(0, (expected - done) * (seconds / (done - first.done)))
  }
}
