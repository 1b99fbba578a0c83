import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import type { Pictures } from '../deliveries/pictures.ts'
import { Evidence } from './evidence.ts'
import { TargetMemory } from './memory.ts'

let t: TestApp
let trigger: number
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  const sent = { key: 'evidence', camera: 'slipway', detection: 'quay-edge' }
  const { body } = await t.ask('POST', '/triggers', sent)
  trigger = body.id
  expect(trigger).toBeGreaterThan(0)
})
afterAll(() => t.close())

/** A camera whose pictures come when they are let go. */
function slowCamera() {
  const held: (() => void)[] = []
  let most = 0
  let begun = 0
  let now = 0
  return {
    held,
    counts: () => ({ begun, most }),
    around: async () => {
      begun++
      most = Math.max(most, ++now)
      await new Promise<void>((resolve) => held.push(resolve))
      now--
      return { pictures: [{ jpeg: Buffer.from('jpeg'), at: 0, name: 'a.jpg' }], missing: null }
    }
  }
}

type SlowCamera = ReturnType<typeof slowCamera>

function evidenceOf(camera: SlowCamera, errors: unknown[]) {
  const log = (error: unknown): void => void errors.push(error)
  const keeper = { folder: t.folder, without: () => Promise.resolve([]), hourOver: () => {} }
  const memory = new TargetMemory(t.database, t.app.devices, keeper, log)
  const folder = join(t.folder, 'kept')
  const pictures = camera as unknown as Pictures
  const times = { after: 0, still: 0 }
  return new Evidence(t.database, pictures, t.app.clips, memory, folder, log, times)
}
const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve))
/** Waits until so many pictures have been asked for. */
async function asked(camera: SlowCamera, count: number): Promise<void> {
  while (camera.counts().begun < count) await turn()
}

test('of a flood of triggers some are kept, a few at a time; closing waits for those that have begun', async () => {
  const errors: unknown[] = []
  const camera = slowCamera()
  const evidence = evidenceOf(camera, errors)
  for (let i = 0; i < 500; i++) evidence.note({ trigger })
  await asked(camera, 3)
  for (let i = 0; i < 40; i++) {
    camera.held.shift()?.()
    await asked(camera, Math.min(3 + i, 40))
  }
  expect(camera.counts().most).toBeLessThanOrEqual(4)

  let closed = false
  const closing = evidence.close().then(() => (closed = true))
  for (let i = 0; i < 20; i++) await turn()
  expect(closed).toBe(false)
  while (!closed) {
    camera.held.splice(0).forEach((go) => go())
    await turn()
  }
  await closing
  // Of 500, no more than were let wait at once.
  expect(camera.counts().begun).toBeLessThanOrEqual(60)
  expect(existsSync(join(t.folder, 'kept', `${trigger}.jpg`))).toBe(true)
  const { begun } = camera.counts()
  evidence.note({ trigger })
  for (let i = 0; i < 20; i++) await turn()
  expect(camera.counts().begun).toBe(begun)
  expect(errors).toEqual([])
})
