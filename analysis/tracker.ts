import munkres from 'munkres-js'
import type { Box } from '../core/geometry/shapes.ts'
import { colourDistance } from './appearance.ts'
import type { Blob } from './foreground.ts'
import { Followed, iou, overlap } from './target.ts'

/** A hidden target is followed on for this long, as docs/detections.md bridges gaps. */
const BRIDGED_SECONDS = 1
/** A target counts as established once it has been seen for this long; before, one miss too many ends it. */
const ESTABLISHED_SECONDS = 0.4
const IMPOSSIBLE = 1e6

/** Box around two patches as one. */
function joined(a: Blob, b: Blob): Blob {
  const x = Math.min(a.x, b.x)
  const y = Math.min(a.y, b.y)
  const total = a.area + b.area
  const colours = a.colours.map((v, i) => (v * a.area + b.colours[i]! * b.area) / total)
  return {
    x,
    y,
    w: Math.max(a.x + a.w, b.x + b.w) - x,
    h: Math.max(a.y + a.h, b.y + b.h) - y,
    area: total,
    colours,
    wavers: a.wavers && b.wavers
  }
}

/**
 * The parts of an assignment that have nothing to do with each other: rows and columns that are linked by possible
 * pairs. The cheapest assignment of each is that of all, found in a fraction of the time where much moves, as in leaves.
 */
function apart(costs: readonly number[][]): { rows: number[]; columns: number[] }[] {
  const parts: { rows: number[]; columns: number[] }[] = []
  const rowsLeft = new Set(costs.keys())
  const columnsLeft = new Set(costs[0]!.keys())
  for (const first of rowsLeft) {
    const part = { rows: [first], columns: [] as number[] }
    rowsLeft.delete(first)
    for (const row of part.rows)
      for (const column of columnsLeft) {
        if (costs[row]![column]! >= IMPOSSIBLE) continue
        columnsLeft.delete(column)
        part.columns.push(column)
        for (const other of rowsLeft)
          if (costs[other]![column]! < IMPOSSIBLE) {
            rowsLeft.delete(other)
            part.rows.push(other)
          }
      }
    if (part.columns.length) parts.push(part)
  }
  return parts
}

/**
 * Follows patches from frame to frame: each target is predicted (constant velocity), patches are given to targets by
 * the cheapest assignment of all (the Hungarian method, munkres-js) within a gate, pieces of one body are joined
 * first, and people who share one patch are followed inside it until they part.
 */
export class Tracker {
  /** Targets that have ended, in the order in which they did. */
  readonly ended: Followed[] = []
  private active: Followed[] = []
  /** Those of them that do not rest. */
  private moving: Followed[] = []
  private readonly dt: number
  private readonly bridged: number
  private readonly established: number

  constructor(fps: number) {
    this.dt = 1 / fps
    this.bridged = Math.round(BRIDGED_SECONDS * fps)
    this.established = Math.max(3, Math.round(ESTABLISHED_SECONDS * fps))
  }

  /**
   * Takes the patches of the next frame.
   *
   * @param resting those that are still where they were
   */
  step(patches: Blob[], frame: number, resting: ReadonlySet<Followed> = new Set()): void {
    for (const target of resting) target.rest(frame)
    this.moving = this.active.filter((target) => !resting.has(target))
    for (const target of this.moving) target.predict(this.dt)
    const blobs = this.joinPieces(patches)
    const grouped = this.followGroups(blobs, frame)
    const free = blobs.filter((blob) => !grouped.blobs.has(blob))
    const waiting = this.moving.filter((target) => !grouped.targets.has(target))
    const taken = this.assign(waiting, free, frame)
    for (const target of waiting) if (!taken.targets.has(target)) target.missed++
    for (const blob of free) if (!taken.blobs.has(blob)) this.active.push(new Followed(blob, frame))
    this.retire()
  }

  /** Those that are being followed. */
  get following(): readonly Followed[] {
    return this.active
  }

  /** Ends all targets; to be called after the last frame. */
  finish(): Followed[] {
    this.ended.push(...this.active)
    this.active = []
    return this.ended
  }

  private isEstablished(target: Followed): boolean {
    return target.seen >= this.established
  }

  private retire(): void {
    this.active = this.active.filter((target) => {
      const allowed = this.isEstablished(target) ? this.bridged : 2
      if (target.missed <= allowed) return true
      this.ended.push(target)
      return false
    })
  }

  /** Joins patches that together fit an established target's predicted box clearly better than any one of them. */
  private joinPieces(patches: Blob[]): Blob[] {
    let blobs = patches
    for (const target of this.moving) {
      if (!this.isEstablished(target) || target.missed > this.bridged / 2) continue
      const { box } = target
      const near = blobs.filter((blob) => overlap(blob, box) > 0.5 * blob.w * blob.h)
      target.apart = this.areApart(near) ? target.apart + 1 : Math.max(0, target.apart - 1)
      if (near.length < 2 || target.apart > this.established) continue
      const whole = near.reduce(joined)
      if (iou(whole, box) > Math.max(...near.map((blob) => iou(blob, box))) + 0.05)
        blobs = [...blobs.filter((blob) => !near.includes(blob)), whole]
    }
    return blobs
  }

