import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import type { Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import type { DeviceView, SendingView } from '../../core/devices/views.ts'
import { Database } from '../../server/database.ts'
import type { DatabaseAddress } from '../../server/database.ts'
import { median, say } from '../say.ts'
import type { Happens } from './cameras.ts'

const COUNT = 200
const PER_SECOND = 50
const SECONDS = 60
const RESTART_AT = 25
/** How often the interface asks how far a sending is. */
const INTERFACE_ASKS_MS = 300

const root = fileURLToPath(new URL('../..', import.meta.url))
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))
const quantile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!

/** Starts one of the programs beside this one; what it says first. */
async function run<T>(
  program: string,
  ...args: string[]
): Promise<{ child: ChildProcess; said: T }> {
  const child = spawn(
    process.execPath,
    [join(root, 'scripts/run.mjs'), `bench/devices/${program}.ts`, ...args],
    { stdio: ['ignore', 'pipe', 'inherit', 'ipc'] }
  )
  const [line] = (await Promise.race([
    once(createInterface(child.stdout!), 'line'),
    once(child, 'exit').then(() => Promise.reject(new Error(`${program} ended`)))
  ])) as [string]
  return { child, said: JSON.parse(line) as T }
}
const ended = async (child: ChildProcess, how: () => void): Promise<void> => {
  const end = once(child, 'exit')
  how()
  await end
}

interface Running {
  child: ChildProcess
  said: { address: string; cookie: string; database: DatabaseAddress }
}

async function ask<T>(server: Running, method: string, path: string, body?: unknown): Promise<T> {
  const answer = await fetch(server.said.address + path, {
    method,
    headers: {
      cookie: server.said.cookie,
      ...(body !== undefined && { 'content-type': 'application/json' })
    },
    ...(body !== undefined && { body: JSON.stringify(body) })
  })
  const value = (await answer.json()) as T & { said?: Said }
  if (!answer.ok) throw new Error(wordsOf(value.said ?? server.said.address))
  return value
}

/** @param everyMs how often it is asked how far it is */
async function send(
  server: Running,
  devices: string[],
  everyMs: number
): Promise<{ took: number; view: SendingView }> {
  const began = performance.now()
  let view = await ask<SendingView>(server, 'POST', '/api/sites/site/sendings', { devices })
  while (!view.finished) {
    await pause(everyMs)
    view = await ask(server, 'GET', `/api/sites/site/sendings/${view.id}`)
  }
  return { took: performance.now() - began, view }
}

/** How long each answer took, ms, and how many never came. */
interface Looked {
  path: string
  took: number[]
  silent: number
}

/** Asks what the interface asks, again and again, until told to stop. */
function lookOn(server: Running): { stop(): Promise<Looked[]> } {
  let on = true
  const paths = [
    '/api/sites/site/cameras/camera-7',
    '/api/sites/site/devices/',
    '/api/sites/site/readiness'
  ].map((path) => ({
    path,
    took: [] as number[],
    silent: 0
  }))
  const work = Promise.all(
    paths.map(async (looked) => {
      while (on) {
        const began = performance.now()
        // What does not answer is part of what is measured.
        await ask(server, 'GET', looked.path.replace(/\/$/, '')).catch(() => looked.silent++)
        looked.took.push(performance.now() - began)
        await pause(250)
      }
    })
  )
  return { stop: async () => ((on = false), await work, paths) }
}

const detection = (n: number): object => ({
  id: `d${n}`,
  name: `D${n}`,
  kind: 'intrusion',
  zone: [
    [0.001 * n, 0],
    [1, 0],
    [1, 1],
    [0, 1]
  ],
  classes: ['person']
})

/** Sees events as they appear in the database, by another connection. */
async function watch(
  address: DatabaseAddress,
  seen: Map<string, number>,
  on: () => boolean
): Promise<void> {
  const database = await Database.open(address)
  let last = 0
  while (on()) {
    const rows = await database.rows<{ id: number; rule: string }>(
      "SELECT id, rule FROM device_event WHERE id > ? AND topic = 'tns1:RuleEngine/Bench'",
      [last - 500]
    )
    for (const { id, rule } of rows) {
      if (!seen.has(rule)) seen.set(rule, Date.now())
      last = Math.max(last, id)
    }
    await pause(10)
  }
  await database.close()
}

