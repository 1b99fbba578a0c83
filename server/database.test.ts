import { readFileSync, readdirSync } from 'node:fs'
import { saidOf, type Said } from '../core/messages/said.ts'
import { wordsOf } from '../core/messages/words.ts'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createConnection, type Connection } from 'mysql2/promise'
import { EndpointSchema } from '../core/formats/actions.ts'
import { NO_ACTIONS } from '../core/formats/noActions.ts'
import { stateOf } from '../core/history/states.ts'
import { readEndpoints, readSettings } from './actions/queries.ts'
import { deliveriesOfRun } from './alarms/queries.ts'
import { eventually } from './testing/testApp.ts'
import { Database, type DatabaseAddress } from './database.ts'
import { findTriggers } from './search/queries.ts'
import { readDetections } from './detections/queries.ts'
import { readStateAt } from './history/queries.ts'
import { parseWith } from '../core/schema/parse.ts'

const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
const name = `wardoptic_sql_${process.pid}`
let database: Database
beforeAll(async () => (database = await Database.open(address, name)))
afterAll(() => database.close())

const insert = "INSERT INTO site (id, name, time_zone) VALUES (?, ?, 'UTC')"
const sites = () =>
  database.rows<{ id: string; name: string }>('SELECT id, name FROM site ORDER BY id')

test('runs migrations once and keeps data over a second start', async () => {
  await database.run(insert, ['a', 'Ä "quoted" \\ 船'])
  const again = await Database.open(address, name)
  expect(await again.rows('SELECT name FROM migration')).toEqual(
    readdirSync(new URL('./migrations/', import.meta.url))
      .sort()
      .map((file) => ({ name: file }))
  )
  expect(await again.rows('SELECT name FROM site')).toEqual([{ name: 'Ä "quoted" \\ 船' }])
  await again.close()
})

test('a transaction saves all or nothing', async () => {
  await expect(
    database.transaction(async (sql) => {
      await sql.run(insert, ['b', 'B'])
      await sql.run(insert, ['a', 'taken'])
    })
  ).rejects.toThrowWords(/Duplicate/)
  expect((await sites()).map((s) => s.id)).toEqual(['a'])
  expect(
    await database.transaction(async (sql) => (await sql.run(insert, ['b', 'B'])).affectedRows)
  ).toBe(1)
  expect((await sites()).map((s) => s.id)).toEqual(['a', 'b'])
})

test('a statement that the database gives up for a transaction is run again', async () => {
  await database.run(insert, ['c', 'C'])
  let renamed: Promise<unknown> | undefined
  let isOver = false
  await database.transaction(async (sql) => {
    // The new row holds on to its site, which the statement beside it waits for, before this one does.
    await sql.run(
      "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('c-1', 'c', 'C 1', 0, '[]')"
    )
    renamed ??= database
      .run("UPDATE site SET name = 'renamed' WHERE id = 'c'")
      .finally(() => (isOver = true))
    // Should the database give this one up instead, the other has not waited for its second try.
    await eventually(async () => isOver || (await oneWaits()))
    await sql.run("UPDATE site SET time_zone = 'Europe/Oslo' WHERE id = 'c'")
  })
  await renamed
  expect(
    await database.rows(
      "SELECT s.name, s.time_zone, c.name AS camera FROM site s JOIN camera c ON c.site_id = s.id WHERE s.id = 'c'"
    )
  ).toEqual([{ name: 'renamed', time_zone: 'Europe/Oslo', camera: 'C 1' }])
  await database.run("DELETE FROM camera WHERE id = 'c-1'")
  await database.run("DELETE FROM site WHERE id = 'c'")
})

/** Whether a statement of this database has waited for a while: for a lock, as nothing here takes so long. */
const oneWaits = async (): Promise<boolean> =>
  (
    await database.rows(
      "SELECT 1 FROM information_schema.processlist WHERE db = ? AND info LIKE 'UPDATE site SET name%' AND time_ms > 200",
      [name]
    )
  ).length > 0

