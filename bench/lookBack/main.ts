import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DetectionSchema, type Detection } from '../../core/formats/plan.ts'
import { metadataXml, readMetadata } from '../../core/formats/onvif/metadata.ts'
import { TriggerCache } from '../../core/detections/triggerCache.ts'
import { tracksOf } from '../../core/lookBack/rows.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { numbersFrom } from '../../core/tuning/testing/weeks.ts'
import type { Place } from '../../core/tuning/stretches.ts'
import { closeHour, openHours } from '../../server/lookBack/closing.ts'
import { HourWriter } from '../../server/lookBack/hourWriter.ts'
import { HOUR_MS, readRange } from '../../server/lookBack/hours.ts'
import { JobThreads } from '../../server/lookBack/threads.ts'
import { say } from '../say.ts'

const CAMERAS = 200
const PER_SECOND = 10
const KEPT_SECONDS = 20
const DAY_MS = 24 * HOUR_MS
const TARGETS_A_DAY = 2000
/** Rows of one target: with them a day has 864,000. */
const ROWS = 432
const MARKS = 120
const START = Date.parse('2026-11-16T00:00:00Z')

const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`
const timed = async <T>(work: () => T | Promise<T>): Promise<[T, number]> => {
  const began = performance.now()
  const done = await work()
  return [done, performance.now() - began]
}
const place: Place = {
  plan: { schedules: [], timeZone: 'Europe/London' },
  camera: { ignore: [] }
}
const yard = (more: object = {}): Detection =>
  parseWith(DetectionSchema, {
    id: 'yard',
    name: 'Yard',
    kind: 'intrusion',
    classes: ['person'],
    zone: [
      [0.3, 0.2],
      [0.7, 0.2],
      [0.7, 0.9],
      [0.3, 0.9]
    ],
    dwellSeconds: 1,
    ...more
  })

const writerOf = (folder: string): HourWriter =>
  new HourWriter(folder, {
    closed: () => {},
    failed: (error) => {
      throw error
    }
  })

/** What is said by each of 200 cameras, ten times a second, with three targets: read, and written. */
function keeping(folder: string): void {
  const frames = Array.from(
    { length: 50 },
    (_, k) => (at: number) =>
      metadataXml({
        at,
        targets: [0, 1, 2].map((n) => ({
          id: n,
          class: 'person',
          x: 0.1 + (k / 100 + n / 10),
          y: 0.4,
          w: 0.05,
          h: 0.2
        }))
      })
  )
  // Made before they are timed: a real camera makes them itself.
  const texts: [string, string][] = []
  for (let tick = 0; tick < KEPT_SECONDS * PER_SECOND; tick++)
    for (let c = 0; c < CAMERAS; c++)
      texts.push([`c${c}`, frames[(tick + c) % frames.length]!(START + tick * 100)])
  const writer = writerOf(folder)
  for (let c = 0; c < CAMERAS; c++) writer.begin(`c${c}`, START)
  const before = process.cpuUsage()
  texts.forEach(([camera, text], i) => {
    const { at, targets } = readMetadata(text)
    writer.take(camera, at, targets)
    if (i % (CAMERAS * PER_SECOND) === 0) writer.flush(at)
  })
  writer.closeAll(START + KEPT_SECONDS * 1000)
  const { user, system } = process.cpuUsage(before)
  const cores = (user + system) / 1e6 / KEPT_SECONDS
  const kept = readdirSync(folder).reduce(
    (sum, camera) =>
      sum +
      readdirSync(join(folder, camera)).reduce(
        (bytes, name) => bytes + statSync(join(folder, camera, name)).size,
        0
      ),
    0
  )
  // Of each camera a record for its beginning and one for its end.
  const rows = kept / 36 - 2 * CAMERAS
  say(
    `${CAMERAS} cameras, ${PER_SECOND} frames/s, three targets: reading, writing`,
    `${cores.toFixed(2)} cores`,
    'under 1'
  )
  say('  rows kept of those that were said', `${rows} of ${texts.length * 3}`, 'all')
}

interface DayMark {
  at: number
  target: number
  mark: 'wanted' | 'nuisance'
}

/** Days of one busy camera: 2,000 targets, 864,000 rows each. Some pass, some stay. */
function writeDays(folder: string, days: number): DayMark[] {
  const random = numbersFrom(5)
  const writer = writerOf(folder)
  const marks: DayMark[] = []
  for (let day = 0; day < days; day++) {
    const begin = START + day * DAY_MS
    writer.begin('busy', begin)
    for (let t = 0; t < TARGETS_A_DAY; t++) {
      const id = day * TARGETS_A_DAY + t
      const first = begin + Math.floor((t * DAY_MS) / TARGETS_A_DAY / 100) * 100
      const [y, stays] = [0.3 + 0.4 * random(), random() < 0.3]
      for (let k = 0; k < ROWS; k++) {
        const share = k / ROWS
        // Whoever stays is in the middle for a third of the time; who passes crosses it at once.
        const x = stays
          ? share < 1 / 3
            ? 0.9 * share
            : share < 2 / 3
              ? 0.45
              : 0.45 + 1.2 * (share - 2 / 3)
          : share < 0.45
            ? 0.1 * share
            : share < 0.55
              ? 0.05 + 8 * (share - 0.45)
              : 0.88
        writer.take('busy', first + 100 * k, [
          { id, class: 'person', x, y, w: 0.04, h: 0.12, likelihood: 1 }
        ])
      }
      if (marks.length < (MARKS * (day + 1)) / days)
        marks.push({ at: first + 20_000, target: id, mark: stays ? 'wanted' : 'nuisance' })
    }
    writer.end('busy', begin + DAY_MS - 1)
  }
  return marks
}

/** How quickly the last days answer, how much the server holds for it. */
export async function benchLookBack(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-look-back-'))
  const threads = new JobThreads(join(folder, 'days'), 2)
  try {
    keeping(join(folder, 'kept'))
    const days = join(folder, 'days')
    const marks = writeDays(days, 7)
    const open = await openHours(days, START + 8 * DAY_MS)
    const [, closing] = await timed(async () => {
      for (const { camera, hour } of open) await closeHour(days, camera, hour)
    })
    say('closing an hour of a busy camera', `${(closing / open.length).toFixed(0)} ms`)
    const bytes = readdirSync(join(days, 'busy')).reduce(
      (sum, name) => sum + statSync(join(days, 'busy', name)).size,
      0
    )
    say('  its day on the disk, of 864,000 rows', `${(bytes / 7 / 1e6).toFixed(1)} MB`)

    const [tracks, reading] = await timed(async () =>
      tracksOf((await readRange(days, 'busy', START, START + DAY_MS)).rows, START, 10)
    )
    say(`reading a day (${tracks.length} rows)`, seconds(reading))
    const cache = new TriggerCache()
    const ask = (dwellSeconds: number): { first: number; whole: number } => {
      const began = performance.now()
      let first = NaN
      cache.changed(
        {
          plan: place.plan,
          camera: { ignore: [], detections: [yard({ dwellSeconds })] },
          fps: 10,
          start: START
        },
        tracks,
        null,
        () => (first = performance.now() - began)
      )
      return { first, whole: performance.now() - began }
    }
    ask(1)
    const changed = ask(2)
    say('  its first flags after a changed detection', seconds(changed.first), '200 ms')
    say('  answered by a changed detection', seconds(changed.whole), 'under 1 s')

    const tuned = { camera: 'busy', place, detection: yard(), clips: [] }
    const oneDay = { ...tuned, from: START, to: START + DAY_MS }
    // The thread's own start is not what is asked about.
    await threads.ask({ type: 'strip', camera: 'busy', from: START, to: START + DAY_MS })
    const [swept, sweeping] = await timed(() =>
      Promise.all(
        [0, 1].map((part) =>
          threads.ask({
            type: 'sweep',
            ...oneDay,
            setting: 'sensitivity',
            part: [part, 2],
            marks: marks.filter(({ at }) => at < START + DAY_MS)
          })
        )
      )
    )
    const values = swept.flatMap((part) => part.swept).length
    say(`sweep of ${values} values over a day`, seconds(sweeping), '40 values: under 5 s')
    let steps = 0
    const [found, recommending] = await timed(() =>
      threads.ask(
        { type: 'recommend', walks: [], ...tuned, from: START, to: START + 7 * DAY_MS, marks },
        () => steps++
      )
    )
    say(`recommendation over a week, ${marks.length} marks`, seconds(recommending), 'under 60 s')
    say(
      '  kept and gone on days left out; steps of progress',
      `${found.leftOut?.kept}/${found.leftOut?.wanted}, ${found.leftOut?.gone}/${found.leftOut?.nuisances}; ${steps}`
    )
    memory(join(folder, 'long'))
  } finally {
    await threads.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Eight days of 50 cameras, as the thread that follows them writes them; what it holds afterwards. */
function memory(folder: string): void {
  const writer = writerOf(folder)
  const held: number[] = []
  for (let hour = 0; hour < 8 * 24; hour++) {
    for (let c = 0; c < 50; c++) {
      const camera = `c${c}`
      const at = START + hour * HOUR_MS
      writer.begin(camera, at)
      for (let k = 0; k < 300; k++)
        writer.take(camera, at + k * 1000, [
          { id: hour * 300 + k, class: 'person', x: 0.4, y: 0.4, w: 0.1, h: 0.2 }
        ])
    }
    writer.flush(START + hour * HOUR_MS + 1_800_000)
    if (hour % 24 === 23) {
      globalThis.gc?.()
      held.push(process.memoryUsage().heapUsed / 1e6)
    }
  }
  writer.closeAll(START + 8 * DAY_MS)
  say(
    'heap after each of 8 days of 50 cameras',
    held.map((mb) => mb.toFixed(0)).join(' ') + ' MB',
    'flat'
  )
}
