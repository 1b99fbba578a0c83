import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { analyseInWorker } from '../../analysis/inWorker.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { readMot } from '../../core/formats/mot.ts'
import { readMeasures } from '../../core/measures/measures.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, analyse: analyseInWorker })
})
afterAll(() => t.close())

const script = {
  id: 'x',
  name: 'Lights out',
  seconds: 14,
  seed: 4,
  faults: [{ kind: 'lightsOut', from: 6 }],
  inputs: { door: [{ at: 2, set: true }] },
  actors: [
    {
      kind: 'adult',
      way: [
        [-3, 6],
        [3, 6]
      ]
    }
  ]
}
const ready = (id: string) =>
  eventually(async () => {
    const { body } = await t.ask('GET', `/clips/${id}`)
    return body.state === 'ready' && body
  })
const bytes = async (path: string) => new Uint8Array(await (await t.fetch(path)).arrayBuffer())

describe('a clip made from a script', () => {
  let id: string
  test('is painted and analysed with progress; keeps the truth beside what was found', async () => {
    const { status, body } = await t.ask('POST', '/cameras/waiting-room/made-clips', {
      name: 'Lights out',
      start: Date.parse('2026-11-24T20:00:00Z'),
      script
    })
    expect(status).toBe(201)
    expect(body).toMatchObject({
      name: 'Lights out',
      state: 'analysing',
      made: true,
      width: 640,
      height: 360,
      inputs: { door: [{ at: Date.parse('2026-11-24T20:00:02Z'), set: true }] }
    })
    id = body.id
    const steps = new Set<string>()
    await eventually(async () => {
      const { body: clip } = await t.ask('GET', `/clips/${id}`)
      if (clip.progress) steps.add(wordsOf(clip.progress.step).replace(/\d+/g, 'n'))
      return clip.state === 'ready'
    })
    expect([...steps]).toContain('Painting frame n of n')
    const clip = await ready(id)
    expect(clip).toMatchObject({ frames: 140, fps: 10 })
    const truth = readMot((await t.ask('GET', `/clips/${id}/truth`)).body, 10, clip)
    expect(new Set(truth.id)).toEqual(new Set([1]))
    expect((await t.ask('GET', `/clips/${id}/faces`)).status).toBe(200)
    const measures = readMeasures(await bytes(`/clips/${id}/measures`))
    expect(measures).toMatchObject({ length: 140, columns: 22, rows: 18, fps: 10 })
    expect(measures.figures.luma[100]! / measures.figures.luma[30]!).toBeLessThan(0.3)
  })

  test('runs the actions of its tamper and contact in a replay; the mail says what happened', async () => {
    const save = (detection: object, position: number) =>
      t.ask('PUT', `/cameras/waiting-room/detections/${(detection as { id: string }).id}`, {
        version: 0,
        position,
        detection
      })
    expect(
      (await save({ id: 'care', name: 'Camera health', kind: 'tamper', severity: 'critical' }, 8))
        .status
    ).toBe(200)
    expect(
      (await save({ id: 'open', name: 'Door', kind: 'contact', input: 'door' }, 9)).status
    ).toBe(200)
    for (const detection of ['care', 'open'])
      await t.ask('PUT', `/cameras/waiting-room/detections/${detection}/actions`, {
        version: 0,
        actions: { links: ['duty-mail'] }
      })
    const { body: run } = await t.ask('POST', `/clips/${id}/runs`, { speed: 1000 })
    const done = await eventually(async () => {
      const { body } = await t.ask('GET', `/runs/${run.id}`)
      return (
        body.state === 'finished' &&
        body.triggers.every((x: any) =>
          x.deliveries.every((d: any) => d.kind !== 'email' || d.state === 'sent')
        ) &&
        body
      )
    })
    expect(
      done.triggers
        .filter((x: any) => ['care', 'open'].includes(x.detection))
        .map((x: any) => [x.detection, x.time, x.cause, x.severity, x.target])
    ).toEqual([
      ['open', 2.1, undefined, 'major', undefined],
      ['care', expect.closeTo(9, 0), 'dark', 'critical', undefined]
    ])
    const { body: mails } = await t.ask('GET', '/mailbox/')
    expect(mails.map((m: any) => m.subject).sort()).toEqual([
      'Waiting room: Camera health: camera dark',
      'Waiting room: Door: contact active'
    ])
  })

  test('learns a new tamper reference, after which the dark is normal', async () => {
    expect((await t.ask('POST', `/clips/${id}/reference`, { at: [99] })).body.message).toContain(
      '$.at: is 99 s, but the clip ends at 14 s'
    )
    expect((await t.ask('POST', `/clips/${id}/reference`, { at: [-1] })).body.message).toContain(
      'must be 0 or more'
    )
    expect((await t.ask('POST', `/clips/${id}/reference`, { at: [7] })).body).toMatchObject({
      learnAnewAt: [7]
    })
    await ready(id)
    const measures = readMeasures(await bytes(`/clips/${id}/measures`))
    expect(measures.figures.lumaBefore[120]! / measures.figures.luma[120]!).toBeCloseTo(1, 0)
  })

  test('its contacts move with its start', async () => {
    const { body } = await t.ask('PATCH', `/clips/${id}`, {
      start: Date.parse('2026-11-25T20:00:00Z')
    })
    expect(body.inputs.door[0].at).toBe(Date.parse('2026-11-25T20:00:02Z'))
  })

  test('can be stopped while painted, resumed, and deleted', async () => {
    const { body } = await t.ask('POST', '/cameras/quay-path/made-clips', {
      name: 'Long',
      script: { ...script, seconds: 60, inputs: {} }
    })
    await eventually(
      async () =>
        (await t.ask('GET', `/clips/${body.id}`)).body.progress?.step.code === 'clips.painting'
    )
    expect((await t.ask('POST', `/clips/${body.id}/stop`)).body).toMatchObject({
      state: 'stopped'
    })
    expect((await t.ask('POST', `/clips/${body.id}/analyse`)).body).toMatchObject({
      state: 'analysing'
    })
    await eventually(
      async () =>
        (await t.ask('GET', `/clips/${body.id}`)).body.progress?.step.code === 'clips.painting'
    )
    expect((await t.ask('DELETE', `/clips/${body.id}`)).status).toBe(204)
    expect((await t.ask('GET', `/clips/${body.id}`)).status).toBe(404)
  })
})

