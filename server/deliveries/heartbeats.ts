import type { Said } from '../../core/messages/said.ts'
import { saidOfError } from '../../core/errors.ts'
import type { SiteActionsView } from '../../core/api.ts'
import { MAX_SEQUENCE } from '../../core/formats/dc09.ts'
import type { EndpointOf } from '../../core/formats/actions.ts'
import { readEndpoints } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import { siteIds } from '../sites/queries.ts'
import type { Reach } from '../reach.ts'
import { tellStation } from './station.ts'

const LOOK_MS = 2000

/** Ids have no space in them. */
const keyOf = (site: string, endpoint: string): string => `${site} ${endpoint}`

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

  /** Those of a site, by endpoint. */
  of(site: string): SiteActionsView['stations'] {
    const prefix = keyOf(site, '')
    return Object.fromEntries(
      [...this.states].flatMap(([key, state]) =>
        key.startsWith(prefix) ? [[key.slice(prefix.length), state] as const] : []
      )
    )
  }

  private async look(): Promise<void> {
    const stations = new Map<string, EndpointOf<'station'>>()
    for (const site of await siteIds(this.database))
      for (const { endpoint: e } of await readEndpoints(this.database, site))
        if ('heartbeatSeconds' in e && e.heartbeatSeconds > 0) stations.set(keyOf(site, e.id), e)
    for (const key of [...this.states.keys()]) if (!stations.has(key)) this.states.delete(key)
    const now = Date.now()
    await Promise.all(
      [...stations]
        .filter(([key, s]) => now - (this.beatAt.get(key) ?? 0) >= s.heartbeatSeconds * 1000)
        .map(([key, s]) => this.beat(key, s, now))
    )
  }

  private async beat(
    key: string,
    { host, port, account }: EndpointOf<'station'>,
    now: number
  ): Promise<void> {
    this.beatAt.set(key, now)
    const before = this.states.get(key)?.answeredAt ?? null
    this.sequence = (this.sequence % MAX_SEQUENCE) + 1
    try {
      await tellStation(this.reach('station', host, port), {
        id: 'NULL',
        sequence: this.sequence,
        account,
        data: '',
        at: null
      })
      this.states.set(key, { answeredAt: Date.now(), error: null })
    } catch (error) {
      this.states.set(key, { answeredAt: before, error: saidOfError(error) })
    }
  }
}
