import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from '@jest/globals'
import { horizon, project, type CameraPose } from './camera.ts'

const pose: CameraPose = { height: 5, tilt: 17, fieldOfView: 41, aspect: 16 / 9 }

describe('camera', () => {
  test('projects like OpenCV’s projectPoints', () => {
    const points = [
      [0, 0, 10],
      [-3, 0, 14],
      [4, 1.75, 9],
      [2.5, 2, 40],
      [-6, 0.5, 8]
    ]
    const [width, height] = [1600, 900]
    const focal = height / 2 / Math.tan((pose.fieldOfView * Math.PI) / 360)
    // OpenCV's camera looks along +z with y down: the world is turned over and then tilted about x.
    const order = {
      points: points.map(([x, y, z]) => [x, pose.height - y!, z]),
      tilt: (pose.tilt * Math.PI) / 180,
      focal,
      width,
      height
    }
    const script = fileURLToPath(new URL('./testing/projectPoints.mjs', import.meta.url))
    const seen = JSON.parse(
      execFileSync(process.execPath, [script, JSON.stringify(order)], { encoding: 'utf8' })
    ) as number[]
    points.forEach(([x = 0, y = 0, z = 0], i) => {
      const p = project(pose, { x, y, z })
      expect(p.x * width).toBeCloseTo(seen[2 * i]!, 6)
      expect(p.y * height).toBeCloseTo(seen[2 * i + 1]!, 6)
    })
  })

  test('the ground nears the horizon with distance, and a metre shrinks', () => {
    expect(project(pose, { x: 0, z: 1e7 }).y).toBeCloseTo(horizon(pose), 5)
    expect(project(pose, { x: 0, z: 10 }).perMetre).toBeGreaterThan(
      project(pose, { x: 0, z: 20 }).perMetre
    )
  })
})
