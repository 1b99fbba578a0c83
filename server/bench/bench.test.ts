import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp()))
afterAll(() => t.close())

const detection = (change: object = {}) => ({
  id: 'gate',
  name: 'Gate',
  kind: 'line',
  line: [
    [0.2, 0.5],
    [0.8, 0.5]
  ],
  ...change
})
const put = (change: object = {}, version = 0, position = 0) =>
  t.ask('PUT', '/cameras/camera-1/detections/gate', {
    version,
    position,
    detection: detection(change)
  })

describe('saving what the Bench edits', () => {
  test('saves a detection, reads it back, and raises its version', async () => {
    expect(await put()).toMatchObject({
      status: 200,
      body: { version: 1, detection: { id: 'gate', sensitivity: 50 } }
    })
    expect(await put({ sensitivity: 60 }, 1)).toMatchObject({ status: 200, body: { version: 2 } })
    const { body } = await t.ask('GET', '/cameras/camera-1')
    expect(body.detections).toHaveLength(1)
    expect(body.detections[0]).toMatchObject({
      version: 2,
      detection: { sensitivity: 60 },
      actions: { actions: { links: [] }, version: 0 }
    })
    expect((await t.ask('GET', '/cameras/camera-1/plan')).body).toMatchObject({
      format: 'wardoptic-plan/1',
      cameras: [{ id: 'camera-1', detections: [{ id: 'gate' }] }]
    })
  })

  test('refuses a save over a newer version with the current one, and changes nothing', async () => {
    const stale = await put({ name: 'Stale' }, 1)
    expect(stale).toMatchObject({
      status: 409,
      body: {
        code: 'conflict',
        current: { version: 2, detection: { name: 'Gate', sensitivity: 60 } }
      }
    })
    expect(await put({ name: 'Twice' }, 0)).toMatchObject({
      status: 409,
      body: { code: 'conflict' }
    })
    expect((await t.ask('GET', '/cameras/camera-1')).body.detections[0].detection.name).toBe('Gate')
  })

  test('lets exactly one of many parallel saves win', async () => {
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) => put({ name: `Writer ${i}` }, 2))
    )
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1)
    expect(answers.filter((a) => a.status === 409)).toHaveLength(11)
    const kept = (await t.ask('GET', '/cameras/camera-1')).body.detections[0]
    expect(kept).toMatchObject({
      version: 3,
      detection: { name: answers.find((a) => a.status === 200)!.body.detection.name }
    })
  })

  test('restores a deleted detection with its actions by saving over the deletion', async () => {
    expect(
      await t.ask('PUT', '/endpoints/mail', {
        version: 0,
        endpoint: {
          id: 'mail',
          name: 'Duty',
          kind: 'email',
          recipients: [' duty@skerrow.example ']
        }
      })
    ).toMatchObject({
      status: 200,
      body: { version: 1, endpoint: { recipients: ['duty@skerrow.example'] } }
    })
    expect(
      await t.ask('PUT', '/cameras/camera-1/detections/gate/actions', {
        version: 0,
        actions: { links: ['mail'] }
      })
    ).toMatchObject({
      status: 200,
      body: { version: 1, actions: { links: ['mail'], severity: 'major' } }
    })
    expect(await t.ask('DELETE', '/cameras/camera-1/detections/gate?version=2')).toMatchObject({
      status: 409
    })
    expect(await t.ask('DELETE', '/cameras/camera-1/detections/gate?version=3')).toEqual({
      status: 200,
      body: { version: 4 }
    })
    expect((await t.ask('GET', '/cameras/camera-1')).body).toMatchObject({
      detections: [],
      dormant: [{ id: 'gate', actions: { version: 1, actions: { links: ['mail'] } } }]
    })
    // Undone and done again before it was saved: deleted once more under its version, which is no conflict.
    expect(await t.ask('DELETE', '/cameras/camera-1/detections/gate?version=4')).toEqual({
      status: 200,
      body: { version: 5 }
    })
    // Somebody who still has it open is told that it was deleted, and under which version it can be kept.
    expect(await put({}, 3)).toMatchObject({
      status: 409,
      body: { current: { deleted: true, version: 5 } }
    })
    expect(await put({}, 5)).toMatchObject({
      status: 200,
      body: { version: 6, actions: { actions: { links: ['mail'] }, version: 1 } }
    })
  })

  test('schedules have versions; a detection can name only an existing one', async () => {
    const schedule = { id: 'nights', name: 'Nights', week: { mon: [['18:30', '24:00']] } }
    expect(await put({ schedule: 'nights' }, 6)).toMatchObject({
      status: 422,
      body: { message: '$.detection.schedule: names "nights", which does not exist' }
    })
    expect(
      await t.ask('PUT', '/api/sites/site/schedules/nights', { version: 0, schedule })
    ).toMatchObject({ status: 200, body: { version: 1 } })
    expect(
      await t.ask('PUT', '/api/sites/site/schedules/nights', { version: 0, schedule })
    ).toMatchObject({ status: 409, body: { current: { version: 1 } } })
    expect(await put({ schedule: 'nights' }, 6)).toMatchObject({ status: 200 })
    const sun = { ...schedule, week: { mon: [['sunset', '24:00']] } }
    expect(
      await t.ask('PUT', '/api/sites/site/schedules/nights', { version: 1, schedule: sun })
    ).toMatchObject({
      status: 422,
      body: { message: expect.saying('the site has no position') }
    })
  })
})

