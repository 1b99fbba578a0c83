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
  return { x: 0.5 + (focal * x) / depth / pose.aspect, y: 0.5 + (focal * down) / depth, depth, perMetre: focal / depth }
}

/** The picture's height at which the ground meets the sky; may lie outside 0 to 1. */
export const horizon = (pose: CameraPose): number => 0.5 - (0.5 * Math.tan((pose.tilt * Math.PI) / 180)) / Math.tan((pose.fieldOfView * Math.PI) / 360)
