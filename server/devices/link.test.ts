import { execFile } from 'node:child_process'
import { createServer, type Server } from 'node:http'
import { createRequire } from 'node:module'
import type { AddressInfo } from 'node:net'
import { promisify } from 'node:util'
import { afterAll, describe, expect, test } from '@jest/globals'
import { errorWords } from '../../core/messages/errorWords.ts'
import { differencesOf } from '../../core/formats/onvif/differences.ts'
import { toRule } from '../../core/formats/onvif/toRule.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { TestDevices } from '../../simulators/testing/testDevices.ts'
import { DeviceLink } from './link/link.ts'
import { DeviceError } from './link/deviceError.ts'
import { parseWith } from '../../core/schema/parse.ts'

const admin = { username: 'admin', password: 'skerrow-1' }
/** A camera's only channel. */
const ONE = 'analytics'

const devices = new TestDevices()
const start = devices.start.bind(devices)
afterAll(() => devices.close())
const deviceErrorOf = async (asked: Promise<unknown>): Promise<[string, string]> => {
  try {
    await asked
  } catch (error) {
    if (error instanceof DeviceError) return [error.kind, errorWords(error)]
    throw error
  }
  return ['none', '']
}

const edge = parseWith(DetectionSchema, {
  id: 'quay-edge',
  name: 'Quay edge',
  kind: 'line',
  line: [
    [0.18, 0.545],
    [0.5, 0.54],
    [0.78, 0.53]
  ],
  direction: 'both',
  classes: ['person']
})

