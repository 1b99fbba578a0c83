import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { quantile } from '../../tuning/quantile.ts'
import { boxesAt, rounded } from '../seen.ts'

export const lineAtEdge = perDetection('line-at-edge', (d, camera) => {
  if (d.kind !== 'line') return []
  const at = boxesAt(d, camera)
  if (!at.length) return []
  const [w, h] = [
    quantile(
      at.map((b) => b.w),
      0.5
    ),
    quantile(
      at.map((b) => b.h),
      0.5
    )
  ]
  // A line that runs out of the picture is crossed within it; one along its edge is not seen to be crossed.
  const along = (near: (p: readonly [number, number]) => number, size: number): boolean =>
    d.line.every((p) => near(p) < size)
  const edge = along(([x]) => x, w)
    ? said('readiness.leftEdge')
    : along(([x]) => 1 - x, w)
      ? said('readiness.rightEdge')
      : along(([, y]) => y, h)
        ? said('readiness.upper')
        : along(([, y]) => 1 - y, h)
          ? said('readiness.lower')
          : null
  if (!edge) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.lineAtEdge', d.name, edge, rounded(w * 100), rounded(h * 100))
  )
})