describe('refuses bad input with the place and what is right, and saves nothing', () => {
  test.each([
    [{ line: [[0.2, 0.5]] }, '$.detection.line: has 1 vertex; a line needs 2 to 10'],
    [
      {
        line: [
          [0.2, 0.5],
          [0.2, 0.5]
        ]
      },
      '$.detection.line: has no length between vertices 1 and 2'
    ],
    [
      {
        line: [
          [0.2, 0.5],
          [1.5, 0.5]
        ]
      },
      '$.detection.line[1][0]: must be a number from 0 to 1'
    ],
    [
      {
        line: [
          [0.2, null],
          [1, 0.5]
        ]
      },
      '$.detection.line[0][1]: must be a number from 0 to 1'
    ],
    [
      { name: 'n'.repeat(10_000) },
      '$.detection.name: is 10000 characters long; at most 80 are allowed'
    ],
    [{ sensitivity: 1000 }, '$.detection.sensitivity: must be a number from 1 to 100'],
    [{ id: 'other' }, '$.detection.id: is "other", and the address says "gate"']
  ])('%#', async (change, message) => {
    const before = (await t.ask('GET', '/cameras/camera-1')).body
    const answer = await put(change, before.detections[0].version)
    expect(answer.status).toBe(422)
    expect(answer.body.message).toContain(message)
    expect((await t.ask('GET', '/cameras/camera-1')).body).toEqual(before)
  })

  test('refuses bodies that are not JSON, too large or missing, and unknown paths', async () => {
    expect((await t.ask('PUT', '/cameras/camera-1/detections/gate')).status).toBe(422)
    expect(
      (
        await t.ask('PUT', '/cameras/camera-1/detections/gate', {
          blob: 'x'.repeat(3 * 2 ** 20)
        })
      ).status
    ).toBe(413)
    expect(await t.ask('GET', '/cameras/nowhere')).toMatchObject({
      status: 404,
      body: { code: 'not-found' }
    })
    expect(await t.ask('DELETE', '/cameras/camera-1/detections/gate')).toMatchObject({
      status: 422
    })
    expect(
      await t.ask('PUT', '/endpoints/mail', {
        version: 1,
        endpoint: { id: 'mail', name: 'Duty', kind: 'email', recipients: ['not an address'] }
      })
    ).toMatchObject({
      status: 422,
      body: {
        message:
          '$.endpoint.recipients[0]: is "not an address"; must be an e-mail address such as duty@example.org'
      }
    })
    expect(
      await t.ask('PUT', '/cameras/camera-1/detections/gate/actions', {
        version: 1,
        actions: { links: ['bell'] }
      })
    ).toMatchObject({
      status: 422,
      body: {
        message: '$.actions.links[0]: names "bell", which does not exist'
      }
    })
    expect(
      await t.ask('PUT', '/cameras/camera-1/detections/ghost/actions', {
        version: 0,
        actions: {}
      })
    ).toMatchObject({ status: 404 })
  })

  test('treats names as data: quotes, markup and other scripts come back unchanged', async () => {
    const { version } = (await t.ask('GET', '/cameras/camera-1')).body.detections[0]
    const name = `Ö'"; DROP TABLE detection; -- <b>船台</b>`
    expect((await put({ name }, version)).status).toBe(200)
    expect((await t.ask('GET', '/cameras/camera-1')).body.detections[0].detection.name).toBe(name)
  })

  test('refuses changes from a page of another site', async () => {
    const { port } = t.app.http.server.address() as { port: number }
    const answer = await fetch(
      `http://127.0.0.1:${port}/api/sites/site/cameras/camera-1/detections/gate?version=1`,
      { method: 'DELETE', headers: { origin: 'http://elsewhere.example', cookie: t.cookie } }
    )
    expect(answer.status).toBe(403)
  })
})
