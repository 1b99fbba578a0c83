import { said } from '../../core/messages/said.ts'
import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { UsageError } from '../../core/cli/options.ts'

/** What is known of an application that runs over a data folder. */
export interface Running {
  pid: number
  /** Where it can be opened; left out: it is still starting. */
  address?: string
  /** Port of the database that it has started; left out: it has started none. */
  databasePort?: number
}

const fileOf = (folder: string): string => join(folder, 'running.json')

/**
 * Who runs over a data folder now; null: nobody. A file that is empty or cut is of somebody who was
 * cut off as well.
 */
export function whoRuns(folder: string): Running | null {
  const file = fileOf(folder)
  if (!existsSync(file)) return null
  let found: Partial<Running>
  try {
    found = JSON.parse(readFileSync(file, 'utf8')) as Partial<Running>
  } catch {
    return null
  }
  const { pid } = found ?? {}
  if (typeof pid !== 'number' || !Number.isInteger(pid) || pid < 2 || pid === process.pid)
    return null
  try {
    process.kill(pid, 0)
  } catch {
    return null
  }
  // The number may have been given to another program since.
  const command = `/proc/${pid}/cmdline`
  if (existsSync(command) && !readFileSync(command, 'utf8').includes('start.mjs')) return null
  return { ...found, pid }
}

/** Written beside and put in its place: whoever reads finds one of the two whole. */
function write(folder: string, running: Running): void {
  const file = fileOf(folder)
  writeFileSync(`${file}.part`, JSON.stringify(running))
  renameSync(`${file}.part`, file)
}

/**
 * One application per data folder.
 * @returns says more of this one, and lets go of the folder
 * @throws UsageError that says where the other one is
 */
export function takeFolder(folder: string): {
  say: (more: Omit<Running, 'pid'>) => void
  release: () => void
} {
  const other = whoRuns(folder)
  if (other)
    throw new UsageError(said('start.wardopticIsRunningAlreadyWith', folder, other.address))
  write(folder, { pid: process.pid })
  return {
    say: (more) => write(folder, { pid: process.pid, ...more }),
    release: () => rmSync(fileOf(folder), { force: true })
  }
}
