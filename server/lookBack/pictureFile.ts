import { createReadStream } from 'node:fs'
import { appendFile, mkdir, rm, stat, truncate } from 'node:fs/promises'
import { dirname } from 'node:path'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { extract, pack } from 'tar-stream'
import { picturesToKeep } from '../../core/lookBack/pictures.ts'
import { LOOK_BACK_FPS, tracksOf, type ReportedColumns } from '../../core/lookBack/rows.ts'
import { writeWhole } from '../files.ts'
import { hourOf, hoursBetween, picturesPath } from './hours.ts'

/**
 * The small pictures of an hour: a tar archive, each entry a JPEG that is named by its instant. It is appended to, so that
 * the two empty blocks at its end are left out, without which readers do; what a crash has torn is cut off.
 *
 * Source of the format: POSIX.1-2001, pax, *ustar Interchange Format*: blocks of 512 bytes, a header before each entry.
 */
const BLOCK = 512

export interface SmallPicture {
  /** Milliseconds of UTC. */
  at: number
  jpeg: Buffer
}

/** `2026-11-24T10-03-12.345Z.jpg` */
const nameOf = (at: number): string => `${new Date(at).toISOString().replaceAll(':', '-')}.jpg`

/** The instant of a name; null: it is none of ours. */
function instantOf(name: string): number | null {
  const match = /^(\d{4}-\d\d-\d\dT\d\d)-(\d\d)-(\d\d\.\d{3}Z)\.jpg$/.exec(name)
  const at = match ? Date.parse(match.slice(1).join(':')) : NaN
  return Number.isNaN(at) ? null : at
}

async function archive(pictures: readonly SmallPicture[]): Promise<Buffer> {
  const tar = pack()
  for (const { at, jpeg } of pictures) tar.entry({ name: nameOf(at), mtime: new Date(at) }, jpeg)
  tar.finalize()
  const whole = await buffer(Readable.from(tar))
  return whole.subarray(0, whole.length - 2 * BLOCK)
}

/** The pictures of an archive as far as it is whole, each with the place where it ends. */
async function* picturesOf(path: string): AsyncGenerator<SmallPicture & { end: number }> {
  const tar = extract()
  const file = createReadStream(path)
  file.on('error', (error) => tar.destroy(error))
  file.pipe(tar)
  let end = 0
  try {
    for await (const entry of tar) {
      const jpeg = await buffer(Readable.from(entry))
      const { name, size = 0 } = entry.header
      if (jpeg.length !== size) return
      end += BLOCK + Math.ceil(size / BLOCK) * BLOCK
      const at = instantOf(name)
      if (at !== null) yield { at, jpeg, end }
    }
  } catch (error) {
    // Torn by a crash, or gone since it was looked for: that was all.
    if (isTorn(error) || (error as NodeJS.ErrnoException).code === 'ENOENT') return
    throw error
  } finally {
    file.destroy()
  }
}

const isTorn = (error: unknown): boolean =>
  error instanceof Error && /Unexpected end of data|Invalid tar header/.test(error.message)

/** Writes the pictures of running hours, one after the other; each hour's archive is looked at once for a torn end. */
export class PictureWriter {
  private readonly folder: string
  private readonly whole = new Set<string>()
  private writing: Promise<void> = Promise.resolve()

  constructor(folder: string) {
    this.folder = folder
  }

  /** @throws Error when the disk does not take it */
  add(camera: string, picture: SmallPicture): Promise<void> {
    const written = this.writing.then(() => this.append(camera, picture))
    this.writing = written.catch(() => {})
    return written
  }

  /** What was given to it is on the disk. */
  done(): Promise<void> {
    return this.writing
  }

  private async append(camera: string, picture: SmallPicture): Promise<void> {
    const path = picturesPath(this.folder, camera, hourOf(picture.at))
    if (!this.whole.has(path)) {
      await mkdir(dirname(path), { recursive: true })
      await cutTorn(path)
      this.whole.add(path)
    }
    try {
      await appendFile(path, await archive([picture]))
    } catch (error) {
      // Half of it may be there.
      this.whole.delete(path)
      throw error
    }
  }
}

async function cutTorn(path: string): Promise<void> {
  const size = (await stat(path).catch(() => null))?.size ?? 0
  if (!size) return
  let whole = 0
  // One that lacks only the filling of its last block is read, but nothing can come after it.
  for await (const { end } of picturesOf(path)) if (end <= size) whole = end
  if (whole < size) await truncate(path, whole)
}

/** The pictures from one instant to another, the end not in it; in order. */
export async function readPictures(
  folder: string,
  camera: string,
  from: number,
  to: number
): Promise<SmallPicture[]> {
  const found = new Map<number, SmallPicture>()
  for (const hour of await hoursBetween(folder, camera, from, to))
    for await (const { at, jpeg } of picturesOf(picturesPath(folder, camera, hour)))
      if (at >= from && at < to) found.set(at, { at, jpeg })
  return [...found.values()].sort((a, b) => a.at - b.at)
}

/** The picture of an instant; null: there is none. */
export async function readPicture(
  folder: string,
  camera: string,
  instant: number
): Promise<Buffer | null> {
  for await (const { at, jpeg } of picturesOf(picturesPath(folder, camera, hourOf(instant))))
    if (at === instant) return jpeg
  return null
}

/** Of an hour that is over only what is worth keeping stays: a target of which several were taken has its largest. */
export async function thinPictures(
  folder: string,
  camera: string,
  hour: number,
  rows: ReportedColumns
): Promise<void> {
  const path = picturesPath(folder, camera, hour)
  const all: SmallPicture[] = []
  for await (const { at, jpeg } of picturesOf(path)) all.push({ at, jpeg })
  if (!all.length) return rm(path, { force: true })
  all.sort((a, b) => a.at - b.at)
  const keep = picturesToKeep(
    tracksOf(rows, hour, LOOK_BACK_FPS),
    hour,
    all.map(({ at }) => at)
  )
  await writeWhole(path, await archive(all.filter(({ at }) => keep.has(at))))
}
