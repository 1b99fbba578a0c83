import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Check } from '../../core/formats/check.ts'
import type { WalkTestView } from '../../core/proving/live.ts'
import { plainWalk, actor } from '../../core/proving/stage.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

/** Somebody walks in front of a simulated camera; its own rules, the real server, mail and station do the rest. */
const devices = new TestDevices()
let t: TestApp
beforeAll(async () => {
  const [camera] = await devices.startSite('cam-slipway')
  t = await startTestApp({ withDemo: true, devices: [camera!], contacts: devices.contacts })
  await t.app.devices.add('skerrow', asAdded(camera!) as never, camera!.model.id)
  await send()
  // Nobody looks here who could see a pop-up.
  const { actions } = (await t.ask('GET', '/cameras/slipway')).body.detections[0]
  const links = actions.actions.links.filter((id: string) => id !== 'popup')
  expect(
    (
      await t.ask('PUT', '/cameras/slipway/detections/quay-edge/actions', {
        version: actions.version,
        actions: { ...actions.actions, links }
      })
    ).status
  ).toBe(200)
})
afterAll(async () => {
  await t.close()
  await devices.close()
})

const send = async (): Promise<void> => {
  const { body } = await t.ask('POST', '/sendings', { devices: ['cam-slipway'] })
  await eventually(async () => (await t.ask('GET', `/sendings/${body.id}`)).body.finished)
}
/** A Tuesday at the site, which keeps UTC in winter. */
const at = (clock: string) => Date.parse(`2026-11-24T${clock}:00Z`)
const up = actor(
  'adult',
  [
    [0, 20],
    [0, 8]
  ],
  { speed: 2 }
)
const checkOf = (more: Partial<Check> = {}): Check => ({
  id: 'live',
  detection: 'quay-edge',
  name: 'Up from the water',
  about: 'passes',
  side: 'inside',
  by: { how: 'walk', walk: plainWalk(7, [up]), through: 'truth' },
  at: at('23:30'),
  expect: { what: 'trigger', from: 0, to: 7 },
  effects: [],
  ...more
})
const walked = async (check: Check): Promise<WalkTestView> => {
  const begun = await t.ask('POST', '/cameras/slipway/walk', { check })
  expect(begun).toMatchObject({
    status: 201,
    body: { state: 'preparing', how: check.by.how === 'person' ? 'person' : 'scene' }
  })
  let last: WalkTestView | undefined
  return eventually(async () => {
    last = (await t.ask('GET', '/cameras/slipway/walk')).body as WalkTestView
    return !['preparing', 'walking', 'settling'].includes(last.state) && last
  }).catch((error: Error) => {
    throw new Error(`${error.message}: ${JSON.stringify({ ...last, ladder: null, check: null })}`)
  })
}
const effect = (view: WalkTestView, name: string) => view.effects.find((e) => e.name === name)

