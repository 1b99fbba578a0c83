import { readdir, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import type { Retention, RetentionView } from '../../core/retention.ts'
import { readSettings } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import type { Leftovers } from '../files.ts'
import { freeBytes } from '../space.ts'
import {
  countAll,
  deleteOldAlarms,
  deleteOldAudit,
  deleteOldEdits,
  deleteOldEvents,
  retentionHome,
  forgetFiles,
  ofClosed
} from './queries.ts'

const DAY = 24 * 60 * 60_000
const GIGABYTE = 1e9
const LOOK_MS = 10 * 60_000
/** Rows, and alarms, that go in one step; between two steps others get on. */
const ROWS = 500
const ALARMS = 20
const PAUSE_MS = 40

/** What one delivery or trigger has left on the disk. */
interface Left {
  what: 'delivery' | 'trigger'
  id: number
  path: string
  bytes: number
  at: number
}

/**
 * Takes away what is older than the site wants it kept, or more than it wants kept; in small steps,
 * and never what an open alarm needs.
 */
export class RetentionKeeper {
  private readonly database: Database
  /** Of what deliveries left; below it `triggers`, of evidence. */
  private readonly folder: string
  private readonly leftovers: Leftovers
  private readonly log: (error: unknown) => void
  private readonly now: () => number
  private timer: NodeJS.Timeout | undefined
  private working: Promise<void> = Promise.resolve()
  private closed = false
  private last: RetentionView['last'] = null

  constructor(
    database: Database,
    folder: string,
    leftovers: Leftovers,
    log: (error: unknown) => void,
    now: () => number = Date.now
  ) {
    this.database = database
    this.folder = folder
    this.leftovers = leftovers
    this.log = log
    this.now = now
  }

  start(): void {
    this.timer = setInterval(
      () =>
        void (this.working = this.working
          .then(async () => void (await this.look()))
          .catch(this.log)),
      LOOK_MS
    )
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    await this.working
  }

  async view(): Promise<Pick<RetentionView, 'now' | 'last'>> {
    const [counts, files, free] = await Promise.all([
      countAll(this.database),
      this.files(),
      freeBytes(dirname(this.folder)).catch(() => 0)
    ])
    return {
      now: {
        ...counts,
        evidenceBytes: files.reduce((sum, f) => sum + f.bytes, 0),
        freeBytes: free
      },
      last: this.last
    }
  }

  /** Goes through everything once. @returns how many rows and files have gone */
  async look(): Promise<number> {
    if (this.closed) return 0
    const home = await retentionHome(this.database)
    const { retention } = (await readSettings(this.database, home)).retention
    const removed = (await this.rows(retention)) + (await this.size(retention))
    if (removed) this.last = { at: this.now(), removed }
    return removed
  }

  private async rows({ eventDays, alarmDays, editDays, auditDays }: Retention): Promise<number> {
    const before = (days: number): number => this.now() - days * DAY
    let removed = 0
    const steps = [
      () => deleteOldEvents(this.database, before(eventDays), ROWS),
      () => deleteOldAudit(this.database, before(auditDays), ROWS),
      () => deleteOldEdits(this.database, before(editDays), ROWS),
      async () => {
        const { alarms, triggers, deliveries } = await deleteOldAlarms(
          this.database,
          before(alarmDays),
          ALARMS
        )
        for (const id of deliveries) await this.leftovers.remove(join(this.folder, String(id)))
        for (const id of triggers)
          for (const ending of ['json', 'jpg'])
            await this.leftovers.remove(join(this.folder, 'triggers', `${id}.${ending}`))
        return alarms
      }
    ]
    for (const step of steps)
      while (!this.closed) {
        const gone = await step()
        removed += gone
        if (!gone) break
        await wait(PAUSE_MS)
      }
    return removed
  }

  /** The oldest files of closed alarms go until there is room. */
  private async size({ evidenceGigabytes }: Retention): Promise<number> {
    const files = (await this.files()).sort((a, b) => a.at - b.at)
    let over = files.reduce((sum, f) => sum + f.bytes, 0) - evidenceGigabytes * GIGABYTE
    let removed = 0
    for (let i = 0; i < files.length && over > 0 && !this.closed; i += ROWS) {
      const some = files.slice(i, i + ROWS)
      for (const what of ['delivery', 'trigger'] as const) {
        const own = some.filter((f) => f.what === what)
        if (!own.length) continue
        const may = await ofClosed(
          this.database,
          what,
          own.map(({ id }) => id)
        )
        for (const file of own) {
          if (over <= 0) break
          if (!may.has(file.id)) continue
          await this.leftovers.remove(file.path)
          if (what === 'delivery') await forgetFiles(this.database, file.id)
          over -= file.bytes
          removed++
        }
      }
      await wait(PAUSE_MS)
    }
    return removed
  }

  private async files(): Promise<Left[]> {
    const left: Left[] = []
    for (const entry of await readdir(this.folder, { withFileTypes: true }).catch(() => [])) {
      if (!entry.isDirectory() || !/^\d+$/.test(entry.name)) continue
      const home = join(this.folder, entry.name)
      let [bytes, at] = [0, 0]
      for (const name of await readdir(home).catch(() => [])) {
        const known = await stat(join(home, name)).catch(() => null)
        bytes += known?.size ?? 0
        at = Math.max(at, known?.mtimeMs ?? 0)
      }
      left.push({ what: 'delivery', id: Number(entry.name), path: home, bytes, at })
    }
    const triggers = join(this.folder, 'triggers')
    for (const name of await readdir(triggers).catch(() => [])) {
      const known = await stat(join(triggers, name)).catch(() => null)
      const id = /^(\d+)\.\w+$/.exec(name)
      if (known && id)
        left.push({
          what: 'trigger',
          id: Number(id[1]),
          path: join(triggers, name),
          bytes: known.size,
          at: known.mtimeMs
        })
    }
    return left
  }
}
