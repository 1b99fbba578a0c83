import { fork, spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import type { HandoverView } from '../../core/handover/views.ts'
import type { ProvingView } from '../../core/proving/views.ts'
import { Database, type DatabaseAddress } from '../../server/database.ts'
import { demoPlay } from '../../demo/scenes.ts'
import { asking, pause, startDemo, type Ask } from '../demoServer.ts'
import { say } from '../say.ts'

/** Records of finished jobs: npm run bench -- --handover. */
const root = fileURLToPath(new URL('../..', import.meta.url))
const PORT = 4793
const CAMERAS = 20
const DETECTIONS = 5

interface Asked {
  base: string
  cookie: string
  ask: Ask
}

/**
 * Makes a record and says how long it took, and how large its pages and its ZIP file are.
 *
 * @param at of the site, such as `/api/sites/skerrow`
 */
async function makeOne({ base, cookie, ask }: Asked, at: string, what: string): Promise<void> {
  const began = performance.now()
  await ask('POST', `${at}/records`, {
    client: 'Client',
    installer: 'Installer',
    note: '',
    paper: 'a4',
    runChecks: true,
    allowOpen: true
  })
  let job: HandoverView['job'] = null
  do {
    await pause(100)
    ;({ job } = await ask<HandoverView>('GET', `${at}/handover`))
  } while (job?.state === 'running')
  if (job?.state !== 'made') throw new Error(JSON.stringify(job))
  const seconds = (performance.now() - began) / 1000
  const size = async (file: string): Promise<number> =>
    (
      await (
        await fetch(`${base}${at}/records/${job.number}/${file}`, {
          headers: { cookie }
        })
      ).arrayBuffer()
    ).byteLength /
    2 ** 20
  say(
    what,
    `${seconds.toFixed(1)} s, PDF ${(await size('pdf')).toFixed(1)} MB, ZIP ${(await size('zip')).toFixed(1)} MB`,
    '20 s, PDF 10 MB'
  )
}

async function benchDemo(folder: string): Promise<void> {
  const demo = await startDemo(folder, PORT)
  const at = '/api/sites/skerrow'
  try {
    await makeOne(demo, at, 'a record of the demo site as it comes')
    const { taken } = await demo.ask<{ taken: number }>('POST', `${at}/proving/take`, {})
    await makeOne(demo, at, `  with ${taken} checks, none of them run before`)
    await makeOne(demo, at, '  and again')
  } finally {
    await demo.stop()
  }
}

/** A site with cameras that have a picture each, and a check that was run for each detection. */
async function benchLarge(folder: string): Promise<void> {
  const cameras = fork(
    join(root, 'scripts/run.mjs'),
    ['bench/devices/cameras.ts', String(CAMERAS)],
    {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit', 'ipc']
    }
  )
  const server = spawn(
    process.execPath,
    ['scripts/run.mjs', 'bench/devices/server.ts', folder, String(CAMERAS)],
    { cwd: root, stdio: ['ignore', 'pipe', 'inherit'] }
  )
  const line = async <T>(child: ChildProcess): Promise<T> => {
    for await (const text of createInterface(child.stdout!)) return JSON.parse(text) as T
    throw new Error('it ended')
  }
  try {
    const [{ account, addresses }, { address: base, cookie, database: at }] = await Promise.all([
      line<{ account: { username: string; password: string }; addresses: string[] }>(cameras),
      line<{ address: string; cookie: string; database: DatabaseAddress }>(server)
    ])
    const ask = asking(base, cookie)
    const site = '/api/sites/site'
    const database = await Database.open(at)
    await database.run('UPDATE camera SET world = ?', [
      JSON.stringify({ scene: demoPlay('slipway', 'morning').scene, scripts: [] })
    ])
    await database.close()
    for (let n = 0; n < CAMERAS; n++) {
      await ask('POST', `${site}/devices`, {
        name: `Device ${n}`,
        address: addresses[n],
        camera: `camera-${n}`,
        ...account
      })
      for (let d = 0; d < DETECTIONS; d++)
        await ask('PUT', `${site}/cameras/camera-${n}/detections/line-${d}`, {
          version: 0,
          position: d,
          detection: {
            id: `line-${d}`,
            name: `Line ${d + 1}`,
            kind: 'line',
            classes: ['person'],
            line: [
              [0.15, 0.5 + 0.05 * d],
              [0.85, 0.5 + 0.05 * d]
            ]
          }
        })
    }
    await ask('POST', `${site}/proving/propose`, {})
    let view = await ask<ProvingView>('GET', `${site}/proving`)
    while (view.proposing || view.unasked) {
      await pause(500)
      view = await ask('GET', `${site}/proving`)
    }
    const firsts = new Map(
      view.proposals
        .filter(({ check }) => check.expect.what === 'trigger' && check.by.how === 'walk')
        .map(({ camera, check }) => [`${camera} ${check.detection}`, { camera, check: check.id }])
    )
    await ask('POST', `${site}/proving/take`, { checks: [...firsts.values()] })
    const what = `a record of ${CAMERAS} cameras with ${CAMERAS * DETECTIONS} detections`
    await makeOne({ base, cookie, ask }, site, `${what}, ${firsts.size} checks to be run first`)
    await makeOne({ base, cookie, ask }, site, '  and again')
  } finally {
    const ended = once(server, 'exit')
    server.kill('SIGTERM')
    await ended
    cameras.disconnect()
  }
}

export async function benchHandover(): Promise<void> {
  for (const bench of [benchDemo, benchLarge]) {
    const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-'))
    try {
      await bench(folder)
    } finally {
      rmSync(folder, { recursive: true, force: true })
    }
  }
}
