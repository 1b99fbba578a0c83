import { statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ChannelView, DeviceView, SendResult, SendingView } from '../../core/devices/views.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { DeviceLink } from './link/link.ts'
import { Encryption } from './encryption.ts'
import { removeDevice } from './queries.ts'

const ONE = 'analytics'
const devices = new TestDevices()
const start = devices.start.bind(devices)
let t: TestApp
const add = (device: Device, more: object = {}) =>
  t.ask('POST', '/devices', { ...asAdded(device), ...more })
const channel = (view: DeviceView): ChannelView => view.channels[0]!
const stateOf = (view: DeviceView) =>
  Object.fromEntries(channel(view).detections.map((d) => [d.id, d.state]))
const one = async (id: string): Promise<DeviceView> => (await t.ask('GET', `/devices/${id}`)).body
const send = async (...ids: string[]): Promise<SendingView> => {
  const { body } = await t.ask('POST', '/sendings', { devices: ids })
  return eventually(async () => {
    const { body: view } = await t.ask('GET', `/sendings/${body.id}`)
    return view.finished && view
  })
}
const results = async (id: string): Promise<Pick<SendResult, 'detection' | 'what' | 'error'>[]> =>
  (await send(id)).devices[0]!.results.map(({ detection, what, error }) => ({
    detection,
    what,
    error
  }))

beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
})
afterAll(async () => {
  await devices.close()
  await t.close()
})

describe('a device from its address to its settings', () => {
  let id: string
  let camera: Device
  test('reads an added device: identity, abilities and what is missing', async () => {
    camera = await start('cam-path', { switchesBack: undefined })
    const { status, body } = await add(camera)
    expect(status).toBe(201)
    id = body.id
    expect(body).toMatchObject({
      state: 'online',
      trouble: null,
      information: { manufacturer: 'Brightmoor', model: 'BM 220' }
    })
    expect(stateOf(body)).toEqual({
      'path-movement': 'missing',
      'path-people': 'unsupported',
      'path-crossing': 'missing'
    })
    expect(channel(body).detections.find((d) => d.id === 'path-crossing')!.losses).toEqual([
      { setting: 'sensitivity', wanted: '50', nearest: '34 (step 2 of 1 to 4)', elsewhere: null },
      { setting: 'confirm', wanted: '0.3 s', nearest: null, elsewhere: null }
    ])
  })

  test('encrypts its password with a key only its owner can read', async () => {
    const [row] = await t.database.rows<{ password_sealed: Buffer }>(
      'SELECT password_sealed FROM device WHERE id = ?',
      [id]
    )
    expect(row!.password_sealed.toString('latin1')).not.toContain('skerrow-2')
    const key = join(t.folder, 'device.key')
    expect(Encryption.withKey(key, 'it is needed').decrypt(row!.password_sealed)).toBe('skerrow-2')
    expect(statSync(key).mode & 0o077).toBe(0)
    expect(() =>
      Encryption.withKey(join(devices.folder, 'other.key'), null).decrypt(row!.password_sealed)
    ).toThrowWords('was encrypted with another key')
  })

  test('sends on command, reads back, and has nothing left to send', async () => {
    const unheld = async (): Promise<string[]> =>
      (await t.ask('GET', '/watch')).body.cameras.find((c: any) => c.id === 'quay-path').unheld
    expect(await unheld()).toEqual(['path-movement', 'path-people', 'path-crossing'])
    expect(await results(id)).toEqual([
      { detection: 'path-movement', what: 'created', error: null },
      { detection: 'path-crossing', what: 'created', error: null }
    ])
    expect(stateOf(await one(id))).toEqual({
      'path-movement': 'same',
      'path-people': 'unsupported',
      'path-crossing': 'same'
    })
    // Watch says which shape still has nobody behind it.
    expect(await unheld()).toEqual(['path-people'])
    expect(await results(id)).toEqual([])
  })

  test('sees changes on the device setting by setting; sending restores them', async () => {
    const other = new DeviceLink(camera.address, camera.model.account!)
    const [motion, line] = await other.analysis.rules(ONE)
    await other.analysis.modifyRule(ONE, {
      ...line!,
      simple: { ...line!.simple, Direction: 'Left' }
    })
    await other.analysis.modifyRule(ONE, {
      ...motion!,
      simple: { ...motion!.simple, MinCount: '40' }
    })
    await other.analysis.createRule(ONE, { ...line!, name: 'somebody-else' })
    const { body } = await t.ask('POST', `/devices/${id}/read`)
    expect(channel(body).detections.find((d) => d.id === 'path-crossing')).toMatchObject({
      state: 'drifted',
      differences: [{ setting: 'direction', plan: 'Any', device: 'Left' }]
    })
    expect(channel(body).detections.find((d) => d.id === 'path-movement')!.differences).toEqual([
      { setting: 'cells that must move', plan: '8', device: '40' }
    ])
    expect(channel(body).unmanaged).toEqual([{ name: 'somebody-else', kind: 'line' }])
    expect((await results(id)).map((r) => [r.detection, r.what])).toEqual([
      ['somebody-else', 'deleted'],
      ['path-movement', 'changed'],
      ['path-crossing', 'changed']
    ])
    expect(stateOf(await one(id))).toMatchObject({
      'path-movement': 'same',
      'path-crossing': 'same'
    })
  })

  test('reports a refused detection and sends the others', async () => {
    const line = {
      kind: 'line',
      line: [
        [0.1, 0.2],
        [0.9, 0.2]
      ]
    }
    for (let n = 0; n < 3; n++)
      await t.ask('PUT', `/cameras/quay-path/detections/more-${n}`, {
        version: 0,
        position: 10 + n,
        detection: { id: `more-${n}`, name: `More ${n}`, ...line }
      })
    expect(await results(id)).toEqual([
      { detection: 'more-0', what: 'created', error: null },
      { detection: 'more-1', what: 'created', error: null },
      { detection: 'more-2', what: 'created', error: 'at most 4 rules in all' }
    ])
    expect(stateOf(await one(id))).toMatchObject({ 'more-1': 'same', 'more-2': 'missing' })
  })

  test('removes detections that are switched off in the plan', async () => {
    const { body: bench } = await t.ask('GET', '/cameras/quay-path')
    const kept = bench.detections.find((d: any) => d.detection.id === 'more-0')
    await t.ask('PUT', '/cameras/quay-path/detections/more-0', {
      version: kept.version,
      position: kept.position,
      detection: { ...kept.detection, enabled: false }
    })
    expect(stateOf((await t.ask('POST', `/devices/${id}/read`)).body)['more-0']).toBe('differs')
    expect((await results(id)).map((r) => [r.detection, r.what])).toEqual([
      ['more-0', 'deleted'],
      ['more-2', 'created']
    ])
    expect(stateOf(await one(id))['more-0']).toBe('off')
  })

  test('says when it cannot be reached, and keeps what was read', async () => {
    await camera.close()
    const { body } = await t.ask('POST', `/devices/${id}/read`)
    expect(body).toMatchObject({
      state: 'offline',
      trouble: expect.saying('can’t be reached'),
      information: { model: 'BM 220' }
    })
    expect((await send(id)).devices[0]).toMatchObject({
      state: 'failed',
      results: [],
      error: expect.saying('Can’t send to')
    })
    expect((await t.ask('DELETE', `/devices/${id}`)).status).toBe(204)
    expect((await t.ask('POST', `/devices/${id}/read`)).status).toBe(404)
  })
})