describe('a simulated camera over HTTP', () => {
  test('names itself and its abilities', async () => {
    const link = new DeviceLink((await start('cam-slipway')).address, admin)
    expect(await link.information()).toEqual({
      manufacturer: 'Halden Optics',
      model: 'HO-40',
      firmware: '2.4.1',
      serial: 'HO40-00017'
    })
    expect(Math.abs((await link.clockAhead())!)).toBeLessThan(1.5)
    expect((await link.analysis.abilities(ONE)).abilities).toMatchObject([
      {
        type: 'tt:LineDetector',
        most: 4,
        parameters: [
          'Direction',
          'Sensitivity',
          'ClassFilter',
          'ConfirmTime',
          'MinimumSize',
          'MaximumSize',
          'Hours'
        ],
        ranges: { Sensitivity: { min: 1, max: 100 } }
      },
      { type: 'tt:FieldDetector', ranges: { TimeThreshold: { min: 0, max: 10 } } },
      { type: 'wo:FaceDetector', ranges: {} }
    ])
    const picture = await link.media.snapshot((await link.media.channels())[0]!.profile)
    expect([...picture.subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff])
  })

  test('shows its pictures to its accounts only', async () => {
    const device = await start('cam-slipway')
    const url = `${device.address}/snapshot/${ONE}`
    const answer = await fetch(url)
    expect([answer.status, answer.headers.get('www-authenticate')]).toEqual([
      401,
      expect.saying(/^Digest realm="camera", qop="auth", algorithm=MD5, nonce="\w{32}"$/)
    ])
    // curl, a general client, is let in with the same password.
    const asked = async (password: string): Promise<string> =>
      (
        await promisify(execFile)('curl', [
          '-s',
          '--digest',
          '-u',
          `admin:${password}`,
          '-o',
          '/dev/null',
          '-w',
          '%{http_code} %{content_type}',
          url
        ])
      ).stdout
    expect([await asked(admin.password), await asked('wrong')]).toEqual(['200 image/jpeg', '401 '])
  })

  test('keeps its rules over a restart; a refused rule leaves the old ones unchanged', async () => {
    const device = await start('cam-slipway', {}, 'kept.json')
    const link = new DeviceLink(device.address, admin)
    const { rule } = toRule(edge, (await link.analysis.abilities(ONE)).abilities)!
    await link.analysis.createRule(ONE, rule)
    expect(differencesOf(rule, (await link.analysis.rules(ONE))[0]!)).toEqual([])
    await link.analysis.modifyRule(ONE, { ...rule, simple: { ...rule.simple, Sensitivity: '80' } })
    expect(
      await deviceErrorOf(
        link.analysis.modifyRule(ONE, { ...rule, simple: { ...rule.simple, Sensitivity: '180' } })
      )
    ).toEqual(['refused', 'Sensitivity is 180; must be from 1 to 100'])
    for (const name of ['b', 'c', 'd']) await link.analysis.createRule(ONE, { ...rule, name })
    expect(await deviceErrorOf(link.analysis.createRule(ONE, { ...rule, name: 'e' }))).toEqual([
      'refused',
      'at most 4 rules of type tt:LineDetector'
    ])
    expect(await deviceErrorOf(link.analysis.createRule(ONE, rule))).toEqual([
      'refused',
      'rule quay-edge is there already'
    ])
    await device.close()
    const again = new DeviceLink((await start('cam-slipway', {}, 'kept.json')).address, admin)
    expect((await again.analysis.rules(ONE)).map((r) => [r.name, r.simple.Sensitivity])).toEqual([
      ['quay-edge', '80'],
      ['b', '50'],
      ['c', '50'],
      ['d', '50']
    ])
    await again.analysis.deleteRule(ONE, 'b')
    expect(await deviceErrorOf(again.analysis.deleteRule(ONE, 'b'))).toEqual([
      'refused',
      'there is no rule b'
    ])
  })

  test('a walk over the configured line becomes an event', async () => {
    const link = new DeviceLink((await start('cam-slipway')).address, admin)
    const point = await link.events.subscribe()
    const { rule } = toRule(
      {
        ...edge,
        line: [
          [0.02, 0.75],
          [0.98, 0.75]
        ]
      } as typeof edge,
      (await link.analysis.abilities(ONE)).abilities
    )!
    await link.analysis.createRule(ONE, {
      ...rule,
      name: 'early',
      points: [
        [-0.9, -0.9],
        [-0.9, 0.9]
      ]
    })
    const field = toRule(
      parseWith(DetectionSchema, {
        id: 'all',
        name: 'All',
        kind: 'intrusion',
        zone: [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1]
        ]
      }),
      (await link.analysis.abilities(ONE)).abilities
    )!
    await link.analysis.createRule(ONE, field.rule)
    const events = []
    for (let i = 0; i < 12 && !events.length; i++)
      events.push(...(await link.events.pull(point, 2)))
    expect(events[0]).toMatchObject({
      topic: 'tns1:RuleEngine/FieldDetector/ObjectsInside',
      rule: 'all',
      data: { IsInside: 'true' }
    })
    expect(Math.abs(events[0]!.at - Date.now())).toBeLessThan(3000)
    await link.events.unsubscribe(point)
    expect((await deviceErrorOf(link.events.pull(point, 1)))[0]).toBe('refused')
  })

  test('takes a first account, and asks for it from then on', async () => {
    const device = await start('cam-yard')
    const fresh = new DeviceLink(device.address, null)
    expect(await fresh.hasAccount()).toBe(false)
    expect(
      (await deviceErrorOf(fresh.createAccount({ username: 'admin', password: 'short' })))[1]
    ).toContain('at least 8 characters')
    await fresh.createAccount({ username: 'admin', password: 'long-enough' })
    expect((await deviceErrorOf(fresh.analysis.rules(ONE)))[0]).toBe('no-account')
    expect(
      await new DeviceLink(device.address, {
        username: 'admin',
        password: 'long-enough'
      }).hasAccount()
    ).toBe(true)
    expect(
      await deviceErrorOf(
        new DeviceLink(device.address, { username: 'admin', password: 'wrong-one' }).analysis.rules(
          ONE
        )
      )
    ).toEqual(['wrong-password', 'sender not authorized: wrong user name or password'])
  })

  test('makes tokens by the device’s clock, and says how far it is off', async () => {
    const link = new DeviceLink((await start('cam-waiting')).address, {
      username: 'admin',
      password: 'skerrow-4'
    })
    expect(Math.round((await link.clockAhead())!)).toBeGreaterThanOrEqual(94)
    expect(await link.analysis.rules(ONE)).toEqual([])
    expect((await link.analysis.abilities(ONE)).abilities.map(({ type }) => type)).toEqual([
      'wo:FaceDetector',
      'wo:EntryDetector',
      'wo:ExitDetector',
      'tt:LineDetector'
    ])
  })

  test('refuses a replayed message', async () => {
    const device = await start('cam-slipway')
    const { envelope, makeToken } = await import('../../core/formats/onvif/soap.ts')
    const body = envelope('<tds:GetUsers/>', {
      token: makeToken('admin', 'skerrow-1', Uint8Array.of(1, 2, 3), Date.now())
    })
    const post = async (): Promise<number> =>
      (await fetch(`${device.address}/onvif/device_service`, { method: 'POST', body })).status
    expect([await post(), await post()]).toEqual([200, 400])
  })
})

