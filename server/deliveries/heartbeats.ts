import type { Said } from '../../core/messages/said.ts'
import { saidOfError } from '../../core/errors.ts'
import type { SiteActionsView } from '../../core/api.ts'
import { MAX_SEQUENCE } from '../../core/formats/dc09.ts'
import type { EndpointOf } from '../../core/formats/actions.ts'
import { readEndpoints } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import { readSite } from '../sites/queries.ts'
import type { Reach } from '../reach.ts'
import { tellStation } from './station.ts'

const LOOK_MS = 2000

/** Tells monitoring stations that the site is there, as often as each wants to know. */
export class Heartbeats {
  private readonly database: Database
  private readonly reach: Reach
  private readonly log: (error: unknown) => void
  private readonly states = new Map<
    string,
    { answeredAt: number | null; error: Said | string | null }
  >()
  private readonly beatAt = new Map<string, number>()
  private sequence = 0
  private timer: NodeJS.Timeout | undefined
  private working: Promise<unknown> = Promise.resolve()

  constructor(database: Database, reach: Reach, log: (error: unknown) => void) {
    this.database = database
    this.reach = reach
    this.log = log
  }

  start(): void {
    this.timer = setInterval(() => void (this.working = this.look().catch(this.log)), LOOK_MS)
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    await this.working
  }

  /** By endpoint. */
  get all(): SiteActionsView['stations'] {
    return Object.fromEntries(this.states)
  }

  private async look(): Promise<void> {
    const site = await readSite(this.database)
    if (!site) return
    const stations = (await readEndpoints(this.database, site.id))
      .map(({ endpoint }) => endpoint)
      .filter((e): e is EndpointOf<'station'> => 'heartbeatSeconds' in e && e.heartbeatSeconds > 0)
    for (const id of [...this.states.keys()])
      if (!stations.some((s) => s.id === id)) this.states.delete(id)
    const now = Date.now()
    await Promise.all(
      stations
        .filter((s) => now - (this.beatAt.get(s.id) ?? 0) >= s.heartbeatSeconds * 1000)
        .map((s) => this.beat(s, now))
    )
  }

  private async beat(
    { id, host, port, account }: EndpointOf<'station'>,
    now: number
  ): Promise<void> {
    this.beatAt.set(id, now)
    const before = this.states.get(id)?.answeredAt ?? null
    this.sequence = (this.sequence % MAX_SEQUENCE) + 1
    try {
      await tellStation(this.reach('station', host, port), {
        id: 'NULL',
        sequence: this.sequence,
        account,
        data: '',
        at: null
      })
      this.states.set(id, { answeredAt: Date.now(), error: null })
    } catch (error) {
      this.states.set(id, { answeredAt: before, error: saidOfError(error) })
    }
  }
}
