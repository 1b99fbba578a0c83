import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { SavedDetection } from '../../core/api.ts'
import { findingKey, type Finding } from '../../core/readiness/index.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, clipsOf: [] })))
afterAll(() => t.close())

const findings = async (): Promise<Finding[]> => (await t.ask('GET', '/readiness')).body.findings
const kept = async (camera: string, id: string): Promise<SavedDetection> =>
  (await t.ask('GET', `/cameras/${camera}`)).body.detections.find(
    (d: SavedDetection) => d.detection.id === id
  )
const fix = (finding: Finding, which = 'fix') =>
  t.ask('POST', '/readiness/fixes', { finding: findingKey(finding), which })

test('applies a fix to the current state: an edit made after the issue was shown stays', async () => {
  // Sensitivity 0: an issue with a fix of the detection itself.
  const detection = {
    id: 'gate',
    name: 'Gate',
    kind: 'line',
    line: [
      [0.2, 0.5],
      [0.8, 0.5]
    ],
    schedule: 'never'
  }
  expect(
    (
      await t.ask('PUT', '/api/sites/skerrow/schedules/never', {
        version: 0,
        schedule: { id: 'never', name: 'Never', week: {} }
      })
    ).status
  ).toBe(200)
  expect(
    (
      await t.ask('PUT', '/cameras/slipway/detections/gate', {
        version: 0,
        position: 9,
        detection
      })
    ).status
  ).toBe(200)
  const shown = (await findings()).find((f) => f.code === 'never-armed' && f.detection === 'gate')!
  expect(shown.fix).toMatchObject({ does: 'edit' })
  // Somebody else edits it in another window, after the issue was shown.
  expect(
    (
      await t.ask('PUT', '/cameras/slipway/detections/gate', {
        version: 1,
        position: 9,
        detection: { ...detection, name: 'Gate, renamed', sensitivity: 71 }
      })
    ).status
  ).toBe(200)
  const { status, body } = await fix(shown)
  expect(status).toBe(200)
  const now = await kept('slipway', 'gate')
  expect(now).toMatchObject({ version: 3, detection: { name: 'Gate, renamed', sensitivity: 71 } })
  expect(now.detection.schedule).toBeUndefined()
  // Undo puts back what was there, unless that has been edited since.
  expect((await t.ask(body.undo.method, body.undo.path, body.undo.body)).status).toBe(200)
  expect((await kept('slipway', 'gate')).detection.schedule).toBe('never')
  expect((await t.ask(body.undo.method, body.undo.path, body.undo.body)).status).toBe(409)
  const [edit] = (await t.ask('GET', '/cameras/slipway/history')).body.entries
  expect(edit).toMatchObject({ by: 'Isla Brae', thingId: 'gate' })
})

test('two at once amid edits overwrite nothing unseen', async () => {
  const shown = (await findings()).find((f) => f.code === 'never-armed' && f.detection === 'gate')!
  const before = await kept('slipway', 'gate')
  const edits = (async () => {
    let done = 0
    for (let n = 0; n < 10; n++) {
      const { version, detection } = await kept('slipway', 'gate')
      const saved = await t.ask('PUT', '/cameras/slipway/detections/gate', {
        version,
        position: 9,
        detection: { ...detection, sensitivity: 10 + n }
      })
      if (saved.status === 200) done++
    }
    return done
  })()
  const fixes = await Promise.all([fix(shown), fix(shown)])
  const done = await edits
  const applied = fixes.filter((f) => f.status === 200).length
  // Who came second finds the issue gone, or applies it to the newest; each save is one version more.
  for (const { status } of fixes) expect([200, 404, 409]).toContain(status)
  const after = await kept('slipway', 'gate')
  expect(after.version).toBe(before.version + done + applied)
  if (applied) expect(after.detection.schedule).toBeUndefined()
})

test('adds links and undoes them; an issue that is gone, or whose fix is a command, changes nothing', async () => {
  const shown = (await findings()).find(
    (f) => f.code === 'nothing-linked' && f.fix?.does === 'actions'
  )!
  const { body, status } = await fix(shown)
  expect(status).toBe(200)
  expect((await findings()).some((f) => findingKey(f) === findingKey(shown))).toBe(false)
  expect(await fix(shown)).toMatchObject({
    status: 404,
    body: { message: 'This issue no longer exists.' }
  })
  expect((await t.ask(body.undo.method, body.undo.path, body.undo.body)).status).toBe(200)
  expect((await findings()).some((f) => findingKey(f) === findingKey(shown))).toBe(true)
  const command = (await findings()).find(
    (f) => f.fix && ['go', 'prove', 'test', 'send'].includes(f.fix.does)
  )
  if (command) expect((await fix(command)).status).toBe(409)
  expect(
    (await t.ask('POST', '/readiness/fixes', { finding: 'made up', which: 'fix' })).status
  ).toBe(404)
})
