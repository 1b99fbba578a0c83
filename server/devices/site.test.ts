import { randomBytes } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ChannelView, DeviceView, FoundDevice, SendingView } from '../../core/devices/views.ts'
import { envelope, makeToken } from '../../core/formats/onvif/soap.ts'
import type { ReadinessView } from '../../core/readiness/index.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { answerProbes } from '../../simulators/discovery.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { DeviceLink } from './link/link.ts'

/** The devices of the demo site that know of each other, over the real server. */
const devices = new TestDevices()
const IDS = [
  'cam-slipway',
  'cam-pontoon',
  'cam-waiting',
  'cam-path',
  'cam-lanes',
  'recorder'
] as const
let t: TestApp
let probes: Awaited<ReturnType<typeof answerProbes>>
const made = new Map<string, Device>()
const ids = new Map<string, string>()

const ask = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
  const answer = await t.ask(method, path, body)
  if (answer.status >= 400) throw new Error(`${answer.status} ${answer.body.message}`)
  return answer.body as T
}
const path = (device: string, more = ''): string => `/devices/${ids.get(device)}${more}`
const view = (device: string): Promise<DeviceView> => ask('GET', path(device))
const channel = async (device: string, name: string): Promise<ChannelView> =>
  (await view(device)).channels.find((c) => c.name === name)!
const draw = async (
  camera: string,
  detection: { id: string; [key: string]: unknown }
): Promise<void> => {
  const { detections } = await ask<{
    detections: { detection: { id: string }; version: number }[]
  }>('GET', `/cameras/${camera}`)
  await ask('PUT', `/cameras/${camera}/detections/${detection.id}`, {
    detection,
    position: 0,
    version: detections.find((d) => d.detection.id === detection.id)?.version ?? 0
  })
}
const send = async (...names: string[]): Promise<SendingView> => {
  const { id } = await ask<SendingView>('POST', '/sendings', {
    devices: names.map((name) => ids.get(name))
  })
  return eventually(async () => {
    const sending = await ask<SendingView>('GET', `/sendings/${id}`)
    return sending.finished && sending
  })
}
const readiness = (): Promise<ReadinessView> => ask('GET', '/readiness')

beforeAll(async () => {
  for (const device of await devices.startSite(...IDS)) made.set(device.model.id, device)
  probes = await answerProbes(0, () =>
    [...made.values()].map(({ address, model }) => ({
      address,
      name: model.name,
      hardware: model.model
    }))
  )
  t = await startTestApp({ withDemo: true, places: [{ from: '127.0.0.1', port: probes.port }] })
  for (const [id, device] of made)
    ids.set(id, (await ask<DeviceView>('POST', '/devices', asAdded(device))).id)
})
afterAll(async () => {
  probes.close()
  await t.close()
  await devices.close()
})

test('finds devices on the network, and marks known ones', async () => {
  await ask('DELETE', path('cam-lanes'))
  const found = await ask<FoundDevice[]>('POST', '/devices/find')
  expect(found.map(({ name, known }) => [name, known])).toEqual([
    ['Fuel pontoon camera', true],
    ['Quay path camera', true],
    ['Recorder', true],
    ['Slipway camera', true],
    ['Vehicle lanes camera', false],
    ['Waiting room camera', true]
  ])
  const lanes = found.find(({ known }) => !known)!
  expect(lanes).toEqual({
    address: made.get('cam-lanes')!.address,
    name: 'Vehicle lanes camera',
    hardware: 'BM 10',
    simulated: false,
    known: false
  })
  ids.set(
    'cam-lanes',
    (
      await ask<DeviceView>('POST', '/devices', {
        ...asAdded(made.get('cam-lanes')!),
        address: lanes.address
      })
    ).id
  )
})

