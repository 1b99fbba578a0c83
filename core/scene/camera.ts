/**
 * A camera above a flat ground, as a pinhole: metres, x to the right, y up, z away from the camera's foot point.
 * Source: Hartley and Zisserman, *Multiple View Geometry*, 6.1 (from memory); no lens distortion.
 */
export interface CameraPose {
  /** Height above the ground, metres. */
  height: number
  /** Looking down by this angle, degrees. */
  tilt: number
  /** Vertical field of view, degrees. */
  fieldOfView: number
  /** Width over height of the picture. */
  aspect: number
}

export interface GroundPoint {
  x: number
  y?: number
  z: number
}

export interface Projected {
  /** Normalised picture coordinates. */
  x: number
  y: number
  /** Metres along the viewing direction; not above 0 is behind the camera. */
  depth: number
  /** Share of the picture's height that one metre takes up at this depth. */
  perMetre: number
}

/** Where a point of the world is seen on the picture. */
export function project(pose: CameraPose, { x, y = 0, z }: GroundPoint): Projected {
  const tilt = (pose.tilt * Math.PI) / 180
  const focal = 0.5 / Math.tan((pose.fieldOfView * Math.PI) / 360)
  const below = pose.height - y
  const depth = below * Math.sin(tilt) + z * Math.cos(tilt)
  const down = below * Math.cos(tilt) - z * Math.sin(tilt)
  return {
    x: 0.5 + (focal * x) / depth / pose.aspect,
    y: 0.5 + (focal * down) / depth,
    depth,
    perMetre: focal / depth
  }
}

/** The ground point seen at a place of the picture; null where no ground is seen (at or above the horizon). */
export function groundAt(pose: CameraPose, x: number, y: number): { x: number; z: number } | null {
  const tilt = (pose.tilt * Math.PI) / 180
  const focal = 0.5 / Math.tan((pose.fieldOfView * Math.PI) / 360)
  const v = (y - 0.5) / focal
  const falling = Math.sin(tilt) + v * Math.cos(tilt)
  if (falling <= 1e-9) return null
  const z = (pose.height * (Math.cos(tilt) - v * Math.sin(tilt))) / falling
  const depth = pose.height * Math.sin(tilt) + z * Math.cos(tilt)
  return depth > 0 ? { x: ((x - 0.5) * pose.aspect * depth) / focal, z } : null
}

/**
 * The height in metres of an upright target that stands where its box's bottom centre meets the ground; null where
 * that is not on the ground.
 */
export function heightOf(
  pose: CameraPose,
  box: { x: number; y: number; w: number; h: number }
): number | null {
  const foot = groundAt(pose, box.x + box.w / 2, box.y + box.h)
  if (!foot) return null
  // The point above the foot that is seen at the box's upper edge: solved from project() for y.
  const tilt = (pose.tilt * Math.PI) / 180
  const focal = 0.5 / Math.tan((pose.fieldOfView * Math.PI) / 360)
  const v = (box.y - 0.5) / focal
  const below =
    (foot.z * (v * Math.cos(tilt) + Math.sin(tilt))) / (Math.cos(tilt) - v * Math.sin(tilt))
  return pose.height - below
}

/** Pixels a metre on a target that stands at a place of the picture; null where no ground is seen. */
export function pixelDensity(
  pose: CameraPose,
  x: number,
  y: number,
  pictureHeight: number
): number | null {
  const ground = groundAt(pose, x, y)
  return ground ? project(pose, ground).perMetre * pictureHeight : null
}

/** Bands of pixel density on the target, px/m. Source: IEC 62676-4 (from memory). */
export const DENSITY_BANDS = [
  { name: 'identify', least: 250 },
  { name: 'recognise', least: 125 },
  { name: 'observe', least: 62.5 },
  { name: 'detect', least: 25 },
  { name: 'monitor', least: 12.5 }
] as const

/** What a density is enough for; null below them all. */
export const densityBand = (density: number): (typeof DENSITY_BANDS)[number]['name'] | null =>
  DENSITY_BANDS.find(({ least }) => density >= least)?.name ?? null

/** The picture's height at which the ground meets the sky; may lie outside 0 to 1. */
export const horizon = (pose: CameraPose): number =>
  0.5 - (0.5 * Math.tan((pose.tilt * Math.PI) / 180)) / Math.tan((pose.fieldOfView * Math.PI) / 360)