// The package `onvif` of the registry: a general-purpose client, here only to check the simulated camera.
describe('a general-purpose client of the standard', () => {
  const { Cam } = createRequire(import.meta.url)('onvif') as {
    Cam: new (options: object, done: (error: Error | null) => void) => any
  }
  test('connects, reads information and profiles, subscribes and receives an event', async () => {
    const device = await start('cam-slipway')
    const { hostname, port } = new URL(device.address)
    const cam = await new Promise<any>((resolve, reject) => {
      const made = new Cam(
        { hostname, port: Number(port), username: 'admin', password: 'skerrow-1' },
        (error) => (error ? reject(error) : resolve(made))
      )
    })
    const information = await new Promise<any>((resolve, reject) =>
      cam.getDeviceInformation((error: Error | null, info: unknown) =>
        error ? reject(error) : resolve(info)
      )
    )
    expect(information).toMatchObject({
      manufacturer: 'Halden Optics',
      model: 'HO-40',
      firmwareVersion: '2.4.1'
    })
    expect(Object.keys(cam.profiles)).toHaveLength(1)
    const link = new DeviceLink(device.address, admin)
    await link.analysis.createRule(
      ONE,
      toRule(
        parseWith(DetectionSchema, {
          id: 'all',
          name: 'All',
          kind: 'intrusion',
          zone: [
            [0, 0],
            [1, 0],
            [1, 1],
            [0, 1]
          ]
        }),
        (await link.analysis.abilities(ONE)).abilities
      )!.rule
    )
    const event = await new Promise<any>((resolve) => cam.on('event', resolve))
    expect(JSON.stringify(event)).toContain('RuleEngine/FieldDetector/ObjectsInside')
    cam.removeAllListeners('event')
  })
})

describe('devices that answer wrongly, slowly, partly or not at all', () => {
  const servers: Server[] = []
  const serve = async (answer: Parameters<typeof createServer>[1]): Promise<DeviceLink> => {
    const server = createServer(answer as never)
    servers.push(server)
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    return new DeviceLink(`http://127.0.0.1:${(server.address() as AddressInfo).port}`, admin, 700)
  }
  afterAll(() =>
    servers.forEach((server) => {
      server.closeAllConnections()
      server.close()
    })
  )
  const xmlOf = (body: string) => (_: unknown, response: any) =>
    response.writeHead(200, { 'content-type': 'application/soap+xml' }).end(body)

  test('nobody there', async () =>
    expect(
      (await deviceErrorOf(new DeviceLink('http://127.0.0.1:9', admin).information()))[0]
    ).toBe('offline'))
  test('resets the connection', async () =>
    expect(
      (await deviceErrorOf((await serve((request) => request.socket.destroy())).information()))[0]
    ).toBe('offline'))
  test('no answer in time', async () =>
    expect(await deviceErrorOf((await serve(() => {})).information())).toEqual([
      'slow',
      'the device did not answer within 0.7 s'
    ]))
  test('half an answer', async () =>
    expect(
      (
        await deviceErrorOf(
          (
            await serve((_, response) => void response.writeHead(200).write('<s:Envelope'))
          ).information()
        )
      )[0]
    ).toBe('slow'))
  test('truncated XML', async () =>
    expect(
      await deviceErrorOf((await serve(xmlOf('<s:Envelope xmlns:s="x"><s:Body><a>'))).information())
    ).toEqual(['broken', expect.saying('is not well-formed XML')]))
  test('a page instead of an answer', async () =>
    expect(
      await deviceErrorOf(
        (
          await serve(
            (_, response) =>
              void response.writeHead(404, { 'content-type': 'text/html' }).end('<html>')
          )
        ).information()
      )
    ).toEqual(['broken', 'the device answered with HTTP 404']))
  test('expanding entities', async () =>
    expect(
      (
        await deviceErrorOf(
          (
            await serve(
              xmlOf('<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><x>&b;</x>')
            )
          ).information()
        )
      )[1]
    ).toContain('declares a document type'))
  test('an answer of 10 MB', async () =>
    expect(
      (
        await deviceErrorOf(
          (await serve(xmlOf(`<a>${'x'.repeat(10 * 2 ** 20)}</a>`))).information()
        )
      )[1]
    ).toContain('larger than 2 MB'))
  // Whoever followed it would find nobody there: offline.
  test('a redirect elsewhere is not followed', async () =>
    expect(
      await deviceErrorOf(
        (
          await serve(
            (_, response) => void response.writeHead(302, { location: 'http://127.0.0.1:1/' }).end()
          )
        ).information()
      )
    ).toEqual(['broken', expect.stringContaining('HTTP 302')]))
  test.each(['192.168.1.20', 'ftp://x', 'file:///etc/passwd', ''])(
    'refuses the address %j',
    (address) =>
      expect(() => new DeviceLink(address, null)).toThrowWords(
        'is not an address; enter one such as http://'
      )
  )
})