describe('events of devices', () => {
  const all = {
    id: 'anybody',
    name: 'Anybody',
    kind: 'intrusion',
    zone: [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1]
    ]
  }

  test('are stored as they arrive; an interruption is recorded as a gap, and listening resumes', async () => {
    const device = await start('cam-slipway')
    const { body } = await add(device)
    await t.ask('PUT', '/cameras/slipway/detections/anybody', {
      version: 0,
      position: 5,
      detection: all
    })
    await send(body.id)
    const events = () =>
      t.database.rows<{ topic: string; rule: string; device_at: number; received_at: number }>(
        'SELECT topic, rule, device_at, received_at FROM device_event WHERE device_id = ? ORDER BY id',
        [body.id]
      )
    const first = await eventually(async () => (await events())[0])
    expect(first).toMatchObject({
      topic: 'tns1:RuleEngine/FieldDetector/ObjectsInside',
      rule: 'anybody'
    })
    expect(first.received_at).toBeGreaterThanOrEqual(first.device_at - 1000)

    // The device forgets its pull points, as after a restart.
    const count = (await events()).length
    device.pullPoints.endAll()
    await eventually(async () => (await events()).slice(count).some((e) => e.topic === 'gap'))
    device.pullPoints.put({
      topic: 'tns1:RuleEngine/FieldDetector/ObjectsInside',
      operation: 'Changed',
      at: Date.now(),
      source: { Rule: 'after' },
      data: {}
    })
    await eventually(async () => (await events()).some((e) => e.rule === 'after'))
    expect((await t.ask('GET', `/devices/${body.id}/events`)).body[0]).toMatchObject({
      rule: expect.any(String)
    })
  })

  test('are all kept in order at fifty a second', async () => {
    const device = await start('cam-waiting')
    const { body } = await add(device, { name: 'Busy' })
    await eventually(async () => device.pullPoints.count() > 0)
    for (let n = 0; n < 200; n++) {
      device.pullPoints.put({
        topic: 'tns1:Test',
        operation: 'Changed',
        at: Date.now(),
        source: { Rule: `r${n}` },
        data: {}
      })
      await new Promise((resolve) => setTimeout(resolve, 20))
    }
    const rows = await eventually(async () => {
      const list = await t.database.rows<{ rule: string }>(
        "SELECT rule FROM device_event WHERE device_id = ? AND topic = 'tns1:Test' ORDER BY id",
        [body.id]
      )
      return list.length >= 200 && list
    })
    expect(rows.map((r) => r.rule)).toEqual(Array.from({ length: 200 }, (_, n) => `r${n}`))
  })

  // While the first four are waited for the others gather, and are kept together; then each that can be is, alone.
  test('are kept of all that speak at once, but for one that is being removed', async () => {
    const said = ['a', 'b', 'c', 'd', 'e', 'f', 'g']
    const all: { device: Device; id: string }[] = []
    for (const name of said) {
      const device = await start('cam-waiting')
      all.push({ device, id: (await add(device, { name })).body.id })
    }
    await eventually(async () => all.every(({ device }) => device.pullPoints.count() > 0))
    await t.database.transaction(async (sql) => {
      for (const { id } of all.slice(0, 4))
        await sql.rows('SELECT id FROM device WHERE id = ? FOR UPDATE', [id])
      for (const [n, { device, id }] of all.entries()) {
        const at = Date.now()
        device.pullPoints.put({
          topic: 'tns1:Test',
          operation: 'Changed',
          at,
          source: { Rule: said[n]! },
          data: {}
        })
        await eventually(async () => (t.app.devices.subscriptions.heardAt(id) ?? 0) > at)
      }
      await removeDevice(t.database, all[5]!.id)
    })
    const kept = await eventually(async () => {
      const rows = await t.database.rows<{ rule: string }>(
        "SELECT rule FROM device_event WHERE topic = 'tns1:Test' AND rule BETWEEN 'a' AND 'g'"
      )
      return rows.length >= 6 && rows
    })
    expect(kept.map(({ rule }) => rule).sort()).toEqual(['a', 'b', 'c', 'd', 'e', 'g'])
  })
})

