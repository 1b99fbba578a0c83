import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
})
afterAll(() => t.close())

const view = async () => (await t.ask('GET', '/proving')).body
const checksOf = async (detection: string) =>
  (await view()).checks.filter((c: any) => c.check.detection === detection)
/** Those that need no pictures to be painted. */
const quick = async (...detections: string[]) =>
  (await Promise.all(detections.map(checksOf)))
    .flat()
    .filter((c: any) => c.check.by.through === 'truth')
    .map((c: any) => ({ camera: c.camera, check: c.check.id }))
const finished = (id: number, state = 'finished') =>
  eventually(async () => {
    const { body } = await t.ask('GET', `/proving/runs/${id}`)
    return body.state === state && body
  })
async function run(checks: unknown[]): Promise<any> {
  const { status, body } = await t.ask('POST', '/proving/runs', { checks })
  expect(status).toBe(201)
  return finished(body.id)
}
async function edit(camera: string, id: string, change: object): Promise<void> {
  const kept = (await t.ask('GET', `/cameras/${camera}`)).body.detections.find(
    (d: any) => d.detection.id === id
  )
  expect(
    (
      await t.ask('PUT', `/cameras/${camera}/detections/${id}`, {
        detection: { ...kept.detection, ...change },
        position: kept.position,
        version: kept.version
      })
    ).status
  ).toBe(200)
}
const readiness = async (camera: string) => {
  const { body } = await t.ask('GET', '/readiness')
  return {
    proven: body.cameras.find((c: any) => c.id === camera).steps.proven,
    findings: body.findings.filter((f: any) => f.camera === camera && f.step === 'proven')
  }
}

test('starts without checks, and lists every detection as unchecked', async () => {
  expect((await view()).checks).toEqual([])
  expect((await t.ask('POST', '/proving/runs', {})).status).toBe(404)
  expect(await readiness('slipway')).toMatchObject({
    proven: 'empty',
    findings: [{ code: 'never-proven', sentence: expect.saying('has no checks') }]
  })
})

test('proposes at least a hundred checks for the demo site, and adds all at once', async () => {
  expect((await t.ask('POST', '/proving/take')).body.taken).toBeGreaterThanOrEqual(100)
  const { checks, proposals, coverage } = await view()
  expect(proposals).toEqual([])
  expect(checks.length).toBeGreaterThanOrEqual(100)
  expect(coverage.find((c: any) => c.detection === 'waiting-room-door').gates).toEqual(
    expect.arrayContaining([expect.objectContaining({ about: 'armed', inside: 2, outside: 2 })])
  )
  expect(await readiness('slipway')).toMatchObject({
    proven: 'empty',
    findings: [{ sentence: 'Quay edge’s checks have not been run.', fix: { does: 'prove' } }]
  })
})

test('runs them: results, the score, the step; painted pictures where the kind needs them', async () => {
  const covered = { camera: 'workshop-yard', check: 'yard-care.cause.covered' }
  const cut = { camera: 'workshop-yard', check: 'yard-signal.delay.longer' }
  const asked = [...(await quick('quay-edge', 'waiting-room-door')), covered, cut]
  const done = await run(asked)
  // No device is there in this test, so that the outputs of the cameras are missing: just those fail.
  const failed = (await view()).checks.filter((c: any) => c.last && !c.last.passed)
  expect(failed.map((c: any) => c.check.about)).toEqual(['outputs', 'outputs', 'outputs'])
  for (const c of failed) expect(c.last.sentence).toSay('no device has this output')
  expect(done).toMatchObject({
    asked: asked.length,
    done: asked.length,
    passed: asked.length - 3,
    failed: 3,
    better: [],
    worse: []
  })
  const now = await view()
  expect(now.totals).toMatchObject({ recall: 1, precision: 1, f1: 1 })
  expect(
    (await t.ask('GET', `/cameras/workshop-yard/checks/${covered.check}/result`)).body.verdict
  ).toMatchObject({ seen: [{ kind: 'tamper', cause: 'covered' }], outcome: 'passed' })
  expect(await readiness('slipway')).toMatchObject({
    proven: 'failed',
    findings: [
      {
        code: 'check-failed',
        sentence: expect.saying('Quay edge failed 2 checks')
      }
    ]
  })
  // Without them it is proven.
  for (const c of failed)
    expect(
      (await t.ask('DELETE', `/cameras/${c.camera}/checks/${c.check.id}?version=${c.version}`))
        .status
    ).toBe(200)
  expect(await readiness('slipway')).toMatchObject({ proven: 'done', findings: [] })
})

