import { readFileSync, readdirSync } from 'node:fs'
import { createConnection, createPool, type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'
import type { DatabaseAddress } from './mariadb.ts'

const MOST_ATTEMPTS = 4

export type Value = string | number | boolean | null | Buffer

/** The one way to the database: plain SQL, parameters always bound. */
export interface Sql {
  rows<T>(sql: string, values?: Value[]): Promise<T[]>
  run(sql: string, values?: Value[]): Promise<ResultSetHeader>
}

const over = (connection: Pool | PoolConnection): Sql => ({
  rows: async <T>(sql: string, values: Value[] = []) => (await connection.execute<RowDataPacket[]>(sql, values))[0] as T[],
  run: async (sql, values = []) => (await connection.execute<ResultSetHeader>(sql, values))[0]
})

export class Database implements Sql {
  private readonly pool: Pool
  readonly rows: Sql['rows']
  readonly run: Sql['run']

  private constructor(pool: Pool) {
    this.pool = pool
    const sql = over(pool)
    this.rows = sql.rows
    this.run = sql.run
  }

  /** Makes the named database if it is not there, brings it up to date, and opens it. */
  static async open(address: DatabaseAddress, name = 'wardoptic'): Promise<Database> {
    const first = await createConnection({ ...address, multipleStatements: true })
    try {
      await first.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin; USE \`${name}\``)
      await first.query('CREATE TABLE IF NOT EXISTS migration (name VARCHAR(100) PRIMARY KEY, applied_at BIGINT NOT NULL)')
      const [done] = await first.query<RowDataPacket[]>('SELECT name FROM migration')
      const folder = new URL('./migrations/', import.meta.url)
      for (const file of readdirSync(folder).filter((f) => f.endsWith('.sql')).sort()) {
        if (done.some((row) => row.name === file)) continue
        await first.query(readFileSync(new URL(file, folder), 'utf8'))
        await first.query('INSERT INTO migration VALUES (?, ?)', [file, Date.now()])
      }
    } finally {
      await first.end()
    }
    return new Database(createPool({ ...address, database: name, connectionLimit: 8 }))
  }

  /** Runs `work` in one transaction: all of it is kept, or nothing. One that the database gave up for another is run again. */
  async transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T> {
    for (let attempt = 1; ; attempt++) {
      const connection = await this.pool.getConnection()
      try {
        // What others have committed is seen, and reading locks no gaps: what must not change in between is locked by name.
        await connection.query('SET TRANSACTION ISOLATION LEVEL READ COMMITTED')
        await connection.beginTransaction()
        const result = await work(over(connection))
        await connection.commit()
        return result
      } catch (error) {
        await connection.rollback()
        if ((error as { code?: string }).code !== 'ER_LOCK_DEADLOCK' || attempt >= MOST_ATTEMPTS) throw error
      } finally {
        connection.release()
      }
    }
  }

  close(): Promise<void> {
    return this.pool.end()
  }
}
