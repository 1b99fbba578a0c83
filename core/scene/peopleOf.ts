import { frameTime, rowAt, spansOf, type Tracks } from '../targets/tracks.ts'
import type { PersonMark } from './measure.ts'

const MOST = 12
/** Boxes nearer to the picture's edge than this may be cut off by it. */
const EDGE = 0.01
/** A target is the more surely whole and upright in the middle of its way. */
const SKIP_SECONDS = 0.5

/**
 * Upright people of a clip as marks to measure a scene from: rows of persons, well inside the picture, spread over it
 * from near to far. All are taken to be of one height, which a person can mend mark by mark.
 *
 * @param metres their height
 */
export function peopleOf(tracks: Tracks, metres: number): PersonMark[] {
  const rows = spansOf(tracks)
    .filter(({ cls }) => cls === 'person')
    .flatMap(({ rows: all, from, to }) =>
      all.filter((i) => {
        const time = frameTime(tracks.frame[i]!, tracks.fps)
        const { x, y, w, h, cls } = rowAt(tracks, i)
        return (
          cls === 'person' &&
          time >= from + SKIP_SECONDS &&
          time <= to - SKIP_SECONDS &&
          x > EDGE &&
          y > EDGE &&
          x + w < 1 - EDGE &&
          y + h < 1 - EDGE &&
          h > w
        )
      })
    )
    .sort((a, b) => tracks.y[a]! + tracks.h[a]! - tracks.y[b]! - tracks.h[b]!)
  if (!rows.length) return []
  const count = Math.min(MOST, rows.length)
  // One of each stretch of the picture from far to near: its row of median height, as a crouching
  // or cut off one is not.
  const foot = (i: number): number => tracks.y[i]! + tracks.h[i]!
  const [far, near] = [foot(rows[0]!), foot(rows[rows.length - 1]!)]
  return Array.from({ length: count }, (_, k) => {
    const [from, to] = [far + ((near - far) * k) / count, far + ((near - far) * (k + 1)) / count]
    const stretch = rows
      .filter((i) => foot(i) >= from && (foot(i) < to || k === count - 1))
      .sort((a, b) => tracks.h[a]! - tracks.h[b]!)
    return stretch.length ? stretch[stretch.length >> 1] : null
  })
    .filter((i) => i !== null)
    .map((i) => {
      const { x, y, w, h } = rowAt(tracks, i!)
      const middle = round(x + w / 2)
      return { foot: [middle, round(y + h)], head: [middle, round(y)], metres, fromBox: true }
    })
}

const round = (v: number): number => Math.round(v * 1e4) / 1e4
