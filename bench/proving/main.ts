import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import type { ProofRunView } from '../../core/proving/views.ts'
import { WatchReader } from '../../core/watch/frames.ts'
import { Database } from '../../server/database.ts'
import { startMariaDb } from '../../server/mariadb.ts'
import { findTriggers } from '../../server/search/rows.ts'
import { demoAccounts } from '../../server/seed.ts'
import type { Search } from '../../core/watch/search.ts'
import { median, say } from '../say.ts'

/** Proving, watching and searching, as issue by issue promised: npm run bench -- --proving. */
const root = fileURLToPath(new URL('../..', import.meta.url))
const PORT = 4792
const TRIGGERS = 1_000_000
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))
const at = (sorted: readonly number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]

/** The demo site as it is started; its clips have been analysed before anything is measured. */
async function benchDemo(folder: string): Promise<void> {
  const child = spawn(process.execPath, [join(root, 'scripts/start.mjs'), '--port', String(PORT), '--data', folder], { stdio: ['ignore', 'pipe', 'inherit'], detached: true })
  for await (const line of createInterface(child.stdout)) if (/Ctrl-C ends it/.test(line)) break
  const base = `http://127.0.0.1:${PORT}`
  const [{ username, password }] = demoAccounts()
  const json = { 'content-type': 'application/json' }
  const signedIn = await fetch(`${base}/api/session`, { method: 'POST', headers: json, body: JSON.stringify({ username, password }) })
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]
  const ask = async <T>(method: string, path: string, body?: object): Promise<T> => (await (await fetch(base + path, { method, headers: { cookie, ...(body && json) }, ...(body && { body: JSON.stringify(body) }) })).json()) as T
  try {
    for (const camera of ['slipway', 'quay-path', 'workshop-yard', 'waiting-room']) while ((await ask<{ clips: { state: string }[] }>('GET', `/api/cameras/${camera}`)).clips.some((c) => c.state !== 'ready')) await pause(500)
    await ask('POST', '/api/proving/take', {})
    for (const how of ['nothing painted before', 'again']) {
      let run = await ask<ProofRunView>('POST', '/api/proving/runs', {})
      while (run.state === 'running') {
        await pause(200)
        run = await ask('GET', `/api/proving/runs/${run.id}`)
      }
      say(`${run.asked} proposed checks of the demo site, ${how} (${run.failed} not as expected)`, `${((run.endedAt! - run.startedAt) / 1000).toFixed(1)} s`, 'at least 100 in 30 s')
    }
    await benchStream(base, cookie)
    await benchArrival(base, cookie, json)
  } finally {
    const ended = once(child, 'exit')
    process.kill(-child.pid!, 'SIGINT')
    await ended
  }
}

/** Pictures and targets of all cameras over one connection, as Watch reads them. */
async function benchStream(base: string, cookie: string): Promise<void> {
  const stop = new AbortController()
  const answer = await fetch(`${base}/api/watch/stream`, { headers: { cookie }, signal: stop.signal })
  const [reader, counts, body] = [new WatchReader(), new Map<string, number>(), answer.body!.getReader()]
  const until = performance.now() + 10_000
  while (performance.now() < until) {
    const part = await body.read()
    if (part.done) break
    for (const { head } of reader.push(part.value)) if (head.what === 'picture') counts.set(head.camera, (counts.get(head.camera) ?? 0) + 1)
  }
  stop.abort()
  say(`pictures/s of ${counts.size} cameras that have a device, over one connection, the slowest`, (Math.min(...counts.values()) / 10).toFixed(1), '5 or more')
}

/** From a trigger to the word of it where somebody watches. */
async function benchArrival(base: string, cookie: string, json: Record<string, string>): Promise<void> {
  const stop = new AbortController()
  const answer = await fetch(`${base}/api/alarms/live`, { headers: { cookie }, signal: stop.signal })
  let heard = (): void => {}
  const listen = async (): Promise<void> => {
    for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) if (new TextDecoder().decode(part).includes('event: alarm')) heard()
  }
  void listen().catch(() => {})
  const took: number[] = []
  for (let n = 0; n < 20; n++) {
    const began = performance.now()
    const word = new Promise<void>((resolve) => (heard = resolve))
    await fetch(`${base}/api/triggers`, { method: 'POST', headers: { cookie, ...json }, body: JSON.stringify({ key: `bench ${n}`, camera: 'slipway', detection: 'quay-edge' }) })
    await word
    await (await fetch(`${base}/api/alarms`, { headers: { cookie } })).text()
    took.push(performance.now() - began)
    await pause(300)
  }
  stop.abort()
  // The browser waits up to 150 ms, so that several alarms at a time are read once (web/alarms/Operators.tsx).
  say('from a trigger sent to its alarm read by who watches, without the browser’s own 150 ms', `${median(took).toFixed(0)} ms`, '500 ms in all')
}

