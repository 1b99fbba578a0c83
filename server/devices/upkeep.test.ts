import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Server } from 'node:http'
import { execFileSync } from 'node:child_process'
import type { AbilityView } from '../../core/devices/upkeep.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { soap, time, users, picturesOnly } from '../testing/poorAnswers.ts'
import { PoorDevice } from '../testing/poorDevice.ts'
import { RtspCamera } from '../testing/rtspCamera.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

const devices = new TestDevices()
let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true })))
afterAll(async () => {
  await devices.close()
  await t.close()
})

async function added(device: Device): Promise<string> {
  const { status, body } = await t.ask('POST', '/devices', asAdded(device))
  expect(status).toBe(201)
  return body.id
}
const read = async (id: string) => (await t.ask('GET', `/devices/${id}`)).body

describe('the clock of a device', () => {
  let id: string
  let camera: Device
  beforeAll(async () => {
    camera = await devices.start('cam-waiting', { clockOff: 95 })
    id = await added(camera)
  })

  test('is an issue while it is off, and set with one click', async () => {
    expect((await read(id)).state).toBe('clock-off')
    const issue = async () =>
      (await t.ask('GET', '/readiness')).body.findings.find(
        (f: any) => f.code === 'clock-off' && f.device === id
      )
    expect((await issue()).fix).toMatchObject({ does: 'clock', device: id })
    const { status, body } = await t.ask('PUT', `/devices/${id}/clock`, {})
    expect([status, body.state]).toEqual([200, 'online'])
    expect(Math.abs(body.clockAhead)).toBeLessThan(2)
    expect(await issue()).toBeUndefined()
  })

  test('shows the site’s zone, with its summer time', async () => {
    const { body } = await t.ask('GET', `/devices/${id}/upkeep`)
    expect(body.clock).toMatchObject({ byNtp: false, ofSite: true })
    // The C library reads the zone that the device was given: London in winter and in summer.
    const hourAt = (instant: string): string =>
      execFileSync('date', ['-d', instant, '+%H'], {
        env: { ...process.env, TZ: body.clock.zone },
        encoding: 'utf8'
      }).trim()
    expect([hourAt('2027-01-15T12:00Z'), hourAt('2027-07-15T12:00Z')]).toEqual(['12', '13'])
  })

  test('asks a time server once it is told to', async () => {
    expect((await t.ask('PUT', `/devices/${id}/clock`, { ntp: 'time.example' })).status).toBe(200)
    const { body } = await t.ask('GET', `/devices/${id}/upkeep`)
    expect(body.clock.byNtp).toBe(true)
    expect(body.network.ntp).toEqual(['time.example'])
    expect((await t.ask('PUT', `/devices/${id}/clock`, { ntp: 'not a host' })).body.message).toBe(
      '$.ntp: must be a host name or an address such as 192.168.1.1'
    )
  })
})

describe('night picture and network', () => {
  test('a camera shows infra-red when it is told to', async () => {
    const camera = await devices.start('cam-path')
    const id = await added(camera)
    const upkeep = async () => (await t.ask('GET', `/devices/${id}/upkeep`)).body
    const [channel] = (await upkeep()).channels
    expect(channel).toMatchObject({ nightPicture: 'auto', microphone: false })
    const path = `/devices/${id}/channels/${channel.token}/night-picture`
    expect((await t.ask('PUT', path, { mode: 'night' })).status).toBe(204)
    expect((await upkeep()).channels[0].nightPicture).toBe('night')
    expect((await t.ask('PUT', path, { mode: 'dusk' })).status).toBe(422)
    expect(
      (await t.ask('PUT', `/devices/${id}/channels/other/night-picture`, { mode: 'day' })).status
    ).toBe(404)
    expect((await upkeep()).network).toMatchObject({
      addresses: ['127.0.0.1/8'],
      gateways: ['192.0.2.1'],
      dns: ['192.0.2.53']
    })
  })
})

