import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { evaluate } from '../core/detections/index.ts'
import { DetectionSchema } from '../core/formats/plan.ts'
import { iou, overlap } from './target.ts'
import {
  firstRowOfFrame,
  frameAt,
  rowAt,
  spansOf,
  type TargetRow,
  type Tracks
} from '../core/targets/tracks.ts'
import { CALM } from '../core/formats/weather.ts'
import { actor, plainWalk } from '../core/proving/stage.ts'
import { demoPlay, readDemo } from '../demo/scenes.ts'
import { renderInWorker } from '../simulation/renderInWorker.ts'
import { truth } from '../simulation/truth.ts'
import { actorsOf } from '../simulation/world.ts'
import { analyseInWorker } from './inWorker.ts'
import { analysedSize, decodeFrames } from './frames.ts'
import { analysedFps, probe } from './probe.ts'
import { parseWith } from '../core/schema/parse.ts'
import { recommend } from '../core/tuning/recommend/recommend.ts'

const vtest = '/usr/share/doc/opencv-doc/examples/data/vtest.avi'
const demo = fileURLToPath(new URL('../demo/clips/slipway-morning.mp4', import.meta.url))

const rowsAt = (tracks: Tracks, seconds: number): TargetRow[] => {
  const frame = frameAt(seconds, tracks.fps)
  const rows: TargetRow[] = []
  for (let i = firstRowOfFrame(tracks, frame); i < tracks.length && tracks.frame[i] === frame; i++)
    rows.push(rowAt(tracks, i))
  return rows
}
/** The target whose box holds a point of the picture. */
const targetAt = (
  tracks: Tracks,
  [seconds, x, y]: readonly [number, number, number]
): number | undefined =>
  rowsAt(tracks, seconds)
    .filter((r) => x >= r.x && x <= r.x + r.w && y >= r.y && y <= r.y + r.h)
    .sort((a, b) => Math.abs(a.x + a.w / 2 - x) - Math.abs(b.x + b.w / 2 - x))[0]?.id