test('a changed setting puts proofs out of date; runs again show what got worse since which change, and what got better', async () => {
  await edit('slipway', 'quay-edge', { direction: 'rightToLeft' })
  expect(
    (await checksOf('quay-edge')).filter((c: any) => c.last).every((c: any) => !c.last.current)
  ).toBe(true)
  expect((await readiness('slipway')).findings).toMatchObject([
    { code: 'never-proven', sentence: expect.saying('Settings changed since') }
  ])
  const worse = await run(await quick('quay-edge'))
  const turned = worse.worse.find((x: any) => x.check === 'quay-edge.direction.leftToRight')
  expect(turned).toMatchObject({ name: 'From Water to Land', since: [{ label: 'Edit Quay edge' }] })
  expect(worse.failed).toBeGreaterThan(3)
  expect(await readiness('slipway')).toMatchObject({
    proven: 'failed',
    findings: [{ code: 'check-failed', severity: 'blocking' }]
  })
  // Once they have been worked out again, the settings as they are would propose others.
  const { proposals } = await eventually(async () => {
    const now = await view()
    if (now.unasked) await t.ask('POST', '/proving/propose')
    return now.proposing + now.unasked === 0 && now
  })
  expect(proposals.some((p: any) => p.check.detection === 'quay-edge' && p.replaces !== null)).toBe(
    true
  )
  await edit('slipway', 'quay-edge', { direction: 'leftToRight' })
  const better = await run(await quick('quay-edge'))
  expect(better.better.map((x: any) => x.check).sort()).toEqual(
    worse.worse.map((x: any) => x.check).sort()
  )
  expect(better.failed).toBe(0)
})

test('two runs requested at once are one; looking starts no process', async () => {
  const checks = await quick('quay-edge')
  const answers = await Promise.all([1, 2, 3].map(() => t.ask('POST', '/proving/runs', { checks })))
  expect(answers.map((a) => a.status).sort()).toEqual([201, 409, 409])
  await finished(answers.find((a) => a.status === 201)!.body.id)
  await t.restart()
  const first = await view()
  expect([first.proposing, first.unasked > 0]).toEqual([0, true])
  expect((await view()).proposing).toBe(0)
})

test('runs every check once across a stop and a restart of the server', async () => {
  const asked = [
    ...(await quick('path-crossing', 'ticket-window')),
    { camera: 'workshop-yard', check: 'yard-care.cause.moved' },
    { camera: 'workshop-yard', check: 'yard-care.nuisance.storm' }
  ]
  const { body: begun } = await t.ask('POST', '/proving/runs', { checks: asked })
  expect((await t.ask('POST', '/proving/runs', { checks: asked })).body).toMatchObject({
    code: 'busy'
  })
  expect((await t.ask('POST', `/proving/runs/${begun.id}/stop`)).body).toMatchObject({
    state: 'stopped'
  })
  await t.restart()
  const { body: stopped } = await t.ask('GET', `/proving/runs/${begun.id}`)
  expect(stopped.done).toBeLessThan(asked.length)
  expect((await t.ask('POST', `/proving/runs/${begun.id}/go-on`)).status).toBe(200)
  expect(await finished(begun.id)).toMatchObject({ done: asked.length })
  expect((await t.ask('POST', `/proving/runs/${begun.id}/go-on`)).status).toBe(409)
  const [counted] = await t.database.rows<{ n: number }>(
    'SELECT COUNT(*) AS n FROM proof_result WHERE run_id = ?',
    [begun.id]
  )
  expect(counted!.n).toBe(asked.length)
})

test('a custom check on a clip; refuses errors with their place; two windows', async () => {
  const path = '/cameras/quay-path/checks/own-1'
  const walk = {
    seconds: 10,
    actors: [
      {
        kind: 'child',
        way: [
          [-3, 12],
          [3, 12]
        ]
      }
    ]
  }
  const check = {
    id: 'own-1',
    detection: 'path-crossing',
    name: 'A child across the path',
    about: 'passes',
    side: 'inside',
    by: { how: 'walk', walk },
    at: Date.parse('2026-11-26T12:00:00Z'),
    expect: { what: 'trigger', from: 0, to: 10 }
  }
  const refused = async (change: object) =>
    (await t.ask('PUT', path, { version: 0, check: { ...check, ...change } })).body.message
  expect(await refused({ expect: { what: 'trigger', from: 5, to: 2 } })).toContain(
    'to must not be before from'
  )
  expect(await refused({ detection: 'nobody' })).toBe(
    '$.check.detection: names "nobody", which is not on this camera'
  )
  expect(
    await refused({
      by: {
        how: 'walk',
        walk: {
          seconds: 10,
          actors: [
            {
              kind: 'ghost',
              way: [
                [0, 1],
                [0, 2]
              ]
            }
          ]
        }
      }
    })
  ).toContain('$.check.by.walk.actors[0].kind: is "ghost"; must be one of adult, child')
  expect((await t.ask('PUT', path, { version: 0, check })).status).toBe(200)
  expect((await t.ask('PUT', path, { version: 0, check })).body).toMatchObject({
    code: 'conflict',
    current: { version: 1 }
  })
  expect(await run([{ camera: 'quay-path', check: 'own-1' }])).toMatchObject({ passed: 1 })
  const { body: gone } = await t.ask('DELETE', `${path}?version=1`)
  expect((await checksOf('path-crossing')).some((c: any) => c.check.id === 'own-1')).toBe(false)
  expect((await t.ask('PUT', path, { version: gone.version, check })).status).toBe(200)
  const person = { ...check, id: 'own-2', by: { how: 'person', words: 'Walk across', seconds: 60 } }
  await t.ask('PUT', '/cameras/quay-path/checks/own-2', { version: 0, check: person })
  expect(
    (
      await t.ask('POST', '/proving/runs', {
        checks: [{ camera: 'quay-path', check: 'own-2' }]
      })
    ).body.message
  ).toContain('needs a walk on site')
})
