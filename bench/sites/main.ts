import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeApp } from '../../server/app.ts'
import { Database } from '../../server/database.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'
import { cookieOf } from '../../server/testing/session.ts'
import { median, say } from '../say.ts'

const SITES = 50
const CAMERAS = 20
const DETECTIONS = 4
const TRIGGERS = 4000
const TIMES = 15
/** What the places of the interface ask for when they are opened. */
const PATHS = ['/site', '/readiness', '/watch', '/actions', '/devices', '/alarms', '/triggers']

/** A site with its cameras, a device and some detections each, and triggers of the past. */
async function fill(database: Database, site: string): Promise<void> {
  await database.transaction(async (sql) => {
    await sql.run(
      "INSERT INTO site (id, name, time_zone, inputs, added_at) VALUES (?, ?, 'Europe/London', '[]', 0)",
      [site, site]
    )
    for (let n = 0; n < CAMERAS; n++) {
      const camera = `${site}-camera-${n}`
      await sql.run(
        "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, ?, ?, ?, '[]')",
        [camera, site, `Camera ${n}`, n]
      )
      await sql.run(
        "INSERT INTO device (id, site_id, camera_id, name, address, state, added_at) VALUES (?, ?, ?, ?, ?, 'offline', 0)",
        [`${camera}-device`, site, camera, `Device ${n}`, `http://192.0.2.1/${camera}`]
      )
      for (let d = 0; d < DETECTIONS; d++)
        await sql.run(
          'INSERT INTO detection (camera_id, id, position, body, version, changed_at) VALUES (?, ?, ?, ?, 1, 0)',
          [
            camera,
            `d${d}`,
            d,
            JSON.stringify({
              id: `d${d}`,
              name: `D${d}`,
              kind: 'line',
              enabled: true,
              classes: ['person'],
              confirmSeconds: 0,
              holdOffSeconds: 0,
              sensitivity: 50,
              direction: 'both',
              line: [
                [0.1, 0.5],
                [0.9, 0.5]
              ]
            })
          ]
        )
    }
    await sql.run(
      `INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, severity)
         SELECT CONCAT(?, '-camera-', MOD(seq, ${CAMERAS})), 'd0', 'line', 1700000000000 + seq * 60000, '{"name":"D0"}', 'sender', 'major' FROM seq_1_to_${TRIGGERS}`,
      [site]
    )
  })
}

/** How long one of many sites takes to answer, beside the only one. npm run bench -- --sites */
export async function benchSites(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-sites-'))
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  await fill(database, 'site-0')
  const app = await makeApp({
    database,
    folder,
    mostClipBytes: 2 ** 20,
    simulators: null,
    places: [],
    log: false
  })
  const cookie = await cookieOf(database, 'installer')
  const address = await app.http.listen({ port: 0, host: '127.0.0.1' })
  const took = async (path: string): Promise<number> => {
    const times: number[] = []
    for (let n = 0; n < TIMES; n++) {
      const began = performance.now()
      const answer = await fetch(`${address}/api/sites/site-0${path}`, { headers: { cookie } })
      await answer.arrayBuffer()
      if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`)
      times.push(performance.now() - began)
    }
    return median(times)
  }
  const measure = async (): Promise<number[]> => {
    const all: number[] = []
    for (const path of PATHS) all.push(await took(path))
    return all
  }
  // The first answers compile what gives them.
  await measure()
  const alone = await measure()
  for (let n = 1; n < SITES; n++) await fill(database, `site-${n}`)
  const among = await measure()
  for (const [i, path] of PATHS.entries())
    say(
      `${path} of one site of ${CAMERAS} cameras, alone and among ${SITES}`,
      `${alone[i]!.toFixed(1)} and ${among[i]!.toFixed(1)} ms`,
      `× ${(among[i]! / alone[i]!).toFixed(2)}, about 1`
    )
  await app.close()
  await database.close()
  await mariadb.stop()
  rmSync(folder, { recursive: true, force: true })
}