/** OpenCV's sample `vtest.avi` (Debian's opencv-doc): real people on a real campus. */
describe('real footage', () => {
  let tracks: Tracks
  beforeAll(async () => {
    const analysis = await analyseInWorker(vtest)
    expect(analysis).toMatchObject({ frames: 795, footage: { width: 768, height: 576, fps: 10 } })
    tracks = analysis.tracks
  })

  // Places of one person each, read off the footage by eye: seconds, x, y of the trunk. Alone all the time between.
  test.each([
    [
      'in red, walking away to the left',
      [
        [50, 0.42, 0.4],
        [51.5, 0.335, 0.38],
        [53, 0.27, 0.35],
        [54.5, 0.205, 0.345],
        [56, 0.127, 0.35]
      ]
    ],
    [
      'in dark, walking to the left and standing there',
      [
        [18, 0.5, 0.443],
        [18.8, 0.418, 0.43],
        [21, 0.22, 0.385],
        [24, 0.066, 0.37],
        [26.3, 0.069, 0.37]
      ]
    ],
    [
      'on the upper path at the left, turning back',
      [
        [23.3, 0.385, 0.348],
        [24, 0.327, 0.344],
        [25.5, 0.256, 0.326],
        [28, 0.17, 0.31]
      ]
    ],
    [
      'with light hair, alone on the lawn',
      [
        [60.5, 0.44, 0.87],
        [61.3, 0.498, 0.866],
        [63, 0.49, 0.82],
        [68, 0.23, 0.68]
      ]
    ],
    [
      'in red and black, leaving the lawn',
      [
        [59, 0.475, 0.64],
        [59.8, 0.575, 0.63],
        [60.5, 0.68, 0.61]
      ]
    ]
  ] as [string, [number, number, number][]][])('one person keeps one identity: %s', (_, places) => {
    const ids = places.map((place) => targetAt(tracks, place))
    expect(ids[0]).toBeDefined()
    expect(new Set(ids).size).toBe(1)
  })

  // references.md: nobody is on the large lawn before 50 s; two people walk onto it from the right at 51 to 52.5 s.
  test('a line at the right edge of the lawn triggers between 50.5 s and 53 s, and not before 50 s', () => {
    const lawn = parseWith(DetectionSchema, {
      id: 'lawn',
      name: 'Lawn',
      kind: 'line',
      line: [
        [0.8, 1],
        [0.8, 0.8],
        [0.62, 0.66]
      ],
      direction: 'rightToLeft'
    })
    const times = evaluate(
      {
        plan: { schedules: [], timeZone: 'UTC' },
        camera: { ignore: [], detections: [lawn] },
        fps: 10,
        start: 0
      },
      tracks
    ).map((t) => t.time)
    expect(times.filter((t) => t < 50)).toEqual([])
    expect(times.filter((t) => t >= 50.5 && t <= 53).length).toBeGreaterThan(0)
  })

  test('an intrusion zone on the lawn triggers between 50.5 s and 53 s, and not before 50 s', () => {
    const lawn = parseWith(DetectionSchema, {
      id: 'lawn',
      name: 'Lawn',
      kind: 'intrusion',
      zone: [
        [0.03, 0.55],
        [0.25, 0.56],
        [0.5, 0.7],
        [0.62, 0.8],
        [0.85, 0.95],
        [0.85, 1],
        [0, 1]
      ],
      sensitivity: 60
    })
    const times = evaluate(
      {
        plan: { schedules: [], timeZone: 'UTC' },
        camera: { ignore: [], detections: [lawn] },
        fps: 10,
        start: 0
      },
      tracks
    ).map((t) => t.time)
    expect(times.filter((t) => t < 50)).toEqual([])
    expect(times.filter((t) => t >= 50.5 && t <= 53).length).toBeGreaterThan(0)
  })

  // Marked by eye on the pictures: five who leave or come in at the left edge, and five who only come as far as the middle
  // of the road and turn round there. Seconds, x, y of the trunk.
  test('settings recommended by marks made by eye keep who is wanted, and are better than what was set', () => {
    const road = parseWith(DetectionSchema, {
      id: 'road',
      name: 'Road',
      kind: 'intrusion',
      zone: [
        [0, 0.36],
        [0.44, 0.36],
        [0.44, 0.56],
        [0, 0.56]
      ],
      classes: ['person']
    })
    const marked = (mark: 'wanted' | 'nuisance', places: [number, number, number][]) =>
      places.map((place) => {
        const target = targetAt(tracks, place)
        expect(target).toBeDefined()
        return { file: 0, time: place[0], target: target!, mark }
      })
    const found = recommend({
      place: { plan: { schedules: [], timeZone: 'UTC' }, camera: { ignore: [] } },
      detection: road,
      stretches: [{ tracks, start: 0 }],
      marks: [
        ...marked('wanted', [
          [21, 0.06, 0.31],
          [26.5, 0.07, 0.37],
          [56, 0.13, 0.36],
          [61, 0.04, 0.38],
          [73, 0.1, 0.37]
        ]),
        ...marked('nuisance', [
          [27, 0.39, 0.42],
          [31, 0.38, 0.43],
          [33, 0.35, 0.37],
          [66, 0.38, 0.34],
          [73, 0.38, 0.37]
        ])
      ]
    })
    expect(found).toMatchObject({ kept: 5, wanted: 5, nuisances: 5, leftOut: null })
    expect(found.now.kept).toBeLessThanOrEqual(5)
    expect(found.gone).toBeGreaterThanOrEqual(3)
    expect(found.gone).toBeGreaterThan(found.now.gone)
  })

  // By eye: a van and a car are parked beyond the lawn, at the right edge, all the time; nothing else stands still.
  test('a parked van and a parked car are vehicles from the first frame to the last', () => {
    const parked = spansOf(tracks).filter(({ cls, rows }) => cls === 'vehicle' && rows.length > 700)
    expect(parked.map(({ rows }) => [rows.length, tracks.frame[rows[0]!]])).toEqual([
      [795, 1],
      [795, 1]
    ])
  })

  test('classifies nearly every row as a person where only people walk', () => {
    // What is parked is another matter.
    const classes = spansOf(tracks)
      .filter(({ cls, from, to }) => to - from > 2 && !(cls === 'vehicle' && to - from > 70))
      .flatMap(({ rows }) => rows.map((row) => rowAt(tracks, row).cls))
    const share = (cls: string): number => classes.filter((c) => c === cls).length / classes.length
    expect(share('person')).toBeGreaterThan(0.95)
    expect(share('person') + share('unknown')).toBeGreaterThan(0.999)
  })
})

