import { randomUUID } from 'node:crypto'
import { content, xml } from '../../core/formats/onvif/xml.ts'

/** Something that happened, as the standard's notifications have it. */
export interface Notification {
  topic: string
  /** Whether it has changed, or is only being told to who begins to listen. */
  operation: 'Initialized' | 'Changed'
  /** Milliseconds of UTC. */
  at: number
  source: Record<string, string>
  data: Record<string, string>
}

const MAX_WAITING = 1000

interface PullPoint {
  queue: Notification[]
  until: number
  wake: (() => void) | null
}

const items = (list: Record<string, string>): string[] =>
  Object.entries(list).map(([Name, Value]) => xml('tt:SimpleItem', { Name, Value }))

export const notificationXml = ({ topic, operation, at, source, data }: Notification): string =>
  xml(
    'wsnt:NotificationMessage',
    {},
    xml(
      'wsnt:Topic',
      { Dialect: 'http://www.onvif.org/ver10/tev/topicExpression/ConcreteSet' },
      content(topic)
    ),
    xml(
      'wsnt:Message',
      {},
      xml(
        'tt:Message',
        { UtcTime: new Date(at).toISOString(), PropertyOperation: operation },
        xml('tt:Source', {}, ...items(source)),
        xml('tt:Data', {}, ...items(data))
      )
    )
  )

/** Pull points: who asks waits until something happens, or for as long as they said. */
export class PullPoints {
  private readonly points = new Map<string, PullPoint>()

  create(now: number, seconds: number): string {
    const id = randomUUID()
    this.points.set(id, { queue: [], until: now + seconds * 1000, wake: null })
    return id
  }

  renew(id: string, now: number, seconds: number): boolean {
    const point = this.alive(id, now)
    if (point) point.until = now + seconds * 1000
    return !!point
  }

  end(id: string): boolean {
    this.points.get(id)?.wake?.()
    return this.points.delete(id)
  }

  /** All pull points are gone, as after a restart of the device. */
  endAll(): void {
    for (const id of [...this.points.keys()]) this.end(id)
  }

  count(): number {
    return this.points.size
  }

  put(notification: Notification): void {
    for (const id of this.points.keys()) this.tell(id, notification)
  }

  /** To one pull point alone. */
  tell(id: string, notification: Notification): void {
    const point = this.points.get(id)
    if (!point) return
    point.queue.push(notification)
    if (point.queue.length > MAX_WAITING) point.queue.shift()
    point.wake?.()
  }

  /**
   * Waits for at least one, at most `waitMs`. Null when there is no such pull point (any more).
   *
   * @param gone whoever asked does not listen any more: what has happened stays for the next one who asks
   */
  async pull(
    id: string,
    now: number,
    waitMs: number,
    most: number,
    gone?: AbortSignal
  ): Promise<Notification[] | null> {
    const point = this.alive(id, now)
    if (!point) return null
    if (!point.queue.length)
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, waitMs)
        point.wake = () => {
          clearTimeout(timer)
          resolve()
        }
        gone?.addEventListener('abort', point.wake, { once: true })
      })
    point.wake = null
    return gone?.aborted ? [] : point.queue.splice(0, most)
  }

  private alive(id: string, now: number): PullPoint | null {
    const point = this.points.get(id)
    if (!point) return null
    if (point.until >= now) return point
    this.points.delete(id)
    return null
  }
}
