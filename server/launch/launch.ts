import { start as msg } from '../../core/messages/en/codes/start.ts'
import { said } from '../../core/messages/said.ts'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { UsageError } from '../../core/cli/options.ts'
import { DISCOVERY_PORT } from '../../core/formats/onvif/discovery.ts'
import type { NewAccount } from '../../core/accounts/accounts.ts'
import { makeApp } from '../app.ts'
import { backUpDatabase } from '../backup/upgrade.ts'
import { Database } from '../database.ts'
import { DEMO_SITE, demoAccounts, seed, seedDevices } from '../seed.ts'
import { siteIds } from '../sites/queries.ts'
import { inWords, say, type Beginning } from './begin.ts'
import { DATABASE_NAME } from './installation.ts'
import type { RunningDatabase } from './mariadb.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))
const FIRST_PORT = 4600
const HANGS_MS = 60_000

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
 * Goes on with a start: the server, its demo data and the address; ends everything in the opposite order on Ctrl-C.
 */
export async function launch(begun: Beginning): Promise<void> {
  const { options, folder, logger, stops, end } = begun
  const { address: at, access, certificate } = begun.reached
  try {
    const own = await begun.database
    const { address, name } = options.database ?? { address: own!.address, name: DATABASE_NAME }
    const database = await Database.open(address, name, () =>
      backUpDatabase(options.data, address, name, say)
    )
    stops.push(() => database.close())
    if (own) killWhatHangs(database, own)
    const simulators = await begun.simulators
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
    // The past of the demo site is there sooner than its clips: they would halve the processors for it.
    const goOn = app.clips.hold()
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
    begun.started()
    if (demo.length && options.past) app.demo.begin(fresh, { past: goOn })
    else goOn()
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
    await end()
    throw inWords(error, options.data)
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
