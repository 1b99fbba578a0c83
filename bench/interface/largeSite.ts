import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Browser, Page } from '@playwright/test'
import { ActionsSchema, EndpointSchema } from '../../core/formats/actions.ts'
import { ScheduleSchema } from '../../core/formats/plan.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { makeApp } from '../../server/app.ts'
import { Database } from '../../server/database.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'
import { cookieOf } from '../../server/testing/session.ts'
import { median, say } from '../say.ts'
import { fillSite } from '../sites/fill.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))
const SITE = 'large'
const CAMERAS = 200
const ENDPOINTS = 20

/** Each place, what stands there when it can be used, and what of it scrolls. */
const PLACES: readonly (readonly [
  name: string,
  path: string,
  ready: string,
  scrolls: string | null
])[] = [
  ['Site', '/site', '.camera-card', '.site-place'],
  ['Devices', '/devices', '.device-row', '.device-row'],
  ['Bench', `/bench/${SITE}-camera-0`, '.rail-item', null],
  ['Arming', '/arming', '.week-grid', null],
  ['Actions', '/actions', '.matrix tbody td', '.matrix'],
  ['Watch', '/watch', '.watch-pictures > *', '.watch-pictures'],
  ['Prove', '/prove', '.prove-rail button', '.prove-rail']
]

async function addActions(database: Database): Promise<void> {
  await database.transaction(async (sql) => {
    for (let n = 0; n < ENDPOINTS; n++)
      await sql.run(
        'INSERT INTO endpoint (site_id, id, body, version, changed_at) VALUES (?, ?, ?, 1, 0)',
        [
          SITE,
          `e${n}`,
          JSON.stringify(
            parseWith(EndpointSchema, {
              id: `e${n}`,
              name: `Pop-up ${n}`,
              kind: 'popup',
              sound: 'none'
            })
          )
        ]
      )
    await sql.run(
      `INSERT INTO detection_actions (camera_id, detection_id, body, version, changed_at)
         SELECT camera_id, id, ?, 1, 0 FROM detection`,
      [JSON.stringify(parseWith(ActionsSchema, { links: ['e0', 'e7'] }))]
    )
    await sql.run(
      `INSERT INTO schedule (site_id, id, body, version, changed_at) VALUES (?, 'nights', ?, 1, 0)`,
      [
        SITE,
        JSON.stringify(
          parseWith(ScheduleSchema, {
            id: 'nights',
            name: 'Nights',
            week: { mon: [['18:30', '24:00']] }
          })
        )
      ]
    )
  })
}

/** Frames a second while the element turns under the wheel, and the longest time between two of them. */
async function scrolled(page: Page, element: string): Promise<{ rate: number; worst: number }> {
  const box = (await page.locator(element).first().boundingBox())!
  await page.mouse.move(box.x + Math.min(box.width, 600) / 2, Math.min(700, box.y + 60))
  await page.evaluate(() => {
    const seen = { frames: [] as number[], last: 0, on: true }
    Object.assign(window, { scrolling: seen })
    const tick = (now: number): void => {
      if (seen.last) seen.frames.push(now - seen.last)
      seen.last = now
      if (seen.on) requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  for (let n = 0; n < 60; n++) {
    await page.mouse.wheel(0, n < 45 ? 160 : -400)
    await page.waitForTimeout(30)
  }
  const frames = await page.evaluate(() => {
    const { scrolling } = window as unknown as { scrolling: { frames: number[]; on: boolean } }
    scrolling.on = false
    return scrolling.frames
  })
  const sum = frames.reduce((a, b) => a + b, 0)
  return { rate: (1000 * frames.length) / sum, worst: Math.max(...frames) }
}

/** Every place of a site of 200 cameras and 800 detections, in Chromium. */
export async function benchLargeSite(browser: Browser): Promise<void> {
  spawnSync(process.execPath, [join(root, 'scripts/buildWeb.mjs')], { stdio: 'inherit' })
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-large-'))
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  await fillSite(database, SITE, CAMERAS)
  await addActions(database)
  const app = await makeApp({
    database,
    folder,
    web: join(root, 'dist/web'),
    mostClipBytes: 2 ** 20,
    simulators: null,
    places: [],
    log: true
  })
  const [name, value] = (await cookieOf(database, 'installer')).split('=') as [string, string]
  const address = await app.http.listen({ port: 0, host: '127.0.0.1' })
  try {
    console.log('\na site of 200 cameras and 800 detections, nothing cached by the browser')
    for (const [place, path, ready, scrolls] of PLACES) {
      const times: number[] = []
      let rolled: { rate: number; worst: number } | null = null
      for (let n = 0; n < 4; n++) {
        const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
        await context.addCookies([{ name, value, url: address }])
        const page = await context.newPage()
        // What this program's bundler leaves in functions that go to the page.
        await page.addInitScript('globalThis.__name = (f) => f')
        await page.goto(`${address}/s/${SITE}${path}`)
        await page.locator(ready).first().waitFor({ timeout: 60_000 })
        const shown = await page.evaluate(
          () =>
            new Promise<number>((resolve) =>
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now())))
            )
        )
        // The first look warms up the server and the machine.
        if (n > 0) times.push(shown)
        if (n === 3 && scrolls) {
          await page.waitForTimeout(1500)
          rolled = await scrolled(page, scrolls)
        }
        await context.close()
      }
      say(`  ${place}, usable after`, `${(median(times) / 1000).toFixed(2)} s`, 'within 2 s')
      if (rolled)
        say(
          `  ${place}, scrolled`,
          `${rolled.rate.toFixed(0)} frames/s, worst ${rolled.worst.toFixed(0)} ms`,
          '50 frames/s'
        )
    }
  } finally {
    await app.close()
    await database.close()
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
