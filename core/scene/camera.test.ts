import { describe, expect, test } from '@jest/globals'
import { horizon, project, type CameraPose } from './camera.ts'
import { loadOpenCv } from '../../analysis/opencv.ts'

const pose: CameraPose = { height: 5, tilt: 17, fieldOfView: 41, aspect: 16 / 9 }

describe('camera', () => {
  test('projects as OpenCV’s projectPoints does', async () => {
    const { cv } = await loadOpenCv()
    const points = [[0, 0, 10], [-3, 0, 14], [4, 1.75, 9], [2.5, 2, 40], [-6, 0.5, 8]]
    const [width, height] = [1600, 900]
    const focal = height / 2 / Math.tan((pose.fieldOfView * Math.PI) / 360)
    // OpenCV's camera looks along +z with y down: the world is turned over (y up) and then tilted about x.
    const flat = points.flatMap(([x, y, z]) => [x, pose.height - y, z])
    const object = cv.matFromArray(points.length, 3, cv.CV_64F, flat)
    const turn = cv.matFromArray(3, 1, cv.CV_64F, [(pose.tilt * Math.PI) / 180, 0, 0])
    const none = cv.Mat.zeros(3, 1, cv.CV_64F)
    const matrix = cv.matFromArray(3, 3, cv.CV_64F, [focal, 0, width / 2, 0, focal, height / 2, 0, 0, 1])
    const distortion = cv.Mat.zeros(4, 1, cv.CV_64F)
    const seen = new cv.Mat()
    const jacobian = new cv.Mat()
    ;(cv as any).projectPoints(object, turn, none, matrix, distortion, seen, jacobian)
    points.forEach(([x, y, z], i) => {
      const p = project(pose, { x, y, z })
      expect(p.x * width).toBeCloseTo(seen.data64F[2 * i], 6)
      expect(p.y * height).toBeCloseTo(seen.data64F[2 * i + 1], 6)
    })
  })

  test('the ground far away nears the horizon, and a metre shrinks with the distance', () => {
    expect(project(pose, { x: 0, z: 1e7 }).y).toBeCloseTo(horizon(pose), 5)
    expect(project(pose, { x: 0, z: 10 }).perMetre).toBeGreaterThan(project(pose, { x: 0, z: 20 }).perMetre)
  })
})
