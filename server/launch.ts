import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { isIPv4 } from 'node:net'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { UsageError, readOptions } from '../core/cli/options.ts'
import type { NewAccount } from '../core/accounts/accounts.ts'
import { makeApp } from './app.ts'
import { DISCOVERY_PORT } from '../core/formats/onvif/discovery.ts'
import { Database } from './database.ts'
import { startMariaDb } from './mariadb.ts'
import { demoAccounts, seed, seedDevices } from './seed.ts'
import { readSite } from './sites/rows.ts'
import type { StandInPorts } from './standIns.ts'

const root = fileURLToPath(new URL('..', import.meta.url))

const usage = `usage: npm start -- [--port N] [--data FOLDER] [--no-demo] [--clip-limit MB] [--find-on ADDRESS]
  --port N         port of the address to open (default 4600, or the next one that is free)
  --data FOLDER    where everything is kept (default .data)
  --no-demo        start with a bare site instead of the demo site Skerrow Landing
  --clip-limit MB  the largest clip that is taken in (default 1024)
  --find-on ADDRESS  look for devices also on the network of this own address, such as 192.168.1.5`

interface LaunchOptions {
  port: number | null
  data: string
  demo: boolean
  clipMegabytes: number
  findOn: string | null
}

const FIRST_PORT = 4600

function launchOptions(args: string[]): LaunchOptions | null {
  const text = { type: 'string' } as const
  const { values } = readOptions(args, { port: text, data: text, 'no-demo': { type: 'boolean' }, 'clip-limit': text, 'find-on': text, help: { type: 'boolean' } }, usage)
  if (values.help) return null
  const number = (name: string, max: number): number | null => {
    if (values[name] === undefined) return null
    const value = Number(values[name])
    if (!Number.isInteger(value) || value < 1 || value > max) throw new UsageError(`--${name} is "${String(values[name])}"; must be a whole number from 1 to ${max}\n${usage}`)
    return value
  }
  const findOn = typeof values['find-on'] === 'string' ? values['find-on'] : null
  if (findOn !== null && !isIPv4(findOn)) throw new UsageError(`--find-on is "${findOn}"; must be an address of this machine such as 192.168.1.5\n${usage}`)
  return {
    port: number('port', 65535),
    data: resolve(root, typeof values.data === 'string' ? values.data : '.data'),
    demo: !values['no-demo'],
    clipMegabytes: number('clip-limit', 1_000_000) ?? 1024,
    findOn
  }
}

/** One application per data folder; says where the other one is. */
function lock(folder: string): () => void {
  const file = join(folder, 'running.json')
  if (existsSync(file)) {
    const { pid, address } = JSON.parse(readFileSync(file, 'utf8')) as { pid: number; address?: string }
    let alive = pid !== process.pid
    try {
      if (alive) process.kill(pid, 0)
    } catch {
      alive = false
    }
    if (alive && existsSync(`/proc/${pid}/cmdline`)) alive = readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs')
    if (alive) throw new UsageError(`Wardoptic is running already with ${folder}${address ? `, at ${address}` : ''}; open that, or give another folder with --data`)
  }
  writeFileSync(file, JSON.stringify({ pid: process.pid }))
  return () => rmSync(file, { force: true })
}

interface StandIns {
  ports: StandInPorts
  discoveryPort: number
  /** Addresses of the simulated cameras, by the ids of demo/devices.json. */
  devices: Record<string, string>
}

/** Starts the stand-ins as a process of their own; they end with this one. */
async function startStandIns(folder: string, withDevices: boolean): Promise<StandIns & { stop(): Promise<void> }> {
  const child = spawn(process.execPath, [join(root, 'scripts/run.mjs'), 'standins/main.ts', folder, ...(withDevices ? ['devices'] : [])], { stdio: ['pipe', 'pipe', 'inherit'] })
  const line = await Promise.race([
    once(createInterface(child.stdout), 'line').then(([text]) => text as string),
    once(child, 'exit').then(([code]) => {
      throw new Error(`the stand-ins ended with code ${String(code)}`)
    })
  ])
  return {
    ...(JSON.parse(line) as StandIns),
    stop: async () => {
      if (child.exitCode !== null) return
      const ended = once(child, 'exit')
      child.kill('SIGTERM')
      await ended
    }
  }
}

