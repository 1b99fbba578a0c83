import { execFile, execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import clipping from 'polygon-clipping'
import { Analyser } from '../analysis/analyser.ts'
import { analysedSize, decodeFrames } from '../analysis/frames.ts'
import { Measurer } from '../analysis/measures/measurer.ts'
import { loadOpenCv } from '../analysis/opencv.ts'
import { probe } from '../analysis/probe.ts'
import { USUAL_GRID } from '../core/measures/measures.ts'
import { DEMO_CAMERAS } from '../demo/scenes.ts'
import { FAULT_KINDS, LIGHTS } from '../simulation/script.ts'
import {
  Evaluator,
  evaluate,
  explain,
  explainAll,
  type Setting,
  type Trigger
} from '../core/detections/index.ts'
import { shareInOutline } from '../core/geometry/share.ts'
import { signedArea } from '../core/geometry/shapes.ts'
import { readMot } from '../core/formats/mot.ts'
import { DetectionSchema, type Detection } from '../core/formats/plan.ts'
import { CLASSES } from '../core/targets/classes.ts'
import { spansOf, tracksFromRows, type TargetRow, type Tracks } from '../core/targets/tracks.ts'
import { benchActions } from './actions/main.ts'
import { benchClasses } from './classes/main.ts'
import { benchDevices } from './devices/main.ts'
import { benchRtsp } from './rtsp/main.ts'
import { benchInterface } from './interface/main.ts'
import { benchFirstPage } from './firstPage.ts'
import { benchFirstStart } from './firstStart.ts'
import { benchHandover } from './handover/main.ts'
import { benchLookBack } from './lookBack/main.ts'
import { benchNight } from './night.ts'
import { benchProving } from './proving/main.ts'
import { benchSites } from './sites/main.ts'
import { benchSoak } from './soak/main.ts'
import { median, say } from './say.ts'
import { parseWith } from '../core/schema/parse.ts'

/**
 * The figures that the project promises, measured in one run: npm run bench.
 * Footage: `vtest.avi` of Debian's opencv-doc. Every line says what was measured, and what is promised.
 */
const vtest = '/usr/share/doc/opencv-doc/examples/data/vtest.avi'
const root = fileURLToPath(new URL('..', import.meta.url))

const settingOf = (detections: Detection[], fps = 10): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: { ignore: [], detections },
  fps,
  start: 0
})
const line = (change: object): Detection =>
  parseWith(DetectionSchema, {
    id: 'l',
    name: 'L',
    kind: 'line',
    line: [
      [0.2, 0.5],
      [0.8, 0.5]
    ],
    ...change
  })

/** A made clip: walkers that wander back and forth about the line, so many at a time, ten frames a second. */
function madeClip(seconds: number, together: number): Tracks {
  const rows: TargetRow[] = []
  let state = 12345
  const random = (): number => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648
  const walkers = Array.from({ length: together }, (_, id) => ({
    id,
    x: random(),
    y: random(),
    vx: 0.02 - 0.04 * random(),
    vy: 0.02 - 0.04 * random()
  }))
  for (let frame = 1; frame <= seconds * 10; frame++)
    for (const w of walkers) {
      w.x += w.vx * 0.1
      w.y += w.vy * 0.1
      if (w.x < 0 || w.x > 0.9) w.vx = -w.vx
      if (w.y < 0 || w.y > 0.8) w.vy = -w.vy
      rows.push({
        frame,
        id: w.id + 1,
        x: w.x,
        y: w.y,
        w: 0.05,
        h: 0.16,
        cls: 'person',
        confidence: 1
      })
    }
  return tracksFromRows(rows, 10)
}

/** Of the rows of tracks longer than 2 s, the share whose class is person; vehicles that are parked all the time apart. */
function peopleIn(tracks: Tracks): number {
  const classes = spansOf(tracks)
    .filter(({ from, to }) => to - from > 2)
    .filter(({ cls, from, to }) => !(cls === 'vehicle' && to - from > 70))
    .flatMap(({ rows }) => rows.map((row) => CLASSES[tracks.cls[row]!]))
  return classes.filter((cls) => cls === 'person').length / classes.length
}

