import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { SiteHours } from '../../core/arming/coverage.ts'
import { clockText } from '../../core/arming/spans.ts'
import {
  DetectionSchema,
  ScheduleSchema,
  WEEKDAYS,
  type Schedule
} from '../../core/formats/plan.ts'
import { Database } from '../../server/database.ts'
import { cookieOf } from '../../server/testing/session.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'
import { announcementOf } from '../../simulators/announcement.ts'
import { startPages } from '../../simulators/pages.ts'
import { Contacts } from '../../simulators/contacts.ts'
import { Station } from '../../simulators/station.ts'
import { median, say } from '../say.ts'
import { parseWith } from '../../core/schema/parse.ts'

const PER_SECOND = 100
const SECONDS = 60
const DETECTIONS = 500
const OUTPUTS = 10
const EXCEPTIONS = 365

const root = fileURLToPath(new URL('../..', import.meta.url))
const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))

/** Arming and actions under load: npm run bench -- --actions */
export async function benchActions(): Promise<void> {
  benchOverlap()
  await benchQueue()
}

/** Every detection and every output with hours of its own, each with a year of exceptions: the worst there can be. */
function benchOverlap(): void {
  const made = (n: number): Schedule => {
    const [from, to] = [clockText((n * 37) % 700), clockText(720 + ((n * 53) % 700))]
    const exceptions = Array.from({ length: EXCEPTIONS }, (_, d) => ({
      date: new Date(Date.UTC(2026, 10, 23 + d)).toISOString().slice(0, 10),
      spans: d % 3 ? [[from, clockText(1000 + (d % 400))]] : []
    }))
    return parseWith(ScheduleSchema, {
      id: `s${n}`,
      name: `S ${n}`,
      week: Object.fromEntries(
        WEEKDAYS.map((day) => [
          day,
          [
            [from, to],
            [clockText(1425), '24:00']
          ]
        ])
      ),
      exceptions
    })
  }
  const schedules = Array.from({ length: DETECTIONS + OUTPUTS }, (_, n) => made(n))
  const took: number[] = []
  let acting = 0
  for (let run = 0; run < 5; run++) {
    const began = performance.now()
    const hours = new SiteHours(
      schedules,
      'Europe/London',
      { latitude: 59, longitude: -3 },
      Date.UTC(2026, 10, 24)
    )
    acting = 0
    for (let d = 0; d < DETECTIONS; d++)
      for (let o = 0; o < OUTPUTS; o++)
        acting += hours.coverage(`s${d}`, `s${DETECTIONS + o}`).acting
    took.push(performance.now() - began)
  }
  say(
    `${DETECTIONS} detections × ${OUTPUTS} outputs × a year of exceptions`,
    `${median(took).toFixed(0)} ms (worst ${Math.max(...took).toFixed(0)})`,
    '200 ms'
  )
  if (!(acting > 0)) throw new Error('nothing meets')
}

