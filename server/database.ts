import { said, type Said } from '../core/messages/said.ts'
import { onlyRow } from './columns.ts'
import {
  createConnection,
  createPool,
  type Connection,
  type Pool,
  type PoolConnection,
  type ResultSetHeader,
  type RowDataPacket,
  type SslOptions
} from 'mysql2/promise'
import { ApiError } from '../core/apiError.ts'
import { InputError } from '../core/errors.ts'
import { noSpace, unavailable } from './errors.ts'
import { migrate } from './migrations.ts'

/** While a backup holds this lock of the database, no file is taken away: the backup reads those that its rows name. */
export const FILES_LOCK = (database: string): string => `wardoptic-files-${database}`.slice(0, 64)

export interface DatabaseAddress {
  host: string
  port: number
  user: string
  password: string
  /** Encrypted, and with whose certificate. */
  ssl?: SslOptions
}

const MAX_ATTEMPTS = 4
/** Kept ready on each connection; MariaDB keeps no more than 16,382 in all. */
const MAX_STATEMENTS = 400
/** While the database is away it is asked this often; while it is there, from time to time. */
const LOOK_MS = 1000
const PING_MS = 5000
/** One that does not answer a plain question within this is away. */
const ANSWERS_WITHIN_MS = 4000
/** So long an answer that has come may wait to be read. */
const READS_WITHIN_MS = 250

/** Errors of the connection, not of what was asked. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'PROTOCOL_ENQUEUE_AFTER_QUIT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_NORMAL_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'PROTOCOL_SEQUENCE_TIMEOUT'
])
const DISK = new Set([
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_CANT_CREATE_FILE',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_CANT_CREATE_TABLE'
])
const RANGE: Readonly<Record<string, Said>> = {
  ER_WARN_DATA_OUT_OF_RANGE: said('server.numberOutOfRange'),
  ER_DATA_TOO_LONG: said('server.textTooLong'),
  ER_TRUNCATED_WRONG_VALUE_FOR_FIELD: said('server.textNotStorable')
}

const IS_AWAY = said('server.databaseAway')

export type Value = string | number | boolean | null | Buffer

/** The one way to the database: plain SQL, parameters always bound. */
export interface Sql {
  rows<T>(sql: string, values?: Value[]): Promise<T[]>
  run(sql: string, values?: Value[]): Promise<ResultSetHeader>
}

/** Whether the database answers. */
export interface DatabaseState {
  up: boolean
  /** Since when, ms of UTC. */
  since: number
  /** What is wrong, in words. */
  why: string | null
}

export class Database implements Sql {
  private readonly pool: Pool
  private readonly address: DatabaseAddress
  private pinger: Connection | null = null
  private readonly name: string
  private readonly watchers = new Set<(state: DatabaseState) => void>()
  /** Whoever waits for an answer, to be told when none will come. */
  private readonly waiting = new Set<() => void>()
  private timer: NodeJS.Timeout | undefined
  private closed = false
  state: DatabaseState = { up: true, since: Date.now(), why: null }

  private constructor(pool: Pool, address: DatabaseAddress, name: string) {
    this.pool = pool
    this.address = address
    this.name = name
    this.look(PING_MS)
  }