describe('a walk in front of a live camera', () => {
  test('is confirmed by the camera, each effect with its time, and stored as a proof', async () => {
    const kept = await t.ask('PUT', '/cameras/slipway/checks/live', {
      check: checkOf(),
      version: 0
    })
    expect(kept.status).toBe(200)
    const view = await walked(kept.body.check)
    expect(view).toMatchObject({
      state: 'done',
      targets: 1,
      kept: true,
      verdict: { outcome: 'passed', hits: 1, misses: 0 }
    })
    expect(view.triggers).toHaveLength(1)
    expect(view.triggers[0]).toMatchObject({ detection: 'quay-edge', direction: 'leftToRight' })
    expect(view.ladder).toMatchObject({ fired: true })
    // The reference engine, on the targets that the camera reported, triggers at the moment the camera gives in its
    // event. How long all of them took to arrive depends on the machine, and only adds to both.
    const events = await t.app.devices.events('cam-slipway')
    const event = events.find(({ topic }) => topic.includes('RuleEngine/'))!
    const saidAt = (event.deviceAt - view.beganAt!) / 1000
    const heardAt = view.triggers[0]!.time
    expect(heardAt).toBeGreaterThanOrEqual(saidAt)
    expect(view.ladder!.time).toBeGreaterThan(saidAt - 0.6)
    expect(view.ladder!.time).toBeLessThan(heardAt + 0.6)
    // At half past eleven at night the lights may act; the camera says itself that it did.
    expect(effect(view, 'Strobe on the mast')).toMatchObject({
      expected: true,
      state: 'came',
      by: 'camera',
      after: expect.any(Number)
    })
    const mail = view.effects.find((e) => e.kind === 'email')!
    expect(mail).toMatchObject({ expected: true, state: 'came', by: 'server' })
    expect((await t.ask('GET', '/mailbox/')).body.length).toBeGreaterThan(0)
    const { body: proving } = await t.ask('GET', '/proving')
    expect(proving.checks.find((c: any) => c.check.id === 'live').last).toMatchObject({
      passed: true,
      current: true
    })
  })

  test('keeps the lights off outside their schedule, and says so to a check that expected them', async () => {
    const view = await walked(
      checkOf({ id: 'noon', at: at('12:00'), effects: [{ endpoint: 'strobe-mast', acts: true }] })
    )
    expect(view.triggers).toHaveLength(1)
    expect(effect(view, 'Strobe on the mast')).toMatchObject({
      expected: true,
      state: 'failed',
      words: 'outside its schedule'
    })
    expect(view.verdict).toMatchObject({
      outcome: 'failed',
      sentence: expect.saying('Strobe on the mast: outside its schedule')
    })
    // It was made up on the spot: nothing is kept.
    expect(view.kept).toBe(false)
  })

  test('a dog does not trigger, as expected; otherwise names the gate that stopped it', async () => {
    const dog = {
      how: 'walk' as const,
      walk: plainWalk(6, [
        actor(
          'dog',
          [
            [0, 20],
            [0, 8]
          ],
          { speed: 2.4 }
        )
      ]),
      through: 'truth' as const
    }
    const silent = await walked(
      checkOf({ id: 'dog', by: dog, expect: { what: 'silence' }, side: 'outside' })
    )
    expect(silent).toMatchObject({ triggers: [], verdict: { outcome: 'passed' } })
    const wrong = await walked(checkOf({ id: 'dog', by: dog }))
    expect(wrong.verdict).toMatchObject({ outcome: 'failed', misses: 1 })
    expect(wrong.verdict!.sentence).toSay('Class not met: animal')
  })

  test('names a detection missing on the camera as the likely cause', async () => {
    const { body } = await t.ask('GET', '/cameras/slipway')
    const { detection, version } = body.detections.find((d: any) => d.detection.id === 'quay-edge')
    // Moved in the plan and not sent: by the plan it triggers, and the camera, with its old line, says nothing.
    const line = [
      [0.05, 0.3],
      [0.05, 0.2]
    ]
    expect(
      (
        await t.ask('PUT', '/cameras/slipway/detections/quay-edge', {
          detection: { ...detection, line },
          position: 0,
          version
        })
      ).status
    ).toBe(200)
    await send()
    expect(
      (
        await t.ask('PUT', '/cameras/slipway/detections/quay-edge', {
          detection,
          position: 0,
          version: version + 1
        })
      ).status
    ).toBe(200)
    const view = await walked(checkOf({ id: 'unsent' }))
    expect(view.triggers).toEqual([])
    expect(view.ladder).toMatchObject({ fired: true })
    expect(view.verdict!.sentence).toSay(
      /The camera should have triggered at .* Likely: .*Quay edge/
    )
  })

  test('by a person on site: ends once all effects are confirmed; one at a time; stops without a result', async () => {
    const byPerson = checkOf({
      id: 'person',
      by: { how: 'person', words: 'Walk up the slipway', seconds: 60 },
      expect: { what: 'trigger', from: 0, to: 60 }
    })
    expect((await t.ask('POST', '/cameras/slipway/walk', { check: byPerson })).status).toBe(201)
    expect(await t.ask('POST', '/cameras/slipway/walk', { check: byPerson })).toMatchObject({
      status: 409
    })
    expect(await t.ask('DELETE', '/cameras/slipway/walk')).toMatchObject({
      status: 200,
      body: { state: 'stopped', verdict: null }
    })
    expect(await t.ask('DELETE', '/cameras/slipway/walk')).toMatchObject({ status: 409 })
  })

  test('refuses walks that cannot be made, with the reason', async () => {
    const clip = checkOf({ by: { how: 'clip', clip: 'x', from: 0, to: 3 } })
    expect((await t.ask('POST', '/cameras/slipway/walk', { check: clip })).body.message).toContain(
      'This check uses a clip. Run it instead.'
    )
    expect(
      (
        await t.ask('POST', '/cameras/fuel-pontoon/walk', {
          check: checkOf({ detection: 'nothing' })
        })
      ).status
    ).toBe(404)
    expect(
      (
        await t.ask('POST', '/cameras/quay-path/walk', {
          check: checkOf({ detection: 'path-crossing' })
        })
      ).body.message
    ).toContain('No device shows this camera')
    expect(
      (await t.ask('POST', '/cameras/slipway/walk', { check: { ...checkOf(), at: 'noon' } })).body
        .message
    ).toContain('$.check.at')
    expect((await t.ask('DELETE', '/cameras/quay-path/walk')).status).toBe(404)
  })
})
