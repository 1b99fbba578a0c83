import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { loadImage } from '@napi-rs/canvas'
import { simpleParser } from 'mailparser'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
let clip: { id: string; start: number }
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })
  clip = await eventually(async () =>
    (await t.ask('GET', '/cameras/slipway')).body.clips.find((c: any) => c.state === 'ready')
  )
})
afterAll(() => t.close())

const finished = (id: string) =>
  eventually(async () => {
    const { body } = await t.ask('GET', `/runs/${id}`)
    return (
      body.state !== 'running' &&
      body.triggers.every((x: any) =>
        x.deliveries.every((d: any) => d.kind === 'popup' || d.state !== 'pending')
      ) &&
      body
    )
  })

test('a run mails each trigger with its picture', async () => {
  const { body: started, status } = await t.ask('POST', `/clips/${clip.id}/runs`, {
    speed: 1000
  })
  expect(status).toBe(201)
  const run = await finished(started.id)
  // Who walks where is the script of the demo clip: two people come up from the water, one after 28 s, one after 38 s.
  expect(run.triggers.map((x: any) => [x.name, x.direction])).toEqual([
    ['Quay edge', 'leftToRight'],
    ['Quay edge', 'leftToRight']
  ])
  expect(run.triggers[0].time).toBeGreaterThan(27)
  expect(run.triggers[0].time).toBeLessThan(31)
  expect(run.triggers[1].time).toBeGreaterThan(37)
  expect(run.triggers[1].time).toBeLessThan(41)
  // No device is there in this test, and nobody looks: what needs them is held back, or waits, and says why.
  for (const { deliveries } of run.triggers)
    expect(deliveries).toMatchObject([
      { kind: 'strobe', state: 'held', error: 'no device has this output' },
      { kind: 'speaker', state: 'held' },
      { kind: 'email', recipient: 'duty@skerrow.example', state: 'sent', attempts: 1 },
      { kind: 'popup', state: expect.saying(/pending|failed/) },
      { kind: 'recording', state: 'sent' }
    ])

  // The messages as they arrived, read by a general mail parser.
  const files = readdirSync(join(t.folder, 'mailbox')).sort()
  expect(files).toHaveLength(2)
  // Several are on their way at a time and may overtake each other: they are told apart by the time in the clip.
  const clipTime = ({ text }: { text?: string }): number =>
    Number(/Time in the clip: ([\d.]+) s/.exec(text!)![1])
  const mails = (
    await Promise.all(files.map((f) => simpleParser(readFileSync(join(t.folder, 'mailbox', f)))))
  ).sort((a, b) => clipTime(a) - clipTime(b))
  for (const [i, mail] of mails.entries()) {
    expect(mail.subject).toBe('Slipway: Person crossed Quay edge, Water → Land')
    expect(mail.to).toMatchObject({ text: 'duty@skerrow.example' })
    const local = new Date(clip.start + run.triggers[i].time * 1000).toISOString().slice(11, 19) // London is on UTC in November
    for (const line of [
      'Site: Skerrow Landing',
      'Camera: Slipway',
      'Line: Quay edge',
      'Direction: Water → Land',
      `Time at the site: 24 Nov 2026, ${local} (Europe/London)`
    ])
      expect(mail.text).toContain(line)
    expect(mail.attachments.map((a) => [a.filename, a.contentType])).toEqual([
      ['snapshot.jpg', 'image/jpeg']
    ])
    const picture = await loadImage(mail.attachments[0]!.content)
    expect([picture.width, picture.height]).toEqual([640, 360])
  }

  // And as the application shows them.
  const { body: list } = await t.ask('GET', '/mailbox/')
  expect(list).toHaveLength(2)
  expect((await t.ask('GET', `/mailbox/${list[0].id}`)).body).toMatchObject({
    attachments: [{ type: 'image/jpeg' }]
  })
  expect((await t.ask('GET', `/mailbox/${list[0].id}/0`)).status).toBe(200)
  expect((await t.ask('GET', '/mailbox/..%2f..%2fetc')).status).toBe(422)
})