describe('devices that are not ready yet', () => {
  test('gives a device without an account its first one, and reads it', async () => {
    const device = await start('cam-yard')
    const { body } = await add(device)
    expect(body).toMatchObject({ state: 'new', trouble: 'it has no account yet' })
    expect(body.channels).toEqual([])
    expect(
      await t.ask('POST', `/devices/${body.id}/account`, {
        username: 'admin',
        password: 'short',
        first: true
      })
    ).toMatchObject({
      status: 409,
      body: { message: 'the password must have at least 8 characters' }
    })
    const { body: after } = await t.ask('POST', `/devices/${body.id}/account`, {
      username: 'admin',
      password: 'long-enough',
      first: true
    })
    expect(after).toMatchObject({ state: 'online', username: 'admin' })
    expect(stateOf(after)).toEqual({ 'yard-care': 'missing', 'yard-signal': 'own' })
  })

  test('names a wrong password, and accepts the right one', async () => {
    const device = await start('cam-slipway')
    const { body } = await add(device, { password: 'wrong' })
    expect(body).toMatchObject({ state: 'wrong-password', readAt: null })
    expect(
      (
        await t.ask('POST', `/devices/${body.id}/account`, {
          username: 'admin',
          password: 'skerrow-1',
          first: false
        })
      ).body
    ).toMatchObject({ state: 'online' })
  })

  test('reports a clock that is off by more than 2 s', async () => {
    const { body } = await add(await start('cam-waiting'))
    expect(body.state).toBe('clock-off')
    expect(body.clockAhead).toBeGreaterThan(93)
  })

  test('shows a rule that the device switched back on as unmanaged', async () => {
    const device = await start('cam-path', {
      switchesBack: { types: ['tt:TamperDetector'], seconds: 0.3 }
    })
    const { body } = await add(device)
    await eventually(async () =>
      (await t.ask('POST', `/devices/${body.id}/read`)).body.channels[0].unmanaged.some(
        (x: { name: string }) => x.name === 'own-TamperDetector'
      )
    )
  })

  test.each([
    [
      { address: '192.168.1.20' },
      'address: "192.168.1.20" is not an address; enter one such as http://192.168.1.20'
    ],
    [{ name: '' }, '$.name: must not be empty'],
    [{ camera: 'nowhere' }, 'Camera nowhere no longer exists.'],
    [{ port: 80 }, '$.port: is not known here']
  ])('refuses %j', async (change, message) => {
    const { status, body } = await t.ask('POST', '/devices', {
      name: 'X',
      address: 'http://127.0.0.1:9',
      camera: null,
      username: null,
      password: null,
      ...change
    })
    expect(status).toBeGreaterThanOrEqual(400)
    expect(body.message).toContain(message)
  })
})

