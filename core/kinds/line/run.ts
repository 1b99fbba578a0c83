import { said } from '../../messages/said.ts'
import { pathOf } from './path.ts'
import type { LineDetection } from './schema.ts'
import { atLeast, side } from '../../geometry/shapes.ts'
import { needOf } from '../../detections/need.ts'
import type { Gates } from '../../detections/gates.ts'
import type { Direction, GateReading, KindRun, Sighting } from '../../detections/types.ts'

/** The body is a lattice of 6 × 6 points at the fractions (i + 0.5) / 6 of the box. */
export const LATTICE = 6
const POINTS = LATTICE * LATTICE
const fractions = Array.from({ length: LATTICE }, (_, i) => (i + 0.5) / LATTICE)

/** A rejected step must be clear of the line by more than rounding can move a point. */
const CLEAR = 1e-9

interface LineState {
  /** Net count of left-to-right crossings of each point. */
  net: Int16Array
  level: number
  upOpen: boolean
  downOpen: boolean
  up: number
  down: number
  /** A crossing that a gate stopped. */
  pending: { direction: Direction; level: number } | null
  /** What the row just looked at brought; for the ladder. */
  crossed: Direction | null
}

/** Line crossing (docs/detections.md, *Line crossing*). */
export class LineRun implements KindRun {
  private readonly xs: Float64Array
  private readonly ys: Float64Array
  private readonly bounds: [left: number, top: number, right: number, bottom: number]
  private readonly need: number
  private readonly detection: LineDetection
  private readonly gates: Gates

  constructor(detection: LineDetection, gates: Gates) {
    this.detection = detection
    this.gates = gates
    this.xs = Float64Array.from(detection.line, ([x]) => x)
    this.ys = Float64Array.from(detection.line, ([, y]) => y)
    this.bounds = [
      Math.min(...this.xs) - CLEAR,
      Math.min(...this.ys) - CLEAR,
      Math.max(...this.xs) + CLEAR,
      Math.max(...this.ys) + CLEAR
    ]
    this.need = needOf(detection.sensitivity)
  }

  begin(): LineState {
    return {
      net: new Int16Array(POINTS),
      level: 0,
      upOpen: true,
      downOpen: true,
      up: 0,
      down: 0,
      pending: null,
      crossed: null
    }
  }

  look(state: LineState, s: Sighting): Direction | undefined {
    const moved = s.record.seenBefore && this.nearLine(s) && this.countCrossings(state.net, s)
    const { need } = this
    state.crossed = null
    if (moved) this.shares(state)

    if (!state.upOpen && !atLeast(state.up, need / 2)) state.upOpen = true
    if (!state.downOpen && !atLeast(state.down, need / 2)) state.downOpen = true

    const before = state.level
    if (state.upOpen && atLeast(state.up, need)) {
      state.level++
      state.downOpen = false
      state.crossed = 'leftToRight'
    } else if (state.downOpen && atLeast(state.down, need)) {
      state.level--
      state.upOpen = false
      state.crossed = 'rightToLeft'
    } else if (!state.downOpen && atLeast(state.down, 1)) {
      state.level--
      state.downOpen = true
    } else if (!state.upOpen && atLeast(state.up, 1)) {
      state.level++
      state.upOpen = true
    }

    if (state.crossed) {
      // A newer crossing takes the place of a pending one, also when its direction does not count.
      state.pending = this.wants(state.crossed) ? { direction: state.crossed, level: before } : null
    } else if (
      state.pending &&
      !atLeast(this.shareBeyond(state.net, state.pending.level, state.pending.direction), need)
    ) {
      state.pending = null
    }
    if (state.level !== before) this.shares(state)
    if (!state.pending || !this.gates.pass(s)) return undefined
    const { direction } = state.pending
    state.pending = null
    return direction
  }

  private wants(direction: Direction): boolean {
    return this.detection.direction === 'both' || this.detection.direction === direction
  }

