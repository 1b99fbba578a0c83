import type { EndpointKind } from '../../core/formats/actions.ts'
import type { Database } from '../database.ts'
import { pauseAfter } from './pauses.ts'
import { listDue, markFailed, markSent, type DueDelivery } from './rows.ts'
import { Refused } from './refused.ts'

/** What a delivery came to: a word for its history, and what it left. */
export interface Done {
  words: string
  result?: object
}

export type Sender = (due: DueDelivery) => Promise<Done>
export type Senders = Readonly<Record<EndpointKind, Sender>>

const POLL_MS = 500
/** How many are made at the same time; of one endpoint one after the other, in order. */
const AT_ONCE = 12
const BATCH = 200
const MARK_AGAIN_MS = 500

/**
 * Makes the deliveries that triggers have set off, from the table in which they stand: after an end of the server,
 * however it came, it goes on where it was. What has been confirmed is never made again; a failed one is tried again
 * after growing pauses and given up visibly.
 */
export class Queue {
  private readonly database: Database
  private readonly senders: Senders
  private readonly log: (error: unknown) => void
  private readonly changed: () => void
  /** Of each endpoint, what is being made now. */
  private readonly lanes = new Map<string, Promise<void>>()
  private readonly held = new Set<number>()
  /** Those that were let go while the table was being read: what was read of them is old. */
  private readonly letGo = new Set<number>()
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> | null = null
  private again = false
  private closed = false

  /** @param changed a delivery has got on */
  constructor(database: Database, senders: Senders, changed: () => void, log: (error: unknown) => void) {
    this.database = database
    this.senders = senders
    this.changed = changed
    this.log = log
  }

  start(): void {
    this.timer = setInterval(() => this.kick(), POLL_MS)
    this.kick()
  }

  /** Something may be due. */
  kick(): void {
    if (this.closed) return
    this.again = true
    this.looking ??= this.look()
      .catch(this.log)
      .finally(() => (this.looking = null))
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    await this.looking
    await Promise.all(this.lanes.values())
  }

  private async look(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false
      this.letGo.clear()
      const due = (await listDue(this.database, Date.now(), BATCH)).filter(({ id }) => !this.held.has(id) && !this.letGo.has(id))
      const byEndpoint = new Map<string, DueDelivery[]>()
      for (const d of due) byEndpoint.set(d.endpoint.id, [...(byEndpoint.get(d.endpoint.id) ?? []), d])
      for (const [endpoint, list] of byEndpoint) {
        if (this.lanes.has(endpoint) || this.lanes.size >= AT_ONCE) continue
        for (const { id } of list) this.held.add(id)
        const lane = this.make(list).finally(() => {
          this.lanes.delete(endpoint)
          for (const { id } of list) {
            this.held.delete(id)
            this.letGo.add(id)
          }
          // There may be more of it by now.
          this.kick()
        })
        this.lanes.set(endpoint, lane)
      }
    }
  }

  private async make(list: readonly DueDelivery[]): Promise<void> {
    for (const due of list) {
      if (this.closed) return
      let done: Done
      try {
        if (due.by === 'camera') throw new Refused('the camera did not say that it set it off')
        done = await this.senders[due.endpoint.kind](due)
      } catch (error) {
        const nextIn = error instanceof Refused ? null : pauseAfter(due.endpoint.kind, due.attempts + 1)
        await markFailed(this.database, due.id, (error as Error).message, nextIn === null ? null : Date.now() + nextIn, Date.now()).catch(this.log)
        this.changed()
        continue
      }
      await this.confirm(due.id, done)
      this.changed()
    }
  }

  /** It has been made: whatever happens, that is written down before anything else. */
  private async confirm(id: number, { words, result }: Done): Promise<void> {
    const at = Date.now()
    for (;;) {
      try {
        return await markSent(this.database, id, words, result ?? null, at)
      } catch (error) {
        this.log(error)
        // Without the database nothing else can be made either; while closing it is tried once more and left.
        if (this.closed) return
        await new Promise((resolve) => setTimeout(resolve, MARK_AGAIN_MS))
      }
    }
  }
}
