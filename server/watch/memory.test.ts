import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { setTimeout as wait } from 'node:timers/promises'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { TargetMemory } from './memory.ts'

const devices = new TestDevices()
const errors: unknown[] = []
let t: TestApp
let camera: Device
let memory: TargetMemory
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  camera = await devices.start('cam-slipway', {}, 'followed.json')
  expect((await t.ask('POST', '/devices', asAdded(camera))).status).toBe(201)
  memory = new TargetMemory(t.database, t.app.devices, (error) => errors.push(error), 50)
  memory.start()
})
afterAll(async () => {
  await memory.close()
  await devices.close()
  await t.close()
})

/** Waits until something has been reported since an instant. */
async function heardSince(from: number) {
  for (;;) {
    const rows = await memory.between('slipway', from, Date.now())
    if (rows.length) return rows
    await wait(100)
  }
}

test('keeps what a camera reports, by the clock here', async () => {
  const from = Date.now() - 5000
  const rows = await heardSince(from)
  for (const { frame, x, y, w, h, cls } of rows) {
    expect(frame).toBeGreaterThanOrEqual(1)
    expect(frame).toBeLessThanOrEqual(((Date.now() - from) / 1000) * 10 + 1)
    for (const share of [x, y, w, h]) expect(share).toBeLessThanOrEqual(1)
    expect(['person', 'vehicle', 'cycle', 'animal', 'unknown']).toContain(cls)
  }
  expect(await memory.between('slipway', 0, 1000)).toEqual([])
  expect(await memory.between('none-such', from, Date.now())).toEqual([])
}, 60_000)

test('follows a camera again that went away and came back', async () => {
  const { port } = new URL(camera.address)
  await camera.close()
  const gone = Date.now()
  await devices.start('cam-slipway', {}, 'followed.json', Number(port))
  expect((await heardSince(gone + 100)).length).toBeGreaterThan(0)
  expect(errors).toEqual([])
}, 60_000)

test('answers with nothing once it is closed, and ends', async () => {
  await memory.close()
  expect(await memory.between('slipway', 0, Date.now())).toEqual([])
})