describe('surroundings', () => {
  /** A device whose switch offers these, and what is said of its only channel. */
  const withSwitch = async (surroundings: string[]) => {
    const [channel] = devices.model('cam-path').channels
    const camera = await devices.start('cam-path', { channels: [{ ...channel!, surroundings }] })
    const id = await added(camera)
    return { id, said: async () => (await read(id)).channels[0].surroundings }
  }
  const setCamera = async (surroundings: string | null) => {
    const { cameras } = (await t.ask('GET', '/site')).body
    const { name, order, version } = cameras.find((c: any) => c.id === 'quay-path')
    const { status } = await t.ask('PUT', '/cameras/quay-path/settings', {
      settings: { name, order, surroundings },
      version
    })
    expect(status).toBe(200)
  }
  const issues = async (id: string) =>
    (await t.ask('GET', '/readiness')).body.findings.filter(
      (f: any) => f.device === id && f.sentence.code === 'readiness.surroundingsNotSent'
    )
  const sendTo = async (id: string) => {
    const { body } = await t.ask('POST', '/sendings', { devices: [id] })
    for (;;) {
      const sending = (await t.ask('GET', `/sendings/${body.id}`)).body
      if (sending.finished) return sending.devices[0].results
    }
  }

  test('a device without a switch is not told', async () => {
    expect(await (await withSwitch([])).said()).toBeNull()
  })

  test('one with a switch is an issue until it is sent to', async () => {
    const { id, said } = await withSwitch(['Outdoors', 'Indoors'])
    expect(await said()).toEqual({ held: 'outdoors', wanted: 'outdoors' })
    expect(await issues(id)).toEqual([])
    await setCamera('indoors')
    expect(await said()).toEqual({ held: 'outdoors', wanted: 'indoors' })
    expect(await issues(id)).toMatchObject([{ fix: { does: 'send', devices: [id] } }])
    expect(await sendTo(id)).toContainEqual(
      expect.objectContaining({ name: { code: 'settings.surroundings' }, error: null })
    )
    expect(await said()).toEqual({ held: 'indoors', wanted: 'indoors' })
    expect(await issues(id)).toEqual([])
    // Under a roof is outdoors for a device that knows no roof.
    await setCamera('roofed')
    expect(await said()).toEqual({ held: 'indoors', wanted: 'outdoors' })
  })

  test('what a switch does not offer is not sent', async () => {
    await setCamera('indoors')
    const { id, said } = await withSwitch(['Outdoors', 'Roofed', 'Underwater'])
    expect(await said()).toEqual({ held: 'outdoors', wanted: null })
    expect(await issues(id)).toEqual([])
    expect((await sendTo(id)).map((r: any) => r.detection)).not.toContain('surroundings')
    await setCamera(null)
  })
})

describe('storage', () => {
  const storageOf = async (change: Parameters<typeof devices.start>[1]): Promise<unknown> => {
    const id = await added(await devices.start('cam-slipway', change))
    return (await t.ask('GET', `/devices/${id}/upkeep`)).body.storage
  }
  test('names the place, its room, and what happens when it is full', async () => {
    expect(await storageOf({})).toEqual([
      {
        place: '/card',
        bytes: 64e9,
        free: 1.2e9,
        whenFull: 'overwrite',
        outsideEvents: 'keyFrames',
        before: 5,
        after: 10
      }
    ])
  })
  test('tells a device without a card from one that says nothing', async () => {
    expect(await storageOf({ storage: undefined })).toEqual([])
    expect(await storageOf({ lacks: ['storage'] })).toBeNull()
  })
  test('says the place alone where the device has no extension', async () => {
    expect(await storageOf({ lacks: ['outputs'] })).toMatchObject([
      { place: '/card', bytes: null, free: null, whenFull: null }
    ])
  })
})