test('the command line finds the same triggers in the exported plan', async () => {
  const { body: plan } = await t.ask('GET', '/cameras/slipway/plan')
  const { evaluate } = await import('../../core/detections/index.ts')
  const { readMot } = await import('../../core/formats/mot.ts')
  const { readPlan } = await import('../../core/formats/plan.ts')
  const read = readPlan(JSON.stringify(plan))
  const tracks = readMot((await t.ask('GET', `/clips/${clip.id}/tracks`)).body, 10, {
    width: 640,
    height: 360
  })
  const batch = evaluate(
    { plan: read, camera: read.cameras[0]!, fps: 10, start: clip.start },
    tracks
  )
  const [run] = await t.database.rows<{ id: string }>('SELECT id FROM run')
  const { body } = await t.ask('GET', `/runs/${run!.id}`)
  expect(body.triggers.map((x: any) => [x.detection, x.target, x.frame])).toEqual(
    batch.map((x) => [x.detection, x.target, x.frame])
  )
})

test('names real actions before a replay, and holds them on request', async () => {
  // Nothing of the demo site is real: its services and devices are simulators.
  const named = () => t.ask('GET', `/clips/${clip.id}/real-actions`)
  expect((await named()).body).toEqual({ real: [] })
  const hook = { id: 'panel', name: 'Panel', kind: 'webhook', url: 'http://127.0.0.1:9/alarm' }
  await t.ask('PUT', '/endpoints/panel', { endpoint: hook, version: 0 })
  const { body: bench } = await t.ask('GET', '/cameras/slipway')
  const edge = bench.detections.find((d: any) => d.detection.name === 'Quay edge')
  const linked = await t.ask('PUT', `/cameras/slipway/detections/${edge.detection.id}/actions`, {
    actions: { ...edge.actions.actions, links: [...edge.actions.actions.links, 'panel'] },
    version: edge.actions.version
  })
  expect(linked.status).toBe(200)
  expect((await named()).body).toEqual({ real: [{ id: 'panel', name: 'Panel', kind: 'webhook' }] })

  const outcomes = async (hold: boolean): Promise<any[]> => {
    const { body } = await t.ask('POST', `/clips/${clip.id}/runs`, { speed: 1000, hold })
    return eventually(async () => {
      const { body: run } = await t.ask('GET', `/runs/${body.id}`)
      const panels = run.triggers.map((x: any) =>
        x.deliveries.find((d: any) => d.kind === 'webhook')
      )
      return run.state === 'finished' && panels.every((d: any) => hold || d.attempts > 0) && panels
    })
  }
  for (const held of await outcomes(true))
    expect(held).toMatchObject({ state: 'held', attempts: 0, error: 'held for this replay' })
  for (const tried of await outcomes(false))
    expect(tried).toMatchObject({ error: expect.saying('127.0.0.1:9') })
})

test('keeps the clip’s pace, and can be stopped', async () => {
  const began = performance.now()
  const { body: started } = await t.ask('POST', `/clips/${clip.id}/runs`, { speed: 1 })
  const running = await eventually(async () => {
    const { body } = await t.ask('GET', `/runs/${started.id}`)
    return body.at > 1 && body
  })
  expect(running.state).toBe('running')
  // Never ahead of the clock, whatever else the machine does.
  expect(running.at).toBeLessThanOrEqual((performance.now() - began) / 1000)
  expect(await t.ask('POST', `/runs/${started.id}/stop`)).toMatchObject({
    status: 200,
    body: { state: 'stopped' }
  })
  expect(await t.ask('POST', `/runs/${started.id}/stop`)).toMatchObject({ status: 409 })
  expect(await t.ask('POST', `/clips/${clip.id}/runs`, { speed: 3 })).toMatchObject({
    status: 422
  })
})

test('retries a failed mail and shows the reason', async () => {
  await t.mailbox.close()
  const { body: started } = await t.ask('POST', `/clips/${clip.id}/runs`, { speed: 1000 })
  const failing = await eventually(async () => {
    const { body } = await t.ask('GET', `/runs/${started.id}`)
    return body.triggers[0]?.deliveries[2]?.attempts > 1 && body
  })
  expect(failing.triggers[0].deliveries[2]).toMatchObject({
    state: 'pending',
    error: expect.saying('ECONNREFUSED')
  })
})
