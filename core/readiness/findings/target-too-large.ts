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
      `${d.name}: its largest frame is ${rounded(max.w * max.h * 100, 0)} % of the picture; above ${SHARE * 100} % a target is not classified reliably.`
    )
  const areas = boxesAt(d, camera).map(({ w, h }) => w * h)
  const usual = areas.length ? quantile(areas, 0.5) : 0
  if (usual <= SHARE) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    `${d.name}: on the clips, targets fill ${rounded(usual * 100, 0)} % of the picture there; above ${SHARE * 100} % they are not classified reliably. Move it further from the camera.`
  )
})
