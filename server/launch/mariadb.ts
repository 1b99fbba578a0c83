import { start as msg } from '../../core/messages/en/codes/start.ts'
import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { DatabaseAddress } from '../database.ts'

export interface RunningDatabase {
  address: DatabaseAddress
  /** Of the server's process. */
  pid(): number | undefined
  /** Ends one that hangs, hard; it is started again. */
  kill(): void
  stop: () => Promise<void>
}

const run = promisify(execFile)
const PID_FILE = 'mariadb.pid'
/** The application's password for the database, in the data folder. */
export const SECRET_FILE = 'mariadb.secret'
const asUser = process.getuid?.() === 0 ? ['--user=root'] : []
const PATH = `${process.env.PATH ?? ''}:/usr/sbin:/sbin`
const START_SECONDS = 60
/** One that ended by itself is started again after this, and after longer each time that it fails. */
const AGAIN_MS = 500
const LONGEST_AGAIN_MS = 30_000
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

export async function freePort(): Promise<number> {
  const server = createServer()
  await new Promise<void>((resolve, reject) =>
    server.once('error', reject).listen(0, '127.0.0.1', resolve)
  )
  const { port } = server.address() as AddressInfo
  await new Promise((resolve) => server.close(resolve))
  return port
}

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

/** A database left behind by a start that was killed would hold the folder; it is stopped first. */
async function stopLeftBehind(pidFile: string): Promise<void> {
  const pid = existsSync(pidFile) ? Number(readFileSync(pidFile, 'utf8')) : 0
  if (!(pid > 1) || !isAlive(pid)) return
  const command = existsSync(`/proc/${pid}/comm`)
    ? readFileSync(`/proc/${pid}/comm`, 'utf8').trim()
    : ''
  if (!/^(mariadbd|mysqld)/.test(command)) return
  process.kill(pid, 'SIGTERM')
  for (let i = 0; i < 300 && isAlive(pid); i++) await pause(100)
}

/**
 * Starts MariaDB on loopback, at a free port, with its data in `folder`; makes the data on the first start. While it is
 * wanted it is kept running: one that ends, however that came, is started again at the same port.
 * Root's and the application's password is made up then and kept beside the data, readable by the owner only.
 *
 * @param log told when it has ended, and when it is there again @param more options of the server's program
 */
export async function startMariaDb(
  folder: string,
  log: (words: string) => void = () => {},
  more: readonly string[] = []
): Promise<RunningDatabase> {
  const data = join(folder, 'mariadb')
  const secretFile = join(folder, SECRET_FILE)
  mkdirSync(folder, { recursive: true })
  await stopLeftBehind(join(folder, PID_FILE))

  // The data is there once its secret is; a first start that was cut off begins again.
  if (!existsSync(secretFile)) {
    rmSync(data, { recursive: true, force: true })
    mkdirSync(temporaryOf(folder), { recursive: true })
    await run(
      'mariadb-install-db',
      [
        '--no-defaults',
        `--datadir=${data}`,
        `--tmpdir=${temporaryOf(folder)}`,
        '--auth-root-authentication-method=normal',
        '--skip-test-db',
        ...asUser
      ],
      { env: { ...process.env, PATH } }
    ).catch((error: Error & { code?: string; stderr?: string }) => {
      throw new Error(
        error.code === 'ENOENT'
          ? 'MariaDB is not installed; install it with: apt-get install mariadb-server'
          : `MariaDB's data could not be made in ${data}: ${error.stderr || error.message}`
      )
    })
    writeFileSync(`${secretFile}.part`, randomBytes(24).toString('hex'), { mode: 0o600 })
    renameSync(`${secretFile}.part`, secretFile)
  }
  const password = readFileSync(secretFile, 'utf8').trim()
  if (!/^[0-9a-f]{48}$/.test(password))
    throw new Error(
      `${secretFile} is not the password that was made for the database: it is empty, cut or was changed. Put it back from a backup.`
    )
  const port = await freePort()
  let child = await spawnMariaDb(folder, data, port, password, more)
  // However this process ends, the database ends with it; only a SIGKILL leaves it, for the next start to stop.
  process.once('exit', () => child.kill('SIGTERM'))
  let stopping = false
  let again: Promise<void> = Promise.resolve()
  const keep = (): void =>
    void child.once('exit', (code, signal) => {
      if (!stopping) again = restart(msg.mariadbEnded(signal ?? `code ${code}`))
    })
  const restart = async (why: string): Promise<void> => {
    log(msg.startingItAgain(why))
    for (let wait = AGAIN_MS; !stopping; wait = Math.min(2 * wait, LONGEST_AGAIN_MS)) {
      await pause(wait)
      if (stopping) return
      try {
        child = await spawnMariaDb(folder, data, port, password, more)
        log(msg.mariadbIsThereAgain)
        if (stopping) await stopChild(child)
        else keep()
        return
      } catch (error) {
        log((error as Error).message)
      }
    }
  }
  keep()
  return {
    address: { host: '127.0.0.1', port, user: 'wardoptic', password },
    pid: () => child.pid,
    kill: () => void child.kill('SIGKILL'),
    stop: async () => {
      stopping = true
      await again
      await stopChild(child)
    }
  }
}

