import type { Still } from '../../analysis/still.ts'
import { TEN_MINUTES } from '../../core/lookBack/rows.ts'
import { readTracks } from '../../core/lookBack/tracksBytes.ts'
import type { Reports } from '../clips/reported.ts'
import type { RecordedFilms } from './films.ts'
import type { LookBack } from './service.ts'

/**
 * What is kept of cameras, for clips.
 *
 * @param picture what a camera shows now; null: nothing shows it
 * @param films what was recorded of a camera in a stretch of time
 */
export const reportsOf = (
  lookBack: LookBack,
  picture: (camera: string) => Promise<Buffer | null>,
  films: RecordedFilms['of']
): Reports => ({
  films: async (camera, stretch) =>
    (await films(camera, stretch)).map(({ from, to, path }) => ({
      from: (from - stretch.from) / 1000,
      seconds: (to - from) / 1000,
      path
    })),
  stills: async (camera, { from, to }) => {
    // Those from just before and after it may be the nearest to its ends.
    const stills = nearestStills(
      await lookBack.ask({
        type: 'stills',
        camera,
        from: from - TEN_MINUTES,
        to: to + TEN_MINUTES
      }),
      from,
      to
    )
    if (stills.length) return stills
    const now = await picture(camera)
    return now ? [{ from: 0, picture: now }] : []
  },
  tracks: async (camera, { from, to }) => {
    const { bytes, heard } = await lookBack.ask({ type: 'tracks', camera, from, to })
    return heard.length ? readTracks(bytes) : null
  }
})

/**
 * Of pictures those that are the nearest to some moment of a stretch, each from the moment on at which it becomes that.
 *
 * @param pictures in order of time
 */
export function nearestStills(
  pictures: readonly { at: number; jpeg: Uint8Array }[],
  from: number,
  to: number
): Still[] {
  const stills: Still[] = []
  for (const [n, { at, jpeg }] of pictures.entries()) {
    const [before, after] = [pictures[n - 1], pictures[n + 1]]
    const begins = before ? (before.at + at) / 2 : -Infinity
    const ends = after ? (at + after.at) / 2 : Infinity
    if (begins >= to || ends <= from) continue
    const picture = Buffer.from(jpeg.buffer, jpeg.byteOffset, jpeg.byteLength)
    stills.push({ from: Math.max(0, begins - from) / 1000, picture })
  }
  return stills
}
