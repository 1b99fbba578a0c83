import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Logger } from 'pino'
import { UsageError } from '../../core/cli/options.ts'
import { errorWords } from '../../core/messages/errorWords.ts'
import { start as msg } from '../../core/messages/en/codes/start.ts'
import { said } from '../../core/messages/said.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { LOOPBACK, type Access } from '../api/reached.ts'
import { diskError } from '../errors.ts'
import { makeLogger } from './logs.ts'
import { startMariaDb, type RunningDatabase } from './mariadb.ts'
import { launchOptions, type LaunchOptions } from './options.ts'
import { takeFolder } from './running.ts'
import { startSimulators, type RunningSimulators } from './simulators.ts'
import { ownAddresses, readCertificate, type Certificate } from './tls.ts'

export const say = (text: string): void => void process.stdout.write(`${text}\n`)

/** How it is reached: on loopback, or from the network with a certificate. */
interface Reached {
  address: string
  access: Access
  certificate: Certificate | null
}

/** What has been begun of a start, and what of it is to be ended. */
export interface Beginning {
  options: LaunchOptions
  folder: ReturnType<typeof takeFolder>
  reached: Reached
  logger: Logger
  /** Null: without simulators. */
  simulators: Promise<RunningSimulators> | null
  /** Null: another database is used. */
  database: Promise<RunningDatabase> | null
  /** Ended in the opposite order. */
  stops: (() => unknown)[]
  /** Ends everything; more than once is once. */
  end: () => Promise<void>
  /** From now on Ctrl-C ends everything at once. @throws Error when it was asked for before */
  started: () => void
  /** Whether Ctrl-C was what ended it. */
  isAsked: () => boolean
}

/** A name without a port may stand for the port that is listened at, and for a proxy at the usual one. */
const withHosts = (
  own: readonly string[],
  hosts: readonly string[]
): Pick<Access, 'names' | 'fronts'> => ({
  names: [...hosts.filter((name) => withoutPort(name) === name), ...own],
  fronts: hosts
})

const withoutPort = (name: string): string => /^(\[[^\]]*\]|[^:]*)/.exec(name)![0]

async function readReached({ listen, hosts, data }: LaunchOptions): Promise<Reached> {
  if (!listen)
    return {
      address: '127.0.0.1',
      access: { ...LOOPBACK, ...withHosts(LOOPBACK.names, hosts) },
      certificate: null
    }
  const bracketed = listen.address.includes(':') ? `[${listen.address}]` : listen.address
  const own = /^(0\.0\.0\.0|\[::\])$/.test(bracketed)
    ? [...LOOPBACK.names, ...ownAddresses()]
    : [bracketed]
  const { names, fronts } = withHosts(own, hosts)
  const certificate = await readCertificate(listen.cert, join(data, 'tls'), [
    ...new Set([...fronts, ...names].map(withoutPort))
  ])
  return { address: listen.address, access: { secure: true, names, fronts }, certificate }
}

/**
 * Reads the command line, takes the data folder, and starts what are processes of their own: the simulators and the
 * database. The server's program, which takes as long to load as those to start, is loaded meanwhile.
 *
 * @returns null where only the usage was asked for @throws UsageError that says what is wrong; nothing is left running then
 */
export async function begin(args: string[]): Promise<Beginning | null> {
  const options = launchOptions(args)
  if (!options) {
    say(usages.start)
    return null
  }
  // A terminal or a pipe may go before the server does; it goes on then, and ends in order. The log has what matters.
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {})
  mkdirSync(options.data, { recursive: true })
  const folder = takeFolder(options.data)
  const stops: (() => unknown)[] = [folder.release]
  let ending: Promise<void> | null = null
  const end = (): Promise<void> =>
    (ending ??= (async () => {
      for (const stop of stops.reverse())
        await Promise.resolve(stop()).catch((error: Error) =>
          process.stderr.write(`${errorWords(error)}\n`)
        )
    })())
  let asked = false
  let started = false
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (asked) return
      asked = true
      say(msg.stopping)
      // While it is still starting, the start notices and ends what it has started.
      if (started) void end().then(() => process.exit(0))
    })
  try {
    const reached = await readReached(options)
    const { logger, close: closeLog } = makeLogger(options.data)
    stops.push(closeLog)
    const simulators = options.simulators ? startSimulators(options.data) : null
    say(msg.startingTheDatabase)
    const database = options.database
      ? null
      : startMariaDb(options.data, (words) => logger.error(words))
    // Why one did not start is said where it is waited for.
    for (const starting of [simulators, database]) {
      const orNone = starting?.catch(() => null)
      stops.push(async () => (await orNone)?.stop())
    }
    return {
      options,
      folder,
      reached,
      logger,
      simulators,
      database,
      stops,
      end,
      started: () => {
        started = true
        if (asked) throw new Error('stopped while starting')
      },
      isAsked: () => asked
    }
  } catch (error) {
    started = true
    await end()
    throw inWords(error, options.data)
  }
}

/** A disk that is full or read-only is said in words, with where it is. */
export function inWords(error: unknown, folder: string): unknown {
  const disk = diskError(error)
  return disk
    ? new UsageError(said('start.diskAt', disk.view.said, folder), undefined, error)
    : error
}
