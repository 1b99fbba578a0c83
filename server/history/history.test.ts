import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { inWords } from '../testing/inWords.ts'
import type { EditEntry } from '../../core/history/states.ts'
import { differencesBetween, stateOf } from '../../core/history/states.ts'
import { cookieOfAccount } from '../testing/session.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })))
afterAll(() => t.close())

const put = async (
  path: string,
  body: object,
  cookie?: string,
  label?: string
): Promise<{ status: number; body: any }> => {
  const answer = await t.fetch(path, {
    method: 'PUT',
    body: JSON.stringify(body),
    headers: {
      'content-type': 'application/json',
      ...(cookie && { cookie }),
      ...(label && { 'x-edit-label': encodeURIComponent(label) })
    }
  })
  return { status: answer.status, body: inWords(await answer.json()) }
}
const history = async (
  camera = 'slipway',
  query = ''
): Promise<{ entries: EditEntry[]; more: boolean }> =>
  (await t.ask('GET', `/cameras/${camera}/history${query}`)).body
const stateAt = async (id: number) =>
  stateOf((await t.ask('GET', `/cameras/slipway/history/${id}`)).body)
const gate = {
  id: 'gate',
  name: 'Gate',
  kind: 'line',
  line: [
    [0.2, 0.5],
    [0.8, 0.5]
  ]
}

describe('the history of a camera', () => {
  test('begins with the delivered state; each save is an entry with who and what, in any script', async () => {
    const first = await history()
    expect(first.entries.every(({ by }) => by === 'Wardoptic')).toBe(true)
    const { body: second } = await t.ask('POST', '/api/accounts', {
      username: 'second',
      password: 'another-installer',
      name: 'Ísla 船',
      role: 'installer'
    })
    const cookie = await cookieOfAccount(t.database, second.id)
    expect(
      await put(
        '/cameras/slipway/detections/gate',
        { detection: gate, position: 1, version: 0 },
        cookie,
        'Draw “Gate”'
      )
    ).toMatchObject({ status: 200 })
    expect(
      await put('/cameras/slipway/detections/gate', {
        detection: { ...gate, sensitivity: 70 },
        position: 1,
        version: 1
      })
    ).toMatchObject({ status: 200 })
    const { entries } = await history()
    expect(entries.slice(0, 2)).toMatchObject([
      { by: 'Isla Brae', label: 'Edit Gate' },
      { by: 'Ísla 船', label: 'Draw “Gate”', thing: 'detection', thingId: 'gate' }
    ])
  })

  test('a refused save leaves no entry', async () => {
    const before = (await history()).entries[0]!.id
    expect(
      (
        await put('/cameras/slipway/detections/gate', {
          detection: gate,
          position: 1,
          version: 1
        })
      ).status
    ).toBe(409)
    expect(
      (
        await put('/cameras/slipway/detections/gate', {
          detection: { ...gate, sensitivity: 0 },
          position: 1,
          version: 2
        })
      ).status
    ).toBe(422)
    expect((await history()).entries[0]!.id).toBe(before)
  })

  test('gives the state at any entry, also of deleted things; compares any two', async () => {
    const [sensitive, drawn] = (await history()).entries
    expect((await t.ask('DELETE', '/cameras/slipway/detections/gate?version=2')).status).toBe(200)
    const [deleted] = (await history()).entries
    const [atDrawn, atSensitive, atDeleted] = await Promise.all(
      [drawn, sensitive, deleted].map((edit) => stateAt(edit!.id))
    )
    expect(atDrawn!.detections.map((p) => p.detection.name)).toEqual(['Quay edge', 'Gate'])
    expect(differencesBetween(atDrawn!, atSensitive!)).toEqual([
      {
        name: 'Gate',
        change: 'changed',
        settings: [{ setting: 'sensitivity', before: '50', after: '70' }]
      }
    ])
    expect(differencesBetween(atSensitive!, atDeleted!)).toEqual([
      { name: 'Gate', change: 'deleted', settings: [] }
    ])
    expect(atDeleted!.actions.get(atDeleted!.detections[0]!.detection.id)?.links).toContain(
      'duty-mail'
    )
  })

  test('shows schedules on every camera, detections on their own only', async () => {
    const { schedule, version } = (await t.ask('GET', '/cameras/slipway')).body.schedules[0]
    expect(
      (
        await put(`/schedules/${schedule.id}`, {
          schedule: { ...schedule, name: 'Renamed' },
          version
        })
      ).status
    ).toBe(200)
    for (const camera of ['slipway', 'quay-path'])
      expect((await history(camera)).entries[0]).toMatchObject({
        thing: 'schedule',
        thingId: schedule.id
      })
    expect((await history('quay-path')).entries.some(({ thingId }) => thingId === 'gate')).toBe(
      false
    )
  })

  test('is read page by page', async () => {
    for (let i = 0; i < 105; i++)
      await put('/cameras/fuel-pontoon/scene', {
        ignore: [
          [
            [0, 0],
            [0.1, 0],
            [0.1, (i + 1) / 200]
          ]
        ],
        marks: null,
        version: i + 1
      })
    const first = await history('fuel-pontoon')
    expect([first.entries.length, first.more]).toEqual([100, true])
    const second = await history('fuel-pontoon', `?before=${first.entries[99]!.id}`)
    expect(second.entries[0]!.id).toBeLessThan(first.entries[99]!.id)
    expect(second.more).toBe(false)
    expect(await t.ask('GET', '/cameras/fuel-pontoon/history?before=x')).toMatchObject({
      status: 422,
      body: { message: 'before: must be the number of an edit of the history' }
    })
  })
})

