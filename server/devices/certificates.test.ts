import { connect, type Server } from 'node:tls'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { DeviceLink } from './link/link.ts'

const devices = new TestDevices()
let t: TestApp
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
})
afterAll(async () => {
  await t.close()
  await devices.close()
})

/** The fingerprint of what an address shows, by Node itself. */
const shownAt = (address: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(address)
    const socket = connect({ host: hostname, port: Number(port), rejectUnauthorized: false })
    socket.on('error', reject)
    socket.on('secureConnect', () => {
      resolve(socket.getPeerCertificate().fingerprint256)
      socket.destroy()
    })
  })

const serverOf = (device: Device): Server => (device as unknown as { server: Server }).server

describe('a device over TLS', () => {
  let camera: Device
  let id: string
  const device = async () => (await t.ask('GET', `/devices/${id}`)).body
  const issues = async (): Promise<string[]> =>
    (await t.ask('GET', '/readiness')).body.findings
      .filter((f: any) => f.device === id)
      .map((f: any) => `${f.code} ${f.severity}`)

  test('is known by the certificate that it shows first', async () => {
    camera = await devices.start('cam-slipway', { tls: true }, 'tls.json')
    const { status, body } = await t.ask('POST', '/devices', asAdded(camera))
    expect([status, body.state]).toEqual([201, 'online'])
    ;({ id } = body)
    expect(body.certificate).toEqual({ kept: await shownAt(camera.address), shown: null })
    expect((await t.fetch('/cameras/slipway/live.jpg')).status).toBe(200)
  })

  test('with another one is told nothing, until that is trusted', async () => {
    const { address } = camera
    const kept = await shownAt(address)
    await eventually(async () => camera.pullPoints.count() === 1)
    await camera.close()
    const other = await devices.start(
      'cam-slipway',
      { tls: true },
      'tls.json',
      Number(new URL(address).port)
    )
    const shown = await shownAt(other.address)
    expect(shown).not.toBe(kept)
    await t.ask('POST', `/devices/${id}/read`)
    expect(await device()).toMatchObject({ state: 'certificate', certificate: { kept, shown } })
    expect(await issues()).toContain('offline blocking')
    // Whoever listens comes twice, which says that the first time was for nothing.
    let connections = 0
    serverOf(other).on('connection', () => connections++)
    await eventually(async () => connections >= 2)
    expect(other.pullPoints.count()).toBe(0)
    const asked: string[] = []
    const link = new DeviceLink(address, { username: 'admin', password: 'skerrow-1' }, 2000, kept)
    await link.information().catch((error: { kind: string }) => asked.push(error.kind))
    expect(asked).toEqual(['certificate'])

    expect(
      (await t.ask('POST', `/devices/${id}/certificate`, { shown: kept })).body.message
    ).toContain('shows yet another certificate now')
    const trusted = await t.ask('POST', `/devices/${id}/certificate`, { shown })
    expect(trusted.body).toMatchObject({
      state: 'online',
      certificate: { kept: shown, shown: null }
    })
    expect(await issues()).not.toContain('offline blocking')
    await eventually(async () => other.pullPoints.count() === 1)
  })

  test('gives its certificate to nobody without TLS', async () => {
    const plain = await devices.start('cam-path')
    const { body } = await t.ask('POST', '/devices', asAdded(plain))
    expect(body.certificate).toBeNull()
  })
})
