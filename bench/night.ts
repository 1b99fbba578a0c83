import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startBareBrowser, type BareBrowser } from './bareBrowser.ts'
import { pause, startDemo, type Ask } from './demoServer.ts'
import { say } from './say.ts'

/**
 * Twelve hours of Watch in a browser, at sixty times their speed: npm run bench -- --night. The page's own clock and its
 * timers run so much faster: all that it does by the clock, such as reading lists again, it does as often as in a night;
 * alarms come in, are acknowledged and closed as often. Pictures come as fast as they come.
 */
const PORT = 4796
const RATE = 60
const MINUTES = 12 * 60
const ALARMS_AN_HOUR = 40
const WARM_UP_MINUTES = 60
const LOOK_MINUTES = 20

interface Look {
  hours: number
  /** MB after collecting garbage. */
  heap: number
  /** MB of the process that shows the page, pictures among them. */
  process: number
  nodes: number
  listeners: number
}

export async function benchNight(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-night-'))
  const demo = await startDemo(folder, PORT)
  const browser = await startBareBrowser()
  try {
    const looks = await watch(browser, demo.base, demo.cookie, demo.ask)
    const after = looks.filter((l) => l.hours * 60 >= WARM_UP_MINUTES)
    const [first, last] = [after[0]!, after.at(-1)!]
    for (const part of ['heap', 'process', 'nodes', 'listeners'] as const) {
      const unit = part === 'heap' || part === 'process' ? ' MB' : ''
      say(
        `${part}, after ${first.hours} h and ${last.hours} h`,
        `${first[part].toFixed(1)}${unit} and ${last[part].toFixed(1)}${unit}`
      )
      say(`${part}, growth in an hour`, `${slope(after, part).toFixed(2)}${unit}`, 'none')
    }
  } finally {
    await browser.close()
    await demo.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Runs in the page before anything else: its time goes so many times as fast. */
const hasten = (rate: number): void => {
  const Real = Date
  const start = Real.now()
  const now = (): number => start + (Real.now() - start) * rate
  const Hastened = new Proxy(Real, {
    construct: (date, given: unknown[]) =>
      Reflect.construct(date, given.length ? given : [now()]) as Date,
    get: (date, key): unknown => (key === 'now' ? now : Reflect.get(date, key))
  })
  const { setTimeout: later, setInterval: again } = globalThis
  Object.assign(globalThis, {
    Date: Hastened,
    setTimeout: (run: () => void, ms = 0, ...rest: []) => later(run, ms / rate, ...rest),
    setInterval: (run: () => void, ms = 0, ...rest: []) => again(run, ms / rate, ...rest)
  })
}

async function watch(
  { machine, page }: BareBrowser,
  base: string,
  cookie: string,
  ask: Ask
): Promise<Look[]> {
  const [name, value] = cookie.split('=') as [string, string]
  await machine('Storage.setCookies', { cookies: [{ name, value, url: base }] })
  await page('Page.addScriptToEvaluateOnNewDocument', { source: `(${hasten.toString()})(${RATE})` })
  await page('Page.navigate', { url: `${base}/s/skerrow/watch` })
  const tiles = async (): Promise<number> =>
    (
      await page<{ result: { value: number } }>('Runtime.evaluate', {
        expression: "document.querySelectorAll('.live-tile').length"
      })
    ).result.value
  while (!(await tiles())) await pause(100)
  const look = async (minute: number): Promise<Look> => {
    await page('HeapProfiler.collectGarbage')
    const { usedSize } = await page<{ usedSize: number }>('Runtime.getHeapUsage')
    const { nodes, jsEventListeners } = await page<{ nodes: number; jsEventListeners: number }>(
      'Memory.getDOMCounters'
    )
    const { processInfo } = await machine<{ processInfo: { type: string; id: number }[] }>(
      'SystemInfo.getProcessInfo'
    )
    const resident = processInfo
      .filter((p) => p.type === 'renderer')
      .map((p) => Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${p.id}/status`, 'utf8'))![1]))
    return {
      hours: minute / 60,
      heap: usedSize / 2 ** 20,
      process: Math.max(...resident) / 1024,
      nodes,
      listeners: jsEventListeners
    }
  }
  const looks: Look[] = []
  for (let minute = 1; minute <= MINUTES; minute++) {
    const began = performance.now()
    if ((minute * ALARMS_AN_HOUR) % 60 < ALARMS_AN_HOUR) await alarm(ask, minute)
    if (minute % LOOK_MINUTES === 0) {
      looks.push(await look(minute))
      console.log(JSON.stringify(looks.at(-1)))
    }
    await pause(Math.max(0, 60_000 / RATE - (performance.now() - began)))
  }
  return looks
}

/** One comes in; most are dealt with at once, as in a night with somebody at the desk. */
async function alarm(ask: Ask, minute: number): Promise<void> {
  const at = '/api/sites/skerrow'
  const { alarm: id } = await ask<{ alarm: number }>('POST', `${at}/triggers`, {
    key: `night-${minute}`,
    camera: 'waiting-room',
    detection: 'waiting-room-door'
  })
  if (minute % 10 === 0) return
  await ask('POST', `${at}/alarms/${id}/acknowledge`, { comment: 'Looked.', confirmed: true })
  await ask('POST', `${at}/alarms/${id}/close`, { words: '' })
}

/** By how much it grows in an hour, by least squares. */
function slope(looks: readonly Look[], part: Exclude<keyof Look, 'hours'>): number {
  const mean = (values: number[]): number => values.reduce((a, b) => a + b, 0) / values.length
  const [x, y] = [mean(looks.map((l) => l.hours)), mean(looks.map((l) => l[part]))]
  const over = looks.reduce((sum, l) => sum + (l.hours - x) * (l[part] - y), 0)
  return over / looks.reduce((sum, l) => sum + (l.hours - x) ** 2, 0)
}
