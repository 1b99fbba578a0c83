import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Browser } from '@playwright/test'
import { startDemo } from './demoServer.ts'
import { median, say } from './say.ts'

/**
 * What a browser that has nothing of Wardoptic yet needs for the first page: npm run bench -- --first-page. First
 * contentful paint and layout shift as the browser itself reports them (W3C Paint Timing, Layout Instability); blocking
 * time: of each task over 50 ms after that paint, what is over 50 ms, up to when the page can be used (W3C Long Tasks).
 */
const PORT = 4795
const TIMES = 5
const PLACES: Readonly<Record<string, string>> = {
  '/site': '.camera-cards li',
  '/watch': '.live-tile',
  '/bench/slipway': '.bench canvas'
}

interface Figures {
  paint: number
  usable: number
  blocking: number
  shift: number
  scriptBytes: number
}

export async function benchFirstPage(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-page-'))
  const demo = await startDemo(folder, PORT)
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu']
  })
  try {
    for (const [place, ready] of Object.entries(PLACES)) {
      const all: Figures[] = []
      for (let n = 0; n < TIMES; n++)
        all.push(await load(browser, demo.base, demo.cookie, place, ready))
      const of = (part: keyof Figures): number => median(all.map((f) => f[part]))
      say(`${place}: first contentful paint`, `${of('paint').toFixed(0)} ms`)
      say(`${place}: usable`, `${of('usable').toFixed(0)} ms`, place === '/site' ? '1 s' : '')
      say(`${place}: blocking time`, `${of('blocking').toFixed(0)} ms`)
      say(`${place}: layout shift`, of('shift').toFixed(3))
      say(
        `${place}: scripts, compressed`,
        `${(of('scriptBytes') / 1024).toFixed(0)} KB`,
        place === '/site' ? '250 KB' : ''
      )
    }
  } finally {
    await browser.close()
    await demo.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** One load by a browser that keeps nothing. @param ready what is there once the page can be used */
async function load(
  browser: Browser,
  base: string,
  cookie: string,
  place: string,
  ready: string
): Promise<Figures> {
  const context = await browser.newContext({
    baseURL: base,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block'
  })
  try {
    const [name, value] = cookie.split('=') as [string, string]
    await context.addCookies([{ name, value, url: base }])
    const page = await context.newPage()
    await page.addInitScript((selector) => {
      const seen = { usable: 0, shift: 0, tasks: [] as { start: number; length: number }[] }
      Object.assign(window, { seen })
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries() as (PerformanceEntry & {
          value: number
          hadRecentInput: boolean
        })[])
          if (!entry.hadRecentInput) seen.shift += entry.value
      }).observe({ type: 'layout-shift', buffered: true })
      new PerformanceObserver((list) => {
        for (const { startTime, duration } of list.getEntries())
          seen.tasks.push({ start: startTime, length: duration })
      }).observe({ type: 'longtask', buffered: true })
      const look = (): void => {
        if (document.querySelector(selector)) seen.usable = performance.now()
        else requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    }, ready)
    await page.goto(`/s/skerrow${place}`)
    await page.locator(ready).first().waitFor()
    // What shifts late counts as well.
    await page.waitForTimeout(1500)
    return await page.evaluate(() => {
      const { seen } = window as unknown as {
        seen: { usable: number; shift: number; tasks: { start: number; length: number }[] }
      }
      const paint = performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN
      return {
        paint,
        usable: seen.usable,
        shift: seen.shift,
        blocking: seen.tasks
          .filter((t) => t.start >= paint && t.start < seen.usable)
          .reduce((sum, t) => sum + Math.max(0, t.length - 50), 0),
        scriptBytes: (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
          .filter((r) => new URL(r.name).pathname.endsWith('.js'))
          .reduce((sum, r) => sum + r.encodedBodySize, 0)
      }
    })
  } finally {
    await context.close()
  }
}