test('binds values, never puts them into the statement; ids are case-sensitive', async () => {
  await database.run(insert, ["x'; DROP TABLE site; --", 'x'])
  await database.run(insert, ['A', 'other'])
  expect(await sites()).toHaveLength(4)
})

test('the database needs its password', async () => {
  await expect(Database.open({ ...address, password: 'guess' }, name)).rejects.toThrowWords(
    /Access denied/
  )
})

/** A database as it was before a migration; what is opened later is brought up to date by the migrations themselves. */
async function databaseBefore(migration: string, old: string): Promise<Connection> {
  const first = await createConnection({ ...address, multipleStatements: true })
  await first.query(
    `CREATE DATABASE \`${old}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin; USE \`${old}\`; CREATE TABLE migration (name VARCHAR(100) PRIMARY KEY, applied_at BIGINT NOT NULL)`
  )
  const folder = new URL('./migrations/', import.meta.url)
  for (const file of readdirSync(folder)
    .sort()
    .filter((f) => f < migration))
    await first.query(
      `${readFileSync(new URL(file, folder), 'utf8')}\nINSERT INTO migration VALUES ('${file}', 0)`
    )
  return first
}

test('histories start with what was there before, and addresses become linked e-mails', async () => {
  const old = `${name}_old`
  const first = await databaseBefore('006', old)
  await first.query(
    "INSERT INTO site (id, name, time_zone) VALUES ('old', 'Old', 'UTC'); INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'old', 'Cam', 0, '[[[0,0],[1,0],[1,1]]]')"
  )
  await first.query(
    'INSERT INTO schedule (site_id, id, body, version, changed_at) VALUES (\'old\', \'n\', \'{"id":"n"}\', 1, 5); INSERT INTO detection (camera_id, id, position, body, version, changed_at) VALUES (\'cam\', \'d\', 3, \'{"id":"d","name":"D"}\', 1, 5)'
  )
  await first.query(
    "INSERT INTO email_link (camera_id, detection_id, recipient, version, changed_at) VALUES ('cam', 'd', 'x@y.example', 1, 5)"
  )
  await first.query(
    "INSERT INTO clip (id, camera_id, name, state, start_at, fps, width, height, bytes, created_at) VALUES ('clip', 'cam', 'C', 'ready', 0, 10, 1, 1, 1, 0); INSERT INTO run (id, clip_id, state, started_at) VALUES ('run', 'clip', 'finished', 0)"
  )
  await first.query(
    "INSERT INTO fired_trigger (run_id, camera_id, detection_id, kind, target, frame, clip_seconds, fired_at, fired_with) VALUES ('run', 'cam', 'd', 'line', 1, 1, 0, 0, '{}'); INSERT INTO delivery (trigger_id, kind, recipient, state, next_at) VALUES (1, 'email', 'x@y.example', 'sent', 0)"
  )
  await first.end()
  const opened = await Database.open(address, old)
  const state = stateOf(await readStateAt(opened, 'old', 'cam', 1e9))
  expect(state).toMatchObject({
    detections: [{ detection: { id: 'd', name: 'D' }, position: 3 }],
    schedules: [{ id: 'n' }],
    scene: {
      ignore: [
        [
          [0, 0],
          [1, 0],
          [1, 1]
        ]
      ],
      marks: null
    }
  })
  const { endpoint } = (await readEndpoints(opened, 'old'))[0]!
  expect(parseWith(EndpointSchema, endpoint)).toMatchObject({
    kind: 'email',
    name: 'E-mail to x@y.example',
    recipients: ['x@y.example']
  })
  expect((await readSettings(opened, 'old')).mail).toMatchObject({
    version: 1,
    mail: { host: 'simulator', encryption: 'none' }
  })
  const { actions } = (await readDetections(opened, 'cam'))[0]!
  expect(actions.actions).toEqual({ ...NO_ACTIONS, links: [endpoint.id] })
  expect(state.actions.get('d')).toEqual(actions.actions)
  expect((await deliveriesOfRun(opened, 'run')).get(1)).toMatchObject([
    { kind: 'email', name: 'E-mail to x@y.example', state: 'sent' }
  ])
  await opened.close()
})

