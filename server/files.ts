import { randomUUID } from 'node:crypto'
import { rename, rm, writeFile } from 'node:fs/promises'
import type { Database } from './database.ts'

const AGAIN_MS = 3000

/**
 * Takes files away that nothing names any more; later, where a backup is being made. What is left
 * of them at an end of the server is taken away at the next start.
 */
export class Leftovers {
  private readonly database: Database
  private readonly log: (error: unknown) => void
  private readonly paths = new Set<string>()
  private timer: NodeJS.Timeout | undefined
  private working: Promise<void> = Promise.resolve()
  private closed = false

  constructor(database: Database, log: (error: unknown) => void) {
    this.database = database
    this.log = log
  }

  /** @param path a file or a folder with all that is in it */
  async remove(path: string): Promise<void> {
    this.paths.add(path)
    await (this.working = this.working.then(() => this.look()))
  }

  async close(): Promise<void> {
    this.closed = true
    clearTimeout(this.timer)
    await this.working
  }

  private async look(): Promise<void> {
    try {
      if (await this.database.isBackedUp()) return this.later()
      for (const path of this.paths) {
        await rm(path, { recursive: true, force: true })
        this.paths.delete(path)
      }
    } catch (error) {
      this.log(error)
      this.later()
    }
  }

  private later(): void {
    if (this.closed) return
    clearTimeout(this.timer)
    this.timer = setTimeout(() => {
      this.working = this.working.then(() => this.look())
    }, AGAIN_MS)
  }
}

/** Writes a file so that whoever reads it finds it whole or as it was before. */
export async function writeWhole(file: string, content: string | Uint8Array): Promise<void> {
  const part = `${file}.${randomUUID().slice(0, 8)}.part`
  try {
    await writeFile(part, content)
    await rename(part, file)
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
}
