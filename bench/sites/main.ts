import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeApp } from '../../server/app.ts'
import { Database } from '../../server/database.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'
import { cookieOf } from '../../server/testing/session.ts'
import { median, say } from '../say.ts'
import { fillSite } from './fill.ts'

const SITES = 50
const CAMERAS = 20
const TIMES = 15
/** What the places of the interface ask for when they are opened. */
const PATHS = ['/site', '/readiness', '/watch', '/actions', '/devices', '/alarms', '/triggers']

/** How long one of many sites takes to answer, beside the only one. npm run bench -- --sites */
export async function benchSites(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-sites-'))
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  await fillSite(database, 'site-0', CAMERAS)
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
  for (let n = 1; n < SITES; n++) await fillSite(database, `site-${n}`, CAMERAS)
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
