import { readdirSync } from 'node:fs'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { Database } from './database.ts'
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
