import { setTimeout as wait } from 'node:timers/promises'
import type { DeviceEvent } from './link/events.ts'
import type { DeviceLink } from './link/link.ts'
import { DeviceError, isAway } from './link/deviceError.ts'

/** How long a device may hold a question open when nothing happens; ending the listener waits for that answer. */
const HELD_SECONDS = 2
/** How often a pull point is kept from ending, and a quiet one is noted as heard. */
const RENEWED_MS = 20_000
const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 30_000

/** Where somebody listens, and until when that has been so; nulls: not yet. */
export interface Subscription {
  point: string | null
  heardAt: number | null
}

/**
 * Listens to one device for as long as it is wanted: makes a pull point, asks it again and again, makes a new one when
 * it is gone. One that was left by a server which has ended is gone on with: what has happened in between waits there.
 * A stretch in which nobody listened is told as an event of the topic `gap`.
 */
export class Listener {
  private readonly link: DeviceLink
  private readonly take: (events: DeviceEvent[], subscription: Subscription) => Promise<void>
  private readonly stop = new AbortController()
  private readonly ended: Promise<void>
  private readonly subscription: Subscription
  private renewedAt = 0
  /** What has come and could not be kept yet. */
  private unkept: DeviceEvent[] = []
  private keptAt = 0

  /** @param take keeps what came; listening goes on only after it has been kept */
  constructor(
    link: DeviceLink,
    subscription: Subscription,
    take: (events: DeviceEvent[], subscription: Subscription) => Promise<void>
  ) {
    this.link = link
    this.subscription = { ...subscription }
    this.take = take
    this.ended = this.listen()
  }

  /**
   * Ends listening. A question that is open is waited for: the device has forgotten what it answers to one that is given
   * up. The pull point stays for whoever comes next, unless the device is no longer wanted at all.
   */
  async close(forGood = false): Promise<void> {
    this.stop.abort()
    await this.ended
    if (forGood && this.subscription.point)
      await this.link.events.unsubscribe(this.subscription.point).catch(() => {})
  }

  get heardAt(): number | null {
    return this.subscription.heardAt
  }

  private async listen(): Promise<void> {
    const { signal } = this.stop
    let pause = FIRST_PAUSE_MS
    while (!signal.aborted) {
      try {
        if (!this.subscription.point) await this.begin()
        while (!signal.aborted) {
          if (this.unkept.length) await this.keep([])
          const events = await this.link.events.pull(this.subscription.point!, HELD_SECONDS)
          this.subscription.heardAt = Date.now()
          pause = FIRST_PAUSE_MS
          if (
            events.length ||
            this.subscription.heardAt - this.keptAt >= RENEWED_MS ||
            signal.aborted
          )
            await this.keep(events)
          await this.renew()
        }
      } catch (error) {
        if (signal.aborted) break
        // A pull point that is refused has ended; one that could not be reached may still be there.
        if (error instanceof DeviceError && !isAway(error)) {
          const known = this.subscription.point
          this.subscription.point = null
          if (known) continue
        }
        // Ends sooner when it is told to; the timer then gives its listener back.
        await wait(pause, undefined, { signal }).catch(() => {})
        pause = Math.min(2 * pause, LONGEST_PAUSE_MS)
      }
    }
  }

  private async keep(events: DeviceEvent[]): Promise<void> {
    // The device has forgotten what it has answered: it stays here until it is kept.
    this.unkept.push(...events)
    const count = this.unkept.length
    await this.take(this.unkept.slice(0, count), this.subscription)
    this.unkept.splice(0, count)
    this.keptAt = Date.now()
  }

  private async renew(): Promise<void> {
    if (Date.now() - this.renewedAt < RENEWED_MS) return
    await this.link.events.renew(this.subscription.point!)
    this.renewedAt = Date.now()
  }

  private async begin(): Promise<void> {
    const { heardAt } = this.subscription
    this.subscription.point = await this.link.events.subscribe()
    const now = Date.now()
    this.renewedAt = now
    this.subscription.heardAt = now
    await this.keep(
      heardAt === null
        ? []
        : [
            {
              topic: 'gap',
              initial: false,
              rule: '',
              channel: '',
              at: heardAt,
              data: { seconds: ((now - heardAt) / 1000).toFixed(1) }
            }
          ]
    )
  }
}
