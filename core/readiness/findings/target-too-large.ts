import { said } from '../../messages/said.ts'
import { hasShape } from '../../kinds/schemas.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { quantile } from '../../tuning/quantile.ts'
import { boxesAt, rounded } from '../seen.ts'

/** A larger target is not classified reliably. Common practice, no source. */
const SHARE = 0.1

export const targetTooLarge = perDetection('target-too-large', (d, camera) => {
  if (!hasShape(d)) return []
  const max = d.size?.max
  if (max && max.w * max.h > SHARE && max.w < 1 && max.h < 1)
    return ofDetection(
      'warning',
      'drawn',
      camera,
      d,
      said('readiness.largestTooLarge', d.name, rounded(max.w * max.h * 100, 0), SHARE * 100)
    )
  const areas = boxesAt(d, camera).map(({ w, h }) => w * h)
  const usual = areas.length ? quantile(areas, 0.5) : 0
  if (usual <= SHARE) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.targetTooLarge', d.name, rounded(usual * 100, 0), SHARE * 100)
  )
})
