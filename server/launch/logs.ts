import { start as msg } from '../../core/messages/en/codes/start.ts'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { pino, type Logger } from 'pino'
import { createStream } from 'rotating-file-stream'

/** The same again within this is counted, and said once with its count. */
const SAME_MS = 60_000
const FILE_SIZE = '10M'
const FILES = 5
/** Different things that are remembered as said. */
const MAX_REMEMBERED = 500

/**
 * The log: JSON lines with levels (as pino writes them), in files of 10 MB of which five are kept. What keeps going
 * wrong is written once a minute with how often it was, so that an outage of hours does not fill the disk.
 *
 * @param folder of the data
 */
export function makeLogger(
  folder: string,
  level = process.env.WARDOPTIC_LOG_LEVEL ?? 'info'
): { logger: Logger; close: () => Promise<void> } {
  const home = join(folder, 'logs')
  mkdirSync(home, { recursive: true })
  const file = createStream('wardoptic.log', { path: home, size: FILE_SIZE, maxFiles: FILES })
  // A disk that is full is said elsewhere; the log must not end the server.
  file.on('error', () => {})
  file.on('warning', () => {})
  const repeats = new Repeats(Date.now)
  const logger = pino(
    {
      level,
      base: null,
      formatters: { level: (label) => ({ level: label }) },
      timestamp: pino.stdTimeFunctions.isoTime,
      redact: ['req.headers.cookie', 'req.headers.authorization'],
      hooks: {
        logMethod(args, method, number) {
          const before = number >= 40 ? repeats.said(keyOf(args)) : 0
          if (before === null) return
          method.apply(this, args)
          if (before > 0)
            method.apply(this, [
              { repeated: before },
              msg.theSameBeforeNotWritten
            ] as unknown as typeof args)
        }
      }
    },
    file
  )
  return { logger, close: () => new Promise((resolve) => file.end(() => resolve())) }
}

const keyOf = ([first, second]: readonly unknown[]): string => {
  const error = first instanceof Error ? first : (first as { err?: Error } | null)?.err
  return String(error?.message ?? second ?? first).slice(0, 200)
}

/** What was said lately, and how often it was kept back since. */
export class Repeats {
  private readonly known = new Map<string, { at: number; times: number }>()
  private readonly now: () => number

  constructor(now: () => number) {
    this.now = now
  }

  /** @returns how often it was kept back before; null: it is kept back now */
  said(key: string): number | null {
    const now = this.now()
    const before = this.known.get(key)
    if (before && now - before.at < SAME_MS) {
      before.times++
      return null
    }
    this.known.delete(key)
    this.known.set(key, { at: now, times: 0 })
    const [oldest] = this.known.keys()
    if (this.known.size > MAX_REMEMBERED && oldest !== undefined) this.known.delete(oldest)
    return before?.times ?? 0
  }
}
