import type { FoundFace } from './faces.ts'
import type { Followed, SeenRow } from './target.ts'

/** What the detector sees counts alone from so many seconds before its first look to as many after its last. */
const AROUND = 1
/** Between two looks no further apart than this, in seconds, a face that both saw was there. */
const BETWEEN = 2.5
/**
 * Looks with a mask must outnumber those without by nearly two, or the other way round: one look may be wrong. They
 * fade with this half-life, in seconds.
 */
const TOLD_BY = 1.8
const HALF_LIFE = 3
/** A look of the detector counts as so many of those by contrast. */
const DETECTOR_COUNTS = 2

/**
 * The faces of a target, by frame: what the detector saw while it looked, and what the contrast in its head says
 * before and after. A mask is told once it was seen often enough, from earlier frames alone, as a camera would.
 *
 * @param found faces by contrast, by frame, of all targets
 */
export function facesOf(
  { rows, looked }: Pick<Followed, 'rows' | 'looked'>,
  found: ReadonlyMap<number, readonly FoundFace[]>,
  fps: number
): Map<number, FoundFace> {
  const around = AROUND * fps
  const [first, last] = [looked[0]?.frame ?? Infinity, looked.at(-1)?.frame ?? -Infinity]
  const faces = new Map<number, FoundFace>()
  let [votes, at] = [0, 0]
  for (const row of rows) {
    const byDetector = row.frame >= first - around && row.frame <= last + around
    const face = byDetector
      ? seenAt(rows, looked, row, fps)
      : (found.get(row.frame)?.find((one) => isOf(one, row)) ?? null)
    if (!face) continue
    const isLook = !byDetector || looked.some(({ frame }) => frame === row.frame)
    votes *= 0.5 ** ((row.frame - at) / (HALF_LIFE * fps))
    at = row.frame
    if (isLook && face.mask !== null)
      votes += (face.mask ? 1 : -1) * (byDetector ? DETECTOR_COUNTS : 1)
    faces.set(row.frame, {
      ...face,
      mask: votes >= TOLD_BY ? true : votes <= -TOLD_BY ? false : null
    })
  }
  return faces
}

/** A face belongs to the target in whose upper third its middle is. */
const isOf = ({ x, y, w, h }: FoundFace, row: SeenRow): boolean =>
  x + w / 2 >= row.x &&
  x + w / 2 <= row.x + row.w &&
  y + h / 2 >= row.y &&
  y + h / 2 <= row.y + row.h / 3

/** What the detector saw at that row, or in the looks before and after it; null: no face. */
function seenAt(
  rows: readonly SeenRow[],
  looked: Followed['looked'],
  row: SeenRow,
  fps: number
): FoundFace | null {
  const after = looked.findIndex(({ frame }) => frame >= row.frame)
  const b = looked[after]
  if (b?.frame === row.frame) return b.face
  const a = looked[after - 1]
  if (!a?.face || !b?.face || b.frame - a.frame > BETWEEN * fps) return null
  const [rowA, rowB] = [a, b].map(({ frame }) => rows.find((one) => one.frame === frame))
  if (!rowA || !rowB) return null
  // Where it was in the target, shares of its box, goes from the one to the other.
  const t = (row.frame - a.frame) / (b.frame - a.frame)
  const mix = (one: (face: FoundFace, of: SeenRow) => number): number =>
    (1 - t) * one(a.face!, rowA) + t * one(b.face!, rowB)
  return {
    x: row.x + row.w * mix((face, of) => (face.x - of.x) / of.w),
    y: row.y + row.h * mix((face, of) => (face.y - of.y) / of.h),
    w: row.h * mix((face, of) => face.w / of.h),
    h: row.h * mix((face, of) => face.h / of.h),
    mask: null
  }
}