/**
 * Where the database keeps its temporary tables. Each that starts deletes what it finds there as left behind:
 * in a folder that two of them share, it takes the tables away that the other one is using.
 */
const temporaryOf = (folder: string): string => join(folder, 'mariadb.tmp')

/**
 * Where root reaches the database of a folder. A path of a socket may have at most 107 characters,
 * whatever folder the project is in.
 */
export const socketOf = (folder: string): string =>
  join(
    tmpdir(),
    `wardoptic-${createHash('sha256').update(join(folder, 'mariadb')).digest('hex').slice(0, 12)}.sock`
  )

async function spawnMariaDb(
  folder: string,
  data: string,
  port: number,
  password: string,
  more: readonly string[]
): Promise<ChildProcess> {
  const setup = join(folder, 'mariadb.init')
  mkdirSync(temporaryOf(folder), { recursive: true })
  writeFileSync(
    setup,
    [
      `ALTER USER root@localhost IDENTIFIED BY '${password}';`,
      `CREATE USER IF NOT EXISTS wardoptic@'127.0.0.1' IDENTIFIED BY '${password}';`,
      msg.grantAllOnWardopticTo
    ].join('\n'),
    { mode: 0o600 }
  )
  const logFile = join(folder, 'mariadb.log')
  const socket = socketOf(folder)
  const child = spawn(
    'mariadbd',
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--tmpdir=${temporaryOf(folder)}`,
      `--socket=${socket}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      `--pid-file=${join(folder, PID_FILE)}`,
      `--log-error=${logFile}`,
      `--init-file=${setup}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--innodb-buffer-pool-size=128M',
      '--max-allowed-packet=64M',
      ...more,
      ...asUser
    ],
    // In a group of its own: Ctrl-C in the terminal must not stop it before the server has closed its connections.
    { stdio: 'ignore', detached: true, env: { ...process.env, PATH } }
  )
  await waitUntilUp(child, port, logFile)
  rmSync(setup, { force: true })
  return child
}

async function waitUntilUp(child: ChildProcess, port: number, logFile: string): Promise<void> {
  const failed: { with?: Error } = {}
  child.once('error', (error) => (failed.with = error))
  const { connect } = await import('node:net')
  for (let waited = 0; waited < START_SECONDS * 10; waited++) {
    if (failed.with) throw failed.with
    if (child.exitCode !== null) {
      const log = existsSync(logFile)
        ? readFileSync(logFile, 'utf8').trim().split('\n').slice(-5).join('\n')
        : ''
      throw new Error(`MariaDB ended with code ${child.exitCode}; the end of ${logFile}:\n${log}`)
    }
    const up = await new Promise<boolean>((resolve) => {
      // MariaDB greets whoever connects once it is ready.
      const socket = connect(port, '127.0.0.1')
      const done = (answer: boolean): void => {
        socket.destroy()
        resolve(answer)
      }
      socket.once('data', () => done(true)).once('error', () => done(false))
      socket.setTimeout(1000, () => done(false))
    })
    if (up) return
    await pause(100)
  }
  child.kill('SIGKILL')
  throw new Error(`MariaDB did not start within ${START_SECONDS} s; see ${logFile}`)
}

async function stopChild(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const ended = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGTERM')
  await ended
}