describe('across a restart of the server', () => {
  const rules = async (id: string): Promise<string[]> =>
    (
      await t.database.rows<{ topic: string; rule: string }>(
        "SELECT topic, rule FROM device_event WHERE device_id = ? AND topic IN ('gap', 'tns1:Test') ORDER BY id",
        [id]
      )
    ).map(({ topic, rule }) => (topic === 'gap' ? 'gap' : rule))
  const put = (device: Device, from: number, to: number): void => {
    for (let n = from; n < to; n++)
      device.pullPoints.put({
        topic: 'tns1:Test',
        operation: 'Changed',
        at: Date.now(),
        source: { Rule: `r${n}` },
        data: {}
      })
  }
  const all = Array.from({ length: 30 }, (_, n) => `r${n}`)

  // One whose clock is 95 s ahead: its pull point is gone on with on its own clock.
  test('events wait at the device: none lost, none twice, no gap', async () => {
    const device = await start('cam-waiting')
    const { body } = await add(device, { name: 'Restarted' })
    await eventually(async () => device.pullPoints.count() > 0)
    put(device, 0, 10)
    const restarted = t.restart()
    put(device, 10, 20)
    await restarted
    put(device, 20, 30)
    t.app.devices.start()
    await eventually(async () => (await rules(body.id)).length >= 30)
    expect(await rules(body.id)).toEqual(all)
    expect(device.pullPoints.count()).toBe(1)
  })

  test('a device that was switched off has a gap with its length', async () => {
    const device = await start('cam-waiting')
    const { body } = await add(device, { name: 'Switched off' })
    await eventually(async () => device.pullPoints.count() > 0)
    await t.restart()
    device.pullPoints.endAll()
    put(device, 0, 5)
    t.app.devices.start()
    await eventually(async () => (await rules(body.id)).includes('gap'))
    put(device, 5, 6)
    await eventually(async () => (await rules(body.id)).includes('r5'))
    expect(await rules(body.id)).toEqual(['gap', 'r5'])
    const [{ data }] = (await t.ask('GET', `/devices/${body.id}/events`)).body.filter(
      (e: { topic: string }) => e.topic === 'gap'
    )
    expect(Number(data.seconds)).toBeGreaterThan(0)
  })
})

describe('after new firmware', () => {
  test('reads its abilities again, and reports a missing kind and its rule', async () => {
    const device = await start('cam-slipway', {}, 'firmware.json')
    const { body } = await add(device, { name: 'Updated' })
    await send(body.id)
    expect(stateOf(await one(body.id))['quay-edge']).toBe('same')
    await device.close()
    const {
      channels: [model]
    } = device.model
    const updated = await start(
      'cam-slipway',
      {
        firmware: '3.0.0',
        channels: [
          {
            ...model!,
            modes: [],
            rules: [{ ...model!.rules[0]!, type: 'tt:FieldDetector', most: 1 }]
          }
        ]
      },
      'firmware.json'
    )
    await t.app.devices.move(new Map([[body.id, updated.address]]))
    const after: DeviceView = (await t.ask('POST', `/devices/${body.id}/read`)).body
    expect(after).toMatchObject({ state: 'online', information: { firmware: '3.0.0' } })
    expect(channel(after).abilities.map(({ type, most }) => [type, most])).toEqual([
      ['tt:FieldDetector', 1]
    ])
    expect(channel(after).modes).toEqual([])
    expect(stateOf(after)['quay-edge']).toBe('unsupported')
  })
})

test('devices may swap addresses', async () => {
  const [one, two] = await t.database.rows<{ id: string; address: string }>(
    'SELECT id, address FROM device ORDER BY id LIMIT 2'
  )
  await t.app.devices.move(
    new Map([
      [one!.id, two!.address],
      [two!.id, one!.address]
    ])
  )
  expect(
    await t.database.rows('SELECT id, address FROM device WHERE id IN (?, ?) ORDER BY id', [
      one!.id,
      two!.id
    ])
  ).toEqual([
    { id: one!.id, address: two!.address },
    { id: two!.id, address: one!.address }
  ])
})