/** A site of many cameras: read, sent to, listened to, over a restart of the server. npm run bench -- --devices */
export async function benchDevices(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-many-'))
  const cameras = await run<{
    account: { username: string; password: string }
    addresses: string[]
  }>('cameras', String(COUNT))
  let server: Running = await run('server', folder, String(COUNT))
  try {
    const { account, addresses } = cameras.said
    const ids: string[] = []
    for (const [n, address] of addresses.entries())
      ids.push(
        (
          await ask<DeviceView>(server, 'POST', '/api/sites/site/devices', {
            name: `Camera ${n}`,
            address,
            camera: `camera-${n}`,
            ...account
          })
        ).id
      )

    // Sending a setting to all, while somebody works and the timer reads them.
    for (let n = 0; n < COUNT; n++)
      await ask(server, 'PUT', `/api/sites/site/cameras/camera-${n}/detections/d0`, {
        version: 0,
        position: 0,
        detection: detection(0)
      })
    const looking = lookOn(server)
    const all = await send(server, ids, INTERFACE_ASKS_MS)
    const good = all.view.devices.filter(
      ({ state, results }) => state === 'done' && results.length === 1
    ).length
    say(
      `a setting sent to ${COUNT} cameras and read back`,
      `${good} of ${COUNT} in ${(all.took / 1000).toFixed(1)} s`,
      'all of them'
    )
    await pause(35_000)
    for (const { path, took, silent } of await looking.stop())
      say(
        `  GET ${path} meanwhile, and while all are read`,
        `median ${median(took).toFixed(0)} ms, worst ${Math.max(...took).toFixed(0)} ms${silent ? `, ${silent} without an answer` : ''}`,
        'usable'
      )

    for (let n = 1; n <= 20; n++)
      await ask(server, 'PUT', `/api/sites/site/cameras/camera-0/detections/d${n}`, {
        version: 0,
        position: n,
        detection: detection(n)
      })
    const twenty = await send(server, [ids[0]!], 20)
    say(
      '20 detections sent to one camera and read back',
      `${twenty.view.devices[0]!.results.filter(({ error }) => error === null).length} in ${(twenty.took / 1000).toFixed(2)} s`,
      'under 2 s'
    )

    for (const forgotten of [false, true]) {
      const put = new Map<string, number>()
      const seen = new Map<string, number>()
      let on = true
      let watching = watch(server.said.database, seen, () => on)
      const began = Date.now()
      const down = { from: 0, to: 0 }
      const restart = async (): Promise<void> => {
        on = false
        await watching
        down.from = Date.now()
        await ended(server.child, () => server.child.kill('SIGTERM'))
        if (forgotten) cameras.child.send('forget' satisfies Happens)
        server = await run('server', folder, String(COUNT))
        down.to = Date.now()
        on = true
        watching = watch(server.said.database, seen, () => on)
      }
      let restarting: Promise<void> | null = null
      for (let n = 0; n < PER_SECOND * SECONDS; n++) {
        const rule = `${forgotten ? 'b' : 'a'}${n}`
        put.set(rule, Date.now())
        cameras.child.send({ device: n % COUNT, rule } satisfies Happens)
        if (n === PER_SECOND * RESTART_AT) restarting = restart()
        await pause(Math.max(0, began + (1000 * (n + 1)) / PER_SECOND - Date.now()))
      }
      await restarting
      await pause(5000)
      on = false
      await watching
      const steady = [...put]
        .filter(([rule, at]) => seen.has(rule) && (at < down.from - 3000 || at > down.to + 5000))
        .map(([rule, at]) => seen.get(rule)! - at)
      const lost = [...put].filter(([rule]) => !seen.has(rule))
      const outside = lost.filter(([, at]) => at < down.from - 3000 || at > down.to + 5000).length
      const database = await Database.open(server.said.database)
      const [gapped] = await database.rows<{ gaps: number }>(
        "SELECT COUNT(DISTINCT device_id) AS gaps FROM device_event WHERE topic = 'gap'"
      )
      const [doubled] = await database.rows<{ twice: number }>(
        "SELECT COUNT(*) - COUNT(DISTINCT rule) AS twice FROM device_event WHERE topic = 'tns1:RuleEngine/Bench'"
      )
      await database.close()
      if (!forgotten) {
        say(
          `event to database, ${PER_SECOND}/s from ${COUNT} cameras`,
          `median ${median(steady)} ms, 95 % ${quantile(steady, 0.95)} ms`,
          'median under 300 ms'
        )
        say(
          `${put.size} events over a restart of ${((down.to - down.from) / 1000).toFixed(1)} s`,
          `${lost.length} lost, ${doubled?.twice} twice, ${gapped?.gaps} gaps`,
          'none lost'
        )
      } else
        say(
          'the same, with pull points that the cameras forgot',
          `${lost.length} lost, ${outside} of them outside; ${gapped?.gaps} gaps told`,
          `none outside, ${COUNT} gaps`
        )
    }
  } finally {
    await ended(server.child, () => server.child.kill('SIGTERM'))
    await ended(cameras.child, () => cameras.child.disconnect())
    rmSync(folder, { recursive: true, force: true })
  }
}