describe('the recorder', () => {
  test('matches its channels to the site’s cameras by name', async () => {
    expect(
      (await view('recorder')).channels.map((c) => [c.token, c.name, c.camera, c.abilities.length])
    ).toEqual([
      ['channel-1', 'Waiting room', 'waiting-room', 0],
      ['channel-2', 'Vehicle lanes', 'vehicle-lanes', 3],
      ['channel-3', 'Fuel pontoon', 'fuel-pontoon', 2],
      ['channel-4', 'Quay path', 'quay-path', 1]
    ])
  })

  test('analyses the camera that has no analysis', async () => {
    await draw('vehicle-lanes', {
      id: 'kerb',
      name: 'Kerb',
      kind: 'intrusion',
      zone: [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1]
      ],
      classes: ['person', 'vehicle']
    })
    expect((await channel('cam-lanes', 'Vehicle lanes')).detections[0]).toMatchObject({
      state: 'unsupported',
      elsewhere: 'Recorder'
    })
    const {
      devices: [, recorder]
    } = await send('cam-lanes', 'recorder')
    expect(recorder!.results).toContainEqual({
      channel: 'channel-2',
      detection: 'kerb',
      name: 'Kerb',
      what: 'created',
      error: null,
      holds: 'new'
    })
    expect((await channel('recorder', 'Vehicle lanes')).detections[0]!.state).toBe('same')
    const heard = await eventually(async () =>
      (await ask<{ rule: string; topic: string }[]>('GET', path('recorder', '/events'))).find(
        ({ rule }) => rule === 'kerb'
      )
    )
    expect(heard).toMatchObject({ topic: 'tns1:RuleEngine/FieldDetector/ObjectsInside' })
  })

  test('sends a setting through the route that supports it only', async () => {
    const nights = {
      id: 'deck',
      name: 'Deck',
      kind: 'intrusion',
      zone: [
        [0.2, 0.3],
        [0.8, 0.3],
        [0.8, 0.9]
      ],
      classes: ['person'],
      confirmSeconds: 1,
      schedule: 'nights'
    }
    await draw('fuel-pontoon', nights)
    const [atCamera, atRecorder] = [
      await channel('cam-pontoon', 'Fuel pontoon'),
      await channel('recorder', 'Fuel pontoon')
    ]
    expect(atCamera.detections[0]!.losses).toEqual([
      { setting: 'arming', wanted: 'Nights', nearest: 'always armed', elsewhere: 'Recorder' }
    ])
    expect(atRecorder.detections[0]!.losses).toEqual([
      { setting: 'confirm', wanted: '1 s', nearest: null, elsewhere: 'Fuel pontoon camera' }
    ])
    await send('cam-pontoon', 'recorder')
    // The rule itself, at the device, has both.
    expect(made.get('cam-pontoon')!.state.channels.analytics!.rules[0]!.simple).toMatchObject({
      ConfirmTime: 'PT1S',
      Hours: expect.saying('sat=00:00-24:00')
    })
    expect((await channel('cam-pontoon', 'Fuel pontoon')).detections[0]!.state).toBe('same')
    expect((await channel('recorder', 'Fuel pontoon')).detections[0]!.state).toBe('same')
    await send('cam-pontoon')
    expect(made.get('cam-pontoon')!.state.channels.analytics!.rules[0]!.simple).toMatchObject({
      ConfirmTime: 'PT1S',
      Hours: expect.any(String)
    })
  })

  test('sends nothing through an unused route, and reports what only it could hold', async () => {
    await ask('PUT', path('recorder', '/channels/channel-3'), { used: false })
    const wrong = (await readiness()).findings.find(
      ({ code, camera }) => code === 'wrong-door' && camera === 'fuel-pontoon'
    )!
    expect(wrong).toMatchObject({
      severity: 'warning',
      fix: { does: 'door', device: ids.get('recorder'), channel: 'channel-3' }
    })
    await draw('fuel-pontoon', {
      id: 'rail',
      name: 'Rail',
      kind: 'line',
      line: [
        [0.1, 0.5],
        [0.9, 0.5]
      ]
    })
    const {
      devices: [recorder]
    } = await send('recorder')
    expect(recorder!.results.map(({ detection }) => detection)).not.toContain('rail')
    await ask('PUT', path('recorder', '/channels/channel-3'), { used: true })
    expect(
      (await readiness()).findings.some(
        ({ code, camera }) => code === 'wrong-door' && camera === 'fuel-pontoon'
      )
    ).toBe(false)
  })

  test('assigns a channel to another camera or to none', async () => {
    const [before] = (await view('recorder')).channels as [ChannelView]
    expect(
      (await ask<DeviceView>('PUT', path('recorder', '/channels/channel-1'), { camera: null }))
        .channels[0]
    ).toMatchObject({ camera: null, detections: [] })
    expect(
      (await t.ask('PUT', path('recorder', '/channels/channel-1'), { camera: 'nowhere' })).status
    ).toBe(404)
    expect(
      (await t.ask('PUT', path('recorder', '/channels/channel-9'), { camera: null })).status
    ).toBe(404)
    await ask('PUT', path('recorder', '/channels/channel-1'), { camera: before.camera })
  })

  test('shows its contacts as they change', async () => {
    const inputs = await eventually(async () => {
      const list = (await view('recorder')).inputs
      return list.every(({ active }) => active !== null) && list
    })
    expect(inputs.map(({ token }) => token)).toEqual([
      'input-1',
      'input-2',
      'input-3',
      'input-4',
      'input-5',
      'input-6'
    ])
  })
})

