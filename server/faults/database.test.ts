import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { inWords } from '../testing/inWords.ts'
import { ApiError } from '../../core/apiError.ts'
import { makeApp, type App } from '../app.ts'
import { Database } from '../database.ts'
import { Repeats } from '../launch/logs.ts'
import { startMariaDb, type RunningDatabase } from '../launch/mariadb.ts'
import { seed } from '../seed.ts'
import { cookieOf } from '../testing/session.ts'
import { eventually } from '../testing/testApp.ts'

const PER_SECOND = 100
const SENDERS = 40

// A database of the test's own: it is killed.
let folder: string
let mariadb: RunningDatabase
let database: Database
let app: App
let address: string
let cookie: string
const said: string[] = []
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-faults-'))
  mariadb = await startMariaDb(folder, (words) => void said.push(words))
  database = await Database.open(mariadb.address)
  app = await makeApp({
    database,
    folder,
    mostClipBytes: 2 ** 20,
    simulators: null,
    places: [],
    log: false
  })
  await seed(database, app.clips, true, [])
  address = await app.http.listen({ port: 0, host: '127.0.0.1' })
  cookie = await cookieOf(database, 'installer')
})
afterAll(async () => {
  try {
    await app.close()
    await database.close()
  } finally {
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  }
})

/** Of the site, but for what watches over the server. */
const ask = (path: string, init: RequestInit = {}) =>
  fetch(`${address}${path === '/healthz' ? '' : '/api/sites/skerrow'}${path}`, {
    ...init,
    headers: { cookie, ...(init.body ? { 'content-type': 'application/json' } : {}) }
  })
const send = (key: string) =>
  ask('/triggers', {
    method: 'POST',
    body: JSON.stringify({ key, camera: 'slipway', detection: 'quay-edge' })
  })

/** Events that a page which is open hears. */
async function hearing(stop: AbortSignal, events: string[]): Promise<void> {
  const answer = await fetch(`${address}/api/sites/skerrow/alarms/live`, {
    headers: { cookie },
    signal: stop
  })
  void (async () => {
    for await (const part of answer.body!) events.push(Buffer.from(part).toString('utf8'))
  })().catch(() => {})
}

test('the database killed five times under 100 triggers a second: answers 503, restarts it, tells open pages, and loses or doubles nothing', async () => {
  const stop = new AbortController()
  const events: string[] = []
  await hearing(stop.signal, events)
  const kept = new Set<string>()
  const refused = new Set<number>()
  let sending = true
  let underWay = 0
  const one = async (key: string): Promise<void> => {
    underWay++
    // Whoever sends goes on until it is answered, as a device would, no sooner than the server asks for.
    for (;;) {
      const answer = await send(key)
      if (answer.status === 200 || answer.status === 201) {
        underWay--
        return void kept.add(key)
      }
      refused.add(answer.status)
      expect(inWords(await answer.json())).toMatchObject({
        code: 'unavailable',
        message: expect.saying('The database does not answer')
      })
      await wait(1000 * Number(answer.headers.get('retry-after')))
    }
  }
  const open: Promise<void>[] = []
  const pace = async (): Promise<void> => {
    const began = Date.now()
    for (let n = 0; sending; n++) {
      // No more under way than senders there are: what is sent keeps to what the machine can take.
      while (underWay >= SENDERS) await wait(5)
      open.push(one(`trigger ${n}`))
      await wait(Math.max(0, began + (1000 * (n + 1)) / PER_SECOND - Date.now()))
    }
  }
  const paced = pace()
  for (let kill = 0; kill < 5; kill++) {
    const before = kept.size
    await eventually(async () => kept.size > before + PER_SECOND / 2)
    const pid = mariadb.pid()!
    process.kill(pid, 'SIGKILL')
    await eventually(async () => mariadb.pid() !== pid && database.state.up)
  }
  sending = false
  await paced
  await Promise.all(open)
  expect(kept.size).toBe(open.length)
  expect([...refused]).toEqual([503])
  const rows = await database.rows<{ sender_key: string }>(
    "SELECT sender_key FROM fired_trigger WHERE source = 'sender'"
  )
  expect(rows).toHaveLength(kept.size)
  expect(new Set(rows.map((r) => r.sender_key))).toEqual(kept)
  // All or nothing: an alarm counts what it has.
  expect(
    await database.rows(
      'SELECT alarm.id FROM alarm WHERE triggers <> (SELECT COUNT(*) FROM fired_trigger WHERE alarm_id = alarm.id)'
    )
  ).toEqual([])
  expect(
    Number(
      (await database.rows<{ n: number }>('SELECT SUM(n) AS n FROM tally WHERE hours = 1'))[0]!.n
    )
  ).toBe(kept.size)
  const heard = events.join('')
  expect(heard.match(/event: database\ndata: {"up":false/g)!.length).toBeGreaterThanOrEqual(1)
  expect(heard).toMatch(/event: database\ndata: {"up":true/)
  expect(said.filter((words) => words === 'MariaDB ended (SIGKILL); restarting it')).toHaveLength(5)
  stop.abort()
}, 600_000)

test('notices a hanging database, answers those who wait, and resumes with it', async () => {
  const pid = mariadb.pid()!
  process.kill(pid, 'SIGSTOP')
  try {
    const began = Date.now()
    const answer = await ask('/site')
    expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '2'])
    expect(Date.now() - began).toBeLessThan(30_000)
    expect((await ask('/healthz')).status).toBe(503)
    expect(await (await ask('/healthz')).json()).toEqual({
      status: 'failing',
      failing: ['database']
    })
  } finally {
    process.kill(pid, 'SIGCONT')
  }
  await eventually(async () => (await ask('/site')).status === 200)
  expect((await ask('/healthz')).status).toBe(200)
})

test('answers disk errors with 507 and numbers out of range with 400', async () => {
  const failing = async (error: object): Promise<ApiError> =>
    database
      .transaction(async () => {
        throw Object.assign(new Error('x'), error)
      })
      .then(
        () => {
          throw new Error('no')
        },
        (e: ApiError) => e
      )
  for (const code of ['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE'])
    expect((await failing({ code })).status).toBe(507)
  expect(
    (
      await failing({
        message: 'Got error 168; errno: 28 "No space left on device"',
        code: 'ER_GET_ERRNO'
      })
    ).view
  ).toMatchObject({ code: 'no-space', said: expect.saying('disk is full') })
  await expect(
    database.run(
      'INSERT INTO fired_trigger (camera_id, detection_id, kind, target, fired_at, fired_with) VALUES (?, ?, ?, ?, 0, ?)',
      ['c', 'd', 'line', 99999999999, '{}']
    )
  ).rejects.toThrowWords('A number is out of range.')
})

test('logs repeated errors once a minute with their number', () => {
  let now = 0
  const repeats = new Repeats(() => now)
  const written: (number | null)[] = []
  // Seven a second for an hour, as it was: 25,200 lines.
  for (let n = 0; n < 25_200; n++) {
    now = n * 143
    written.push(repeats.said('the database does not answer'))
  }
  expect(written.filter((w) => w !== null).length).toBeLessThanOrEqual(61)
  expect(written.filter((w) => w !== null)[1]).toBeGreaterThan(400)
  expect(readFileSync(join(folder, 'mariadb.log'), 'utf8').length).toBeGreaterThan(0)
})
