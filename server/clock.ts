import { errorWords } from '../core/messages/errorWords.ts'
import { server as msg } from '../core/messages/en/codes/server.ts'
import type { Database } from './database.ts'

const LOOK_MS = 1000
/** Smaller steps are ordinary clock corrections. */
const JUMP_MS = 2000

/** Both clocks of the machine: wall time, which somebody may set, and the monotonic clock. */
export interface Clocks {
  wall(): number
  steady(): number
}

const machine: Clocks = { wall: Date.now, steady: () => performance.now() }

/**
 * Notices that the machine's clock was set. Set back, what waits for a moment would wait for as long again: deliveries
 * that are put off are moved along with it.
 */
export class ClockWatch {
  private readonly database: Database
  private readonly say: (words: string) => void
  private readonly clocks: Clocks
  private ahead: number
  private timer: NodeJS.Timeout | undefined
  private working: Promise<unknown> = Promise.resolve()

  /** @param say the log */
  constructor(database: Database, say: (words: string) => void, clocks: Clocks = machine) {
    this.database = database
    this.say = say
    this.clocks = clocks
    this.ahead = clocks.wall() - clocks.steady()
  }

  start(): void {
    this.timer = setInterval(
      () => void (this.working = this.look().catch((error: Error) => this.say(errorWords(error)))),
      LOOK_MS
    )
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    await this.working
  }

  async look(): Promise<void> {
    const ahead = this.clocks.wall() - this.clocks.steady()
    const jump = ahead - this.ahead
    if (Math.abs(jump) < JUMP_MS) return
    this.ahead = ahead
    this.say(msg.theMachinesClockWasSet(jump, (Math.abs(jump) / 1000).toFixed(0)))
    if (jump < 0)
      await this.database.run("UPDATE delivery SET next_at = next_at - ? WHERE state = 'pending'", [
        Math.round(-jump)
      ])
  }
}
