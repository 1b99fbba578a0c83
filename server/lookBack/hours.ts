import { open, readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { readLog } from '../../core/lookBack/hourLog.ts'
import {
  countTens,
  joinStays,
  mergeRows,
  rowsWithin,
  staysWithin,
  type Reported,
  type TensCount
} from '../../core/lookBack/rows.ts'
import { readFooter, readHour, type HourFooter } from './hourFile.ts'

/** What cameras have reported, on the disk: a folder for each camera, in it a file for each hour (UTC). */

export const HOUR_MS = 3_600_000
/** Two stretches of listening are one when no more than this is between them: an hour's log ends with its last record. */
const APART_MS = 15_000

export const hourOf = (instant: number): number => Math.floor(instant / HOUR_MS) * HOUR_MS

/** `2026-11-24T10Z`: in order of name they are in order of time. */
export const hourName = (hour: number): string => `${new Date(hour).toISOString().slice(0, 13)}Z`

/** What is being written, what is closed, and its pictures. */
export type HourEnding = 'log' | 'parquet' | 'tar'

/** The hour of a file's name; null: it is none of ours. */
export function hourOfName(name: string): { hour: number; ending: HourEnding } | null {
  const match = /^(\d{4}-\d\d-\d\dT\d\d)Z\.(log|parquet|tar)$/.exec(name)
  const hour = match ? Date.parse(`${match[1]}:00:00Z`) : NaN
  return Number.isNaN(hour) ? null : { hour, ending: match![2] as HourEnding }
}

export const logPath = (folder: string, camera: string, hour: number): string =>
  join(folder, camera, `${hourName(hour)}.log`)
export const hourPath = (folder: string, camera: string, hour: number): string =>
  join(folder, camera, `${hourName(hour)}.parquet`)
export const picturesPath = (folder: string, camera: string, hour: number): string =>
  join(folder, camera, `${hourName(hour)}.tar`)

export interface HourOnDisk {
  hour: number
  ending: HourEnding
  path: string
  bytes: number
}

/** The files of one camera, oldest first. */
export async function hoursOf(folder: string, camera: string): Promise<HourOnDisk[]> {
  const home = join(folder, camera)
  const found: HourOnDisk[] = []
  for (const name of (await readdir(home).catch(() => [])).sort()) {
    const known = hourOfName(name)
    if (!known) continue
    const path = join(home, name)
    const bytes = await stat(path).catch(() => null)
    if (bytes) found.push({ ...known, path, bytes: bytes.size })
  }
  return found
}

const missing = (error: NodeJS.ErrnoException): null => {
  // Closed, or too old, since it was looked for.
  if (error.code === 'ENOENT') return null
  throw error
}

/** Everything of an hour: its file, its log, or both where it was closed just now or went on afterwards. */
export async function readHourOf(folder: string, camera: string, hour: number): Promise<Reported> {
  // The log first: what is closed in between is found in the file.
  const log = await readFile(logPath(folder, camera, hour)).catch(missing)
  const file = await readFile(hourPath(folder, camera, hour)).catch(missing)
  const parts = [...(file ? [await readHour(file)] : []), ...(log ? [readLog(log)] : [])]
  return {
    rows: mergeRows(parts.map(({ rows }) => rows)),
    heard: joinStays(parts.flatMap(({ heard }) => heard))
  }
}

/** What a camera reported from one instant to another, the end not in it. */
export async function readRange(
  folder: string,
  camera: string,
  from: number,
  to: number
): Promise<Reported> {
  const parts: Reported[] = []
  for (const hour of await hoursBetween(folder, camera, from, to))
    parts.push(await readHourOf(folder, camera, hour))
  return {
    rows: rowsWithin(mergeRows(parts.map(({ rows }) => rows)), from, to),
    heard: staysWithin(
      joinStays(
        parts.flatMap(({ heard }) => heard),
        APART_MS
      ),
      from,
      to
    )
  }
}

/** The hours of which there is something, in order. */
export async function hoursBetween(
  folder: string,
  camera: string,
  from: number,
  to: number
): Promise<number[]> {
  const hours = (await hoursOf(folder, camera)).map(({ hour }) => hour)
  return [...new Set(hours)].filter((hour) => hour + HOUR_MS > from && hour < to)
}

/** Enough of a file's end for its footer. */
const FOOTER_BYTES = 16_384

async function footerOf({ path, bytes }: HourOnDisk): Promise<HourFooter | null> {
  const file = await open(path).catch(missing)
  if (!file) return null
  try {
    for (let size = Math.min(FOOTER_BYTES, bytes); ; size = Math.min(8 * size, bytes)) {
      const end = new Uint8Array(size)
      await file.read(end, 0, size, bytes - size)
      try {
        return readFooter(end)
      } catch (error) {
        if (size === bytes) throw error
      }
    }
  } finally {
    await file.close()
  }
}

/** How many targets there were in each ten minutes, and when the camera was listened to. */
export interface Strip {
  tens: TensCount
  heard: [from: number, to: number][]
}

/** Reads the footers of closed hours alone, and the log of the running one. */
export async function readStrip(
  folder: string,
  camera: string,
  from: number,
  to: number
): Promise<Strip> {
  const tens: TensCount = new Map()
  const heard: [number, number][] = []
  for (const file of await hoursOf(folder, camera)) {
    if (file.ending === 'tar' || file.hour + HOUR_MS <= from || file.hour >= to) continue
    const part =
      file.ending === 'parquet'
        ? await footerOf(file)
        : await logAsFooter(folder, camera, file.hour)
    if (!part) continue
    heard.push(...part.heard.map(([a, b]): [number, number] => [a, b]))
    for (const [ten, counts] of part.tens) {
      const sum = tens.get(ten)
      tens.set(ten, sum ? sum.map((n, i) => n + counts[i]!) : counts)
    }
  }
  return {
    tens,
    heard: staysWithin(joinStays(heard, APART_MS), from, to).map(([a, b]) => [a, b])
  }
}

async function logAsFooter(
  folder: string,
  camera: string,
  hour: number
): Promise<Omit<HourFooter, 'rows'> | null> {
  const log = await readFile(logPath(folder, camera, hour)).catch(missing)
  if (!log) return null
  const { rows, heard } = readLog(log)
  return { heard, tens: countTens(rows) }
}
