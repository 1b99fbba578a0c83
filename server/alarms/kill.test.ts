import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { deliveryKind } from '../deliveries/kinds.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

const KILLS = 20
const PER_SECOND = 100
const root = fileURLToPath(new URL('../..', import.meta.url))

let t: TestApp
let child: ChildProcess | null = null
beforeAll(async () => (t = await startTestApp({ withDemo: true })))
afterAll(async () => {
  child?.kill('SIGKILL')
  await t.close()
})

test('killed at twenty random moments under 100 triggers a second: every answered trigger has all its deliveries', async () => {
  // Two detections, of which each trigger calls two webhooks; the server of the test itself does nothing meanwhile.
  for (const id of ['one', 'two'])
    await t.ask('PUT', `/endpoints/${id}`, {
      version: 0,
      endpoint: { id, name: id, kind: 'webhook', url: 'http://simulator/hooks' }
    })
  const detections = [
    ['quay-path', 'path-crossing'],
    ['slipway', 'quay-edge']
  ]
  for (const [camera, id] of detections) {
    const { version } = (await t.ask('GET', `/cameras/${camera}`)).body.detections.find(
      (d: any) => d.detection.id === id
    ).actions
    expect(
      (
        await t.ask('PUT', `/cameras/${camera}/detections/${id}/actions`, {
          version,
          actions: { links: ['one', 'two'], groupSeconds: 5 }
        })
      ).status
    ).toBe(200)
  }
  await t.app.close()
  const { simulators, name } = t.parts
  const start = async (): Promise<string> => {
    child = spawn(
      process.execPath,
      [
        join(root, 'scripts/run.mjs'),
        'server/testing/killable.ts',
        process.env.WARDOPTIC_TEST_DATABASE!,
        name,
        t.folder,
        JSON.stringify(simulators)
      ],
      { stdio: ['ignore', 'pipe', 'inherit'] }
    )
    const [line] = (await once(createInterface(child.stdout!), 'line')) as [string]
    return line
  }
  const answered: string[] = []
  let sent = 0
  /** Sends until the server is gone; the sender keeps what was not answered, and sends it again later. */
  let unanswered: { key: string; camera: string; detection: string }[] = []
  const sendOne = async (address: string, body: (typeof unanswered)[number]): Promise<void> => {
    try {
      const answer = await fetch(`${address}/api/sites/skerrow/triggers`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie: t.cookie },
        body: JSON.stringify(body)
      })
      if (answer.ok) answered.push(body.key)
      else throw new Error(await answer.text())
    } catch {
      unanswered.push(body)
    }
  }
  for (let kill = 0; kill < KILLS; kill++) {
    const address = await start()
    const again = unanswered
    unanswered = []
    const open = again.map((body) => sendOne(address, body))
    const until = Date.now() + 150 + Math.random() * 500
    while (Date.now() < until) {
      const [camera, detection] = detections[sent % 2] as [string, string]
      open.push(sendOne(address, { key: `t${++sent}`, camera, detection }))
      await new Promise((resolve) => setTimeout(resolve, 1000 / PER_SECOND))
    }
    child!.kill('SIGKILL')
    await once(child!, 'exit')
    await Promise.all(open)
  }
  const address = await start()
  const last = unanswered
  unanswered = []
  await Promise.all(last.map((body) => sendOne(address, body)))
  expect(unanswered).toEqual([])
  expect(answered.length).toBe(sent)
  expect(sent).toBeGreaterThan(KILLS * 5)

  // None lost, none twice, none without its deliveries; and in the end each is made.
  const count = async (sql: string): Promise<number> =>
    (await t.database.rows<{ n: number }>(sql))[0]!.n
  expect(
    await count("SELECT COUNT(DISTINCT sender_key) AS n FROM fired_trigger WHERE source = 'sender'")
  ).toBe(sent)
  expect(await count("SELECT COUNT(*) AS n FROM fired_trigger WHERE source = 'sender'")).toBe(sent)
  expect(
    await count(
      'SELECT COUNT(*) AS n FROM fired_trigger t WHERE (SELECT COUNT(*) FROM delivery d WHERE d.trigger_id = t.id) <> 2'
    )
  ).toBe(0)
  expect(await count('SELECT SUM(triggers) AS n FROM alarm').then(Number)).toBe(sent)
  await eventually(
    async () => (await count("SELECT COUNT(*) AS n FROM delivery WHERE state = 'pending'")) === 0
  )
  expect(await count("SELECT COUNT(*) AS n FROM delivery WHERE state = 'sent'")).toBe(2 * sent)
  // What the receiver got: everything; twice only what it had answered when the server was killed
  // before it could write that down.
  const keys: string[] = (await t.outside()).hooks.map((h: any) => h.key)
  expect(new Set(keys).size).toBe(2 * sent)
  const attempts = await count('SELECT COUNT(*) AS n FROM delivery_attempt WHERE ok')
  expect(attempts).toBe(2 * sent)
  // What was being made at a kill is made again: no more than there are places for it.
  expect(keys.length - 2 * sent).toBeLessThanOrEqual(KILLS * 2 * deliveryKind('webhook').atOnce)
}, 600_000)
