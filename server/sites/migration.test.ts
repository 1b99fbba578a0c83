import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise'
import { Database, type DatabaseAddress } from '../database.ts'
import { migrate, readFiles, statementsOf } from '../migrations.ts'
import { listAccounts } from '../accounts/queries.ts'
import { listSites } from './manySites.ts'
import { readCamera, readSite } from './queries.ts'

// A database of before there were several sites, with one site in it.

const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
const files = readFiles()
const before = files.filter(({ name }) => name < '015')
const sites = files.find(({ name }) => name.startsWith('016'))!
let connection: Connection
let count = 0
beforeAll(async () => void (connection = await createConnection(address)))
afterAll(() => connection.end())

async function oneSite(): Promise<string> {
  const name = `wardoptic_one_site_${process.pid}_${++count}`
  await connection.query(`CREATE DATABASE \`${name}\``)
  await connection.query(`USE \`${name}\``)
  await migrate(connection, undefined, before)
  for (const statement of [
    "INSERT INTO site (id, name, time_zone, latitude, longitude, inputs) VALUES ('old', 'Old Harbour', 'Europe/Oslo', 59.9, 10.7, '[]')",
    "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('gate', 'old', 'Gate', 0, '[]'), ('yard', 'old', 'Yard', 1, '[]')",
    "INSERT INTO account (username, name, role, person_id, password, created_at, password_changed_at) VALUES ('ann', 'Ann', 'installer', NULL, 'x', 0, 0), ('bo', 'Bo', 'operator', 'bo', 'x', 0, 0)",
    "INSERT INTO audit (at, account_id, username, address, what, detail, status) VALUES (1, 1, 'ann', '127.0.0.1', 'PUT /api/sites/:site/schedules/:id', 'old nights', 200)",
    "INSERT INTO device (id, site_id, camera_id, name, address, state, added_at) VALUES ('d', 'old', 'gate', 'D', 'http://192.0.2.1', 'unknown', 0)"
  ])
    await connection.query(statement)
  return name
}

test('keeps its site, cameras, devices and accounts, and each account its role', async () => {
  const name = await oneSite()
  const database = await Database.open(address, name)
  const site = await readSite(database, 'old')
  expect(site).toMatchObject({
    name: 'Old Harbour',
    timeZone: 'Europe/Oslo',
    position: { latitude: 59.9, longitude: 10.7 },
    surroundings: 'outdoors',
    isSetUp: true
  })
  expect(site.cameras.map((c) => c.name)).toEqual(['Gate', 'Yard'])
  expect((await readCamera(database, 'gate')).surroundings).toBe('outdoors')
  const accounts = await listAccounts(database)
  expect(accounts.map(({ username, role, sites }) => [username, role, sites])).toEqual([
    ['ann', 'installer', []],
    ['bo', 'operator', []]
  ])
  expect(await listSites(database, accounts[1]!)).toMatchObject([
    { id: 'old', cameras: 2, newAlarms: 0, role: 'operator' }
  ])
  await database.close()
})

const statements = statementsOf(sites.sql)
test.each(statements.map((_, i) => i))(
  'a change that was cut after statement %d goes on there',
  async (done) => {
    await oneSite()
    const until = files.filter(({ name }) => name < sites.name)
    await migrate(connection, undefined, until)
    await connection.query(
      'INSERT INTO migration (name, applied_at, checksum, steps, finished) SELECT ?, 0, SHA2(?, 256), ?, FALSE',
      [sites.name, sites.sql, done]
    )
    // The last one was done, and not noted any more.
    for (const statement of statements.slice(0, done + 1)) await connection.query(statement)
    await migrate(connection, undefined, files)
    const [accounts] = await connection.query<RowDataPacket[]>(
      'SELECT username, role FROM account ORDER BY id'
    )
    expect(accounts).toEqual([
      { username: 'ann', role: 'installer' },
      { username: 'bo', role: 'operator' }
    ])
    const [roles] = await connection.query<RowDataPacket[]>('SELECT * FROM site_role')
    expect(roles).toEqual([])
  }
)
