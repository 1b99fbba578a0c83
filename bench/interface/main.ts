import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { loadavg, tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { chromium, type Browser, type Page } from '@playwright/test'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { BenchView, SiteView } from '../../core/api.ts'
import { DetectionSchema, type Detection } from '../../core/formats/plan.ts'
import { demoAccounts } from '../../server/seed.ts'
import { median, say } from '../say.ts'
import { benchLargeSite } from './largeSite.ts'
import { parseWith } from '../../core/schema/parse.ts'

/**
 * The Bench in Chromium, as somebody works on it: `npm run bench -- --interface`. The real application, started for
 * this; only the clip's targets and its length are put in place of the demo clip's on the way to the browser, as a clip
 * of ten minutes would take as long to analyse.
 */
const root = fileURLToPath(new URL('../..', import.meta.url))
const PORT = 4791
const FRAMES = 6000

/** Waits until the demo's clips have been analysed and the machine has nothing else to do. */
async function quiet(session: string): Promise<void> {
  const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms))
  const base = `http://127.0.0.1:${PORT}`
  const headers = { cookie: `wardoptic_session=${session}` }
  const { cameras } = (await (
    await fetch(`${base}/api/sites/skerrow/site`, { headers })
  ).json()) as SiteView
  for (const { id } of cameras)
    while (
      (
        (await (
          await fetch(`${base}/api/sites/skerrow/cameras/${id}`, { headers })
        ).json()) as BenchView
      ).clips.some(({ state }) => state === 'analysing')
    )
      await pause(500)
  for (let n = 0; n < 60 && loadavg()[0]! > 0.7; n++) await pause(2000)
}

async function start(folder: string): Promise<() => Promise<void>> {
  const child = spawn(
    process.execPath,
    [join(root, 'scripts/start.mjs'), '--port', String(PORT), '--data', folder, '--no-past'],
    { stdio: ['ignore', 'pipe', 'inherit'], detached: true }
  )
  for await (const line of createInterface(child.stdout)) if (/Wardoptic is at/.test(line)) break
  return async () => {
    const ended = once(child, 'exit')
    process.kill(-child.pid!, 'SIGINT')
    await ended
  }
}

/** The demo's installer. */
async function signIn(): Promise<string> {
  const { username, password } = demoAccounts()[0]!
  const answer = await fetch(`http://127.0.0.1:${PORT}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ username, password })
  })
  return /=([\w-]+)/.exec(answer.headers.get('set-cookie')!)![1]!
}

/** Walkers that wander about, seven at a time, as MOTChallenge rows of a picture of 1280 × 720. */
function madeTracks(): string {
  let state = 12345
  const random = (): number => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648
  const walkers = Array.from({ length: 7 }, () => ({
    x: random(),
    y: 0.2 + 0.5 * random(),
    vx: 0.05 - 0.1 * random(),
    vy: 0.05 - 0.1 * random()
  }))
  const rows: string[] = []
  for (let frame = 1; frame <= FRAMES; frame++)
    walkers.forEach((w, i) => {
      w.x += w.vx * 0.1
      w.y += w.vy * 0.1
      if (w.x < 0 || w.x > 0.9) w.vx = -w.vx
      if (w.y < 0.1 || w.y > 0.75) w.vy = -w.vy
      // A new target every half minute, as on a busy path.
      const id = Math.floor((frame - 1 + i * 43) / 300) * 7 + i + 1
      rows.push(
        [
          frame,
          id,
          (w.x * 1280).toFixed(1),
          (w.y * 720).toFixed(1),
          64,
          115.2,
          1,
          'person',
          1
        ].join()
      )
    })
  return `${rows.join('\n')}\n`
}

const detectionsOf = (count: number): Detection[] =>
  Array.from({ length: count }, (_, i) => {
    const y = 0.15 + (0.7 * i) / count
    const shape =
      i % 2
        ? {
            kind: 'intrusion',
            zone: [
              [0.1, y],
              [0.5, y - 0.05],
              [0.9, y],
              [0.8, y + 0.1],
              [0.2, y + 0.1]
            ],
            dwellSeconds: 2
          }
        : {
            kind: 'line',
            line: [
              [0.1, y],
              [0.5, y + 0.02],
              [0.9, y]
            ]
          }
    return parseWith(DetectionSchema, {
      id: `d${i}`,
      name: `Detection ${i + 1}`,
      classes: ['person'],
      ...shape
    })
  })

async function openBench(
  browser: Browser,
  session: string,
  count: number,
  tracks: string
): Promise<{ page: Page; shown: number; script: number }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addCookies([
    { name: 'wardoptic_session', value: session, url: `http://127.0.0.1:${PORT}` }
  ])
  const page = await context.newPage()
  const base = `http://127.0.0.1:${PORT}`
  await page.route('**/api/sites/skerrow/cameras/slipway', async (route) => {
    const answer = await route.fetch()
    const view = (await answer.json()) as BenchView
    const kept = { version: 1, changedAt: 0 }
    view.detections = detectionsOf(count).map((detection, position) => ({
      detection,
      position,
      ...kept,
      actions: { actions: NO_ACTIONS, ...kept }
    }))
    view.clips = view.clips.map((clip) => ({
      ...clip,
      fps: 10,
      width: 1280,
      height: 720,
      frames: FRAMES,
      targets: 140,
      rows: 42_000
    }))
    await route.fulfill({ response: answer, json: view })
  })
  await page.route('**/tracks', (route) =>
    route.fulfill({ body: tracks, contentType: 'text/plain' })
  )
  // Edits are answered as kept, and change nothing on the demo site.
  await page.route('**/detections/*', (route) => {
    const { detection, position, version } = route.request().postDataJSON() as {
      detection: Detection
      position: number
      version: number
    }
    return route.fulfill({
      json: {
        detection,
        position,
        version: version + 1,
        changedAt: 0,
        actions: { actions: NO_ACTIONS, version: 1, changedAt: 0 }
      }
    })
  })
  // A helper that the bundler leaves in functions sent to the page.
  await page.addInitScript('globalThis.__name = (f) => f')
  await page.addInitScript(() => {
    const seen = { tasks: [] as number[], changed: 0 }
    Object.assign(window, { seen })
    new PerformanceObserver((list) =>
      seen.tasks.push(...list.getEntries().map((e) => e.duration))
    ).observe({ type: 'longtask', buffered: true })
  })
  await page.goto(`${base}/s/skerrow/bench/slipway?detection=d0`)
  await page.locator('.rail-item').first().waitFor()
  await page.locator('.stage canvas').first().waitFor()
  const shown = await page.evaluate(() => performance.now())
  await page.locator('.flag').first().waitFor({ timeout: 60_000 })
  const script = await page.evaluate(() =>
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter((r) => /\.js$/.test(r.name))
      .reduce((sum, r) => sum + r.encodedBodySize, 0)
  )
  return { page, shown, script }
}

