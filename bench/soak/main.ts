import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, readFileSync, readdirSync, readlinkSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { setTimeout as wait } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { chromium, type Browser, type Page } from '@playwright/test'
import { demoAccounts } from '../../server/seed.ts'
import { freePort } from '../../server/launch/mariadb.ts'
import { median, say } from '../say.ts'

/**
 * Memory and open files over a long time: `npm run bench -- --soak MINUTES` (60). The application with the demo's six
 * cameras, and two browsers: one watches, one goes from place to place; triggers come in. Each process is looked at every
 * half minute; compared are a stretch after the warm-up and the last one.
 */
const root = fileURLToPath(new URL('../..', import.meta.url))
const LOOK_MS = 30_000
const PLACES = [
  '/site',
  '/bench/slipway',
  '/devices',
  '/arming',
  '/actions',
  '/actions/alarms',
  '/prove',
  '/watch/search',
  '/bench/quay-path'
]

interface Look {
  /** MB that are its own. */
  memory: number
  files: number
}

/** By what a process is: the application, its simulators, its database. Browsers and ffmpeg come and go. */
function kinds(server: ChildProcess): Map<string, number> {
  const found = new Map([['server', server.pid!]])
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
      const parent = Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1])
      const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      if (parent === server.pid && command.includes('simulators/main.ts'))
        found.set('simulators', Number(pid))
      if (parent === server.pid && /mariadbd/.test(command)) found.set('database', Number(pid))
    } catch {
      // It has just ended.
    }
  return found
}

function look(pid: number): Look {
  const rss =
    Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024
  const files = readdirSync(`/proc/${pid}/fd`).filter((fd) => {
    try {
      return readlinkSync(`/proc/${pid}/fd/${fd}`) !== ''
    } catch {
      return false
    }
  }).length
  return { memory: rss, files }
}

async function signedIn(browser: Browser, base: string, role: string): Promise<Page> {
  const { username, password } = demoAccounts().find((a) => a.role === role)!
  const page = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 } })
  ).newPage()
  await page.goto(base)
  await page.getByLabel('User name').fill(username)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.locator('.top-bar').waitFor()
  return page
}

/** @param minutes how long it goes on, at least 5 */
export async function benchSoak(minutes: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-soak-'))
  const port = await freePort()
  const base = `http://127.0.0.1:${port}`
  const child = spawn(
    process.execPath,
    [
      join(root, 'scripts/start.mjs'),
      '--port',
      String(port),
      '--data',
      join(folder, 'data'),
      '--no-past'
    ],
    { stdio: ['ignore', 'pipe', 'inherit'], detached: true }
  )
  for await (const line of createInterface(child.stdout)) if (/Wardoptic is at/.test(line)) break
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox']
  })
  const ended = new AbortController()
  try {
    const watcher = await signedIn(browser, base, 'operator')
    await watcher.goto(`${base}/watch`)
    const walker = await signedIn(browser, base, 'installer')
    const walking = (async () => {
      for (let n = 0; !ended.signal.aborted; n++) {
        await walker.goto(base + PLACES[n % PLACES.length]).catch(() => {})
        // One trigger now and then, which runs what is linked; alarms are closed again.
        await walker
          .evaluate(async (key) => {
            const post = (path: string, body: object): Promise<Response> =>
              fetch(path, {
                method: 'POST',
                headers: { 'content-type': 'application/json' },
                body: JSON.stringify(body)
              })
            const taken = (await (
              await post('/api/sites/skerrow/triggers', {
                key,
                camera: 'slipway',
                detection: 'quay-edge'
              })
            ).json()) as { alarm?: number }
            if (!taken.alarm) return
            await post(`/api/sites/skerrow/alarms/${taken.alarm}/acknowledge`, {
              comment: 'Looked',
              confirmed: true
            })
            await post(`/api/sites/skerrow/alarms/${taken.alarm}/close`, { words: '' })
          }, `soak ${n}`)
          .catch(() => {})
        await wait(6000, undefined, { signal: ended.signal }).catch(() => {})
      }
    })()
    const looks = new Map<string, Look[]>()
    const until = Date.now() + minutes * 60_000
    while (Date.now() < until) {
      await wait(LOOK_MS)
      for (const [kind, pid] of kinds(child))
        looks.set(kind, [...(looks.get(kind) ?? []), look(pid)])
    }
    ended.abort()
    await walking
    for (const [kind, all] of looks) {
      // A sixth of the time to get warm; then a sixth against the last sixth.
      const part = Math.max(1, Math.floor(all.length / 6))
      const [then, last] = [all.slice(part, 2 * part), all.slice(-part)]
      const of = (list: Look[], what: keyof Look): number => median(list.map((l) => l[what]))
      say(
        `${minutes} min, 6 cameras, 2 browsers: ${kind}, memory after warm-up, at the end`,
        `${of(then, 'memory').toFixed(0)} MB, ${of(last, 'memory').toFixed(0)} MB`,
        'flat'
      )
      say(
        `  open files after warm-up, at the end (most)`,
        `${of(then, 'files')}, ${of(last, 'files')} (${Math.max(...all.map((l) => l.files))})`,
        'flat'
      )
    }
  } finally {
    ended.abort()
    await browser.close()
    const gone = once(child, 'exit')
    process.kill(-child.pid!, 'SIGINT')
    await gone
    rmSync(folder, { recursive: true, force: true })
  }
}
