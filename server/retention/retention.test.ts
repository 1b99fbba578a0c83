import { existsSync, mkdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { DEFAULT_RETENTION, type Retention } from '../../core/retention.ts'
import { Leftovers } from '../files.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { RetentionKeeper } from './service.ts'

const DAY = 24 * 60 * 60_000
const NOW = Date.parse('2026-11-27T12:00:00Z')
let t: TestApp
let keeper: RetentionKeeper
let evidence: string
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, clipsOf: [] })
  evidence = join(t.folder, 'evidence')
  keeper = new RetentionKeeper(
    t.database,
    evidence,
    new Leftovers(t.database, (error) => {
      throw error
    }),
    (error) => {
      throw error
    },
    () => NOW
  )
})
afterAll(() => t.close())
beforeEach(async () => {
  await t.database.run('DELETE FROM alarm')
  rmSync(evidence, { recursive: true, force: true })
  mkdirSync(join(evidence, 'triggers'), { recursive: true })
})

const count = async (table: string, where = '1'): Promise<number> =>
  Number(
    (await t.database.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table} WHERE ${where}`))[0]!
      .n
  )
let versions = 0
async function keep(change: Partial<Retention>): Promise<void> {
  const { body, status } = await t.ask('PUT', '/api/settings/retention', {
    version: versions,
    retention: { ...DEFAULT_RETENTION, ...change }
  })
  expect(status).toBe(200)
  versions = body.version
}

/** An alarm of so many days ago, with two triggers, a delivery each, a note, and files of theirs. */
async function alarm(
  days: number,
  state: 'waiting' | 'acknowledged' | 'closed',
  delivery = 'sent'
): Promise<{ id: number; files: string[] }> {
  const at = NOW - days * DAY
  const { insertId: id } = await t.database.run(
    "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) VALUES ('skerrow', 'slipway', 'quay-edge', 'Q', 'major', 'normal', ?, '{}', ?, ?, 2)",
    [state, at, at]
  )
  await t.database.run(
    "INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) VALUES (?, 'comment', 'A word', 'X', ?)",
    [id, at]
  )
  const files: string[] = []
  for (let n = 0; n < 2; n++) {
    const { insertId: trigger } = await t.database.run(
      "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, alarm_id) VALUES ('slipway', 'quay-edge', 'line', ?, '{\"name\":\"Q\"}', 'sender', ?)",
      [at, id]
    )
    const { insertId: made } = await t.database.run(
      'INSERT INTO delivery (trigger_id, alarm_id, kind, recipient, state, next_at, endpoint_id, endpoint, created_at, result) VALUES (?, ?, \'snapshots\', \'x\', ?, 0, \'e\', \'{}\', ?, \'{"files":[{"name":"snapshot.jpg","type":"image/jpeg"}]}\')',
      [trigger, id, delivery, at]
    )
    const [picture, home] = [
      join(evidence, 'triggers', `${trigger}.jpg`),
      join(evidence, String(made))
    ]
    mkdirSync(home, { recursive: true })
    for (const file of [picture, join(home, 'snapshot.jpg')]) {
      writeFileSync(file, Buffer.alloc(100_000))
      utimesSync(file, at / 1000, at / 1000)
      files.push(file)
    }
  }
  return { id, files }
}

describe('deleting old data', () => {
  test('deletes closed alarms with all their data, and none open or with pending deliveries', async () => {
    await keep({ alarmDays: 30 })
    const [old, fresh, waiting, looked, sending] = [
      await alarm(31, 'closed'),
      await alarm(29, 'closed'),
      await alarm(400, 'waiting'),
      await alarm(400, 'acknowledged'),
      await alarm(400, 'closed', 'pending')
    ]
    const tallied = async (): Promise<number> =>
      Number(
        (await t.database.rows<{ n: number }>('SELECT SUM(n) AS n FROM tally WHERE hours = 1'))[0]!
          .n
      )
    const before = await tallied()
    expect(await keeper.look()).toBeGreaterThan(0)
    expect(
      (await t.database.rows<{ id: number }>('SELECT id FROM alarm ORDER BY id')).map((r) => r.id)
    ).toEqual([fresh, waiting, looked, sending].map((a) => a.id))
    expect([
      await count('fired_trigger', `alarm_id = ${old.id}`),
      await count('delivery', `alarm_id = ${old.id}`),
      await count('alarm_note', `alarm_id = ${old.id}`),
      await count('alarm_word', `alarm_id = ${old.id}`)
    ]).toEqual([0, 0, 0, 0])
    expect(old.files.filter(existsSync)).toEqual([])
    for (const kept of [fresh, waiting, looked, sending])
      expect(kept.files.every(existsSync)).toBe(true)
    // Charts count what is there.
    expect(await tallied()).toBe(before - 2)
    expect(await keeper.look()).toBe(0)
  })

  test('deletes events, the audit log and history steps; every kept step can still be restored', async () => {
    await keep({ eventDays: 10, auditDays: 20, editDays: 100 })
    await t.database.run(
      "INSERT INTO device (id, site_id, name, address, state, added_at) VALUES ('d', 'skerrow', 'D', 'http://192.0.2.1', 'unknown', 0)"
    )
    for (const days of [5, 15])
      await t.database.run(
        "INSERT INTO device_event (device_id, topic, rule, data, device_at, received_at) VALUES ('d', 'x', '', '{}', 0, ?)",
        [NOW - days * DAY]
      )
    await t.database.run('DELETE FROM audit')
    for (const days of [15, 25])
      await t.database.run(
        "INSERT INTO audit (at, username, address, what, detail, status) VALUES (?, 'x', '', 'signed-in', '', 200)",
        [NOW - days * DAY]
      )
    await t.database.run("DELETE FROM edit WHERE thing_id = 'thing'")
    for (const [days, name] of [
      [300, 'oldest'],
      [200, 'old'],
      [150, 'last of the old'],
      [50, 'new']
    ] as const)
      await t.database.run(
        "INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at) VALUES ('skerrow', 'slipway', 'detection', 'thing', ?, ?, 'X', ?)",
        [JSON.stringify({ detection: { id: 'thing', name }, position: 0 }), name, NOW - days * DAY]
      )
    await keeper.look()
    expect(await t.database.rows('SELECT received_at AS at FROM device_event')).toEqual([
      { at: NOW - 5 * DAY }
    ])
    expect(await t.database.rows("SELECT at FROM audit WHERE username = 'x'")).toEqual([
      { at: NOW - 15 * DAY }
    ])
    expect(
      await t.database.rows("SELECT label FROM edit WHERE thing_id = 'thing' ORDER BY id")
    ).toEqual([{ label: 'last of the old' }, { label: 'new' }])
    await t.database.run("DELETE FROM edit WHERE thing_id = 'thing'")
    await t.database.run("DELETE FROM device WHERE id = 'd'")
  })

  test('deletes files beyond the size, oldest closed alarms first; keeps delivery results', async () => {
    await keep({ evidenceGigabytes: 0.1 })
    const [oldest, waiting, newer] = [
      await alarm(20, 'closed'),
      await alarm(40, 'waiting'),
      await alarm(10, 'closed')
    ]
    // Larger than all of it: something has to go.
    const big = newer.files[0]!
    writeFileSync(big, Buffer.alloc(99_200_000))
    utimesSync(big, (NOW - 10 * DAY) / 1000, (NOW - 10 * DAY) / 1000)
    await keeper.look()
    expect(oldest.files.filter(existsSync).length).toBeLessThan(4)
    expect(waiting.files.every(existsSync)).toBe(true)
    expect(existsSync(big)).toBe(true)
    expect(await count('delivery', `alarm_id = ${oldest.id}`)).toBe(2)
    const { body } = await t.ask('GET', '/api/retention')
    expect(body).toMatchObject({
      retention: { evidenceGigabytes: 0.1 },
      now: { alarms: 3, triggers: expect.any(Number), freeBytes: expect.any(Number) }
    })
    expect(body.now.evidenceBytes).toBeLessThanOrEqual(100_000_000)
  })

  test('refuses impossible ages and sizes, and other roles', async () => {
    const put = (retention: object) =>
      t.ask('PUT', '/api/settings/retention', { version: versions, retention })
    expect((await put({ ...DEFAULT_RETENTION, alarmDays: 0 })).body.message).toBe(
      '$.retention.alarmDays: must be a whole number of days from 1 to 3650'
    )
    expect((await put({ ...DEFAULT_RETENTION, evidenceGigabytes: 0 })).status).toBe(422)
    expect((await t.ask('GET', '/api/retention', undefined, await t.as('operator'))).status).toBe(
      403
    )
  })
})
