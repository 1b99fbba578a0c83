import * as v from 'valibot'
import { ZoneSchema } from '../../schema/parts.ts'
import type { Point } from '../../geometry/shapes.ts'

/** Feet nearer to each other than this, shares of the picture, are of one cluster. */
const TOGETHER = 0.04
/** An ignore area reaches so far beyond the feet that it is laid over. */
const MARGIN = 0.012
/** Fewer nuisances than this are no cluster. */
const LEAST = 2
const MOST_AREAS = 6
const SIDES = 8

/**
 * The area over some feet: the octagon that touches them on eight sides, a little larger. Eight vertices are few enough
 * for devices, and for people who move them. Ignore areas are asked with the bottom centre of a box.
 */
function over(feet: readonly Point[]): Point[] {
  const sides = Array.from({ length: SIDES }, (_, k) => {
    const angle = (2 * Math.PI * k) / SIDES
    const [nx, ny] = [Math.cos(angle), Math.sin(angle)]
    let reach = -Infinity
    for (const [x, y] of feet) reach = Math.max(reach, nx * x + ny * y)
    return { nx, ny, reach: reach + MARGIN }
  })
  const within = (v: number): number => Math.min(1, Math.max(0, Math.round(v * 1e4) / 1e4))
  return sides
    .map((a, k): Point => {
      const b = sides[(k + 1) % SIDES]!
      const det = a.nx * b.ny - a.ny * b.nx
      return [
        within((a.reach * b.ny - b.reach * a.ny) / det),
        within((a.nx * b.reach - b.nx * a.reach) / det)
      ]
    })
    .filter(([x, y], i, all) => {
      const [px, py] = all[(i + SIDES - 1) % SIDES]!
      return x !== px || y !== py
    })
}

/**
 * Areas over places in which the targets of several nuisances stood: feet that are near to each other, one after the other, are of one place.
 *
 * @param feet of each nuisance, while it was at the detection's shape
 * @returns the largest clusters first
 */
export function areasOver(feet: readonly (readonly Point[])[]): Point[][] {
  // A cell of the grid is as wide as feet of one cluster may be apart, so that only neighbours need be asked.
  const cells = new Map<string, { of: number; at: Point }[]>()
  const key = (x: number, y: number): string =>
    `${Math.floor(x / TOGETHER)} ${Math.floor(y / TOGETHER)}`
  feet.forEach((points, of) => {
    for (const at of points) {
      const cell = key(...at)
      cells.set(cell, [...(cells.get(cell) ?? []), { of, at }])
    }
  })
  const clusters: { of: number; at: Point }[][] = []
  const seen = new Set<string>()
  for (const start of cells.keys()) {
    if (seen.has(start)) continue
    const cluster: { of: number; at: Point }[] = []
    const queue = [start]
    seen.add(start)
    for (let cell = queue.pop(); cell !== undefined; cell = queue.pop()) {
      cluster.push(...cells.get(cell)!)
      const [cx, cy] = cell.split(' ').map(Number) as [number, number]
      for (let dx = -1; dx <= 1; dx++)
        for (let dy = -1; dy <= 1; dy++) {
          const next = `${cx + dx} ${cy + dy}`
          if (!cells.has(next) || seen.has(next)) continue
          seen.add(next)
          queue.push(next)
        }
    }
    clusters.push(cluster)
  }
  return clusters
    .map((cluster) => ({
      feet: cluster.map(({ at }) => at),
      nuisances: new Set(cluster.map(({ of }) => of)).size
    }))
    .filter(({ nuisances }) => nuisances >= LEAST)
    .sort((a, b) => b.nuisances - a.nuisances)
    .slice(0, MOST_AREAS)
    .map((cluster) => over(cluster.feet))
    .filter((area) => v.is(ZoneSchema, area))
}
