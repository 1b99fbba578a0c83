import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { readMeasures, type Measures } from '../core/measures/measures.ts'
import type { Play } from '../simulation/script.ts'

const root = fileURLToPath(new URL('..', import.meta.url))

/** @param isAwaited somebody waits for it @throws Error when it could not be done, AbortError when all ends */
export type Measurer = (play: Play, isAwaited?: boolean) => Promise<Measures>

/**
 * Measures what a play's painted pictures show, in a process of its own, and keeps it in a folder: a scene that repeats
 * is measured once. One at a time, with little right to the machine; what somebody waits for is begun at once, with as
 * much right to it as all else has.
 *
 * @param ended ends what is being measured
 */
export function measurerOf(folder: string, ended: AbortSignal): Measurer {
  let last: Promise<unknown> = Promise.resolve()
  const running = new Map<string, Promise<Measures>>()
  return (play, isAwaited = false) => {
    const text = JSON.stringify(play)
    const name = createHash('sha256').update(text).digest('hex').slice(0, 24)
    const key = isAwaited ? `${name}.awaited` : name
    const measure = async (): Promise<Measures> => {
      ended.throwIfAborted()
      const file = join(folder, `${name}.bin`)
      if (!existsSync(file)) {
        mkdirSync(folder, { recursive: true })
        const input = join(folder, `${key}.json`)
        const part = join(folder, `${key}.part`)
        writeFileSync(input, text)
        await promisify(execFile)(
          'nice',
          [
            '-n',
            isAwaited ? '0' : '15',
            process.execPath,
            join(root, 'scripts/run.mjs'),
            'simulators/measure.ts',
            input,
            part
          ],
          { cwd: root, signal: ended }
        ).catch((error: Error & { signal?: string }) => {
          // Ctrl-C reaches the whole group, and this one before it is told that all ends.
          throw error.signal === 'SIGINT' ? new DOMException(error.message, 'AbortError') : error
        })
        renameSync(part, file)
      }
      return readMeasures(readFileSync(file))
    }
    const known = running.get(key)
    if (known) return known
    const work = isAwaited ? measure() : last.catch(() => {}).then(measure)
    if (!isAwaited) last = work
    running.set(key, work)
    return work
  }
}
