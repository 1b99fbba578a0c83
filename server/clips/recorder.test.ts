import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { analyseInWorker } from '../../analysis/inWorker.ts'
import { RtspCamera } from '../testing/rtspCamera.ts'
import { PoorDevice } from '../testing/poorDevice.ts'
import { picturesOnly } from '../testing/poorAnswers.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
let stream: RtspCamera
let device: PoorDevice
let camera: string
beforeAll(async () => {
  stream = await RtspCamera.start('h264')
  device = await new PoorDevice(picturesOnly(`rtsp://10.0.0.9:${stream.port}/live`)).start()
  t = await startTestApp({ withDemo: false, analyse: analyseInWorker })
  const { body } = await t.ask('POST', '/devices', {
    name: 'Yard',
    address: device.address,
    makeCameras: true,
    username: 'admin',
    password: 'x'
  })
  camera = body.channels[0].camera
})
afterAll(async () => {
  await t.close()
  await device.close()
  await stream.stop()
})

const path = () => `/cameras/${camera}/recordings`
const over = () =>
  eventually(async () => {
    const { recording } = (await t.ask('GET', path())).body
    return recording.state !== 'recording' && recording
  })

describe('a clip recorded from the live picture', () => {
  test('has about its length, starts when it was taken, and is analysed', async () => {
    expect((await t.ask('GET', `/cameras/${camera}`)).body).toMatchObject({
      live: true,
      clips: []
    })
    const before = Date.now()
    const begun = await t.ask('POST', path(), { name: 'Live now', seconds: 5 })
    expect(begun).toMatchObject({ status: 201, body: { state: 'recording', seconds: 5 } })
    expect((await t.ask('POST', path(), { name: 'Again', seconds: 5 })).status).toBe(409)
    const recording = await over()
    expect(recording).toMatchObject({ state: 'done', clip: expect.any(String) })
    const clip = await eventually(async () => {
      const { body } = await t.ask('GET', `/clips/${recording.clip}`)
      return body.state === 'ready' && body
    })
    expect(clip).toMatchObject({ name: 'Live now', width: 640, height: 360 })
    expect(clip.start).toBeGreaterThanOrEqual(before)
    // Its pictures are as far apart as they came.
    expect(Math.abs(clip.frames / clip.fps - 5)).toBeLessThan(1.5)
  })

  test('can be ended early, and refuses lengths out of range', async () => {
    for (const seconds of [4, 601])
      expect((await t.ask('POST', path(), { name: 'X', seconds })).status).toBe(422)
    await t.ask('POST', path(), { name: 'Short', seconds: 600 })
    await eventually(async () => (await t.ask('GET', path())).body.recording.pictures > 12)
    const stopped = await t.ask('DELETE', path())
    expect(stopped.body).toMatchObject({ state: 'done', clip: expect.any(String) })
    expect((await t.ask('DELETE', path())).status).toBe(404)
  })

  test('of a camera that no device shows is refused', async () => {
    expect(
      (await t.ask('POST', '/cameras/camera-1/recordings', { name: 'X', seconds: 5 })).status
    ).toBe(409)
  })
})