function benchAnalyse(): void {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-bench-'))
  try {
    const out = join(folder, 'tracks.csv')
    const analysed = (detector: 'on' | 'off', promised: string): Tracks => {
      const began = performance.now()
      execFileSync(
        'npm',
        [
          ...['run', '--silent', 'analyse', '--', vtest],
          ...['--out', out, '--silent', '--detector', detector]
        ],
        { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] }
      )
      const took = (performance.now() - began) / 1000
      say(
        `analyse vtest.avi (79.5 s), the whole command, detector ${detector}`,
        `${took.toFixed(1)} s, ${(79.5 / took).toFixed(1)} × real time`,
        promised
      )
      const tracks = readMot(readFileSync(out, 'utf8'), 10, { width: 768, height: 576 })
      say(
        '  rows of tracks longer than 2 s that are people',
        `${(100 * peopleIn(tracks)).toFixed(1)} %`,
        detector === 'on' ? 'at least 95 %' : ''
      )
      return tracks
    }
    analysed('off', 'at least 8 ×')
    const tracks = analysed('on', 'at least 4 ×')
    const lawn = line({
      line: [
        [0.8, 1],
        [0.8, 0.8],
        [0.62, 0.66]
      ],
      direction: 'rightToLeft'
    })
    const times = evaluate(settingOf([lawn]), tracks).map((t) => t.time.toFixed(1))
    say(
      '  the lawn’s right edge, triggers at',
      `${times.join(', ')} s`,
      'none before 50 s, one in 50.5 to 53 s'
    )
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

function benchDrag(): void {
  const tracks = madeClip(600, 7)
  const first: number[] = []
  const ladders: number[] = []
  let triggers = 0
  for (let i = 0; i < 25; i++) {
    const setting = settingOf([
      line({
        line: [
          [0.2, 0.3 + 0.01 * i],
          [0.5, 0.5],
          [0.8, 0.5]
        ]
      })
    ])
    const began = performance.now()
    triggers = evaluate(setting, tracks).length
    first.push(performance.now() - began)
    if (i % 5) continue
    const again = performance.now()
    explainAll(setting, tracks, 'l')
    ladders.push(performance.now() - again)
  }
  // The first evaluation is that of opening the clip, with nothing compiled yet; a drag comes after it.
  const [opening, ...drag] = first as [number, number]
  const rate = tracks.length / median(drag) / 1000
  say(
    `a vertex dragged over ${tracks.length} rows of 10 minutes`,
    `median ${median(drag).toFixed(1)} ms, worst ${Math.max(...drag).toFixed(1)} ms`,
    'under 100 ms'
  )
  say('  the first evaluation, on opening the clip', `${opening.toFixed(1)} ms`)
  say('  rate of the line crossing', `${rate.toFixed(1)} million rows/s`, `(${triggers} triggers)`)
  say('  the ladders of all its targets', `median ${median(ladders).toFixed(1)} ms`)
}

/** One core: the demo's clip from decoded pictures on, as the server's worker does it. */
async function benchMeasures(): Promise<void> {
  const { cv } = await loadOpenCv()
  const footage = await probe(
    fileURLToPath(new URL('../demo/clips/slipway-morning.mp4', import.meta.url)),
    'slipway'
  )
  const size = analysedSize(footage)
  const pictures: Uint8Array[] = []
  for await (const { picture } of decodeFrames(
    fileURLToPath(new URL('../demo/clips/slipway-morning.mp4', import.meta.url)),
    footage,
    size
  ))
    pictures.push(picture.slice())
  const rates: number[] = []
  for (let i = 0; i < 4; i++) {
    const analyser = new Analyser(cv, size, footage.fps)
    const began = performance.now()
    for (const picture of pictures) analyser.next(picture)
    analyser.finish()
    rates.push(pictures.length / footage.fps / ((performance.now() - began) / 1000))
    analyser.delete()
  }
  const measurer = new Measurer(USUAL_GRID, size.width, size.height, footage.fps)
  const began = performance.now()
  for (const picture of pictures) measurer.next(picture)
  const alone = (performance.now() - began) / pictures.length
  say(
    `targets and frame measures of ${pictures.length} frames of 640 × 360`,
    `median ${median(rates).toFixed(1)} × real time`,
    'at least 8 ×'
  )
  say('  the frame measures of it', `${alone.toFixed(2)} ms a frame`)
}

/** Runs scenes in processes of their own, two at a time, and gives the triggers of each. */
async function watchAll(list: object[]): Promise<Trigger[][]> {
  const results: Trigger[][] = []
  let next = 0
  const worker = async (): Promise<void> => {
    while (next < list.length) {
      const i = next++
      const { stdout } = await promisify(execFile)(
        process.execPath,
        ['scripts/run.mjs', 'demo/testing/watch.mts', JSON.stringify([list[i]])],
        { cwd: root }
      )
      results[i] = JSON.parse(stdout) as Trigger[]
    }
  }
  await Promise.all([worker(), worker()])
  return results
}

async function benchTamper(): Promise<void> {
  const detections = [{ kind: 'tamper' }, { kind: 'signalLoss', delaySeconds: 3 }]
  const at = 10
  const faults = FAULT_KINDS.flatMap((kind, k) =>
    DEMO_CAMERAS.map((camera, i) => ({ kind, camera, light: LIGHTS[(k + i) % LIGHTS.length] }))
  )
  const found = await watchAll(
    faults.map(({ kind, camera, light }, i) => ({
      camera,
      targets: false,
      detections,
      script: {
        seconds: at + 5.1,
        light,
        seed: 6000 + i,
        weather: { wind: 0.4 },
        faults: [{ kind, from: at }],
        actors: [
          {
            kind: 'adult',
            from: 2,
            way: [
              [-4, 12],
              [4, 12]
            ]
          }
        ]
      }
    }))
  )
  const missed = faults.filter((_, i) => !found[i]!.some((t) => t.time >= at))
  say(
    `faults found within delay + 2 s, of ${faults.length}`,
    String(faults.length - missed.length),
    missed.map((f) => `${f.kind} on ${f.camera}, ${f.light}`).join('; ') || 'all'
  )
  const weathers = [
    { rain: 1, wind: 1 },
    { snow: 1, wind: 0.6 },
    { fog: 0.8 },
    { clouds: 1, wind: 1 },
    { rain: 0.7, clouds: 0.8 },
    { wind: 1, fog: 0.4 }
  ]
  const hour = DEMO_CAMERAS.flatMap((camera, c) =>
    weathers.map((weather, w) => ({
      camera,
      targets: false,
      detections,
      script: {
        seconds: 100,
        light: LIGHTS[(c + w) % LIGHTS.length],
        seed: 7000 + 10 * c + w,
        weather,
        headlights: [{ from: 20 }, { from: 60 }],
        insects: [{ from: 40, to: 52 }],
        actors: [
          {
            kind: 'van',
            from: 8,
            way: [
              [-8, 12, 0],
              [0, 12, 12],
              [8, 12, 0]
            ],
            speed: 3
          },
          {
            kind: 'group',
            from: 50,
            way: [
              [8, 9],
              [-8, 9]
            ]
          }
        ]
      }
    }))
  )
  const seen = await watchAll(hour)
  const wrong = seen.flatMap((triggers, i) =>
    triggers.map(
      (t) =>
        `${hour[i]!.camera} ${hour[i]!.script.light} ${JSON.stringify(hour[i]!.script.weather)}: ${t.cause ?? t.kind} at ${t.time} s`
    )
  )
  say(
    `an hour of weather (${hour.length} × 100 s), no fault: triggers`,
    String(wrong.length),
    `none ${wrong.join('; ')}`
  )
}

/** A made clip of an hour: twelve targets at a time, each there for half a minute, then another one. */
function madeHour(): Tracks {
  const rows: TargetRow[] = []
  for (let frame = 1; frame <= 36_000; frame++)
    for (let k = 0; k < 12; k++) {
      const visit = Math.floor((frame - 1 + k * 25) / 300)
      const t = ((frame - 1 + k * 25) % 300) / 300
      rows.push({
        frame,
        id: visit * 12 + k + 1,
        x: 0.05 + 0.07 * k,
        y: 0.1 + 0.7 * ((visit + k) % 2 ? t : 1 - t),
        w: 0.05,
        h: 0.16,
        cls: 'person',
        confidence: 1
      })
    }
  return tracksFromRows(rows, 10)
}

function benchEngine(): void {
  const tracks = madeHour()
  const zone: [number, number][] = [
    [0.1, 0.35],
    [0.45, 0.3],
    [0.6, 0.5],
    [0.9, 0.4],
    [0.85, 0.75],
    [0.4, 0.6],
    [0.12, 0.7]
  ]
  const kinds: [string, Detection, number][] = [
    ['line', line({ holdOffSeconds: 2 }), 2],
    [
      'zone',
      parseWith(DetectionSchema, { id: 'l', name: 'Z', kind: 'intrusion', zone, dwellSeconds: 3 }),
      1
    ]
  ]
  for (const [name, detection, promised] of kinds) {
    const took: number[] = []
    let triggers: Trigger[] = []
    for (let i = 0; i < 5; i++) {
      const began = performance.now()
      triggers = evaluate(settingOf([detection]), tracks)
      took.push(performance.now() - began)
    }
    say(
      `${name} over ${tracks.length} rows of an hour`,
      `${(tracks.length / median(took) / 1000).toFixed(1)} million rows/s`,
      `at least ${promised} million rows/s (${triggers.length} triggers)`
    )
    const traces: number[] = []
    for (let target = 100; target < 140; target++) {
      const began = performance.now()
      explain(settingOf([detection]), tracks, 'l', target, undefined, triggers)
      traces.push(performance.now() - began)
    }
    say(
      '  the trace of one target',
      `median ${median(traces).toFixed(2)} ms, worst ${Math.max(...traces).toFixed(2)} ms`,
      'under 5 ms'
    )
  }
  benchShares(zone, tracks)
  benchMemory(
    tracks,
    kinds.map(([, d]) => d)
  )
}

function benchShares(zone: [number, number][], tracks: Tracks): void {
  const count = 20_000
  let own = 0
  let general = 0
  const [xs, ys] = [Float64Array.from(zone, ([x]) => x), Float64Array.from(zone, ([, y]) => y)]
  const began = performance.now()
  for (let i = 0; i < count; i++)
    own += shareInOutline(xs, ys, tracks.x[i]!, tracks.y[i]!, tracks.w[i]!, tracks.h[i]!)
  const ownTook = performance.now() - began
  const again = performance.now()
  for (let i = 0; i < count; i++) {
    const [x, y, w, h] = [tracks.x[i]!, tracks.y[i]!, tracks.w[i]!, tracks.h[i]!]
    for (const [ring] of clipping.intersection(
      [
        [
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h]
        ]
      ],
      [zone]
    ))
      general += Math.abs(signedArea(ring!)) / (w * h)
  }
  const ratio = (performance.now() - again) / ownTook
  say(
    'the zone’s shares beside polygon-clipping',
    `${ratio.toFixed(0)} × faster`,
    `at least 40 × (sums differ by ${Math.abs(own - general).toExponential(1)})`
  )
}

