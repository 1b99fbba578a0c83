import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise'
import type { DatabaseAddress } from './database.ts'
import { migrate, statementsOf } from './migrations.ts'

const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
let connection: Connection
let count = 0
beforeAll(async () => void (connection = await createConnection(address)))
afterAll(() => connection.end())

/** An empty database, and a connection in it. */
async function fresh(): Promise<string> {
  const name = `wardoptic_migrations_${process.pid}_${++count}`
  await connection.query(`CREATE DATABASE \`${name}\`; `.replace('; ', ''))
  await connection.query(`USE \`${name}\``)
  return name
}
const rows = async (sql: string) => (await connection.query<RowDataPacket[]>(sql))[0]

const first = {
  name: '001.sql',
  sql: "CREATE TABLE a (id INT PRIMARY KEY, word VARCHAR(20) NOT NULL); -- one; two's\nINSERT INTO a VALUES (1, 'x;y'), (2, 'it''s');"
}
const second = {
  name: '002.sql',
  sql: 'ALTER TABLE a ADD COLUMN n INT NOT NULL DEFAULT 0;\nUPDATE a SET n = n + 1;\nCREATE TABLE b (id INT PRIMARY KEY);\nINSERT INTO b SELECT id FROM a;'
}

describe('splitting a file into statements', () => {
  test('splits at their ends, not within texts and comments', () => {
    expect(statementsOf(first.sql)).toEqual([
      'CREATE TABLE a (id INT PRIMARY KEY, word VARCHAR(20) NOT NULL)',
      "INSERT INTO a VALUES (1, 'x;y'), (2, 'it''s')"
    ])
    expect(statementsOf("-- all; of it\nSELECT '--', 1 - 2, 'a\\'b;c'; ;\n")).toEqual([
      "SELECT '--', 1 - 2, 'a\\'b;c'"
    ])
  })
})

describe('migrations', () => {
  test('run once each; announced before existing data changes, and only then', async () => {
    await fresh()
    let said = 0
    const before = async () => void said++
    await migrate(connection, before, [first])
    expect(said).toBe(0)
    await migrate(connection, before, [first, second])
    await migrate(connection, before, [first, second])
    expect(said).toBe(1)
    expect(await rows('SELECT * FROM a')).toEqual([
      { id: 1, word: 'x;y', n: 1 },
      { id: 2, word: "it's", n: 1 }
    ])
  })

  // A kill may come after any statement, noted or not: a change of a table that was not noted is
  // there, one of rows is not.
  test.each([0, 1, 2, 3])(
    'one interrupted after statement %d resumes there and repeats nothing',
    async (done) => {
      await fresh()
      await migrate(connection, undefined, [first])
      const statements = statementsOf(second.sql)
      await connection.query(
        "INSERT INTO migration (name, applied_at, checksum, steps, finished) SELECT '002.sql', 0, SHA2(?, 256), ?, FALSE",
        [second.sql, done]
      )
      for (const statement of statements.slice(0, done)) await connection.query(statement)
      if (/^(ALTER|CREATE)/.test(statements[done]!)) await connection.query(statements[done]!)
      await migrate(connection, undefined, [first, second])
      expect(await rows('SELECT id, n FROM a')).toEqual([
        { id: 1, n: 1 },
        { id: 2, n: 1 }
      ])
      expect(await rows('SELECT * FROM b')).toEqual([{ id: 1 }, { id: 2 }])
      expect(await rows('SELECT steps, finished FROM migration ORDER BY name')).toEqual([
        { steps: 2, finished: 1 },
        { steps: 4, finished: 1 }
      ])
    }
  )

  test('one that fails says where, and can run again once fixed', async () => {
    await fresh()
    await migrate(connection, undefined, [first])
    await connection.query('CREATE TABLE b (other INT)')
    await expect(migrate(connection, undefined, [first, second])).rejects.toThrowWords(
      '002.sql, statement 3: '
    )
    await connection.query('DROP TABLE b')
    await migrate(connection, undefined, [first, second])
    expect(await rows('SELECT id, n FROM a')).toEqual([
      { id: 1, n: 1 },
      { id: 2, n: 1 }
    ])
  })

  test('refuses a changed file and a database of a newer version', async () => {
    await fresh()
    await migrate(connection, undefined, [first, second])
    await expect(
      migrate(connection, undefined, [first, { ...second, sql: `${second.sql} ` }])
    ).rejects.toThrowWords('002.sql is not the file with which the database was changed')
    await expect(migrate(connection, undefined, [first])).rejects.toThrowWords(
      'the data was used by a newer Wardoptic (002.sql)'
    )
  })

  test('two at once run in turn', async () => {
    const name = await fresh()
    const other = await createConnection({ ...address, database: name })
    await Promise.all([
      migrate(connection, undefined, [first, second]),
      migrate(other, undefined, [first, second])
    ])
    expect(await rows('SELECT id, n FROM a')).toEqual([
      { id: 1, n: 1 },
      { id: 2, n: 1 }
    ])
    await other.end()
  })
})
