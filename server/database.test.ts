import { readFileSync, readdirSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { stateOf } from '../core/history/states.ts'
import { Database } from './database.ts'
import { readStateAt } from './history/rows.ts'
import type { DatabaseAddress } from './mariadb.ts'

const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
const name = `wardoptic_sql_${process.pid}`
let database: Database
beforeAll(async () => (database = await Database.open(address, name)))
afterAll(() => database.close())

const insert = "INSERT INTO site (id, name, time_zone) VALUES (?, ?, 'UTC')"
const sites = () => database.rows<{ id: string; name: string }>('SELECT id, name FROM site ORDER BY id')

test('migrations run once, and what is kept stays over a second opening', async () => {
  await database.run(insert, ['a', 'Ä "quoted" \\ 船'])
  const again = await Database.open(address, name)
  expect(await again.rows('SELECT name FROM migration')).toEqual(readdirSync(new URL('./migrations/', import.meta.url)).sort().map((file) => ({ name: file })))
  expect(await again.rows('SELECT name FROM site')).toEqual([{ name: 'Ä "quoted" \\ 船' }])
  await again.close()
})

test('a transaction keeps all or nothing', async () => {
  await expect(
    database.transaction(async (sql) => {
      await sql.run(insert, ['b', 'B'])
      await sql.run(insert, ['a', 'taken'])
    })
  ).rejects.toThrow(/Duplicate/)
  expect((await sites()).map((s) => s.id)).toEqual(['a'])
  expect(await database.transaction(async (sql) => (await sql.run(insert, ['b', 'B'])).affectedRows)).toBe(1)
  expect((await sites()).map((s) => s.id)).toEqual(['a', 'b'])
})

test('values are bound, never part of the statement; ids differ by case', async () => {
  await database.run(insert, ["x'; DROP TABLE site; --", 'x'])
  await database.run(insert, ['A', 'other'])
  expect(await sites()).toHaveLength(4)
})

test('the database answers only with its password', async () => {
  await expect(Database.open({ ...address, password: 'guess' }, name)).rejects.toThrow(/Access denied/)
})

test('what was there before histories were kept is where they begin', async () => {
  // As migration 006 finds a database that was used before it: its own statements, over rows without a history.
  await database.run(insert, ['old', 'Old'])
  await database.run("INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'old', 'Cam', 0, '[[[0,0],[1,0],[1,1]]]')")
  await database.run("INSERT INTO schedule (site_id, id, body, version, changed_at) VALUES ('old', 'n', '{\"id\":\"n\"}', 1, 5)")
  await database.run("INSERT INTO detection (camera_id, id, position, body, version, changed_at) VALUES ('cam', 'd', 3, '{\"id\":\"d\",\"name\":\"D\"}', 1, 5)")
  await database.run("INSERT INTO email_link (camera_id, detection_id, recipient, version, changed_at) VALUES ('cam', 'd', 'x@y.example', 1, 5)")
  const begin = readFileSync(new URL('./migrations/006_scene_and_history.sql', import.meta.url), 'utf8').split(';').filter((statement) => statement.includes('INSERT INTO edit'))
  expect(begin).toHaveLength(4)
  for (const statement of begin) await database.run(statement)
  const state = stateOf(await readStateAt(database, 'old', 'cam', 1e9))
  expect(state).toMatchObject({ detections: [{ detection: { id: 'd', name: 'D' }, position: 3 }], schedules: [{ id: 'n' }], scene: { ignore: [[[0, 0], [1, 0], [1, 1]]], marks: null } })
  expect([...state.emails]).toEqual([['d', 'x@y.example']])
})