describe('the scene of a camera', () => {
  const people = [
    [0.3, 0.9, 0.42],
    [0.5, 0.7, 0.4],
    [0.62, 0.6, 0.375]
  ].map(([x, foot, head]) => ({ foot: [x, foot], head: [x, head], metres: 1.75 }))
  const marks = { from: 'people', aspect: 16 / 9, fieldOfView: 40, people }
  const path = '/cameras/quay-path/scene'

  test('saves ignore areas and marks by version; the plan has the calibrated camera', async () => {
    const area = [
      [0, 0],
      [0.2, 0],
      [0.2, 0.3]
    ]
    expect(await put(path, { ignore: [area], marks, version: 1 })).toMatchObject({
      status: 200,
      body: { version: 2, ignore: [area], marks }
    })
    const { body } = await t.ask('GET', '/cameras/quay-path/plan')
    expect(body.cameras[0]).toMatchObject({
      ignore: [area],
      scene: { fieldOfView: 40, aspect: 16 / 9 }
    })
    expect(body.cameras[0].scene.height).toBeGreaterThan(1)
    expect(await put(path, { ignore: [], marks, version: 1 })).toMatchObject({
      status: 409,
      body: { current: { version: 2, ignore: [area] } }
    })
  })

  test('refuses marks that calibrate nothing and self-crossing areas', async () => {
    expect(
      await put(path, { ignore: [], marks: { ...marks, people: people.slice(0, 1) }, version: 2 })
    ).toMatchObject({
      status: 422,
      body: {
        message: expect.saying(
          'marks: Mark at least 2 people, nearer and farther away; 1 marked so far.'
        )
      }
    })
    expect(
      await put(path, {
        ignore: [
          [
            [0, 0],
            [1, 1],
            [1, 0],
            [0, 1]
          ]
        ],
        marks,
        version: 2
      })
    ).toMatchObject({
      status: 422,
      body: { message: expect.saying('$.ignore[0]: crosses itself') }
    })
    expect(await put(path, { ignore: [], marks: { from: 'stars' }, version: 2 })).toMatchObject({
      status: 422,
      body: { message: expect.saying('must be people or rectangle') }
    })
    expect((await t.ask('GET', '/cameras/quay-path')).body.scene).toMatchObject({
      version: 2,
      marks: { people }
    })
  })

  test('a size in metres needs it, and keeps it from being removed', async () => {
    const d = {
      id: 'tall',
      name: 'Height',
      kind: 'line',
      line: [
        [0.2, 0.5],
        [0.8, 0.5]
      ],
      size: { minMetres: 1.2 }
    }
    expect(
      await put('/cameras/vehicle-lanes/detections/tall', {
        detection: d,
        position: 9,
        version: 0
      })
    ).toMatchObject({
      status: 422,
      body: {
        message: expect.saying(
          '$.detection.size: is in metres, but this camera is not calibrated; calibrate it, or use min and max'
        )
      }
    })
    expect(
      (
        await put('/cameras/quay-path/detections/tall', {
          detection: d,
          position: 9,
          version: 0
        })
      ).status
    ).toBe(200)
    expect(await put(path, { ignore: [], marks: null, version: 2 })).toMatchObject({
      status: 422,
      body: { message: '$.marks: is needed: Height has size limits in metres' }
    })
  })

  test('reports issues of the calibrated scene', async () => {
    const codes = async (): Promise<string[]> =>
      (await t.ask('GET', '/readiness')).body.findings
        .filter((f: { camera: string }) => f.camera === 'slipway')
        .map((f: { code: string }) => f.code)
    await eventually(
      async () => (await t.ask('GET', '/cameras/slipway')).body.clips[0].state === 'ready'
    )
    const far = {
      id: 'far',
      name: 'Far',
      kind: 'line',
      line: [
        [0.2, 0.37],
        [0.8, 0.37]
      ]
    }
    expect(
      (
        await put('/cameras/slipway/detections/far', {
          detection: far,
          position: 5,
          version: 0
        })
      ).status
    ).toBe(200)
    expect(await codes()).not.toContain('target-too-small')
    expect((await put('/cameras/slipway/scene', { ignore: [], marks, version: 1 })).status).toBe(
      200
    )
    expect(await codes()).toContain('target-too-small')
  })
})