/** A search with each of its filters over a million triggers. */
async function benchSearch(folder: string): Promise<void> {
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  await database.run("INSERT INTO site (id, name, time_zone, inputs) VALUES ('s', 'S', 'UTC', '[]')")
  for (let c = 0; c < 6; c++) await database.run("INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, 's', 'C', ?, '[]')", [`c${c}`, c])
  await database.run("INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) SELECT 's', CONCAT('c', seq % 6), 'd', 'D', 'minor', 'normal', 'acknowledged', '{}', 1700000000000 + seq * 300000, 1700000000000 + seq * 300000, 10 FROM seq_1_to_100000")
  await database.run("INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) SELECT id, 'acknowledged', CONCAT(ELT(1 + id % 5, 'a fox', 'the baker with bread', 'two anglers', 'wind in the reeds', 'guests of the harbour'), ' number ', id), 'I', first_at FROM alarm")
  for (let part = 0; part < 10; part++)
    await database.run(
      `INSERT INTO fired_trigger (camera_id, detection_id, kind, class, direction, way, fired_at, fired_with, source, alarm_id, acknowledged)
       SELECT CONCAT('c', CRC32(seq) % 6), 'd', ELT(1 + CRC32(seq * 3) % 4, 'line', 'intrusion', 'tamper', 'face'), ELT(1 + CRC32(seq * 5) % 4, 'person', 'vehicle', 'cycle', 'animal'), IF(CRC32(seq * 7) % 2, 'leftToRight', 'rightToLeft'), IF(CRC32(seq * 11) % 3, NULL, 'Water → Land'), 1700000000000 + seq * 30000, '{"name":"D"}', 'sender', 1 + seq DIV 10, CRC32(seq * 13) % 10 > 0
         FROM seq_${part * (TRIGGERS / 10) + 1}_to_${(part + 1) * (TRIGGERS / 10) - (part === 9 ? 10 : 0)}`
    )
  await database.run('ANALYZE TABLE fired_trigger, alarm_note')
  const end = 1700000000000 + TRIGGERS * 30000
  const searches: [string, Search][] = [
    ['nothing', {}], ['camera', { camera: 'c3' }], ['kind', { kind: 'tamper' }], ['class', { class: 'animal' }], ['direction', { direction: 'rightToLeft' }], ['sides', { way: 'Water → Land' }],
    ['time', { from: end - 86_400_000 * 30, to: end - 86_400_000 * 20 }], ['acknowledged', { acknowledged: 'no' }], ['comment', { words: 'baker brea' }], ['a rare comment', { words: 'number 4711' }],
    ['all of them', { camera: 'c1', kind: 'face', class: 'cycle', direction: 'leftToRight', way: 'Water → Land', acknowledged: 'no' }], ['what is not there', { camera: 'c1', class: 'unknown' }]
  ]
  const took: { name: string; ms: number }[] = []
  for (let round = 0; round < 12; round++)
    for (const [name, search] of searches) {
      const began = performance.now()
      let { next } = await findTriggers(database, search, undefined, 48)
      took.push({ name, ms: performance.now() - began })
      // And a page far down.
      if (next !== null && round > 0) next = `${Math.floor(1700000000000 + (TRIGGERS / (1 + round)) * 30000)}.1`
      const again = performance.now()
      if (next !== null) await findTriggers(database, search, next, 48)
      if (next !== null) took.push({ name, ms: performance.now() - again })
    }
  const sorted = took.map((x) => x.ms).sort((a, b) => a - b)
  const slowest = searches.map(([name]) => ({ name, ms: median(took.filter((x) => x.name === name).map((x) => x.ms)) })).sort((a, b) => b.ms - a.ms)[0]
  say(`a page of ${TRIGGERS.toLocaleString('en')} triggers, with each filter, near and far (slowest filter: ${slowest.name}, ${slowest.ms.toFixed(0)} ms)`, `median ${at(sorted, 0.5).toFixed(0)} ms, 95th percentile ${at(sorted, 0.95).toFixed(0)} ms`, '150 ms at the 95th')
  await database.close()
  await mariadb.stop()
}

export async function benchProving(): Promise<void> {
  for (const bench of [benchSearch, benchDemo]) {
    const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-'))
    try {
      await bench(folder)
    } finally {
      rmSync(folder, { recursive: true, force: true })
    }
  }
}
