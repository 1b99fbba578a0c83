import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })))
afterAll(() => t.close())

const site = async () => (await t.ask('GET', '/site')).body
const put = (id: string, settings: object, version: number) =>
  t.ask('PUT', `/cameras/${id}/settings`, { settings, version })

describe('the site', () => {
  test('saves name, time zone, position and surroundings, over the version named', async () => {
    const { version } = await site()
    const settings = {
      name: 'Skerrow Quay',
      timeZone: 'Europe/Dublin',
      position: { latitude: 53.3, longitude: -6.25 },
      surroundings: 'roofed'
    }
    expect(await t.ask('PUT', '/site', { settings, version })).toMatchObject({
      status: 200,
      body: { settings, version: version + 1 }
    })
    expect(await site()).toMatchObject({ ...settings, isSetUp: true })
    const late = await t.ask('PUT', '/site', {
      settings: { ...settings, name: 'Late' },
      version
    })
    expect(late).toMatchObject({ status: 409, body: { current: { settings } } })
  })

  test('refuses what cannot be, with its place', async () => {
    const { name, timeZone, position, surroundings, version } = await site()
    const now = { name, timeZone, position, surroundings }
    for (const [wrong, message] of [
      [{ ...now, name: ' ' }, '$.settings.name: must not be empty'],
      [{ ...now, timeZone: 'Europe/Nowhere' }, '$.settings.timeZone: must be a time zone'],
      [{ ...now, position: { latitude: 91, longitude: 0 } }, '$.settings.position.latitude'],
      [{ ...now, surroundings: 'underwater' }, '$.settings.surroundings: must be one of']
    ] as const)
      expect(await t.ask('PUT', '/site', { settings: wrong, version })).toMatchObject({
        status: 422,
        body: { message: expect.stringContaining(message) }
      })
    const schedule = { id: 'dark', name: 'After dark', week: { mon: [['sunset', '24:00']] } }
    expect(
      (await t.ask('PUT', '/api/sites/skerrow/schedules/dark', { schedule, version: 0 })).status
    ).toBe(200)
    expect(
      (await t.ask('PUT', '/site', { settings: { ...now, position: null }, version })).body.message
    ).toContain('After dark has times tied to the sun, which need the site’s position')
  })
})

describe('cameras', () => {
  test('are added, renamed and ordered; another name for an id is not theirs', async () => {
    const made = await put('yard', { name: 'Yard', order: 9, surroundings: 'indoors' }, 0)
    expect(made).toMatchObject({ status: 200, body: { version: 1 } })
    expect((await site()).cameras.at(-1)).toMatchObject({
      id: 'yard',
      name: 'Yard',
      surroundings: 'indoors',
      detections: 0
    })
    // The Bench opens on it.
    expect((await t.ask('GET', '/cameras/yard')).status).toBe(200)
    await put('yard', { name: 'Back yard', order: 0, surroundings: null }, 1)
    const { cameras } = await site()
    expect(cameras.findIndex((c: { id: string }) => c.id === 'yard')).toBeLessThanOrEqual(1)
    expect(await put('yard', { name: 'X', order: 0, surroundings: null }, 1)).toMatchObject({
      status: 409,
      body: { current: { settings: { name: 'Back yard' } } }
    })
    expect(await put('yard', { name: 'X', order: 0, surroundings: null }, 0)).toMatchObject({
      status: 409
    })
  })

  test('a deleted one is gone everywhere, and comes back with all that it had', async () => {
    const before = (await t.ask('GET', '/cameras/slipway')).body
    const camera = (await site()).cameras.find((c: { id: string }) => c.id === 'slipway')
    expect(camera).toMatchObject({ detections: before.detections.length, clips: 1 })
    const gone = await t.ask('DELETE', `/cameras/slipway/settings?version=${camera.version}`)
    expect(gone).toMatchObject({ status: 200, body: { version: camera.version + 1 } })
    expect((await site()).cameras.some((c: { id: string }) => c.id === 'slipway')).toBe(false)
    expect((await t.ask('GET', '/cameras/slipway')).status).toBe(404)
    const { body: actions } = await t.ask('GET', '/actions')
    expect(actions.detections.some((d: { camera: string }) => d.camera === 'slipway')).toBe(false)
    const { body: readiness } = await t.ask('GET', '/readiness')
    expect(readiness.cameras.some((c: { id: string }) => c.id === 'slipway')).toBe(false)
    const { body: watch } = await t.ask('GET', '/watch')
    expect(JSON.stringify(watch)).not.toContain('"slipway"')
    // A second deletion is told the version under which it comes back.
    expect(
      (await t.ask('DELETE', `/cameras/slipway/settings?version=${camera.version}`)).status
    ).toBe(404)
    expect(
      await put('slipway', { name: 'Slipway', order: 0, surroundings: null }, camera.version)
    ).toMatchObject({
      status: 409,
      body: { current: { deleted: true, version: camera.version + 1 } }
    })
    expect(
      (await put('slipway', { name: 'Slipway', order: 0, surroundings: null }, camera.version + 1))
        .status
    ).toBe(200)
    const after = (await t.ask('GET', '/cameras/slipway')).body
    expect(after.detections).toEqual(before.detections)
    expect(after.clips).toEqual(before.clips)
  })
})
