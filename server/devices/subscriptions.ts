import type { Database, Sql } from '../database.ts'
import { insertEvents } from './events.ts'
import type { DeviceEvent } from './link/events.ts'
import type { DeviceLink } from './link/link.ts'
import { Listener, type Subscription } from './listener.ts'
import { saveSubscription, type DeviceRow } from './queries.ts'

/** So many answers of devices are kept in one transaction at most, and so many transactions go on at a time. */
const TOGETHER = 8
const LANES = 4

/** An answer of a device that is still to be kept. */
interface Untaken {
  device: string
  events: DeviceEvent[]
  subscription: Subscription
  kept: () => void
  notKept: (error: unknown) => void
}

/** What it takes to reach a device, as a key to compare. A new password is sealed anew, so that it differs. */
const reachOf = ({ address, username, certificate, sealed }: DeviceRow): string =>
  JSON.stringify([address, username, certificate, sealed?.toString('hex')])

/** Listens to the devices: keeps what they say, tells whoever wants to know, and remembers how their contacts stand. */
export class EventSubscriptions {
  private readonly database: Database
  private readonly linkTo: (row: DeviceRow) => DeviceLink
  private readonly log: (error: unknown) => void
  private readonly listeners = new Map<string, { reach: string; listener: Listener }>()
  /** Listeners of devices that are gone. */
  private readonly closing = new Set<Promise<void>>()
  /** States of contacts as they were heard, by device and token. */
  private readonly contacts = new Map<string, Map<string, boolean>>()
  private readonly untaken: Untaken[] = []
  private lanes = 0
  private heardIn:
    ((sql: Sql, device: string, events: DeviceEvent[]) => Promise<() => void>) | null = null
  private readonly hearers = new Set<(device: string, events: DeviceEvent[]) => void>()
  private closed = false

  constructor(
    database: Database,
    linkTo: (row: DeviceRow) => DeviceLink,
    log: (error: unknown) => void
  ) {
    this.database = database
    this.linkTo = linkTo
    this.log = log
  }

  /** Tells of everything that devices say, as it is kept. @returns what ends the telling */
  hear(hearer: (device: string, events: DeviceEvent[]) => void): () => void {
    this.hearers.add(hearer)
    return () => void this.hearers.delete(hearer)
  }

  /**
   * Does something about what devices say in the transaction that keeps it.
   * @param work returns what follows once it is committed
   */
  whenHeard(work: (sql: Sql, device: string, events: DeviceEvent[]) => Promise<() => void>): void {
    this.heardIn = work
  }

  /** What a contact is, as it was heard last; null: it has not been heard of. */
  contact(device: string, token: string): boolean | null {
    return this.contacts.get(device)?.get(token) ?? null
  }

  contactsOf(device: string): ReadonlyMap<string, boolean> {
    return this.contacts.get(device) ?? new Map()
  }

  /** When a device last answered whoever listens to it; null: nobody listens. */
  heardAt(device: string): number | null {
    return this.listeners.get(device)?.listener.heardAt ?? null
  }

  /** Listens to a device that has been read: where, by which certificate and under which account it is known now. */
  async listenTo(row: DeviceRow): Promise<void> {
    const known = this.listeners.get(row.id)
    const reach = reachOf(row)
    if (this.closed || row.username === null || known?.reach === reach) return
    await known?.listener.close()
    const listener = new Listener(this.linkTo(row), row.subscription, (events, subscription) =>
      this.take(row.id, events, subscription)
    )
    this.listeners.set(row.id, { reach, listener })
  }

  /** Listens to a device no more, as it is removed. */
  forget(id: string): void {
    const known = this.listeners.get(id)
    this.listeners.delete(id)
    // Its events no longer matter, and unsubscribing is no reason to wait.
    if (!known) return
    const closing = known.listener
      .close(true)
      .catch(this.log)
      .finally(() => this.closing.delete(closing))
    this.closing.add(closing)
  }

  async close(): Promise<void> {
    this.closed = true
    await Promise.all([
      ...this.closing,
      ...[...this.listeners.values()].map(({ listener }) => listener.close())
    ])
  }

  private take(device: string, events: DeviceEvent[], subscription: Subscription): Promise<void> {
    for (const { rule, data } of events.filter((e) => e.topic.endsWith('/DigitalInput'))) {
      const states = this.contacts.get(device) ?? new Map<string, boolean>()
      this.contacts.set(device, states.set(rule, data.LogicalState === 'true'))
    }
    const happened = events.filter(({ initial }) => !initial)
    return new Promise((kept, notKept) => {
      this.untaken.push({ device, events: happened, subscription, kept, notKept })
      if (this.lanes < LANES) void this.takeAll()
    })
  }

  /**
   * Keeps what has come; what comes while all lanes are taken is kept together. When all cameras see the same rain, that is
   * fewer transactions, and connections stay free for answers to people.
   */
  private async takeAll(): Promise<void> {
    this.lanes++
    while (this.untaken.length) {
      const list = this.untaken.splice(0, TOGETHER)
      try {
        await this.takeTogether(list)
      } catch (error) {
        if (list.length === 1) list[0]!.notKept(error)
        // One of them may be of a device that was just removed: the others are kept without it.
        else for (const one of list) await this.takeTogether([one]).catch(one.notKept)
      }
    }
    this.lanes--
  }

  /** @throws what goes wrong; nothing of it is kept then */
  private async takeTogether(list: readonly Untaken[]): Promise<void> {
    const { heardIn } = this
    const committed = await this.database.transaction(async (sql) => {
      await insertEvents(
        sql,
        list.flatMap(({ device, events }) => events.map((event) => ({ device, event }))),
        Date.now()
      )
      const follows = []
      for (const { device, events, subscription } of list) {
        await saveSubscription(sql, device, subscription)
        follows.push(events.length && heardIn ? await heardIn(sql, device, events) : null)
      }
      return follows
    })
    for (const [place, { device, events, kept }] of list.entries()) {
      kept()
      // It is kept: what goes wrong from here on is no reason to take it again.
      try {
        committed[place]?.()
        if (events.length) for (const hearer of this.hearers) hearer(device, events)
      } catch (error) {
        this.log(error)
      }
    }
  }
}
