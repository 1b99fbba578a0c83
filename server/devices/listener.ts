import type { DeviceEvent, DeviceLink } from './link.ts'
import { Trouble } from './link.ts'

/** How long a device may hold a question open when nothing happens. */
const HELD_SECONDS = 20
const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 30_000

/**
 * Listens to one device for as long as it is wanted: makes a pull point, asks it again and again, makes a new one when
 * it is gone. A stretch in which nobody listened is told as an event of the topic `gap`.
 */
export class Listener {
  private readonly link: DeviceLink
  private readonly take: (events: DeviceEvent[]) => Promise<void>
  private readonly stop = new AbortController()
  private readonly ended: Promise<void>

  /** @param take keeps what came; listening goes on only after it has been kept */
  constructor(link: DeviceLink, take: (events: DeviceEvent[]) => Promise<void>) {
    this.link = link
    this.take = take
    this.ended = this.listen()
  }

  async close(): Promise<void> {
    this.stop.abort()
    await this.ended
  }

  private async listen(): Promise<void> {
    const { signal } = this.stop
    let pause = FIRST_PAUSE_MS
    let heardAt: number | null = null
    while (!signal.aborted) {
      let point: string | null = null
      try {
        point = await this.link.subscribe()
        if (heardAt !== null) await this.take([{ topic: 'gap', rule: '', at: heardAt, data: { seconds: ((Date.now() - heardAt) / 1000).toFixed(1) } }])
        while (!signal.aborted) {
          const events = await this.link.pull(point, HELD_SECONDS, signal)
          heardAt = Date.now()
          pause = FIRST_PAUSE_MS
          await this.take(events)
        }
      } catch (error) {
        if (signal.aborted) break
        // What is wrong with the device is said by its reading; here it is only tried again, after growing pauses.
        if (!(error instanceof Trouble)) pause = LONGEST_PAUSE_MS
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, pause)
          signal.addEventListener('abort', () => { clearTimeout(timer); resolve() }, { once: true })
        })
        pause = Math.min(2 * pause, LONGEST_PAUSE_MS)
      } finally {
        if (signal.aborted && point) await this.link.unsubscribe(point).catch(() => {})
      }
    }
  }
}