/** With what to sign in: the demo's accounts each time, one that was made up this once. */
function signInWords(made: readonly NewAccount[], demo: boolean): string {
  const known = made.length ? made : demo ? demoAccounts() : []
  if (!known.length) return 'Sign in with the account that was said at the first start.'
  const words = known.map(({ username, password, role }) => `  ${role.padEnd(10)} ${username} / ${password}`).join('\n')
  return made.length === 1 ? `Sign in as (said this once, change it in the application):\n${words}` : `Sign in as:\n${words}`
}

const say = (text: string): void => void process.stdout.write(`${text}\n`)

/**
 * Starts everything in order (database, stand-ins, server, demo data), prints the address, and ends everything in
 * the opposite order on Ctrl-C.
 */
export async function launch(args: string[]): Promise<void> {
  const options = launchOptions(args)
  if (!options) return say(usage)
  mkdirSync(options.data, { recursive: true })
  const stops: (() => unknown)[] = [lock(options.data)]
  let ending: Promise<void> | null = null
  const end = (): Promise<void> =>
    (ending ??= (async () => {
      for (const stop of stops.reverse()) await Promise.resolve(stop()).catch((error: Error) => process.stderr.write(`${error.message}\n`))
    })())
  let asked = false
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (asked) return
      asked = true
      say('Stopping …')
      // While it is still starting, the start notices and ends what it has started.
      if (started) void end().then(() => process.exit(0))
    })
  let started = false
  try {
    say('Starting the database …')
    const mariadb = await startMariaDb(options.data)
    stops.push(() => mariadb.stop())
    const database = await Database.open(mariadb.address)
    stops.push(() => database.close())
    const standIns = await startStandIns(options.data, options.demo)
    stops.push(() => standIns.stop())
    const app = await makeApp({
      database,
      folder: options.data,
      web: join(root, 'dist/web'),
      mostClipBytes: options.clipMegabytes * 2 ** 20,
      standIns: standIns.ports,
      places: [{ from: '127.0.0.1', port: standIns.discoveryPort }, ...(options.findOn === null ? [] : [{ from: options.findOn, port: DISCOVERY_PORT }])],
      log: true
    })
    stops.push(() => app.close())
    await seed(database, app.clips, options.demo)
    const made = await app.accounts.begin(options.demo && (await readSite(database))?.id === 'skerrow' ? demoAccounts() : [])
    if (options.demo) await seedDevices(database, app.devices, standIns.devices)
    app.devices.start()
    const address = await listen(app, options.port)
    writeFileSync(join(options.data, 'running.json'), JSON.stringify({ pid: process.pid, address }))
    started = true
    if (asked) throw new Error('stopped while starting')
    say(`\nWardoptic is at ${address}\nThe stand-ins (station, panel, contacts, outputs) are at http://127.0.0.1:${standIns.ports.pages}\nEverything is kept in ${options.data}. Ctrl-C ends it.\n${signInWords(made, options.demo)}`)
  } catch (error) {
    started = true
    await end()
    throw error
  }
}

/** The port asked for, or else the first free one from the usual port on. */
async function listen({ http }: Awaited<ReturnType<typeof makeApp>>, asked: number | null): Promise<string> {
  for (let port = asked ?? FIRST_PORT; ; port++) {
    try {
      await http.listen({ port, host: '127.0.0.1' })
      return `http://127.0.0.1:${port}`
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error
      if (asked !== null) throw new UsageError(`port ${asked} is taken; give another one with --port, or none to take the next that is free`, { cause: error })
      if (port >= FIRST_PORT + 50) throw new UsageError(`ports ${FIRST_PORT} to ${port} are all taken; give one with --port`, { cause: error })
    }
  }
}
