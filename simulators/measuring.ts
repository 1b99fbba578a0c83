import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { readMeasures, type Measures } from '../core/measures/measures.ts'
import type { Play } from '../simulation/script.ts'

const root = fileURLToPath(new URL('..', import.meta.url))

/**
 * Measures what a play's painted pictures show, in a process of its own with little right to the machine, and keeps it
 * in a folder: a scene that repeats is measured once. One at a time.
 *
 * @param ended ends what is being measured
 */
export function measurerOf(folder: string, ended: AbortSignal): (play: Play) => Promise<Measures> {
  let last: Promise<unknown> = Promise.resolve()
  const running = new Map<string, Promise<Measures>>()
  return (play) => {
    const text = JSON.stringify(play)
    const name = createHash('sha256').update(text).digest('hex').slice(0, 24)
    const measure = async (): Promise<Measures> => {
      ended.throwIfAborted()
      const file = join(folder, `${name}.bin`)
      if (!existsSync(file)) {
        mkdirSync(folder, { recursive: true })
        const input = join(folder, `${name}.json`)
        writeFileSync(input, text)
        await promisify(execFile)(
          'nice',
          [
            '-n',
            '15',
            process.execPath,
            join(root, 'scripts/run.mjs'),
            'simulators/measure.ts',
            input,
            `${file}.part`
          ],
          { cwd: root, signal: ended }
        ).catch((error: Error & { signal?: string }) => {
          // Ctrl-C reaches the whole group, and this one before it is told that all ends.
          throw error.signal === 'SIGINT' ? new DOMException(error.message, 'AbortError') : error
        })
        renameSync(`${file}.part`, file)
      }
      return readMeasures(readFileSync(file))
    }
    const known = running.get(name)
    if (known) return known
    const work = last.catch(() => {}).then(measure)
    last = work
    running.set(name, work)
    return work
  }
}