/** The demo clip, whose truth is known because the project painted it. */
describe('the demo clip against the truth of its script', () => {
  let tracks: Tracks
  const play = demoPlay('slipway', 'morning')
  const actors = actorsOf(play.script)
  beforeAll(async () => (tracks = (await analyseInWorker(demo)).tracks))

  test('finds each actor as one target with its class', () => {
    for (const actor of actors) {
      const votes = new Map<number, number>()
      let whole = 0
      for (let frame = 1; frame <= play.script.seconds * play.scene.fps; frame++) {
        const seconds = (frame - 1) / play.scene.fps
        const box = truth(play, seconds).find((t) => t.id === actor.id)?.box
        if (!box || box.x < 0.01 || box.y < 0 || box.x + box.w > 0.99 || box.y + box.h > 0.99)
          continue
        whole++
        const [best] = rowsAt(tracks, seconds).sort((a, b) => iou(b, box) - iou(a, box))
        if (best && iou(best, box) > 0.3) votes.set(best.id, (votes.get(best.id) ?? 0) + 1)
      }
      const [id, seen] = [...votes].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
      const share = actor.kind === 'gull' ? 0.3 : 0.75 // wings are drawn wider than the true box, and beat
      expect({ actor: actor.id, found: seen / whole > share }).toEqual({
        actor: actor.id,
        found: true
      })
      expect(spansOf(tracks).find((s) => s.id === id)?.cls).toBe(
        actor.kind === 'adult' ? 'person' : 'animal'
      )
    }
  })

  test('takes glitter on the water and sensor noise for no target', () => {
    expect(new Set(tracks.id).size).toBe(actors.length)
  })

  test('triggers for the walk down the ramp, the walk up, and the one who comes up from the water', () => {
    const edge = parseWith(DetectionSchema, {
      id: 'e',
      name: 'E',
      kind: 'line',
      line: [
        [0.18, 0.545],
        [0.5, 0.54],
        [0.78, 0.53]
      ],
      classes: ['person']
    })
    const triggers = evaluate(
      {
        plan: { schedules: [], timeZone: 'UTC' },
        camera: { ignore: [], detections: [edge] },
        fps: 10,
        start: 0
      },
      tracks
    )
    expect(triggers.map((t) => t.direction)).toEqual(['rightToLeft', 'leftToRight', 'leftToRight'])
    expect(triggers[0]!.target).toBe(triggers[1]!.target)
    expect(triggers[2]!.target).not.toBe(triggers[0]!.target)
  })
})

/** Painted, so that it is known who stands where, and for how long. */
describe('who comes and stands still', () => {
  let folder: string
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'wardoptic-stands-'))))
  afterAll(() => rmSync(folder, { recursive: true, force: true }))

  const loiters = actor(
    'adult',
    [
      [2.4, 16.95],
      [-2.6, 16.95, 21],
      [2.4, 16.95]
    ],
    { from: 2.5, speed: 1.6 }
  )
  const waits = actor(
    'car',
    [
      [5.91, 9.49],
      [-1.09, 9.49, 26],
      [5.91, 9.49]
    ],
    { from: 2.5, speed: 5 }
  )
  test.each([
    ['somebody in infra-red', 'fuel-pontoon', 27, { light: 'infrared' }, [loiters], 'person'],
    [
      'somebody in snow',
      'fuel-pontoon',
      27,
      { weather: { ...CALM, snow: 0.4 } },
      [loiters],
      'person'
    ],
    ['a car at night', 'vehicle-lanes', 30, { light: 'infrared' }, [waits], 'vehicle']
  ] as const)('%s is one target until it has gone', async (_, camera, seconds, look, who, cls) => {
    const play = {
      scene: readDemo(camera).scene,
      script: { id: 'w', name: 'W', ...plainWalk(seconds, [...who]), ...look }
    }
    const file = join(folder, 'stands.mp4')
    await renderInWorker(play, file)
    const { tracks } = await analyseInWorker(file, { detector: false })
    const stands = spansOf(tracks).filter((span) => span.cls === cls)
    expect(stands).toHaveLength(1)
    const { rows } = stands[0]!
    expect(tracks.frame[rows.at(-1)!]! - tracks.frame[rows[0]!]! + 1).toBe(rows.length)
    for (const row of rows) {
      const [at, { x, y, w, h }] = [(tracks.frame[row]! - 1) / tracks.fps, rowAt(tracks, row)]
      const box = truth(play, at)[0]?.box
      if (box && at > 6 && at < seconds - 6)
        expect(overlap({ x, y, w, h }, box)).toBeGreaterThan(0.6 * w * h)
    }
    expect(rows.length / tracks.fps).toBeGreaterThan(seconds - 7)
  })
})