describe('families of analysis', () => {
  const modes = async (): Promise<string[]> =>
    (await channel('cam-slipway', 'Slipway')).modes
      .filter(({ running }) => running)
      .map(({ type }) => type)

  test('runs one at a time, and reports the rules of the other', async () => {
    expect(await modes()).toEqual(['wo:Perimeter'])
    await ask('PUT', path('cam-slipway', '/channels/analytics/mode'), { type: 'wo:Faces' })
    expect(await modes()).toEqual(['wo:Faces'])
    expect(
      (await readiness()).findings.find(
        ({ code, device }) => code === 'analysis-off' && device === ids.get('cam-slipway')
      )
    ).toMatchObject({ detection: 'quay-edge', fix: { does: 'mode', type: 'wo:Perimeter' } })
    await ask('PUT', path('cam-slipway', '/channels/analytics/mode'), { type: 'wo:Perimeter' })
    expect(await modes()).toEqual(['wo:Perimeter'])
    expect(
      await t.ask('PUT', path('cam-slipway', '/channels/analytics/mode'), { type: 'wo:Nothing' })
    ).toMatchObject({ status: 404 })
  })

  test('reads again after a command, also during an older reading', async () => {
    for (const type of ['wo:Faces', 'wo:Perimeter']) {
      const older = t.app.devices.reader.read(ids.get('cam-slipway')!)
      const after = await ask<DeviceView>('PUT', path('cam-slipway', '/channels/analytics/mode'), {
        type
      })
      expect(
        after.channels[0]!.modes.filter(({ running }) => running).map((mode) => mode.type)
      ).toEqual([type])
      await older
    }
  })

  test('the device refuses a second family beside the first', async () => {
    const device = made.get('cam-slipway')!
    const link = new DeviceLink(device.address, device.model.account!)
    await expect(link.analysis.setMode('analytics', null, 'wo:Faces')).rejects.toThrowWords(
      'one family of analysis runs at a time'
    )
    expect(device.channels[0]!.mode).toBe('wo:Perimeter')
    // A general client may write a module again as it is; one that does not run it cannot.
    const { username, password } = device.model.account!
    const modify = async (name: string): Promise<number> =>
      (
        await fetch(`${device.address}/onvif/analytics_service`, {
          method: 'POST',
          body: envelope(
            `<tan:ModifyAnalyticsModules><tan:ConfigurationToken>analytics</tan:ConfigurationToken><tan:AnalyticsModule Name="${name}" Type="${name}"/></tan:ModifyAnalyticsModules>`,
            { token: makeToken(username, password, randomBytes(16), Date.now()) }
          )
        })
      ).status
    expect([await modify('wo:Perimeter'), await modify('wo:Faces')]).toEqual([200, 400])
  })
})