describe('what works with a device', () => {
  const stateOf = (all: AbilityView[], ability: string, kind: string | null = null): string =>
    all.find((a) => a.ability === ability && a.kind === kind)!.state

  test('is tried on a simulated camera', async () => {
    const id = await added(await devices.start('cam-slipway'))
    const { status, body } = await t.ask('GET', `/devices/${id}/abilities`)
    expect(status).toBe(200)
    const states = Object.fromEntries(
      ['picture', 'targets', 'events', 'clock', 'nightPicture', 'network', 'outputs'].map((a) => [
        a,
        stateOf(body.abilities, a)
      ])
    )
    expect(states).toEqual({
      picture: 'works',
      targets: 'works',
      events: 'works',
      clock: 'works',
      nightPicture: 'works',
      network: 'works',
      outputs: 'works'
    })
    expect(stateOf(body.abilities, 'storage')).toBe('works')
    expect(stateOf(body.abilities, 'rule', 'line')).toMatch(/works|partly/)
  })

  test('of one with pictures alone is the picture', async () => {
    const stream = await RtspCamera.start('h264')
    const poor = await new PoorDevice({
      ...picturesOnly(`rtsp://10.0.0.9:${stream.port}/live`),
      GetDNS: soap('<ns1:GetDNSResponse><ns1:DNSInformation/></ns1:GetDNSResponse>')
    }).start()
    try {
      const { body: device } = await t.ask('POST', '/devices', {
        name: 'Poor',
        address: poor.address,
        username: 'admin',
        password: 'x'
      })
      const { body } = await t.ask('GET', `/devices/${device.id}/abilities`)
      expect(stateOf(body.abilities, 'picture')).toBe('works')
      for (const ability of ['targets', 'modes', 'nightPicture', 'storage', 'outputs', 'inputs'])
        expect([ability, stateOf(body.abilities, ability)]).toEqual([ability, 'not-offered'])
      for (const { ability, state } of body.abilities)
        if (ability === 'rule') expect(state).toBe('not-offered')
      // It has no event service: that is its own answer.
      const events = body.abilities.find((a: any) => a.ability === 'events')
      expect(events).toMatchObject({ state: 'refused', says: expect.anything() })
      expect((await t.ask('PUT', `/devices/${device.id}/clock`, {})).body).toMatchObject({
        code: 'busy',
        message: 'Optional action not implemented'
      })
    } finally {
      await poor.close()
      await stream.stop()
    }
  })
})

describe('one new password for several devices', () => {
  test('is set on each, and says which refused it', async () => {
    const [one, two] = [await devices.start('cam-slipway'), await devices.start('cam-path')]
    const ids = [await added(one), await added(two)]
    const refusing = await new PoorDevice({ GetSystemDateAndTime: time, GetUsers: users }).start()
    const { body: third } = await t.ask('POST', '/devices', {
      name: 'Zz',
      address: refusing.address,
      username: 'admin',
      password: 'x'
    })
    const { body } = await t.ask('POST', '/devices/password', {
      devices: [...ids, third.id],
      password: 'kelp-and-rope'
    })
    expect(body.map((r: any) => r.error === null)).toEqual([true, true, false])
    expect(one.state.accounts[0]!.password).toBe('kelp-and-rope')
    for (const id of ids) expect((await read(id)).state).toBe('online')
    const after = Date.now()
    for (const id of ids)
      await eventually(async () => (t.app.devices.subscriptions.heardAt(id) ?? 0) > after)
    await refusing.close()
    expect(
      (await t.ask('POST', '/devices/password', { devices: ids, password: 'short' })).status
    ).toBe(422)
  })

  test('is kept where the device took it and its answer was lost', async () => {
    const camera = await devices.start('cam-waiting', { clockOff: 0 })
    const id = await added(camera)
    // The device takes the password, and the line is cut before it has answered.
    const save = camera.save.bind(camera)
    camera.save = () => {
      camera.save = save
      save()
      ;(camera as unknown as { server: Server }).server.closeAllConnections()
    }
    const { body } = await t.ask('POST', '/devices/password', {
      devices: [id],
      password: 'kelp-and-rope'
    })
    expect(body[0].error).toBeNull()
    expect((await read(id)).state).toBe('online')
  })
})