async function benchQueue(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-'))
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  const station = await new Station().start()
  const pages = await startPages({
    station,
    contacts: new Contacts(),
    held: [],
    devices: [],
    mailboxPort: 1
  })
  await fill(database)
  const cookie = await cookieOf(database, 'installer')
  const simulators = announcementOf({ smtpPort: 1, httpPort: 1 }, station, pages)
  const child = spawn(
    process.execPath,
    [
      join(root, 'scripts/run.mjs'),
      'server/testing/killable.ts',
      JSON.stringify(mariadb.address),
      'wardoptic',
      folder,
      JSON.stringify(simulators)
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] }
  )
  const [address] = (await once(createInterface(child.stdout), 'line')) as [string]
  try {
    const took: number[] = []
    const open: Promise<void>[] = []
    let [answered, late] = [0, 0]
    const began = performance.now()
    for (let n = 0; n < PER_SECOND * SECONDS; n++) {
      const due = began + (n * 1000) / PER_SECOND
      if (performance.now() < due) await pause(due - performance.now())
      const asked = performance.now()
      if (asked - due > 100) late++
      open.push(
        fetch(`${address}/api/sites/site/triggers`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', cookie },
          body: JSON.stringify({ key: `t${n}`, camera: 'cam', detection: `d${n % 5}` })
        }).then(async (answer) => {
          await answer.text()
          if (answer.status === 201) answered++
          took.push(performance.now() - asked)
        })
      )
    }
    await Promise.all(open)
    const seconds = (performance.now() - began) / 1000
    const count = async (sql: string): Promise<number> =>
      Number((await database.rows<{ n: number }>(sql))[0]!.n)
    const behind = await count("SELECT COUNT(*) AS n FROM delivery WHERE state = 'pending'")
    while (await count("SELECT COUNT(*) AS n FROM delivery WHERE state = 'pending'"))
      await pause(100)
    const drained = (performance.now() - began) / 1000
    const [kept, deliveries, made] = [
      await count('SELECT COUNT(*) AS n FROM fired_trigger'),
      await count('SELECT COUNT(*) AS n FROM delivery'),
      await count("SELECT COUNT(*) AS n FROM delivery WHERE state = 'sent'")
    ]
    const sorted = [...took].sort((a, b) => a - b)
    say(
      `${PER_SECOND} triggers/s for ${SECONDS} s: answered, kept`,
      `${answered}, ${kept} of ${PER_SECOND * SECONDS}`,
      'none lost'
    )
    say(
      '  deliveries written, made',
      `${deliveries}, ${made} of ${3 * PER_SECOND * SECONDS}`,
      'none missing'
    )
    say(
      '  pace, answer in the median, of the slowest hundredth',
      `${(kept / seconds).toFixed(0)}/s, ${sorted[sorted.length >> 1]!.toFixed(0)} ms, ${sorted[Math.floor(sorted.length * 0.99)]!.toFixed(0)} ms`
    )
    say(
      '  waiting at the end, all made after',
      `${behind}, ${drained.toFixed(0)} s${late ? `; sent late: ${late}` : ''}`
    )
    for (const kind of ['webhook', 'station']) {
      const waits = (
        await database.rows<{ ms: number }>(
          'SELECT begun_at - created_at AS ms FROM delivery WHERE kind = ? AND begun_at IS NOT NULL ORDER BY ms',
          [kind]
        )
      ).map((r) => Number(r.ms))
      const within = waits.filter((ms) => ms <= 1000).length / waits.length
      say(
        `  ${kind}: begun within 1 s; of the slowest twentieth, of the slowest`,
        `${(100 * within).toFixed(1)} %; ${waits[Math.floor(waits.length * 0.95)]} ms, ${waits[waits.length - 1]} ms`,
        '95 %'
      )
    }
  } finally {
    child.kill('SIGKILL')
    await once(child, 'exit')
    await Promise.all([station.close(), pages.close()])
    await database.close()
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Five detections, of which each trigger calls two webhooks and the station. */
async function fill(database: Database): Promise<void> {
  await database.run(
    "INSERT INTO site (id, name, time_zone, inputs) VALUES ('site', 'Load', 'Europe/London', '[]')"
  )
  await database.run(
    "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'site', 'Camera', 0, '[]')"
  )
  const endpoints = [
    { id: 'one', name: 'One', kind: 'webhook', url: 'http://simulator/hooks' },
    { id: 'two', name: 'Two', kind: 'webhook', url: 'http://simulator/hooks' },
    {
      id: 'station',
      name: 'Station',
      kind: 'station',
      host: 'simulator',
      port: 1,
      account: '1234',
      accepts: 'minor',
      heartbeatSeconds: 0
    }
  ]
  for (const endpoint of endpoints)
    await database.run(
      "INSERT INTO endpoint (site_id, id, body, version, changed_at) VALUES ('site', ?, ?, 1, 0)",
      [endpoint.id, JSON.stringify(endpoint)]
    )
  for (let n = 0; n < 5; n++) {
    const detection = parseWith(DetectionSchema, {
      id: `d${n}`,
      name: `D ${n}`,
      kind: 'line',
      line: [
        [0, 0.5],
        [1, 0.5]
      ]
    })
    await database.run(
      "INSERT INTO detection (camera_id, id, position, body, version, changed_at) VALUES ('cam', ?, ?, ?, 1, 0)",
      [detection.id, n, JSON.stringify(detection)]
    )
    const actions = {
      links: endpoints.map((e) => e.id),
      severity: 'major',
      priority: 'normal',
      for: [],
      acknowledge: { comment: false, confirm: false },
      groupSeconds: 10,
      accepted: [],
      quietSeconds: 0
    }
    await database.run(
      "INSERT INTO detection_actions (camera_id, detection_id, body, version, changed_at) VALUES ('cam', ?, ?, 1, 0)",
      [detection.id, JSON.stringify(actions)]
    )
  }
}