describe('outputs', () => {
  test.each([
    ['recorder', 'relay-1'],
    ['recorder', 'buzzer'],
    ['cam-slipway', 'strobe'],
    ['cam-slipway', 'speaker']
  ])('%s, %s: switches it, and the device confirms', async (device, token) => {
    const after = await ask<DeviceView>('POST', path(device, `/outputs/${token}/test`))
    expect(after.outputs.find((o) => o.token === token)).toMatchObject({
      active: true,
      testedAt: expect.any(Number)
    })
    expect(made.get(device)!.outputs.isActive(token, Date.now())).toBe(true)
  })

  test('one that does not exist', async () =>
    expect((await t.ask('POST', path('recorder', '/outputs/siren/test'))).status).toBe(404))
})

describe('changed on the device', () => {
  test('imports changes from the device, including an unmanaged rule', async () => {
    await send('cam-slipway')
    const device = made.get('cam-slipway')!
    const other = new DeviceLink(device.address, device.model.account!)
    const [edge] = await other.analysis.rules('analytics')
    await other.analysis.modifyRule('analytics', {
      ...edge!,
      simple: { ...edge!.simple, Sensitivity: '70', Direction: 'Any' }
    })
    await other.analysis.createRule('analytics', {
      ...edge!,
      name: 'ramp',
      points: [
        [-0.5, -0.5],
        [0.5, -0.5]
      ]
    })
    await ask('POST', path('cam-slipway', '/read'))
    expect((await readiness()).findings.filter(({ code }) => code === 'drift')).toMatchObject([
      { detection: 'quay-edge', severity: 'blocking' }
    ])
    for (const rule of ['quay-edge', 'ramp'])
      await ask('POST', path('cam-slipway', '/take-over'), { channel: 'analytics', rule })
    const { detections } = await ask<{ detections: { detection: { id: string } }[] }>(
      'GET',
      '/cameras/slipway'
    )
    expect(detections.map((d) => d.detection).find(({ id }) => id === 'quay-edge')).toMatchObject({
      sensitivity: 70,
      direction: 'both',
      sides: { left: 'Water', right: 'Land' }
    })
    expect(detections.map((d) => d.detection).find(({ id }) => id === 'ramp')).toMatchObject({
      kind: 'line',
      line: [
        [0.25, 0.75],
        [0.75, 0.75]
      ]
    })
    expect((await channel('cam-slipway', 'Slipway')).detections.map(({ state }) => state)).toEqual([
      'same',
      'same'
    ])
    expect(
      (
        await t.ask('POST', path('cam-slipway', '/take-over'), {
          channel: 'analytics',
          rule: 'nothing'
        })
      ).status
    ).toBe(404)
  })
})

describe('a device that switches motion and tamper back on', () => {
  test('notices it, and stays quiet once parked', async () => {
    const device = await devices.start('cam-path', {
      switchesBack: { types: ['tt:CellMotionDetector', 'tt:TamperDetector'], seconds: 0.5 }
    })
    await ask('DELETE', path('cam-path'))
    ids.set('cam-path', (await ask<DeviceView>('POST', '/devices', asAdded(device))).id)
    await eventually(
      async () =>
        (await ask<DeviceView>('POST', path('cam-path', '/read'))).channels[0]!.unmanaged.length > 1
    )
    // When it switches back is the test's to say: not while it looks at what has just been sent.
    const ownMind = device.model.switchesBack as { seconds: number }
    ownMind.seconds = 3600
    await send('cam-path')
    expect(device.channels[0]!.rules.map(({ type }) => type)).not.toContain('tt:TamperDetector')
    ownMind.seconds = 0.1
    await eventually(async () =>
      (await ask<DeviceView>('POST', path('cam-path', '/read'))).channels[0]!.switchesBack.includes(
        'tt:TamperDetector'
      )
    )
    const finding = (await readiness()).findings.find(
      ({ code, device: id }) => code === 'switches-back' && id === ids.get('cam-path')
    )!
    expect(finding.fix).toMatchObject({
      does: 'add',
      camera: 'quay-path',
      detection: { kind: 'tamper', parked: true }
    })
    await draw(
      'quay-path',
      (finding.fix as { detection: { id: string; [key: string]: unknown } }).detection
    )
    ownMind.seconds = 3600
    await send('cam-path')
    ownMind.seconds = 0.1
    const parked = device.channels[0]!.rules.find(({ type }) => type === 'tt:TamperDetector')!
    expect(parked).toMatchObject({
      name: 'parked-tamper',
      simple: { Hours: expect.saying(/^mon=00:00-00:01;/) }
    })
    // Longer than it takes to switch back.
    await new Promise((resolve) => setTimeout(resolve, 1000))
    expect(
      device.channels[0]!.rules.filter(({ type }) => type === 'tt:TamperDetector')
    ).toHaveLength(1)
    expect(
      (await readiness()).findings.some(
        ({ code, device: id }) => code === 'switches-back' && id === ids.get('cam-path')
      )
    ).toBe(false)
  })
})

