/** Lets a few tasks run at a time; others wait in order, up to a limit. */
export class Limiter {
  private running = 0
  private readonly waiting: (() => void)[] = []
  private readonly atOnce: number
  private readonly maxWaiting: number
  private readonly refusal: () => Error

  /** @param refusal the error for whoever comes when too many wait already */
  constructor(atOnce: number, maxWaiting: number, refusal: () => Error) {
    this.atOnce = atOnce
    this.maxWaiting = maxWaiting
    this.refusal = refusal
  }

  /** @throws the refusal, or what the work throws */
  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.running < this.atOnce) this.running++
    else {
      if (this.waiting.length >= this.maxWaiting) throw this.refusal()
      await new Promise<void>((resolve) => this.waiting.push(resolve))
    }
    try {
      return await work()
    } finally {
      const next = this.waiting.shift()
      // The next in line takes this place.
      if (next) next()
      else this.running--
    }
  }
}
