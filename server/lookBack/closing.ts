import { existsSync } from 'node:fs'
import { readdir, rm } from 'node:fs/promises'
import { writeWhole } from '../files.ts'
import { writeHour } from './hourFile.ts'
import { hourOf, hourPath, hoursOf, logPath, readHourOf, type HourOnDisk } from './hours.ts'
import { thinPictures } from './pictureFile.ts'

/**
 * Makes the file of an hour from its log. A crash in between leaves both, which are read as one and closed again at the
 * next start.
 */
export async function closeHour(folder: string, camera: string, hour: number): Promise<void> {
  // Asked twice, it is closed already.
  if (!existsSync(logPath(folder, camera, hour))) return
  const reported = await readHourOf(folder, camera, hour)
  if (reported.rows.length || reported.heard.length)
    await writeWhole(hourPath(folder, camera, hour), writeHour(reported))
  await thinPictures(folder, camera, hour, reported.rows)
  await rm(logPath(folder, camera, hour), { force: true })
}

/** The logs of hours that are over: of an end of the server in the middle of one. */
export async function openHours(
  folder: string,
  now: number
): Promise<{ camera: string; hour: number }[]> {
  const found: { camera: string; hour: number }[] = []
  for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => []))
    if (entry.isDirectory())
      for (const { hour, ending } of await hoursOf(folder, entry.name))
        if (ending === 'log' && hour < hourOf(now)) found.push({ camera: entry.name, hour })
  return found
}

/** How much of what is kept may stay. */
export interface KeepLimits {
  /** By camera; of one that is not named nothing stays. */
  days: ReadonlyMap<string, number>
  /** Cameras that share a number of bytes, such as those of a site. */
  shares: readonly { cameras: readonly string[]; bytes: number }[]
}

/** Takes away what is too old, and the oldest of what is too much. @returns how many files have gone */
export async function removeOld(folder: string, limits: KeepLimits, now: number): Promise<number> {
  const DAY = 86_400_000
  let removed = 0
  const remove = async (path: string): Promise<void> => {
    await rm(path, { force: true })
    removed++
  }
  for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => []))
    if (entry.isDirectory()) {
      const days = limits.days.get(entry.name) ?? 0
      for (const { hour, path } of await hoursOf(folder, entry.name))
        if (hour + 3_600_000 < now - days * DAY) await remove(path)
    }
  for (const { cameras, bytes } of limits.shares) {
    const files: HourOnDisk[] = []
    for (const camera of cameras) files.push(...(await hoursOf(folder, camera)))
    files.sort((a, b) => a.hour - b.hour)
    /** @returns what has gone */
    const removeOldest = async (
      list: readonly HourOnDisk[],
      most: number
    ): Promise<ReadonlySet<HourOnDisk>> => {
      const gone = new Set<HourOnDisk>()
      let over = list.reduce((sum, file) => sum + file.bytes, 0) - most
      for (const file of list) {
        // The running hour is being written to.
        if (over <= 0 || file.hour >= hourOf(now)) break
        await remove(file.path)
        gone.add(file)
        over -= file.bytes
      }
      return gone
    }
    // Pictures take no more than half: what was reported, on which everything rests, is small beside them.
    const pictures = await removeOldest(
      files.filter(({ ending }) => ending === 'tar'),
      bytes / 2
    )
    await removeOldest(
      files.filter((file) => !pictures.has(file)),
      bytes
    )
  }
  return removed
}
