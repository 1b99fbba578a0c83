import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ProofRunView } from '../../core/proving/views.ts'
import { chromium } from '@playwright/test'
import type { DeviceView } from '../../core/devices/views.ts'
import type { WatchView } from '../../core/watch/views.ts'
import { Database } from '../../server/database.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'
import { countTriggers } from '../../server/search/counts.ts'
import { findTriggers } from '../../server/search/queries.ts'
import type { Search } from '../../core/watch/search.ts'
import { pause, startDemo, type Ask } from '../demoServer.ts'
import { median, say } from '../say.ts'

/** Proving, watching and searching: npm run bench -- --proving. */
const PORT = 4792
const TRIGGERS = 1_000_000
const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!

/** The demo site as it is started; its clips have been analysed before anything is measured. */
async function benchDemo(folder: string): Promise<void> {
  const { base, cookie, ask, stop } = await startDemo(folder, PORT)
  try {
    await ask('POST', '/api/sites/skerrow/proving/take', {})
    for (const how of ['nothing painted before', 'again']) {
      let run = await ask<ProofRunView>('POST', '/api/sites/skerrow/proving/runs', {})
      while (run.state === 'running') {
        await pause(200)
        run = await ask('GET', `/api/sites/skerrow/proving/runs/${run.id}`)
      }
      say(
        `${run.asked} proposed checks of the demo site, ${how} (${run.failed} not as expected)`,
        `${((run.endedAt! - run.startedAt) / 1000).toFixed(1)} s`,
        'at least 100 in 30 s'
      )
    }
    await benchWatch(base, cookie, ask)
  } finally {
    await stop()
  }
}

/**
 * The screen of Watch in Chromium, with six live pictures: how often they change, how soon it
 * answers, how soon an alarm stands on it.
 */
async function benchWatch(base: string, cookie: string, ask: Ask): Promise<void> {
  await setUpYardCamera(ask)
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox']
  })
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const [name = '', value = ''] = cookie.split('=')
    await context.addCookies([{ name, value, url: base }])
    const page = await context.newPage()
    // A helper that the bundler leaves in functions sent to the page.
    await page.addInitScript('globalThis.__name = (f) => f')
    await page.addInitScript(() => {
      const seen = { pictures: new Map<Element, number>(), at: 0, name: '' }
      Object.assign(window, { seen })
      const context = CanvasRenderingContext2D.prototype as {
        drawImage: (this: CanvasRenderingContext2D, ...args: unknown[]) => void
      }
      const draw = context.drawImage
      const last = new Map<Element, unknown>()
      CanvasRenderingContext2D.prototype.drawImage = function (
        this: CanvasRenderingContext2D,
        ...args: unknown[]
      ) {
        // Drawn again with newer targets, it is no new picture.
        if (args[0] !== last.get(this.canvas))
          seen.pictures.set(this.canvas, (seen.pictures.get(this.canvas) ?? 0) + 1)
        last.set(this.canvas, args[0])
        draw.apply(this, args)
      }
      new MutationObserver(() => {
        if (
          seen.name &&
          !seen.at &&
          [...document.querySelectorAll('.alarm-line.waiting')].some((line) =>
            line.textContent?.includes(seen.name)
          )
        )
          seen.at = Date.now()
      }).observe(document, { subtree: true, childList: true })
    })
    await page.goto(`${base}/watch`)
    await page.locator('.live-tile').nth(5).waitFor()
    await pause(5000)
    await page.evaluate(() =>
      (window as unknown as { seen: { pictures: Map<Element, number> } }).seen.pictures.clear()
    )
    await pause(10_000)
    const pictures = await page.evaluate(() => [
      ...(window as unknown as { seen: { pictures: Map<Element, number> } }).seen.pictures.values()
    ])
    say(
      `Watch in the browser: new pictures/s of each of ${pictures.length} live pictures, the slowest`,
      (Math.min(...pictures) / 10).toFixed(1),
      '5 or more of six'
    )
    const answers: number[] = []
    for (let n = 0; n < 20; n++) {
      answers.push(
        await page.evaluate(() => {
          const tile = document.querySelectorAll<HTMLElement>('.live-tile')[1]!
          const began = performance.now()
          return new Promise<number>((resolve) => {
            tile.click()
            requestAnimationFrame(() =>
              requestAnimationFrame(() => resolve(performance.now() - began))
            )
          })
        })
      )
      await pause(150)
    }
    say(
      '  a picture made large or small again, from the click to the frame after',
      `median ${median(answers).toFixed(0)} ms, worst ${Math.max(...answers).toFixed(0)} ms`,
      'usable'
    )
    const took: number[] = []
    for (let n = 0; n < 20; n++) {
      await page.evaluate(() =>
        Object.assign((window as unknown as { seen: object }).seen, {
          at: 0,
          name: 'Yard picture lost'
        })
      )
      const began = Date.now()
      const { alarm } = await ask<{ alarm: number }>('POST', '/api/sites/skerrow/triggers', {
        key: `bench ${n}`,
        camera: 'workshop-yard',
        detection: 'yard-signal'
      })
      await page.waitForFunction(() => (window as unknown as { seen: { at: number } }).seen.at > 0)
      took.push(
        (await page.evaluate(() => (window as unknown as { seen: { at: number } }).seen.at)) - began
      )
      await page.evaluate(() =>
        Object.assign((window as unknown as { seen: object }).seen, { name: '' })
      )
      await ask('POST', `/api/sites/skerrow/alarms/${alarm}/acknowledge`, { comment: '' })
      await page.waitForFunction(
        () =>
          ![...document.querySelectorAll('.alarm-line.waiting')].some((line) =>
            line.textContent?.includes('Yard picture lost')
          )
      )
    }
    say(
      '  from a trigger to its alarm on that screen',
      `median ${median(took).toFixed(0)} ms, worst ${Math.max(...took).toFixed(0)} ms`,
      '500 ms at the median'
    )
  } finally {
    await browser.close()
  }
}