  /** Whether the step from the box before to this one can touch the line at all. */
  private nearLine(s: Sighting): boolean {
    const { record: r } = s
    const [left, top, right, bottom] = this.bounds
    return (
      (s.x <= right || r.px <= right) &&
      (s.y <= bottom || r.py <= bottom) &&
      (s.x + s.w >= left || r.px + r.pw >= left) &&
      (s.y + s.h >= top || r.py + r.ph >= top)
    )
  }

  /** Adds each point's crossings of each segment on its step; true when there was one. */
  private countCrossings(net: Int16Array, s: Sighting): boolean {
    const { xs, ys } = this
    const { px: bx, py: by, pw: bw, ph: bh } = s.record
    let changed = false
    for (let k = 0; k + 1 < xs.length; k++) {
      const ax = xs[k]!
      const ay = ys[k]!
      const cx = xs[k + 1]!
      const cy = ys[k + 1]!
      for (let j = 0; j < LATTICE; j++) {
        const py = by + fractions[j]! * bh
        const qy = s.y + fractions[j]! * s.h
        for (let i = 0; i < LATTICE; i++) {
          const px = bx + fractions[i]! * bw
          const qx = s.x + fractions[i]! * s.w
          const pLeft = side(ax, ay, cx, cy, px, py) < 0
          if (pLeft === side(ax, ay, cx, cy, qx, qy) < 0) continue
          if (side(px, py, qx, qy, ax, ay) < 0 === side(px, py, qx, qy, cx, cy) < 0) continue
          net[j * LATTICE + i]! += pLeft ? 1 : -1
          changed = true
        }
      }
    }
    return changed
  }

  /** The share of points that are beyond a level in a direction. */
  private shareBeyond(net: Int16Array, level: number, direction: Direction): number {
    let count = 0
    for (let i = 0; i < POINTS; i++)
      if (direction === 'leftToRight' ? net[i]! > level : net[i]! < level) count++
    return count / POINTS
  }

  private shares(state: LineState): void {
    state.up = this.shareBeyond(state.net, state.level, 'leftToRight')
    state.down = this.shareBeyond(state.net, state.level, 'rightToLeft')
  }

  /** The share that is over in a direction that counts, at the row just looked at. */
  private over(state: LineState): { share: number; direction: Direction } {
    if (state.crossed ?? state.pending) {
      const direction = state.crossed ?? state.pending!.direction
      const level = state.pending?.level ?? state.level + (direction === 'leftToRight' ? -1 : 1)
      return { share: this.shareBeyond(state.net, level, direction), direction }
    }
    const up = { share: state.upOpen ? state.up : 0, direction: 'leftToRight' as const }
    const down = { share: state.downOpen ? state.down : 0, direction: 'rightToLeft' as const }
    const { direction } = this.detection
    if (direction !== 'both')
      return this.better(
        direction === 'leftToRight' ? up : down,
        direction === 'leftToRight' ? down : up
      )
    return down.share > up.share ? down : up
  }

  /** The direction that counts, unless only the other one has anything to show. */
  private better<T extends { share: number }>(counting: T, other: T): T {
    return counting.share > 0 || other.share === 0 ? counting : other
  }

  nearness(state: LineState): number {
    // More than is needed is no nearer: the first moment with enough over is the one that matters.
    const { share, direction } = this.over(state)
    const near = Math.min(1, share / this.need)
    if (this.wants(direction)) return near
    // Wholly over in the other direction is what decided, unless it came nearer than this in the one that counts.
    return state.crossed ? 0.9 * near : near / 100
  }

  readings(state: LineState): GateReading[] {
    const { share, direction } = this.over(state)
    const { direction: asked } = this.detection
    return [
      {
        gate: 'direction',
        passed: share > 0 && this.wants(direction),
        measured: share > 0 ? pathOf(this.detection, direction) : said('why.notOverLine'),
        limit: asked === 'both' ? said('why.eitherDirection') : pathOf(this.detection, asked)
      },
      {
        gate: 'share',
        passed: atLeast(share, this.need),
        measured: said('why.overLine', share),
        limit: said('why.atLeastShare', this.need),
        value: share,
        needed: this.need
      }
    ]
  }
}
