import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { Database } from '../database.ts'
import { deliveryKind, pauseAfter } from './kinds.ts'
import type { Done } from './kinds/kind.ts'
import {
  MAX_READ,
  dueEndpoints,
  listDue,
  markFailed,
  markSent,
  readDue,
  type DueDelivery,
  type Made
} from './queries.ts'
import { Refused } from './refused.ts'

/** Makes a delivery. Ends with a confirmation, or throws what was wrong. */
export type Send = (due: DueDelivery) => Promise<Done>

const POLL_MS = 500
const MARK_AGAIN_MS = 500
const GATHER_MS = 5
const CONFIRMED_TOGETHER = 100

/**
 * Makes the deliveries of triggers, from the table in which they stand: after an end of the server,
 * however it came, it goes on where it was. What has been confirmed is never made again; a failed one is tried again
 * after growing pauses and given up visibly. Each endpoint has places of its own: one that does not answer holds up no
 * other one.
 */
export class Queue {
  private readonly database: Database
  private readonly send: Send
  private readonly log: (error: unknown) => void
  private readonly changed: () => void
  /** Of each endpoint, by its id, those that are being made now. */
  private readonly making = new Map<string, Map<number, Promise<void>>>()
  private readonly unconfirmed: { made: Made; resolve: () => void }[] = []
  private isConfirming = false
  private timer: NodeJS.Timeout | undefined
  private looking: Promise<void> | null = null
  private again = false
  private closed = false

  /** @param changed a delivery has made progress */
  constructor(database: Database, send: Send, changed: () => void, log: (error: unknown) => void) {
    this.database = database
    this.send = send
    this.changed = changed
    this.log = log
  }

  start(): void {
    this.timer = setInterval(() => this.wake(), POLL_MS)
    this.wake()
  }

  /** Something may be due. */
  wake(): void {
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
    await Promise.all([...this.making.values()].flatMap((m) => [...m.values()]))
  }

  private async look(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false
      const endpoints = await dueEndpoints(this.database, Date.now())
      await Promise.all(endpoints.map((endpoint) => this.fill(endpoint)))
      // Under load many end at about the same time: they are followed by one look.
      if (this.again) await new Promise((resolve) => setTimeout(resolve, GATHER_MS))
    }
  }

  /** Takes what is due of an endpoint for as many places as are free. */
  private async fill(endpoint: string): Promise<void> {
    const making = this.making.get(endpoint) ?? new Map<number, Promise<void>>()
    // What is made now may have been made by the time that the table has been read; it is passed over all the same.
    const begun = new Set(making.keys())
    const due = (await listDue(this.database, endpoint, Date.now(), begun.size + MAX_READ))
      .filter((id) => !begun.has(id))
      .slice(0, MAX_READ)
    for (const one of due.length ? await readDue(this.database, due, Date.now()) : []) {
      if (this.closed || making.size >= deliveryKind(one.endpoint.kind).atOnce) break
      this.making.set(endpoint, making)
      const work = this.make(one).finally(() => {
        making.delete(one.id)
        if (!making.size) this.making.delete(endpoint)
        // There may be more of it by now.
        this.wake()
      })
      making.set(one.id, work)
    }
  }

  private async make(due: DueDelivery): Promise<void> {
    if (this.closed) return
    const begun = Date.now()
    let done: Done
    try {
      if (due.by === 'camera') throw new Refused(said('deliveries.cameraSilent'))
      done = await this.send(due)
    } catch (error) {
      const nextIn =
        error instanceof Refused ? null : pauseAfter(due.endpoint.kind, due.attempts + 1)
      await markFailed(
        this.database,
        due.id,
        saidOfError(error),
        nextIn === null ? null : Date.now() + nextIn,
        begun,
        Date.now()
      ).catch(this.log)
      this.changed()
      return
    }
    const { outcome, result = null } = done
    await this.confirm({ id: due.id, outcome, result, begun, at: Date.now() })
    this.changed()
  }

  /** It has been made: whatever happens, that is written down before anything else. */
  private confirm(made: Made): Promise<void> {
    return new Promise((resolve) => {
      this.unconfirmed.push({ made, resolve })
      if (!this.isConfirming) void this.confirmAll()
    })
  }

  /** Those that are made while others are being written down are written down together. */
  private async confirmAll(): Promise<void> {
    this.isConfirming = true
    let together = CONFIRMED_TOGETHER
    while (this.unconfirmed.length) {
      const some = this.unconfirmed.splice(0, together)
      try {
        await markSent(
          this.database,
          some.map(({ made }) => made)
        )
        together = CONFIRMED_TOGETHER
      } catch (error) {
        this.log(error)
        // Without the database nothing else can be made either; while closing it is tried once more and left.
        if (!this.closed) {
          this.unconfirmed.push(...some)
          // One that cannot be written down holds up none of the others.
          together = 1
          await new Promise((resolve) => setTimeout(resolve, MARK_AGAIN_MS))
          continue
        }
      }
      for (const { resolve } of some) resolve()
    }
    // At once: whoever comes from here on begins anew.
    this.isConfirming = false
  }
}