/** The demo leaves one camera as it comes from the box, without an account. */
async function setUpYardCamera(ask: Ask): Promise<void> {
  const yard = (await ask<DeviceView[]>('GET', '/api/sites/skerrow/devices')).find(
    (d) => d.name === 'Workshop yard camera'
  )
  if (!yard) throw new Error('the demo has no camera at the yard')
  await ask('POST', `/api/sites/skerrow/devices/${yard.id}/account`, {
    username: 'admin',
    password: 'skerrow-three',
    first: true
  })
  while (
    !(await ask<WatchView>('GET', '/api/sites/skerrow/watch')).cameras.find(
      (c) => c.id === 'workshop-yard'
    )?.live
  )
    await pause(500)
}

/** A search with each of its filters over a million triggers. */
async function benchSearch(folder: string): Promise<void> {
  const mariadb = await startMariaDb(folder)
  const database = await Database.open(mariadb.address)
  await database.run(
    "INSERT INTO site (id, name, time_zone, inputs) VALUES ('s', 'S', 'UTC', '[]')"
  )
  for (let c = 0; c < 6; c++)
    await database.run(
      "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, 's', 'C', ?, '[]')",
      [`c${c}`, c]
    )
  await database.run(
    "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) SELECT 's', CONCAT('c', seq % 6), 'd', 'D', 'minor', 'normal', 'acknowledged', '{}', 1700000000000 + seq * 300000, 1700000000000 + seq * 300000, 10 FROM seq_1_to_100000"
  )
  await database.run(
    "INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) SELECT id, 'acknowledged', CONCAT(ELT(1 + id % 5, 'a fox', 'the baker with bread', 'two anglers', 'wind in the reeds', 'guests of the harbour'), ' number ', id), 'I', first_at FROM alarm"
  )
  for (let part = 0; part < 10; part++)
    await database.run(
      `INSERT INTO fired_trigger (camera_id, detection_id, kind, class, direction, way, fired_at, fired_with, source, alarm_id, acknowledged)
       SELECT CONCAT('c', CRC32(seq) % 6), 'd', ELT(1 + CRC32(seq * 3) % 4, 'line', 'intrusion', 'tamper', 'face'), ELT(1 + CRC32(seq * 5) % 4, 'person', 'vehicle', 'cycle', 'animal'), IF(CRC32(seq * 7) % 2, 'leftToRight', 'rightToLeft'), IF(CRC32(seq * 11) % 3, NULL, 'Water → Land'), 1700000000000 + seq * 30000, '{"name":"D"}', 'sender', 1 + seq DIV 10, CRC32(seq * 13) % 10 > 0
         FROM seq_${part * (TRIGGERS / 10) + 1}_to_${(part + 1) * (TRIGGERS / 10) - (part === 9 ? 10 : 0)}`
    )
  await database.run('ANALYZE TABLE fired_trigger, alarm_note, alarm_word')
  const end = 1700000000000 + TRIGGERS * 30000
  const searches: [string, Search][] = [
    ['nothing', {}],
    ['camera', { camera: 'c3' }],
    ['kind', { kind: 'tamper' }],
    ['class', { class: 'animal' }],
    ['direction', { direction: 'rightToLeft' }],
    ['sides', { way: 'Water → Land' }],
    ['time', { from: end - 86_400_000 * 30, to: end - 86_400_000 * 20 }],
    ['acknowledged', { acknowledged: 'no' }],
    ['comment', { words: 'baker brea' }],
    ['a rare comment', { words: 'number 4711' }],
    ['comments, camera and kind', { words: 'anglers', camera: 'c2', kind: 'face' }],
    ['words never together', { words: 'fox anglers' }],
    [
      'all of them',
      {
        camera: 'c1',
        kind: 'face',
        class: 'cycle',
        direction: 'leftToRight',
        way: 'Water → Land',
        acknowledged: 'no'
      }
    ],
    ['what is not there', { camera: 'c1', class: 'unknown' }]
  ]
  const took: { name: string; ms: number }[] = []
  for (let round = 0; round < 12; round++)
    for (const [name, search] of searches) {
      const began = performance.now()
      let { next } = await findTriggers(database, search, undefined, 48)
      took.push({ name, ms: performance.now() - began })
      // And a page far down.
      if (next !== null && round > 0)
        next = `${Math.floor(1700000000000 + (TRIGGERS / (1 + round)) * 30000)}.1`
      const again = performance.now()
      if (next !== null) await findTriggers(database, search, next, 48)
      if (next !== null) took.push({ name, ms: performance.now() - again })
    }
  const sorted = took.map((x) => x.ms).sort((a, b) => a - b)
  const slowest = searches
    .map(([name]) => ({ name, ms: median(took.filter((x) => x.name === name).map((x) => x.ms)) }))
    .sort((a, b) => b.ms - a.ms)[0]!
  say(
    `a page of ${TRIGGERS.toLocaleString('en')} triggers, with each filter, near and far (slowest filter: ${slowest.name}, ${slowest.ms.toFixed(0)} ms)`,
    `median ${at(sorted, 0.5).toFixed(0)} ms, 95th percentile ${at(sorted, 0.95).toFixed(0)} ms`,
    '150 ms at the 95th'
  )
  const counted: { name: string; ms: number }[] = []
  for (let round = 0; round < 3; round++)
    for (const [name, search] of searches) {
      const began = performance.now()
      await countTriggers(database, search)
      counted.push({ name, ms: performance.now() - began })
    }
  const longest = counted.sort((a, b) => b.ms - a.ms)[0]!
  say(
    '  the chart of how many over time, that follows',
    `median ${median(counted.map((x) => x.ms)).toFixed(0)} ms, longest ${longest.ms.toFixed(0)} ms (${longest.name})`
  )
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
