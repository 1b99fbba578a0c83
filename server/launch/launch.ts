import { errorWords } from '../../core/messages/errorWords.ts'
import { start as msg } from '../../core/messages/en/codes/start.ts'
import { said } from '../../core/messages/said.ts'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { UsageError } from '../../core/cli/options.ts'
import { DISCOVERY_PORT } from '../../core/formats/onvif/discovery.ts'
import type { NewAccount } from '../../core/accounts/accounts.ts'
import { LOOPBACK, type Access } from '../api/access.ts'
import { makeApp } from '../app.ts'
import { backUpDatabase } from '../backup/upgrade.ts'
import { Database } from '../database.ts'
import { diskError } from '../errors.ts'
import { DEMO_SITE, demoAccounts, seed, seedDevices } from '../seed.ts'
import { siteIds } from '../sites/queries.ts'
import { DATABASE_NAME } from './installation.ts'
import { makeLogger } from './logs.ts'
import { startMariaDb, type RunningDatabase } from './mariadb.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { launchOptions, type LaunchOptions } from './options.ts'
import { takeFolder } from './running.ts'
import { startSimulators } from './simulators.ts'
import { ownAddresses, readCertificate, type Certificate } from './tls.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))
const FIRST_PORT = 4600
const HANGS_MS = 60_000

const say = (text: string): void => void process.stdout.write(`${text}\n`)

/** A name without a port may stand for the port that is listened at, and for a proxy at the usual one. */
const withHosts = (
  own: readonly string[],
  hosts: readonly string[]
): Pick<Access, 'names' | 'fronts'> => ({
  names: [...hosts.filter((name) => withoutPort(name) === name), ...own],
  fronts: hosts
})

const withoutPort = (name: string): string => /^(\[[^\]]*\]|[^:]*)/.exec(name)![0]

/** How it is reached: on loopback, or from the network with a certificate. */
async function accessOf({
  listen,
  hosts,
  data
}: LaunchOptions): Promise<{ address: string; access: Access; certificate: Certificate | null }> {
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

/** How to sign in: the demo's accounts each time, or the code for the first account. */
function entranceWords(code: string | null, demo: readonly NewAccount[]): string {
  if (code !== null) return msg.openTheAddressAndMake(code)
  if (!demo.length) return msg.signInWithYourAccount
  return msg.signInAsN(
    demo
      .map(
        ({ username, password, role }) => `  ${(role ?? '').padEnd(10)} ${username} / ${password}`
      )
      .join('\n')
  )
}

/**
 * Starts everything in order (database, simulators, server, demo data), prints the address, and ends everything in
 * the opposite order on Ctrl-C.
 */
export async function launch(args: string[]): Promise<void> {
  const options = launchOptions(args)
  if (!options) return say(usages.start)
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
    const { address: at, access, certificate } = await accessOf(options)
    const { logger, close: closeLog } = makeLogger(options.data)
    stops.push(closeLog)
    // They take as long as the database: at once.
    const simulating = options.simulators ? startSimulators(options.data) : null
    // Why they did not start is said where they are waited for.
    const orNone = simulating?.catch(() => null)
    stops.push(async () => (await orNone)?.stop())
    say(msg.startingTheDatabase)
    const own = options.database
      ? null
      : await startMariaDb(options.data, (words) => logger.error(words))
    if (own) stops.push(() => own.stop())
    const { address, name } = options.database ?? { address: own!.address, name: DATABASE_NAME }
    const database = await Database.open(address, name, () =>
      backUpDatabase(options.data, address, name, say)
    )
    stops.push(() => database.close())
    if (own) killWhatHangs(database, own)
    const simulators = await simulating
    const app = await makeApp({
      database,
      folder: options.data,
      web: join(root, 'dist/web'),
      mostClipBytes: options.clipMegabytes * 2 ** 20,
      simulators,
      places: [
        ...(simulators
          ? [{ from: '127.0.0.1', port: simulators.discoveryPort, simulated: true }]
          : []),
        ...(options.findOn === null ? [] : [{ from: options.findOn, port: DISCOVERY_PORT }])
      ],
      logger,
      access,
      ...(certificate && {
        tls: { cert: certificate.cert, key: certificate.key, minVersion: 'TLSv1.2' as const }
      }),
      newKeys: options.newKeys
    })
    stops.push(() => app.close())
    const fresh = await seed(database, app.clips, options.demo)
    const demo = options.demo && (await siteIds(database)).includes(DEMO_SITE) ? demoAccounts() : []
    const code = await app.accounts.prepare(demo)
    if (options.demo && simulators) await seedDevices(database, app.devices, simulators.devices)
    app.devices.start()
    const port = await listen(app, at, options.port)
    const shown = access.secure
      ? `https://${access.names[0]}${port === 443 ? '' : `:${port}`}`
      : `http://127.0.0.1:${port}`
    folder.say({ address: shown, ...(own && { databasePort: own.address.port }) })
    started = true
    if (asked) throw new Error('stopped while starting')
    if (demo.length && options.past) app.demo.begin(fresh)
    logger.info({ address: shown }, 'started')
    setTimeout(giveBackMemory, SETTLED_MS).unref()
    say(
      [
        msg.nwardopticIsAt(shown),
        ...(certificate?.selfSigned
          ? [msg.itsCertificateWasMadeHere(certificate.fingerprint)]
          : []),
        ...(simulators ? [msg.theSimulatorsStationPanelContact(simulators.pages)] : []),
        msg.everythingIsKeptIn(options.data),
        entranceWords(code, demo)
      ].join('\n')
    )
  } catch (error) {
    started = true
    await end()
    // A disk that is full or read-only is said in words, with where it is.
    const disk = diskError(error)
    throw disk
      ? new UsageError(said('start.diskAt', disk.view.said, options.data), undefined, error)
      : error
  }
}

/** After so long what a start leaves behind is of no use any more. */
const SETTLED_MS = 20_000

/**
 * A first start fills a database and reads all devices; Node would keep the room that this took until it needs some
 * again, which a server that mostly waits hardly ever does.
 */
function giveBackMemory(): void {
  setFlagsFromString('--expose-gc')
  const collect = runInNewContext('gc') as () => void
  collect()
}

/** A database that runs and does not answer for a minute is ended, and so started again. */
function killWhatHangs(database: Database, own: RunningDatabase): void {
  let timer: NodeJS.Timeout | undefined
  database.watch(({ up }) => {
    clearTimeout(timer)
    const pid = own.pid()
    if (!up) timer = setTimeout(() => own.pid() === pid && own.kill(), HANGS_MS).unref()
  })
}

/** The port asked for, or else the first free one from the usual port on. @returns the port */
async function listen(
  { http }: Awaited<ReturnType<typeof makeApp>>,
  host: string,
  asked: number | null
): Promise<number> {
  for (let port = asked ?? FIRST_PORT; ; port++) {
    try {
      await http.listen({ port, host })
      return port
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException
      if (code === 'EADDRNOTAVAIL')
        throw new UsageError(said('start.listenIsWhichIs', host), undefined, error)
      if (code === 'EACCES')
        throw new UsageError(said('start.portNeedsMoreRightsGive', port), undefined, error)
      if (code !== 'EADDRINUSE') throw error
      if (asked !== null)
        throw new UsageError(said('start.portIsTakenGiveAnother', asked), undefined, error)
      if (port >= FIRST_PORT + 50)
        throw new UsageError(said('start.portsToAreAllTaken', FIRST_PORT, port), undefined, error)
    }
  }
}