interface Dragged {
  tasks: number[]
  updates: number[]
  frames: number[]
}

/**
 * Drags a vertex back and forth with stops; how long tasks of the page took, and how long after
 * each stop the triggers still changed.
 */
async function dragVertex(page: Page, stops: number): Promise<Dragged> {
  const box = (await page.locator('.stage canvas').first().boundingBox())!
  const at = (x: number, y: number): [number, number] => [
    box.x + x * box.width,
    box.y + y * box.height
  ]
  await page.mouse.move(...at(0.5, 0.17))
  await page.mouse.down()
  await page.mouse.move(...at(0.5, 0.2), { steps: 10 })
  await page.waitForTimeout(1500)
  await page.evaluate(() => {
    const { seen } = window as unknown as {
      seen: { tasks: number[]; changed: number; moved: number; frames: number[]; last: number }
    }
    seen.tasks.length = 0
    seen.frames = []
    // Of the detection that is dragged, its flags alone: near misses follow when the pointer rests.
    const isFlag = (node: Node): boolean =>
      node instanceof Element &&
      (node.classList.contains('dragged-flags') ||
        node.parentElement?.classList.contains('dragged-flags') === true)
    new MutationObserver((records) => {
      if (
        records.some((r) => isFlag(r.target) || [...r.addedNodes, ...r.removedNodes].some(isFlag))
      )
        seen.changed = performance.now()
    }).observe(document.querySelector('.detection-lane')!, {
      subtree: true,
      childList: true,
      attributes: true
    })
    addEventListener('mousemove', () => (seen.moved = performance.now()), { capture: true })
    const tick = (now: number): void => {
      if (seen.last) seen.frames.push(now - seen.last)
      seen.last = now
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  const updates: number[] = []
  for (let stop = 0; stop < stops; stop++) {
    const y = 0.25 + 0.25 * (stop % 2) + 0.02 * stop
    await page.mouse.move(...at(0.5, y), { steps: 12 })
    await page.waitForTimeout(600)
    updates.push(
      await page.evaluate(() => {
        const { seen } = window as unknown as { seen: { changed: number; moved: number } }
        return seen.changed - seen.moved
      })
    )
  }
  const { tasks, frames } = await page.evaluate(
    () => (window as unknown as { seen: { tasks: number[]; frames: number[] } }).seen
  )
  await page.mouse.up()
  return { tasks, updates, frames }
}

export async function benchInterface(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-interface-'))
  const stop = await start(folder)
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox']
  })
  const tracks = madeTracks()
  try {
    const session = await signIn()
    await quiet(session)
    // Once for the machine: what the operating system has read once it need not read again.
    await (await openBench(browser, session, 20, tracks)).page.close()
    const { page, shown, script } = await openBench(browser, session, 20, tracks)
    say(
      'first show of the Bench, nothing cached by the browser',
      `${(shown / 1000).toFixed(2)} s`,
      'under 2 s'
    )
    say(
      '  script that it loads, compressed, with the worker’s',
      `${Math.round(script / 1000)} KB`,
      'under 450 KB'
    )
    const { tasks, updates } = await dragVertex(page, 10)
    say('20 detections, 42,000 rows of 10 minutes: a vertex dragged', '')
    say(
      '  tasks of the page over 50 ms',
      tasks.length ? `${tasks.length}, worst ${Math.max(...tasks).toFixed(0)} ms` : 'none',
      'none'
    )
    say(
      '  triggers right after the pointer’s stop',
      `median ${median(updates).toFixed(0)} ms, worst ${Math.max(...updates).toFixed(0)} ms`,
      'within 120 ms'
    )
    await page.close()
    const many = await openBench(browser, session, 100, tracks)
    const { frames, tasks: long } = await dragVertex(many.page, 6)
    const ordered = [...frames].sort((a, b) => a - b)
    say(
      '100 shapes on one picture, a vertex dragged',
      `${(1000 / median(frames)).toFixed(0)} frames/s, 95 % within ${ordered[Math.floor(ordered.length * 0.95)]!.toFixed(0)} ms`,
      'smooth'
    )
    say(
      '  tasks of the page over 50 ms',
      long.length ? `${long.length}, worst ${Math.max(...long).toFixed(0)} ms` : 'none'
    )
    await stop()
    await benchLargeSite(browser)
  } finally {
    await browser.close()
    rmSync(folder, { recursive: true, force: true })
  }
}
