import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import type { CameraPose } from '../camera.ts'

export type P3 = [x: number, y: number, z: number]

/** Where OpenCV's projectPoints sees points of the world (x right, y up, z away), normalised. */
export function openCvSees(pose: CameraPose, points: P3[]): [number, number][] {
  const height = 1000
  const width = height * pose.aspect
  const focal = height / 2 / Math.tan((pose.fieldOfView * Math.PI) / 360)
  const order = {
    points: points.map(([x, y, z]) => [x, pose.height - y, z]),
    tilt: (pose.tilt * Math.PI) / 180,
    focal,
    width,
    height
  }
  const script = fileURLToPath(new URL('./projectPoints.mjs', import.meta.url))
  const flat = JSON.parse(
    execFileSync(process.execPath, [script, JSON.stringify(order)], { encoding: 'utf8' })
  ) as number[]
  return points.map((_, i) => [flat[2 * i]! / width, flat[2 * i + 1]! / height])
}