describe('refuses errors with their place', () => {
  test.each([
    [
      {
        name: 'X',
        script: {
          ...script,
          actors: [
            {
              kind: 'unicorn',
              way: [
                [0, 1],
                [1, 1]
              ]
            }
          ]
        }
      },
      '$.script.actors[0].kind: is "unicorn"; must be one of adult'
    ],
    [
      { name: 'X', script: { ...script, seconds: 1e6 } },
      '$.script.seconds: must be a number from 1 to 7200'
    ],
    [{ name: '', script }, '$.name: must not be empty'],
    [{ name: 'X', script: null }, '$.script: ']
  ])('%j', async (body, message) => {
    const answer = await t.ask('POST', '/cameras/slipway/made-clips', body)
    expect(answer).toMatchObject({
      status: 422,
      body: { message: expect.saying(message) }
    })
  })

  test('a detection with an unknown input', async () => {
    const answer = await t.ask('PUT', '/cameras/slipway/detections/c', {
      version: 0,
      position: 3,
      detection: { id: 'c', name: 'C', kind: 'contact', input: 'gate' }
    })
    expect(answer.body.message).toBe('$.detection.input: names "gate"; the site has panel, door')
  })

  test('a camera without a simulated scene', async () => {
    const bare = await startTestApp({ withDemo: false, analyse: analyseInWorker })
    try {
      expect(
        (await bare.ask('POST', '/cameras/camera-1/made-clips', { name: 'X', script })).body.message
      ).toContain('has no simulated scene')
    } finally {
      await bare.close()
    }
  })

  test('the true targets of an uploaded clip', async () => {
    const { demoClip } = await import('../testing/testApp.ts')
    const { body } = await t.upload('slipway', 'sent.mp4', demoClip())
    await ready(body.id)
    expect((await t.ask('GET', `/clips/${body.id}/truth`)).status).toBe(404)
  })
})