  /**
   * Whether the two largest patches look like two bodies rather than the parts of one, such as legs below a trunk.
   * Lasting, it means that a group has parted.
   */
  private areApart(patches: Blob[]): boolean {
    const [a, b] = [...patches].sort((p, q) => q.area - p.area) as [Blob, Blob]
    if (!b || b.area < 0.3 * a.area) return false
    const beside = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)
    return beside < 0.6 * Math.min(a.w, b.w)
  }

  /** Finds patches that hold several established targets, and follows these inside. */
  private followGroups(blobs: Blob[], frame: number): { blobs: Set<Blob>; targets: Set<Followed> } {
    const result = { blobs: new Set<Blob>(), targets: new Set<Followed>() }
    for (const blob of blobs) {
      const members = this.moving.filter(
        (target) =>
          this.isEstablished(target) &&
          !result.targets.has(target) &&
          overlap(target.box, blob) > 0.5 * target.box.w * target.box.h
      )
      if (members.length < 2 || !this.isGroup(blob, members, blobs)) continue
      result.blobs.add(blob)
      members.sort((a, b) => a.box.x + a.box.w / 2 - (b.box.x + b.box.w / 2))
      members.forEach((target, i) => {
        result.targets.add(target)
        const { box } = target
        // The outermost members touch the patch's sides, the lowest its foot; the others go where they were going.
        let cx = box.x + box.w / 2
        if (i === 0) cx = blob.x + Math.min(box.w, blob.w) / 2
        else if (i === members.length - 1) cx = blob.x + blob.w - Math.min(box.w, blob.w) / 2
        const lowest = Math.max(...members.map((m) => m.box.y + m.box.h))
        const foot = box.y + box.h + (blob.y + blob.h - lowest)
        target.correctInGroup(cx, foot, frame)
      })
    }
    return result
  }

  /** Several targets share the patch, unless each has a patch of its own nearby or one of them fits it alone. */
  private isGroup(blob: Blob, members: Followed[], blobs: Blob[]): boolean {
    const own = members.filter((target) =>
      blobs.some((other) => other !== blob && iou(other, target.box) > 0.3)
    )
    if (members.length - own.length < 2) return false
    const around: Box = members
      .map((m) => m.box)
      .reduce((a, b) => {
        const x = Math.min(a.x, b.x)
        const y = Math.min(a.y, b.y)
        return {
          x,
          y,
          w: Math.max(a.x + a.w, b.x + b.w) - x,
          h: Math.max(a.y + a.h, b.y + b.h) - y
        }
      })
    const alone = Math.max(...members.map((target) => iou(target.box, blob)))
    return iou(around, blob) >= alone - 0.05
  }

  private assign(
    targets: Followed[],
    blobs: Blob[],
    frame: number
  ): { blobs: Set<Blob>; targets: Set<Followed> } {
    const result = { blobs: new Set<Blob>(), targets: new Set<Followed>() }
    if (!targets.length || !blobs.length) return result
    const costs = targets.map((target) => blobs.map((blob) => this.cost(target, blob)))
    for (const { rows, columns } of apart(costs)) {
      const pairs =
        rows.length === 1 && columns.length === 1
          ? [[0, 0]]
          : munkres(rows.map((t) => columns.map((b) => costs[t]![b]!)))
      for (const [row = 0, column = 0] of pairs) {
        const [t, b] = [rows[row]!, columns[column]!]
        if (costs[t]![b]! >= IMPOSSIBLE) continue
        targets[t]!.correct(blobs[b]!, frame)
        result.targets.add(targets[t]!)
        result.blobs.add(blobs[b]!)
      }
    }
    return result
  }

  /** How unlikely the patch is to be the target; `IMPOSSIBLE` outside the gate. */
  private cost(target: Followed, blob: Blob): number {
    const { box } = target
    const dx = box.x + box.w / 2 - (blob.x + blob.w / 2)
    const dy = box.y + box.h - (blob.y + blob.h)
    // A new target's speed is not known yet; it may be fast.
    const reach =
      ((this.isEstablished(target) ? 0.45 : 0.7) + 0.08 * target.missed) * Math.max(box.h, box.w) +
      4
    const distance = Math.hypot(dx, dy) / reach
    const common = iou(box, blob)
    const ratio = (blob.w * blob.h) / (box.w * box.h)
    if (distance > 1 && common < 0.15) return IMPOSSIBLE
    if (this.isEstablished(target) && (ratio < 0.2 || ratio > 4)) return IMPOSSIBLE
    const looks = this.isEstablished(target) ? colourDistance(target.colours, blob.colours) : 0.5
    const tentative = this.isEstablished(target) ? 0 : 0.3
    return (
      1 -
      common +
      0.6 * Math.min(distance, 2) +
      0.8 * looks +
      0.3 * Math.abs(Math.log(ratio)) +
      tentative
    )
  }
}
