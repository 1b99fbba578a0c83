import { loadImage } from '@napi-rs/canvas'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { readRange } from '../lookBack/hours.ts'
import { readPictures, type SmallPicture } from '../lookBack/pictureFile.ts'
import { TargetMemory } from './memory.ts'

const devices = new TestDevices()
const errors: unknown[] = []
let t: TestApp
let camera: Device
let memory: TargetMemory
let folder: string
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  camera = await devices.start('cam-slipway', {}, 'followed.json')
  expect((await t.ask('POST', '/devices', asAdded(camera))).status).toBe(201)
  folder = join(t.folder, 'followed')
  const keeper = { folder, without: () => Promise.resolve([]), hourOver: () => {} }
  memory = new TargetMemory(t.database, t.app.devices, keeper, (error) => errors.push(error), 50)
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
}, 600_000)

/** The first small pictures of a camera. */
async function taken(of: string): Promise<SmallPicture[]> {
  for (;;) {
    const pictures = await readPictures(folder, of, 0, Date.now() + 1000)
    if (pictures.length) return pictures
    await wait(100)
  }
}

test('keeps a small picture of what it saw', async () => {
  const [picture] = await taken('slipway')
  const { width, height } = await loadImage(picture!.jpeg)
  expect([width, height]).toEqual([480, 270])
  // Somebody was there then; what is reported is written each second.
  const { at } = picture!
  while (!(await readRange(folder, 'slipway', at - 1000, at + 1000)).rows.length) await wait(100)
}, 600_000)

test.each([
  ['Motion JPEG', 'cam-pontoon', 'fuel-pontoon', false],
  ['RTSP', 'cam-path', 'quay-path', true]
])(
  'of a device without snapshots it is from the stream: %s',
  async (_, id, of, rtsp) => {
    const device = await devices.start(id, { lacks: ['snapshot'], rtsp })
    expect((await t.ask('POST', '/devices', asAdded(device))).status).toBe(201)
    const [picture] = await taken(of)
    const { width, height } = await loadImage(picture!.jpeg)
    expect([width, height]).toEqual([480, 270])
    const { at } = picture!
    while (!(await readRange(folder, of, at - 2000, at + 2000)).rows.length) await wait(100)
    expect(errors).toEqual([])
  },
  600_000
)

test('follows a camera again that went away and came back', async () => {
  const { port } = new URL(camera.address)
  await camera.close()
  const gone = Date.now()
  await devices.start('cam-slipway', {}, 'followed.json', Number(port))
  expect((await heardSince(gone + 100)).length).toBeGreaterThan(0)
  expect(errors).toEqual([])
}, 600_000)

test('what was reported is on the disk, all of it once it is closed', async () => {
  const from = Date.now() - 60_000
  const rows = await memory.between('slipway', from, Date.now())
  await memory.close()
  const written = await readRange(folder, 'slipway', from, Date.now() + 1000)
  expect(written.rows.length).toBeGreaterThanOrEqual(rows.length)
  const seen = new Set([...written.rows.target])
  for (const { id } of rows) expect(seen.has(id)).toBe(true)
  // It was away in between, and that is known.
  expect(written.heard.length).toBeGreaterThanOrEqual(1)
  for (const [a, b] of written.heard) expect(b).toBeGreaterThan(a)
})

test('of a camera that is left out nothing is written any more, once that is said', async () => {
  const home = join(t.folder, 'left-out')
  const without: string[] = []
  const keeper = { folder: home, without: () => Promise.resolve(without), hourOver: () => {} }
  const other = new TargetMemory(t.database, t.app.devices, keeper, (e) => errors.push(e), 50)
  other.start()
  const there = (): boolean => existsSync(join(home, 'slipway'))
  while (!there()) await wait(100)
  without.push('slipway')
  await other.leaveOut()
  rmSync(join(home, 'slipway'), { recursive: true })
  await wait(2500)
  expect(there()).toBe(false)
  await other.close()
  expect(errors).toEqual([])
}, 600_000)

test('answers with nothing once it is closed, and ends', async () => {
  await memory.close()
  expect(await memory.between('slipway', 0, Date.now())).toEqual([])
})