test('finds old comments by their words', async () => {
  const old = `${name}_words`
  const first = await databaseBefore('011', old)
  await first.query(
    "INSERT INTO site (id, name, time_zone) VALUES ('old', 'Old', 'UTC'); INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'old', 'Cam', 0, '[]')"
  )
  await first.query(
    "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) VALUES ('old', 'cam', 'd', 'D', 'minor', 'normal', 'acknowledged', '{}', 5, 5, 1)"
  )
  await first.query(
    "INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) VALUES (1, 'acknowledged', 'Two \\\\anglers\\\\, \"lost\"', 'I', 5), (1, 'comment', '', 'I', 6), (1, 'comment', 'Anglers again', 'I', 7)"
  )
  await first.query(
    "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, alarm_id) VALUES ('cam', 'd', 'line', 5, '{}', 'sender', 1)"
  )
  await first.end()
  const opened = await Database.open(address, old)
  expect(
    (await opened.rows<{ word: string }>('SELECT word FROM alarm_word ORDER BY word')).map(
      (r) => r.word
    )
  ).toEqual(['again', 'anglers', 'lost', 'Two'])
  expect(
    (await findTriggers(opened, { words: 'ANGL lost again' }, undefined, 10)).triggers.map(
      (t) => t.id
    )
  ).toEqual([1])
  await opened.close()
})

test('turns known sentences into codes and keeps the others as written', async () => {
  const old = `${name}_sentences`
  const first = await databaseBefore('014', old)
  await first.query(
    "INSERT INTO site (id, name, time_zone) VALUES ('old', 'Old', 'UTC'); INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'old', 'Cam', 0, '[]')"
  )
  const labels: [string, string][] = [
    ['Edit hours Nights', 'Edit schedule Nights'],
    ['Edit Quay edge', 'Edit Quay edge'],
    ['Delete Quay edge', 'Delete Quay edge'],
    ['Delete hours', 'Delete schedule'],
    ['Change what it sets off', 'Change actions'],
    ['Quay edge, as delivered', 'Quay edge, as delivered'],
    ['Move a vertex of Quay edge', 'Move a vertex of Quay edge']
  ]
  for (const [label] of labels)
    await first.query(
      "INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at) VALUES ('old', 'cam', 'detection', 'd', NULL, ?, 'I', 5)",
      [label]
    )
  await first.query(
    "INSERT INTO endpoint (site_id, id, body, version, changed_at) VALUES ('old', 'hook', ?, 1, 5)",
    [
      JSON.stringify({
        id: 'hook',
        name: 'The stand-in',
        kind: 'webhook',
        url: 'http://stand-in/hooks'
      })
    ]
  )
  for (const error of ['outside its own hours', 'the panel said no'])
    await first.query(
      "INSERT INTO delivery (kind, recipient, state, next_at, endpoint_id, endpoint, made_by, does, created_at, error) VALUES ('webhook', 'x', 'held', 0, 'hook', '{}', 'server', 'on', 0, ?)",
      [error]
    )
  await first.end()

  const opened = await Database.open(address, old)
  const said = async (table: string, column: string): Promise<(Said | string)[]> =>
    (await opened.rows<{ text: string }>(`SELECT ${column} AS text FROM ${table} ORDER BY id`)).map(
      ({ text }) => saidOf(text)
    )
  const edits = await said('edit', 'label')
  expect(edits.map(wordsOf)).toEqual(labels.map(([, now]) => now))
  expect(edits.map((one) => typeof one)).toEqual([...Array<string>(6).fill('object'), 'string'])
  expect(await said('delivery', 'error')).toEqual([
    { code: 'actions.outsideSchedule' },
    'the panel said no'
  ])
  expect((await readEndpoints(opened, 'old'))[0]!.endpoint).toMatchObject({
    name: 'The stand-in',
    url: 'http://simulator/hooks'
  })
  await opened.close()
})
