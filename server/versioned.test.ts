import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { Database, type DatabaseAddress } from './database.ts'
import { deleteVersion, writeVersion } from './versioned.ts'

/** A table as things that are edited are kept in, in a database of its own. */
let database: Database
const key = { site_id: 's', id: 'a' }
const write = (body: string, version: number, now = 1): Promise<boolean> =>
  writeVersion(database, 'thing', key, { body, deleted: false }, version, now, { made_by: 'first' })
const read = async () => (await database.rows('SELECT * FROM thing WHERE id = ?', ['a']))[0]

beforeAll(async () => {
  database = await Database.open(
    JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress,
    'wardoptic_versioned'
  )
  await database.run(
    'CREATE OR REPLACE TABLE thing (site_id VARCHAR(20), id VARCHAR(20), body TEXT, made_by VARCHAR(20), version INT NOT NULL, changed_at BIGINT NOT NULL, deleted BOOLEAN NOT NULL DEFAULT FALSE, PRIMARY KEY (site_id, id))'
  )
})
beforeEach(() => database.run('DELETE FROM thing').then(() => {}))
afterAll(async () => {
  await database.run('DROP DATABASE wardoptic_versioned')
  await database.close()
})

test('a new one is made once, with what only a new one is given', async () => {
  expect(await write('one', 0)).toBe(true)
  expect(await write('two', 0)).toBe(false)
  expect(await writeVersion(database, 'thing', key, { body: 'x' }, 1, 2, { made_by: 'y' })).toBe(
    true
  )
  expect(await read()).toMatchObject({ body: 'x', made_by: 'first', version: 2, changed_at: 2 })
})

test('only over exactly the version that was seen', async () => {
  await write('one', 0)
  for (const version of [-1, 2, 7]) expect(await write('other', version)).toBe(false)
  expect(await read()).toMatchObject({ body: 'one', version: 1 })
  expect(await write('two', 1)).toBe(true)
  expect(await write('late', 1)).toBe(false)
  expect(await read()).toMatchObject({ body: 'two', version: 2 })
})

test('of many at once exactly one writes, and exactly one deletes', async () => {
  await write('one', 0)
  const written = await Promise.all(Array.from({ length: 20 }, (_, n) => write(`by ${n}`, 1)))
  expect(written.filter(Boolean)).toHaveLength(1)
  expect(await read()).toMatchObject({ body: `by ${written.indexOf(true)}`, version: 2 })
  const gone = await Promise.all(
    Array.from({ length: 20 }, () => deleteVersion(database, 'thing', key, 2, 5))
  )
  expect(gone.filter(Boolean)).toHaveLength(1)
})

test('what is deleted may be so again, and comes back by being written over', async () => {
  await write('one', 0)
  expect(await deleteVersion(database, 'thing', key, 1, 2)).toBe(true)
  expect(await read()).toMatchObject({ body: 'one', deleted: 1, version: 2 })
  expect(await deleteVersion(database, 'thing', key, 1, 3)).toBe(false)
  expect(await deleteVersion(database, 'thing', key, 2, 3)).toBe(true)
  // It is there, though deleted: no new one takes its place unseen.
  expect(await write('new', 0)).toBe(false)
  expect(await write('back', 3)).toBe(true)
  expect(await read()).toMatchObject({ body: 'back', deleted: 0, version: 4 })
  expect(await deleteVersion(database, 'thing', { ...key, id: 'none' }, 1, 4)).toBe(false)
})
