import { stat } from 'node:fs/promises'
import { makeFilm, type Film, type Still } from '../../analysis/still.ts'
import { probe } from '../../analysis/probe.ts'
import { InputError } from '../../core/errors.ts'
import { writeFaces } from '../../core/formats/faces.ts'
import { writeMot } from '../../core/formats/mot.ts'
import { said } from '../../core/messages/said.ts'
import { spansOf, type Tracks } from '../../core/targets/tracks.ts'
import { writeWhole } from '../files.ts'

/** A stretch of time, ms of UTC. */
export interface Stretch {
  from: number
  to: number
}

/** What cameras have reported, and how they looked. */
export interface Reports {
  /** Null: the camera was not listened to at any time of it. Boxes are shares of the picture. */
  tracks(camera: string, stretch: Stretch): Promise<Tracks | null>
  /** What is kept of how the camera looked, or how it looks now; none: nothing shows it. */
  stills(camera: string, stretch: Stretch): Promise<Still[]>
  /** What was recorded of the camera then. */
  films(camera: string, stretch: Stretch): Promise<Film[]>
}

/** Of a process that keeps none. */
export const NO_REPORTS: Reports = {
  tracks: () => Promise.resolve(null),
  stills: () => Promise.resolve([]),
  films: () => Promise.resolve([])
}

/** What is made of reports: no measures, as the pictures of then are not there. */
export const REPORTED_FILES = ['view.mp4', 'tracks.csv', 'faces.csv'] as const

/** What is known of a clip once it has been looked through. */
export interface Found {
  width: number
  height: number
  frames: number
  targets: number
  rows: number
}

/**
 * Makes the files of a clip from what its camera reported, over what was recorded then, and the small pictures that are
 * kept of that time.
 *
 * @param file where each of them is to be
 * @throws InputError when nothing is known of that time
 */
export async function clipFromReports(
  reports: Reports,
  { camera, name, fps }: { camera: string; name: string; fps: number },
  stretch: Stretch,
  file: (name: (typeof REPORTED_FILES)[number]) => string,
  signal: AbortSignal
): Promise<Found> {
  const tracks = await reports.tracks(camera, stretch)
  if (!tracks) throw new InputError('from', said('watch.nothingKept'))
  const seconds = (stretch.to - stretch.from) / 1000
  // A camera that cannot be reached now, or shows what is no picture, takes nothing away from what it said then.
  const stills = await reports.stills(camera, stretch).catch(() => [])
  // Reading a recording from its device can take a while; whoever stops the clip does not wait for it.
  const stopped = new Promise<never>((_, reject) =>
    signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true })
  )
  const films = await Promise.race([reports.films(camera, stretch), stopped]).catch(() => [])
  signal.throwIfAborted()
  const make = (list: Still[]): Promise<void> =>
    makeFilm(list, films, { seconds, fps }, file('view.mp4'), signal)
  await make(stills).catch((error: unknown) => {
    if (!stills.length || signal.aborted) throw error
    return make([])
  })
  const { width, height } = await probe(file('view.mp4'), name)
  await writeWhole(file('tracks.csv'), writeMot(tracks, { width, height }))
  await writeWhole(file('faces.csv'), writeFaces(new Map(), { width, height }))
  return {
    width,
    height,
    frames: Math.round(seconds * fps),
    targets: spansOf(tracks).length,
    rows: tracks.length
  }
}

/** How large files are, by name, bytes. */
export const sizesOf = async <N extends string>(
  names: readonly N[],
  file: (name: N) => string
): Promise<Record<string, number>> =>
  Object.fromEntries(
    await Promise.all(names.map(async (name) => [name, (await stat(file(name))).size] as const))
  )
