import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { analyseInWorker } from '../analysis/inWorker.ts'
import { evaluate, type Trigger } from '../core/detections/index.ts'
import { DetectionSchema } from '../core/formats/plan.ts'
import { KEEPS_MEMORY } from '../simulation/keepsMemory.ts'
import type { FaultKind } from '../simulation/script.ts'
import { DEMO_CAMERAS } from './scenes.ts'
import { parseWith } from '../core/schema/parse.ts'

/** What the detections make of painted scenes; seeds from 5000 on are used nowhere else, nothing was tuned on them. */
interface Watched {
  camera: string
  script: object
  detections: object[]
  targets: boolean
}
const watch = (list: Watched[]): Trigger[][] =>
  execFileSync(
    process.execPath,
    ['scripts/run.mjs', 'demo/testing/watch.mts', JSON.stringify(list)],
    { encoding: 'utf8', maxBuffer: 2 ** 26, env: { ...process.env, ...KEEPS_MEMORY } }
  )
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Trigger[])

const tamper = { kind: 'tamper' }
const signalLoss = { kind: 'signalLoss', delaySeconds: 3 }
/** From when on a fault is on, and how long the clips go on after it: the delay of 3 s, 2 s more, and one frame. */
const AT = 6

describe('finds every fault within its delay and two seconds', () => {
  const faults: FaultKind[] = [
    'covered',
    'sprayed',
    'defocused',
    'knocked',
    'lightsOut',
    'washedOut'
  ]
  const lost = ['cableCut', 'frozen'] as const
  let found: Trigger[][]
  // Each fault on a camera, by day or by night; on all of them, in every light, in npm run bench -- --weather. In one
  // process: each has OpenCV to load.
  beforeAll(() => {
    found = watch([
      ...faults.map((kind, n): Watched => ({
        camera: DEMO_CAMERAS[n]!,
        targets: false,
        detections: [tamper],
        script: {
          seconds: AT + 5.1,
          light: n % 2 ? 'infrared' : 'day',
          seed: 5000 + n,
          weather: { wind: 0.3 },
          faults: [{ kind, from: AT }],
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
      })),
      ...lost.map((kind): Watched => ({
        camera: 'quay-path',
        targets: false,
        detections: [signalLoss, tamper],
        script: { seconds: AT + 5.1, seed: 5010, faults: [{ kind, from: AT }] }
      }))
    ])
  })

  test.each(faults)('%s: by tamper', (kind) => {
    const triggers = found[faults.indexOf(kind)]!
    expect(triggers).toHaveLength(1)
    expect(triggers[0]!.time).toBeGreaterThanOrEqual(AT + 3 - 1e-9)
  })

  test.each(lost)('%s: by video loss', (kind) => {
    const triggers = found[faults.length + lost.indexOf(kind)]!
    expect(triggers.map((t) => [t.kind, t.time])).toEqual([['signalLoss', AT + 2.9]])
  })
})

test('weather by day and night causes neither tamper nor video loss', () => {
  const weathers = [
    { rain: 1, wind: 1 },
    { snow: 1, wind: 0.6 },
    { fog: 0.8 },
    { clouds: 1, wind: 1 },
    { rain: 0.7, clouds: 0.8 },
    { wind: 1, fog: 0.4 }
  ]
  // On every other camera; on all of them, in every light, in npm run bench -- --weather.
  const list = DEMO_CAMERAS.map((camera, i): Watched => ({
    camera,
    targets: false,
    detections: [tamper, signalLoss],
    script: {
      seconds: 13,
      light: (['day', 'dusk', 'night', 'infrared', 'day', 'night'] as const)[i],
      seed: 5020 + i,
      weather: weathers[i],
      headlights: [{ from: 5 }],
      insects: [{ from: 8, to: 12 }],
      actors: [
        {
          kind: 'van',
          from: 4,
          way: [
            [-8, 12],
            [8, 12]
          ],
          speed: 3
        }
      ]
    }
  }))
  const some = list.filter((_, i) => i % 2 === 0)
  expect(watch(some)).toEqual(some.map(() => []))
})

describe('motion beside motion by class', () => {
  const storm = { wind: 1, rain: 0.9, clouds: 0.7 }
  const motion = { kind: 'motion', sensitivity: 50 }
  // As an integrator sets it up for this path: persons, the smallest frame just under one at its far end.
  const people = {
    kind: 'classMotion',
    sensitivity: 50,
    threshold: 1,
    classes: ['person'],
    confirmSeconds: 0.3,
    size: { min: { w: 0.014, h: 0.06 } }
  }

  test('in an empty storm, motion triggers and motion by class does not', () => {
    const [triggers] = watch([
      {
        camera: 'quay-path',
        targets: true,
        detections: [motion, people],
        script: { seconds: 60, seed: 5030, weather: storm }
      }
    ]) as [Trigger[]]
    expect(triggers.filter((t) => t.kind === 'motion').length).toBeGreaterThan(0)
    expect(triggers.filter((t) => t.kind === 'classMotion')).toEqual([])
  })

  test('a walk in the rain triggers motion by class and a line', () => {
    const line = {
      kind: 'line',
      line: [
        [0.5, 0.4],
        [0.5, 0.95]
      ],
      classes: ['person']
    }
    const [triggers] = watch([
      {
        camera: 'quay-path',
        targets: true,
        detections: [people, line],
        script: {
          seconds: 34,
          seed: 5031,
          weather: storm,
          actors: [
            {
              kind: 'adult',
              from: 10,
              way: [
                [-14, 17.4],
                [14, 19]
              ],
              speed: 1.5
            }
          ]
        }
      }
    ]) as [Trigger[]]
    expect(new Set(triggers.map((t) => t.kind))).toEqual(new Set(['classMotion', 'line']))
  })
})

/** OpenCV's sample `tree.avi` (Debian's opencv-doc): real foliage moving in wind. Somebody comes after 3 s. */
test('real foliage in wind triggers nothing for a person before 3 s', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-tree-'))
  const file = join(folder, 'tree.avi')
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-i',
    '/usr/share/doc/opencv-doc/examples/data/tree.avi',
    '-t',
    '4',
    '-c:v',
    'ffv1',
    file
  ])
  const { tracks, measures, footage } = await analyseInWorker(file)
  rmSync(folder, { recursive: true })
  expect(tracks.length).toBeGreaterThan(0)
  const everywhere = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1]
  ]
  const people = { classes: ['person'] }
  const detections = [
    { kind: 'classMotion', threshold: 0.1, onDelaySeconds: 0, ...people },
    { kind: 'intrusion', zone: everywhere, ...people },
    { kind: 'entry', zone: everywhere, ...people },
    { kind: 'face', ...people },
    ...[0.2, 0.4, 0.6, 0.8].map((x) => ({
      kind: 'line',
      line: [
        [x, 0],
        [x, 1]
      ],
      ...people
    }))
  ].map((d, i) => parseWith(DetectionSchema, { id: `d${i}`, name: `D${i}`, ...d }))
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
  expect(triggers.filter((t) => t.time < 3)).toEqual([])
})
