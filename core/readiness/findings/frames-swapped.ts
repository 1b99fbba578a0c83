import { said } from '../../messages/said.ts'
import type { Detection } from '../../formats/plan.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

export const framesSwapped = perDetection('frames-swapped', (d, camera) => {
  const size = 'size' in d ? d.size : undefined
  const frames = size?.min && size.max && (size.min.w > size.max.w || size.min.h > size.max.h)
  const metres =
    size?.minMetres !== undefined && size.maxMetres !== undefined && size.minMetres > size.maxMetres
  if (!size || (!frames && !metres)) return []
  const swapped = {
    ...d,
    size: {
      ...size,
      ...(frames && { min: size.max, max: size.min }),
      ...(metres && { minMetres: size.maxMetres, maxMetres: size.minMetres })
    }
  } as Detection
  const fixes = !frames || (size.min!.w >= size.max!.w && size.min!.h >= size.max!.h)
  return ofDetection(
    'blocking',
    'drawn',
    camera,
    d,
    said('readiness.framesSwapped', d.name),
    fixes ? edit(camera, swapped, said('readiness.swapSizes')) : null
  )
})
