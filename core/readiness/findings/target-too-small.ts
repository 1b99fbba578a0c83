import { said } from '../../messages/said.ts'
import { pixelDensity } from '../../scene/camera.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { pointsOf, rounded } from '../seen.ts'

/** Pixel density for detection. Source: IEC 62676-4 (from memory). */
const DETECT = 25

export const targetTooSmall = perDetection('target-too-small', (d, camera) => {
  const {
    pose,
    clips: [clip]
  } = camera
  const points = pointsOf(d)
  if (!pose || !clip || !points.length) return []
  const densities = points.flatMap(([x, y]) => pixelDensity(pose, x, y, clip.height) ?? [])
  // A vertex in the sky has no ground under it; what lies on the ground decides.
  const least = Math.min(...densities)
  if (!densities.length || least >= DETECT) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.targetTooSmall', d.name, rounded(least), DETECT)
  )
})
