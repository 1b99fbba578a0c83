import { DENSITY_BANDS, groundAt, horizon, pixelDensity, type CameraPose } from './camera.ts'

export interface DensityStripe {
  band: (typeof DENSITY_BANDS)[number]['name'] | null
  /** Pixels a metre that a target in it has at least; 0 in what is beyond all bands. */
  least: number
  /** From and to which height of the picture, 0 to 1 from the top. */
  from: number
  to: number
}

/**
 * The picture's height at which a target on the ground has a density: halved until it is exact.
 * Density grows downwards.
 */
function heightOfDensity(pose: CameraPose, density: number, pictureHeight: number): number {
  let low = Math.max(0, horizon(pose))
  let high = 1
  if ((pixelDensity(pose, 0.5, 1, pictureHeight) ?? 0) <= density) return 1
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if ((pixelDensity(pose, 0.5, middle, pictureHeight) ?? 0) < density) low = middle
    else high = middle
  }
  return high
}

/**
 * The picture as stripes of pixel density on the target, from the top. Without roll, all ground at one height of the
 * picture is equally deep, so that a band is a stripe.
 *
 * @param pictureHeight pixels
 */
export function densityStripes(pose: CameraPose, pictureHeight: number): DensityStripe[] {
  const first = Math.max(0, horizon(pose))
  if (first >= 1 || !groundAt(pose, 0.5, 1)) return []
  const stripes: DensityStripe[] = []
  let from = first
  const limits = [{ name: null, least: 0 }, ...[...DENSITY_BANDS].reverse()]
  limits.forEach(({ name, least }, i) => {
    const to =
      i + 1 < limits.length ? heightOfDensity(pose, limits[i + 1]!.least, pictureHeight) : 1
    if (to - from > 1e-6) stripes.push({ band: name, least, from, to })
    from = Math.max(from, to)
  })
  return stripes
}