describe('what a camera shows now', () => {
  test('its picture, still and moving', async () => {
    const still = await t.fetch(`/cameras/slipway/live.jpg`)
    expect([still.status, still.headers.get('content-type')]).toEqual([200, 'image/jpeg'])
    const moving = await t.fetch(`/cameras/slipway/live.mjpg`)
    expect(moving.headers.get('content-type')).toMatch(/^multipart\/x-mixed-replace/)
    let text = ''
    for await (const part of moving.body as unknown as AsyncIterable<Uint8Array>) {
      text += Buffer.from(part).toString('latin1')
      // Two whole pictures: each begins and ends as JPEG does.
      if ((text.match(/\xff\xd8\xff[^]*?\xff\xd9/g) ?? []).length >= 2) break
    }
    expect(text).toMatch(/Content-Type: image\/jpeg/i)
  })

  test('its targets and events, as server-sent events', async () => {
    await draw('slipway', {
      id: 'anybody',
      name: 'Anybody',
      kind: 'intrusion',
      zone: [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1]
      ]
    })
    const stop = new AbortController()
    const stream = await t.fetch(`/cameras/slipway/live`, { signal: stop.signal })
    expect(stream.headers.get('content-type')).toBe('text/event-stream')
    const sending = send('cam-slipway')
    const seen = new Map<string, any>()
    let text = ''
    for await (const part of stream.body as unknown as AsyncIterable<Uint8Array>) {
      text += Buffer.from(part).toString('utf8')
      for (const [whole, event, data] of text.matchAll(/event: (\w+)\ndata: (.*)\n\n/g)) {
        text = text.replace(whole, '')
        const value = JSON.parse(data!)
        // Its relay and inputs say things as well, when they like.
        if (event === 'targets' ? value.targets.length : value.topic?.includes('RuleEngine'))
          seen.set(event!, value)
      }
      if (seen.has('targets') && seen.has('heard')) break
    }
    await sending
    expect(seen.get('heard')).toMatchObject({
      topic: expect.saying('RuleEngine'),
      rule: expect.any(String)
    })
    for (const { x, y, w, h } of seen.get('targets').targets)
      expect([x >= -0.2, y >= -0.2, w > 0, h > 0, x + w < 1.2, y + h < 1.2]).toEqual(
        Array(6).fill(true)
      )
  })

  test('a camera that no device shows', async () => {
    expect(await t.ask('GET', '/cameras/workshop-yard/live.jpg')).toMatchObject({
      status: 409,
      body: { message: expect.saying('No device shows this camera. See Devices.') }
    })
  })
})

describe('readiness', () => {
  test('follows what is drawn, sent and reported', async () => {
    const steps = async () =>
      (await readiness()).cameras.find(({ id }) => id === 'vehicle-lanes')!.steps
    await send('recorder')
    expect(await steps()).toMatchObject({ drawn: 'done', sent: 'done' })
    await draw('vehicle-lanes', {
      id: 'gate',
      name: 'Gate',
      kind: 'line',
      line: [
        [0.1, 0.5],
        [0.9, 0.5]
      ],
      classes: ['vehicle']
    })
    expect((await steps()).sent).toBe('open')
    await made.get('recorder')!.close()
    await ask('POST', path('recorder', '/read'))
    expect(await steps()).toMatchObject({ sent: 'failed' })
    expect((await readiness()).findings[0]).toMatchObject({ severity: 'blocking' })
  })
})