/** The incremental form, fed an hour again and again as one long clip: what it keeps must not grow. */
function benchMemory(tracks: Tracks, detections: Detection[]): void {
  const evaluator = new Evaluator(settingOf(detections.map((d, i) => ({ ...d, id: `d${i}` }))))
  const sizes: number[] = []
  for (let hour = 0; hour < 4; hour++) {
    const later = {
      ...tracks,
      frame: tracks.frame.map((f) => f + hour * 36_000),
      id: tracks.id.map((id) => id + hour * 2000)
    }
    for (let i = 0; i < later.length;) {
      const from = i
      while (i < later.length && later.frame[i] === later.frame[from]) i++
      evaluator.push(later, from, i)
    }
    globalThis.gc?.()
    sizes.push(process.memoryUsage().heapUsed / 2 ** 20)
  }
  say(
    'memory of the incremental form after each of 4 hours',
    `${sizes.map((s) => s.toFixed(1)).join(', ')} MB`,
    'must not grow'
  )
}

console.log(`${cpus()[0]!.model}, ${cpus().length} cores, Node ${process.version}\n`)
if (process.argv.includes('--devices')) await benchDevices()
else if (process.argv.includes('--classes')) await benchClasses()
else if (process.argv.includes('--handover')) await benchHandover()
else if (process.argv.includes('--first-start')) await benchFirstStart()
else if (process.argv.includes('--first-page')) await benchFirstPage()
else if (process.argv.includes('--night')) await benchNight()
else if (process.argv.includes('--look-back')) await benchLookBack()
else if (process.argv.includes('--rtsp')) await benchRtsp()
else if (process.argv.includes('--sites')) await benchSites()
else if (process.argv.includes('--interface')) await benchInterface()
else if (process.argv.includes('--actions')) await benchActions()
else if (process.argv.includes('--proving')) await benchProving()
else if (process.argv.includes('--soak'))
  await benchSoak(Math.max(5, Number(process.argv[process.argv.indexOf('--soak') + 1]) || 60))
else {
  benchAnalyse()
  await benchMeasures()
  benchDrag()
  benchEngine()
  if (process.argv.includes('--weather')) await benchTamper()
  else
    console.log(
      '\nthe hour of weather and every fault on every camera: npm run bench -- --weather (some ten minutes)'
    )
  console.log('a site of 200 cameras: npm run bench -- --devices (some five minutes)')
  console.log('looking back over days: npm run bench -- --look-back (some two minutes)')
  console.log('classes on public pictures: npm run bench -- --classes (some two minutes)')
  console.log('pictures over RTSP: npm run bench -- --rtsp (some two minutes)')
  console.log('one of fifty sites: npm run bench -- --sites (some seconds)')
  console.log('checks, Watch and search: npm run bench -- --proving (some five minutes)')
  console.log('arming and actions under load: npm run bench -- --actions (some two minutes)')
  console.log('the Bench in Chromium: npm run bench -- --interface (some two minutes)')
}