  /**
   * Makes the named database if it is not there, brings it up to date, and opens it.
   *
   * @param beforeUpgrade called before a database that holds something is changed to a newer form
   */
  static async open(
    address: DatabaseAddress,
    name = 'wardoptic',
    beforeUpgrade?: () => Promise<void>
  ): Promise<Database> {
    const first = await createConnection(address)
    try {
      const [known] = await first.query<RowDataPacket[]>('SHOW DATABASES LIKE ?', [
        name.replace(/[_%\\]/g, '\\$&')
      ])
      if (!known.length)
        await first.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4`)
      await first.query(`USE \`${name}\``)
      await migrate(first, beforeUpgrade)
    } finally {
      await first.end()
    }
    const pool = createPool({
      ...address,
      database: name,
      connectionLimit: 12,
      connectTimeout: 5000,
      maxPreparedStatements: MAX_STATEMENTS,
      // Columns of JSON are parsed where they are needed, `columns.ts`.
      jsonStrings: true,
      // An error names its statement; noting for each who asks it takes a twentieth of a busy server's time.
      trace: false
    })
    // What others have committed is seen, and reading locks no gaps: what must not change in between is locked by name.
    pool.on(
      'connection',
      (connection) =>
        void (connection as unknown as { query(sql: string, done: () => void): void }).query(
          'SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED',
          () => {}
        )
    )
    return new Database(pool, address, name)
  }

  rows = <T>(sql: string, values: Value[] = []): Promise<T[]> =>
    this.explained(() => unlessGivenUp(() => over(this.pool).rows<T>(sql, values)))
  run = (sql: string, values: Value[] = []): Promise<ResultSetHeader> =>
    this.explained(() => unlessGivenUp(() => over(this.pool).run(sql, values)))

  /** Runs `work` in one transaction, again where the database gives it up: all of it is kept, or nothing. */
  transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T> {
    return this.explained(() =>
      unlessGivenUp(async () => {
        const connection = await this.pool.getConnection()
        try {
          await connection.beginTransaction()
          const result = await work(over(connection))
          await connection.commit()
          connection.release()
          return result
        } catch (error) {
          // One that cannot even be rolled back is of no use any more.
          await connection.rollback().then(
            () => connection.release(),
            () => connection.destroy()
          )
          throw error
        }
      })
    )
  }

  /** Whether a backup is being made, for which files have to stay. */
  async isBackedUp(): Promise<boolean> {
    const rows = await this.rows<{ free: number | null }>('SELECT IS_FREE_LOCK(?) AS free', [
      FILES_LOCK(this.name)
    ])
    return onlyRow(rows).free === 0
  }

  /** Tells whenever the database goes away or is back. @returns what ends the telling */
  watch(watcher: (state: DatabaseState) => void): () => void {
    this.watchers.add(watcher)
    return () => void this.watchers.delete(watcher)
  }

  close(): Promise<void> {
    this.closed = true
    clearTimeout(this.timer)
    this.pinger?.destroy()
    return this.pool.end()
  }

  /** Says in words what went wrong with the database itself, and keeps whether it is there. */
  private async explained<T>(work: () => Promise<T>, isLook = false): Promise<T> {
    // While it is away, only the probe waits for it.
    if (!this.state.up && !isLook) throw unavailable(IS_AWAY)
    try {
      const result = await (isLook ? work() : this.whileUp(work()))
      this.set(true, null)
      return result
    } catch (error) {
      if (error instanceof ApiError || error instanceof InputError) throw error
      const { code = '', message } = error as { code?: string; message: string }
      if (AWAY.has(code) || (error as { fatal?: boolean }).fatal) {
        this.set(false, code || message)
        throw unavailable(IS_AWAY, error)
      }
      if (DISK.has(code) || /errno: (28|30|122)|No space left/.test(message))
        throw noSpace(said('server.theDatabaseCannotWriteIts'), error)
      if (RANGE[code]) throw new InputError('', RANGE[code])
      throw error
    }
  }

  /**
   * Whoever is waiting when the database goes away is told at once. Whether it was still done is not
   * known, as with any cut; who asks again does so with the same key or version.
   */
  private async whileUp<T>(work: Promise<T>): Promise<T> {
    let give: (() => void) | undefined
    const away = new Promise<never>((_, reject) => {
      give = () => reject(unavailable(IS_AWAY))
      this.waiting.add(give)
    })
    work.catch(() => {})
    return Promise.race([work, away]).finally(() => this.waiting.delete(give!))
  }

  private set(up: boolean, why: string | null): void {
    if (this.state.up === up) return
    this.state = { up, since: Date.now(), why }
    for (const watcher of this.watchers) watcher(this.state)
    if (!up) for (const give of this.waiting) give()
  }

  /** Over a connection of its own: one of the pool may be waited for while the database is merely busy. */
  private async ping(): Promise<void> {
    try {
      if (!this.pinger) {
        this.pinger = await createConnection({ ...this.address, connectTimeout: ANSWERS_WITHIN_MS })
        this.pinger.on('error', () => {})
      }
      await withinMs(this.pinger.query('SELECT 1'), ANSWERS_WITHIN_MS)
    } catch (error) {
      this.pinger?.destroy()
      this.pinger = null
      throw error
    }
  }

  /** Asks now and then whether the database is there: nobody else may be asking. */
  private look(afterMs: number): void {
    const ask = async (): Promise<void> => {
      await this.explained(() => this.ping(), true).catch(() => {})
      if (!this.closed) this.look(this.state.up ? PING_MS : LOOK_MS)
    }
    this.timer = setTimeout(() => void ask(), afterMs)
    this.timer.unref()
  }
}

/**
 * Does again what the database gave up because two waited for each other. Nothing of it is kept then, of one statement
 * as of a whole transaction. Source: MariaDB's documentation of InnoDB's lock modes, deadlocks, from memory.
 */
async function unlessGivenUp<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++)
    try {
      return await work()
    } catch (error) {
      if ((error as { code?: string }).code !== 'ER_LOCK_DEADLOCK' || attempt >= MAX_ATTEMPTS)
        throw error
    }
}

/** @throws Error as of a lost connection when it takes longer; what was asked goes on */
async function withinMs(work: Promise<unknown>, ms: number): Promise<void> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    const giveUp = (): void =>
      reject(Object.assign(new Error(`no answer within ${ms / 1000} s`), { code: 'ETIMEDOUT' }))
    // This process may have been busy itself: an answer that has come meanwhile is read first.
    timer = setTimeout(() => (timer = setTimeout(giveUp, READS_WITHIN_MS)), ms)
  })
  work.catch(() => {})
  await Promise.race([work, late]).finally(() => clearTimeout(timer))
}

const over = (connection: Pool | PoolConnection): Sql => ({
  rows: async <T>(sql: string, values: Value[] = []) =>
    (await connection.execute<RowDataPacket[]>(sql, values))[0] as T[],
  run: async (sql, values = []) => (await connection.execute<ResultSetHeader>(sql, values))[0]
})