describe('other kinds of footage', () => {
  let folder: string
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'wardoptic-footage-'))))
  afterAll(() => rmSync(folder, { recursive: true, force: true }))

  test('divides a rate above 15 by a whole number', () => {
    expect([10, 15, 25, 30, 50, 60].map(analysedFps)).toEqual([10, 15, 12.5, 15, 12.5, 15])
    expect(analysedFps(30000 / 1001)).toBeCloseTo(14.985, 3)
  })

  test.each([
    ['mp4', '30'],
    ['avi', '25'],
    ['mkv', '30000/1001'],
    ['webm', '24'],
    ['ts', '25'],
    ['mov', '60']
  ])('%s at %s frames/s has as many frames as its length', async (kind, rate) => {
    const file = join(folder, `clip.${kind}`)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      `testsrc=duration=4:size=320x240:rate=${rate}`,
      ...(kind === 'webm' ? ['-c:v', 'libvpx', '-deadline', 'realtime'] : []),
      file
    ])
    const footage = await probe(file, kind)
    const decoded = decodeFrames(file, footage, analysedSize(footage))
    let frames = 0
    for await (const { picture } of decoded) if (picture.length) frames++
    expect((await decoded.ending()).code).toBe(0)
    expect(Math.abs(frames / footage.fps - 4)).toBeLessThan(2.01 / footage.fps)
  })

  test.each([
    [
      'covered by even grey',
      "drawbox=t=fill:color=gray:enable='between(t,10,20)'",
      ['tamper', 'signalLoss']
    ],
    ['frozen', 'trim=0:10,tpad=stop_mode=clone:stop_duration=15', ['signalLoss']]
  ])(
    'a picture that comes again and again, %s, is told for what it is',
    async (_, filter, kinds) => {
      const file = join(folder, 'again.mp4')
      execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', demo, '-vf', filter, '-t', '25', file])
      const { tracks, measures, footage } = await analyseInWorker(file, { detector: false })
      const detections = ['tamper', 'signalLoss'].map((kind) =>
        parseWith(DetectionSchema, { id: kind, name: kind, kind })
      )
      const triggers = evaluate(
        {
          plan: { schedules: [], timeZone: 'UTC' },
          camera: { ignore: [], detections },
          fps: footage.fps,
          start: 0
        },
        tracks,
        measures
      )
      expect(triggers.map(({ detection }) => detection)).toEqual(kinds)
      for (const { cause } of triggers) if (cause) expect(cause).toBe('covered')
    }
  )

  test('a stop between frames ends it with the given reason', async () => {
    const stop = new AbortController()
    const stopped = analyseInWorker(vtest, {
      signal: stop.signal,
      onProgress: () => stop.abort(new Error('enough'))
    })
    await expect(stopped).rejects.toThrowWords('enough')
  })

  test('the command writes its findings, and refuses files that are not clips', () => {
    const run = (...args: string[]) => {
      try {
        return {
          code: 0,
          text: execFileSync(process.execPath, ['scripts/run.mjs', 'analysis/cli.ts', ...args], {
            encoding: 'utf8',
            stdio: ['ignore', 'pipe', 'pipe']
          })
        }
      } catch (error: any) {
        return { code: error.status, text: error.stderr }
      }
    }
    const out = join(folder, 'tracks.csv')
    const short = join(folder, 'short.mp4')
    execFileSync('ffmpeg', ['-v', 'error', '-i', demo, '-t', '12', '-c', 'copy', short])
    expect(run(short, '--out', out, '--silent')).toEqual({ code: 0, text: '' })
    expect(readFileSync(out, 'utf8').split('\n')[0]).toMatch(/^\d+,1,/)
    writeFileSync(join(folder, 'letter.txt'), 'Dear sir')
    expect(run(join(folder, 'letter.txt'), '--out', out)).toMatchObject({
      code: 1,
      text: expect.saying('is not a video that can be read')
    })
    expect(run(join(folder, 'nothing.avi'), '--out', out)).toMatchObject({
      code: 1,
      text: expect.saying('does not exist')
    })
    expect(run(demo)).toMatchObject({ code: 2, text: expect.saying('--out is missing') })
    expect(run()).toMatchObject({ code: 2 })
  })
})
