import { firstAtLeast } from '../firstAtLeast.ts'
import {
  RECORD_GAP_SECONDS,
  frameTime,
  spansOf,
  type TargetSpan,
  type Tracks
} from '../targets/tracks.ts'
import { TEN_MINUTES } from './rows.ts'

/** Pictures of one camera are no nearer together than this, ms. */
const APART_MS = 1000
/** Cameras that begin to be heard together are not all looked at at once, ms. */
const FIRST_MS = 60_000
/** What is there for less than this is more often noise than a visit, ms. */
const LEAST_VISIT_MS = 300
/** A target is worth another picture when its box has become so many times as large … */
const GROWN = 1.5
/** … and so much later than the picture before, ms. */
const GROWN_AFTER_MS = 2000
/** A target is in a picture when it was reported within this of it, seconds. */
const WITHIN_SECONDS = 0.5

interface Visit {
  since: number
  last: number
  area: number
  /** How large it was when a picture was taken of it; 0: none was. */
  pictured: number
  picturedAt: number
}

/**
 * Says of one camera when a picture of it is worth keeping: one of each target's visit, again when the target has grown,
 * and one for ten minutes without any. Instants are ms of UTC.
 */
export class PictureNeed {
  private readonly visits = new Map<number, Visit>()
  private last: number

  /** @param from when the camera began to be heard; its first picture without a target is taken a minute later */
  constructor(from: number) {
    this.last = from + FIRST_MS - TEN_MINUTES
  }

  /** What the camera reports of an instant. */
  take(at: number, targets: readonly { id: number; w: number; h: number }[]): void {
    for (const { id, w, h } of targets) {
      const visit = this.visits.get(id)
      if (visit && at - visit.last <= 1000 * RECORD_GAP_SECONDS) {
        visit.last = at
        visit.area = w * h
      } else
        this.visits.set(id, {
          since: at,
          last: at,
          area: w * h,
          pictured: 0,
          picturedAt: -Infinity
        })
    }
    for (const [id, visit] of this.visits)
      if (at - visit.last > 1000 * RECORD_GAP_SECONDS) this.visits.delete(id)
  }

  /** Whether a picture of now is worth keeping. */
  isNeeded(at: number): boolean {
    if (at - this.last < APART_MS) return false
    if (at - this.last >= TEN_MINUTES) return true
    for (const visit of this.visits.values())
      if (
        at - visit.last <= 1000 * WITHIN_SECONDS &&
        visit.last - visit.since >= LEAST_VISIT_MS &&
        (visit.pictured === 0 ||
          (visit.area >= GROWN * visit.pictured && at - visit.picturedAt >= GROWN_AFTER_MS))
      )
        return true
    return false
  }

  /** One was taken, at this instant. */
  taken(at: number): void {
    this.last = Math.max(this.last, at)
    for (const visit of this.visits.values())
      if (visit.since <= at && at - visit.last <= 1000 * WITHIN_SECONDS) {
        visit.pictured = Math.max(visit.pictured, visit.area)
        visit.picturedAt = at
      }
  }
}

/** The row of a visit that is nearest to a moment, where the target was in the picture then. */
function rowNear(tracks: Tracks, { rows }: TargetSpan, seconds: number): number | null {
  let nearest: number | null = null
  let apart = WITHIN_SECONDS + 1e-9
  for (const row of rows) {
    const distance = Math.abs(frameTime(tracks.frame[row]!, tracks.fps) - seconds)
    if (distance >= apart) continue
    apart = distance
    nearest = row
  }
  return nearest
}

/** A picture of a target's visit, and the target's row at its moment. */
export interface VisitPicture {
  at: number
  row: number
}

/**
 * Of a visit the picture in which its target is largest; null: none was taken of it.
 *
 * @param start the instant of frame 1, ms of UTC
 * @param pictures the instants of pictures, in order
 */
export function pictureOfVisit(
  tracks: Tracks,
  start: number,
  visit: TargetSpan,
  pictures: readonly number[]
): VisitPicture | null {
  let [best, largest]: [VisitPicture | null, number] = [null, 0]
  for (const at of pictures) {
    const seconds = (at - start) / 1000
    if (seconds < visit.from - WITHIN_SECONDS) continue
    if (seconds > visit.to + WITHIN_SECONDS) break
    const row = rowNear(tracks, visit, seconds)
    const area = row === null ? 0 : tracks.w[row]! * tracks.h[row]!
    if (row === null || area <= largest) continue
    best = { at, row }
    largest = area
  }
  return best
}

/** The visit of a target to which a moment belongs, or that is nearest to it; null: it never came. */
export function visitAt(
  visits: readonly TargetSpan[],
  target: number,
  seconds: number
): TargetSpan | null {
  const away = ({ from, to }: TargetSpan): number => Math.max(0, from - seconds, seconds - to)
  return visits
    .filter(({ id }) => id === target)
    .reduce<TargetSpan | null>((a, b) => (a && away(a) <= away(b) ? a : b), null)
}

/**
 * The pictures of a stretch that are worth keeping for good: of each visit the one in which its target is largest, and of
 * each ten minutes without such a one the first.
 *
 * @param start the instant of frame 1, ms of UTC
 * @param pictures their instants, in order
 */
export function picturesToKeep(
  tracks: Tracks,
  start: number,
  pictures: readonly number[]
): Set<number> {
  const keep = new Set<number>()
  for (const visit of spansOf(tracks)) {
    const found = pictureOfVisit(tracks, start, visit, pictures)
    if (found) keep.add(found.at)
  }
  const tenOf = (at: number): number => Math.floor(at / TEN_MINUTES)
  const seen = new Set([...keep].map(tenOf))
  for (const at of pictures)
    if (!seen.has(tenOf(at))) {
      seen.add(tenOf(at))
      keep.add(at)
    }
  return keep
}

/** The picture that is nearest to an instant, of those within ten minutes; null: none is. */
export function pictureNear(pictures: readonly number[], at: number): number | null {
  const next = firstAtLeast(pictures, at)
  const [before, after] = [pictures[next - 1], pictures[next]]
  const away = (one: number | undefined): number =>
    one === undefined ? Infinity : Math.abs(one - at)
  const nearest = away(before) <= away(after) ? before : after
  return nearest !== undefined && away(nearest) <= TEN_MINUTES ? nearest : null
}
