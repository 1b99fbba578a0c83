import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { DeviceView, SendResult, SendingView } from '../../core/devices/views.ts'
import { readMessage } from '../../core/formats/onvif/soap.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

/** A line that cuts: between the server and a device, before or after a command has reached it. */
class Line {
  /** What is done with a message. */
  cut: (message: string) => 'pass' | 'before' | 'after' = () => 'pass'
  address = ''
  private readonly server: Server

  constructor(device: Device) {
    const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
      const parts: Buffer[] = []
      for await (const part of request as AsyncIterable<Buffer>) parts.push(part)
      const message = Buffer.concat(parts).toString('utf8')
      const how = this.cut(message)
      if (how === 'before') return void response.destroy()
      const said = await fetch(device.address + request.url, {
        method: request.method,
        ...(parts.length && { body: message }),
        headers: { 'content-type': 'application/soap+xml' }
      }).catch(() => null)
      if (how === 'after' || !said) return void response.destroy()
      // The device's own address is the line's, as behind a router.
      response
        .writeHead(said.status, { 'content-type': said.headers.get('content-type') ?? '' })
        .end((await said.text()).replaceAll(device.address, this.address))
    }
    this.server = createServer((request, response) => void answer(request, response))
  }

  async open(): Promise<this> {
    await new Promise<void>((resolve) => this.server.listen(0, '127.0.0.1', resolve))
    this.address = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`
    return this
  }

  close(): void {
    this.server.closeAllConnections()
    this.server.close()
  }
}

const devices = new TestDevices()
let t: TestApp
let device: Device
let line: Line
let id: string

const draw = async (sensitivity: number, name = 'quay-edge'): Promise<void> => {
  const { detections } = (await t.ask('GET', '/cameras/slipway')).body
  const kept = detections.find((d: { detection: { id: string } }) => d.detection.id === name)
  const detection = kept?.detection ?? {
    id: name,
    name,
    kind: 'line',
    line: [
      [0.1, 0.7],
      [0.9, 0.7]
    ],
    classes: ['person']
  }
  await t.ask('PUT', `/cameras/slipway/detections/${name}`, {
    detection: { ...detection, sensitivity },
    position: kept?.position ?? 5,
    version: kept?.version ?? 0
  })
}
const send = async (): Promise<SendingView['devices'][number]> => {
  const { body } = await t.ask('POST', '/sendings', { devices: [id] })
  return eventually(async () => {
    const { body: view } = await t.ask('GET', `/sendings/${body.id}`)
    return view.finished && view.devices[0]
  })
}
const held = (): Record<string, string> =>
  Object.fromEntries(
    device.channels[0]!.rules.map(({ name, simple }) => [name, simple.Sensitivity!])
  )
const outcome = ({ results }: { results: SendResult[] }) =>
  results.map(({ detection, what, holds, error }) => [detection, what, holds, error !== null])

beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  device = await devices.start('cam-slipway')
  line = await new Line(device).open()
  const { body } = await t.ask('POST', '/devices', {
    ...asAdded(device),
    address: line.address
  })
  id = (body as DeviceView).id
})
afterAll(async () => {
  line.close()
  await t.close()
  await devices.close()
})

describe('an interruption while sending leaves the old rule or the new one, and says which', () => {
  test('complete, through the proxy', async () => {
    expect(outcome(await send())).toEqual([['quay-edge', 'created', 'new', false]])
    expect(held()).toEqual({ 'quay-edge': '50' })
  })

  test.each([
    ['read of late: asked only what it holds, before and after', false, ['GetRules']],
    [
      'not read of late: asked all before, and what it holds after',
      true,
      ['GetDeviceInformation', 'GetSupportedRules', 'GetRules']
    ]
  ])('complete, %s', async (_, isLongAgo, before) => {
    await draw(55)
    if (isLongAgo) await t.app.devices.reader.forget(id)
    const asked: string[] = []
    line.cut = (message) => {
      asked.push(readMessage(message).action.name)
      return 'pass'
    }
    expect(outcome(await send())).toEqual([['quay-edge', 'changed', 'new', false]])
    const sent = asked.indexOf('ModifyRules')
    const whole = ['GetDeviceInformation', 'GetSupportedRules', 'GetRules']
    expect(whole.filter((name) => asked.slice(0, sent).includes(name))).toEqual(before)
    expect(whole.filter((name) => asked.slice(sent).includes(name))).toEqual(['GetRules'])
    const { body } = await t.ask('GET', `/devices/${id}`)
    const [channel] = (body as DeviceView).channels
    expect(channel!.detections.find((d) => d.id === 'quay-edge')!.state).toBe('same')
    await draw(50)
    await send()
    expect(held()).toEqual({ 'quay-edge': '50' })
  })

  test('cut before the command arrived: the old one', async () => {
    await draw(60)
    line.cut = (message) => (message.includes('ModifyRules') ? 'before' : 'pass')
    const device1 = await send()
    expect(device1.state).toBe('failed')
    expect(outcome(device1)).toEqual([['quay-edge', 'changed', 'old', true]])
    expect(held()).toEqual({ 'quay-edge': '50' })
  })

  test('cut after it arrived: the new one, although no answer came', async () => {
    line.cut = (message) => (message.includes('ModifyRules') ? 'after' : 'pass')
    expect(outcome(await send())).toEqual([['quay-edge', 'changed', 'new', true]])
    expect(held()).toEqual({ 'quay-edge': '60' })
  })

  test('cut for good: unknown until read again; what was not begun says so', async () => {
    await draw(70)
    await draw(40, 'second')
    let down = false
    line.cut = (message) =>
      down ? 'before' : message.includes('ModifyRules') ? ((down = true), 'after') : 'pass'
    const sent = await send()
    expect(outcome(sent)).toEqual([
      ['quay-edge', 'changed', 'unknown', true],
      ['second', 'created', 'none', true]
    ])
    expect(sent.results[1]!.error).toSay('not started: ')
    expect((await t.ask('GET', `/devices/${id}`)).body.state).toBe('offline')
    // The timer does not leave it out as one that was read just before it was sent to.
    const { reader } = t.app.devices
    expect(reader.isDue(id)).toBe(true)
    line.cut = () => 'pass'
    await reader.read(id)
    expect(reader.isDue(id)).toBe(false)
    const view = (await t.ask('POST', `/devices/${id}/read`)).body as DeviceView
    expect(view.channels[0]!.detections.map((d) => [d.id, d.state])).toEqual([
      ['quay-edge', 'same'],
      ['second', 'missing']
    ])
    expect(outcome(await send())).toEqual([['second', 'created', 'new', false]])
    expect(held()).toEqual({ 'quay-edge': '70', second: '40' })
  })

  test('refuses a second sending to one device', async () => {
    await draw(30)
    const both = await Promise.all([send(), send()])
    expect(both.map(({ error }) => error).filter(Boolean)).toEqual([
      'A send to this device is already running.'
    ])
    expect(held()).toMatchObject({ 'quay-edge': '30' })
  })
})

describe('many devices', () => {
  test('are sent to in parallel; a silent one does not hold up the others', async () => {
    const silent = createServer(() => {})
    await new Promise<void>((resolve) => silent.listen(0, '127.0.0.1', resolve))
    const others = await Promise.all(
      Array.from({ length: 10 }, () => devices.start('cam-waiting', { clockOff: 0 }))
    )
    const ids: string[] = []
    // Without a camera nothing is sent to them; they are read, and have an end all the same.
    for (const other of others)
      ids.push((await t.ask('POST', '/devices', { ...asAdded(other), camera: null })).body.id)
    const adding = t.ask('POST', '/devices', {
      name: 'Silent',
      address: `http://127.0.0.1:${(silent.address() as AddressInfo).port}`,
      camera: null,
      username: 'admin',
      password: 'x'
    })
    let added = false
    void adding.then(() => (added = true))
    // The application answers while the silent one is waited for.
    expect((await t.ask('GET', '/devices')).status).toBe(200)
    expect(added).toBe(false)
    const { body } = await t.ask('POST', '/sendings', { devices: ids })
    const done = await eventually(async () => {
      const view = (await t.ask('GET', `/sendings/${body.id}`)).body as SendingView
      return view.finished && view
    })
    expect(new Set(done.devices.map(({ state }) => state))).toEqual(new Set(['done']))
    expect((await adding).body).toMatchObject({
      state: 'offline',
      trouble: expect.saying('did not answer within')
    })
    silent.closeAllConnections()
    silent.close()
    expect((await t.ask('POST', '/sendings', { devices: [] })).body.message).toContain(
      'must name at least one'
    )
    expect((await t.ask('POST', '/sendings', { devices: ['nobody'] })).status).toBe(404)
  })
})
