import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { readDemo } from '../../demo/scenes.ts'
import { armInputsOf, trueTracks } from '../../simulation/evidence.ts'
import type { Play } from '../../simulation/script.ts'
import { EndpointHours, type SiteActions } from '../actions/plan.ts'
import { ActionsSchema, EndpointSchema, type Actions } from '../formats/actions.ts'
import { CheckSchema, type About, type Check } from '../formats/check.ts'
import { DetectionSchema, readPlan, type Detection } from '../formats/plan.ts'
import { emptyMeasures } from '../measures/measures.ts'
import { judge, totals, type Verdict } from './judge.ts'
import { proposeChecks, type Proposals } from './propose.ts'
import { coverageOf, isSameCheck, proofOf, settingsText } from './standing.ts'
import type { Stage } from './stage.ts'
import { parseWith } from '../schema/parse.ts'
import { WEATHERS } from '../formats/weather.ts'
import type { Surroundings } from '../sites/surroundings.ts'

/**
 * The demo site's own plan and scenes: invented data. What is checked is that a setting broken on
 * purpose is noticed.
 */
const demo = JSON.parse(readFileSync('demo/plan.json', 'utf8')) as {
  plan: unknown
  endpoints: unknown[]
}
const plan = readPlan(JSON.stringify(demo.plan))
const endpoints = demo.endpoints.map((e) => parseWith(EndpointSchema, e))
const NOW = Date.parse('2026-11-26T09:00:00Z')
const { scene } = readDemo('slipway')
const playOf = (walk: object): Play =>
  ({ scene, script: { id: 'walk', name: 'walk', ...walk } }) as Play
const stage: Stage = {
  pose: { ...scene.camera, aspect: scene.width / scene.height },
  fps: scene.fps,
  tracksOf: (walk) => trueTracks(playOf(walk))
}

const detection = (settings: object): Detection =>
  parseWith(DetectionSchema, { id: 'd', name: 'D', ...settings })
const line = (more: object = {}): Detection =>
  detection({
    kind: 'line',
    line: [
      [0.18, 0.545],
      [0.78, 0.53]
    ],
    direction: 'leftToRight',
    classes: ['person'],
    ...more
  })
/** On the quay before the slip; an adult who stands in it has most of the body in it. */
const zone = [
  [0.3, 0.3],
  [0.7, 0.3],
  [0.72, 0.8],
  [0.28, 0.8]
]
const stay = (more: object = {}): Detection =>
  detection({ kind: 'intrusion', zone, classes: ['person'], dwellSeconds: 6, ...more })
const nothing = parseWith(ActionsSchema, { links: [] })

const known = new Map<string, Proposals>()
/** Worked out once for each setting: it takes a while. */
function propose(d: Detection, actions: Actions = nothing, ignore: Areas = []): Proposals {
  const key = JSON.stringify([d, actions, ignore])
  if (!known.has(key)) known.set(key, proposalsFor(d, actions, ignore))
  return known.get(key)!
}
type Areas = [number, number][][]
const proposalsFor = (
  d: Detection,
  actions: Actions,
  ignore: Areas,
  surroundings?: Surroundings
): Proposals =>
  proposeChecks({
    ...(surroundings && { surroundings }),
    detection: d,
    ignore,
    actions,
    endpoints,
    site: { timeZone: plan.timeZone, position: plan.position, schedules: plan.schedules },
    from: NOW,
    stage,
    painted: true,
    inputName: (id) => id
  })

function run(check: Check, d: Detection, actions: Actions = nothing, ignore: Areas = []): Verdict {
  if (check.by.how !== 'walk') throw new Error('no walk')
  const play = playOf(check.by.walk)
  const measures = emptyMeasures(
    { columns: 22, rows: 18 },
    640,
    360,
    scene.fps,
    Math.round(check.by.walk.seconds * scene.fps)
  )
  measures.fresh.fill(1)
  const site: SiteActions = {
    endpoints,
    hours: new EndpointHours(plan.schedules, plan.timeZone, plan.position),
    people: { people: [], groups: [] },
    mail: { host: 'mail', port: 25, encryption: 'none', username: null, sender: 'a@b.example' },
    outputs: new Set(endpoints.flatMap((e) => ('output' in e ? [`${e.device} ${e.output}`] : [])))
  }
  return judge(
    check,
    { tracks: trueTracks(play), measures },
    {
      setting: {
        plan,
        camera: { ignore, detections: [d] },
        fps: scene.fps,
        start: check.at,
        inputs: armInputsOf(play, check.at)
      },
      follows: { actions, site }
    }
  )
}

/** Those that need no picture to be painted. */
const walked = (checks: readonly Check[]): Check[] =>
  checks.filter((c) => c.by.how === 'walk' && c.by.through === 'truth')

describe('proposed checks pass with the settings they were proposed from', () => {
  test.each([
    ['a line', line()],
    ['a line in both directions', line({ direction: 'both' })],
    [
      'a line with all gates',
      line({
        confirmSeconds: 0.8,
        holdOffSeconds: 6,
        schedule: 'nights',
        size: { min: { w: 0.01, h: 0.05 }, max: { w: 0.3, h: 0.6 } }
      })
    ],
    ['a zone with dwell', stay()],
    ['a zone for two', stay({ atLeast: 2 })],
    ['an entry', detection({ kind: 'entry', zone, classes: ['person'] })],
    ['an exit', detection({ kind: 'exit', zone, classes: ['person'] })],
    ['loitering', detection({ kind: 'loitering', zone, dwellSeconds: 8, classes: ['person'] })],
    ['vehicles only', line({ classes: ['vehicle'] })],
    ['a contact', detection({ kind: 'contact', input: 'door', debounceSeconds: 1 })],
    [
      'a face',
      detection({
        kind: 'face',
        faceMin: { w: 0.004, h: 0.01 },
        mask: 'without',
        list: 'listed',
        faces: ['Ines O.'],
        classes: ['person']
      })
    ]
  ])('%s', (_, d) => {
    const { checks } = propose(d)
    expect(checks.length).toBeGreaterThan(3)
    expect(checks.some((c) => c.expect.what === 'silence')).toBe(true)
    expect(new Set(checks.map((c) => c.id)).size).toBe(checks.length)
    for (const check of checks) expect(parseWith(CheckSchema, check)).toEqual(check)
    expect(
      walked(checks)
        .map((c) => [c.id, run(c, d).outcome, run(c, d).sentence])
        .filter(([, outcome]) => outcome === 'failed')
    ).toEqual([])
  })
})

/** Of the checks proposed for a sound setting, those that fail once it is broken. */
const failing = (
  sound: Detection,
  broken: object,
  actions = nothing,
  then = actions
): { about: About; name: Check['name'] }[] =>
  walked(propose(sound, actions).checks)
    .filter((c) => run(c, { ...sound, ...broken }, then).outcome === 'failed')
    .map(({ about, name }) => ({ about, name }))

describe('breaking a setting fails the checks of its gate', () => {
  test.each<[About, Detection, object]>([
    ['direction', line(), { direction: 'rightToLeft' }],
    ['direction', line(), { direction: 'both' }],
    ['share', line(), { sensitivity: 95 }],
    ['share', line(), { sensitivity: 20 }],
    ['class', line(), { classes: ['vehicle'] }],
    ['class', line(), { classes: [] }],
    ['size', line({ size: { min: { w: 0.01, h: 0.05 } } }), { size: { min: { w: 0.2, h: 0.6 } } }],
    ['size', line({ size: { min: { w: 0.01, h: 0.05 } } }), { size: undefined }],
    ['confirm', line({ confirmSeconds: 0.8, sensitivity: 80 }), { confirmSeconds: 0 }],
    ['confirm', line({ confirmSeconds: 0.8 }), { confirmSeconds: 30 }],
    ['dwell', stay(), { dwellSeconds: 12 }],
    ['dwell', stay(), { dwellSeconds: 1 }],
    ['together', stay({ atLeast: 2 }), { atLeast: 3 }],
    ['together', stay({ atLeast: 2 }), { atLeast: 1 }],
    ['holdOff', line({ holdOffSeconds: 6 }), { holdOffSeconds: 0 }],
    ['holdOff', line({ holdOffSeconds: 6 }), { holdOffSeconds: 60 }],
    ['armed', line({ schedule: 'nights' }), { schedule: undefined }],
    ['armInput', line({ armInput: { input: 'panel', inverted: false } }), { armInput: undefined }],
    [
      'armInput',
      line({ armInput: { input: 'panel', inverted: false } }),
      { armInput: { input: 'panel', inverted: true } }
    ],
    [
      'contact',
      detection({ kind: 'contact', input: 'door', debounceSeconds: 1 }),
      { normally: 'closed' }
    ],
    [
      'delay',
      detection({ kind: 'contact', input: 'door', debounceSeconds: 1 }),
      { debounceSeconds: 0 }
    ],
    [
      'face',
      detection({ kind: 'face', faceMin: { w: 0.004, h: 0.01 }, classes: ['person'] }),
      { faceMin: { w: 0.3, h: 0.3 } }
    ],
    [
      'mask',
      detection({
        kind: 'face',
        faceMin: { w: 0.004, h: 0.01 },
        mask: 'without',
        classes: ['person']
      }),
      { mask: 'any' }
    ],
    [
      'list',
      detection({
        kind: 'face',
        faceMin: { w: 0.004, h: 0.01 },
        list: 'listed',
        faces: ['Ines O.'],
        classes: ['person']
      }),
      { list: 'any' }
    ]
  ])('%s', (about, sound, broken) => {
    expect(failing(sound, broken).map((f) => f.about)).toContain(about)
  })

  test.each([
    ['a zone', stay()],
    ['a line', line()]
  ])('ignore area: %s; without it, a target inside triggers', (_, d) => {
    // All of the quay but its left end.
    const areas: Areas = [
      [
        [0.4, 0.45],
        [1, 0.45],
        [1, 1],
        [0.4, 1]
      ]
    ]
    const check = propose(d, nothing, areas).checks.find((c) => c.about === 'ignore')!
    expect(run(check, d, nothing, areas)).toMatchObject({ outcome: 'passed' })
    expect(run(check, d)).toMatchObject({ outcome: 'failed', false: 1 })
    expect(
      propose(d, nothing, [
        [
          [0, 0],
          [0.05, 0],
          [0.05, 0.05]
        ]
      ]).gaps
    ).toContainEqual(expect.objectContaining({ about: 'ignore' }))
  })

  test('switched off: every check that must trigger fails and says why', () => {
    const [check] = propose(line()).checks.filter((c) => c.expect.what === 'trigger')
    expect(run(check!, { ...line(), enabled: false })).toMatchObject({
      outcome: 'failed',
      sentence: 'D is switched off.'
    })
  })

  test('actions: notices a removed link and a changed output schedule', () => {
    const links = parseWith(ActionsSchema, { links: ['duty-mail', 'strobe-mast', 'record'] })
    const d = line()
    const about = (then: object) =>
      failing(d, {}, links, parseWith(ActionsSchema, then)).map((f) => f.name)
    expect(about({ links: ['duty-mail', 'strobe-mast', 'record'] })).toEqual([])
    expect(about({ links: ['strobe-mast', 'record'] })).toEqual([
      'Actions: E-mail to duty and Recording'
    ])
    expect(about({ links: ['duty-mail', 'record'] })).toEqual([
      'Strobe on the mast acts within its schedule'
    ])
    const check = propose(d, links).checks.find((c) => c.id === 'd.outputs')!
    expect(
      run({ ...check, effects: [{ endpoint: 'record', acts: true, beforeSeconds: 10 }] }, d, links)
        .effects
    ).toMatchObject([{ wrong: 'it starts 5 s before the trigger, 10 s expected' }])
  })
})

describe('says what cannot be walked', () => {
  test('a zone too low for a body', () => {
    const { checks, gaps } = propose(
      stay({
        zone: [
          [0.3, 0.62],
          [0.7, 0.62],
          [0.7, 0.68],
          [0.3, 0.68]
        ],
        sensitivity: 20
      })
    )
    expect(checks).toEqual([])
    expect(gaps[0]!.words).toSay(/^At most [\d.]+% of the body fits in the zone; 80% is required/)
  })

  test('without a scene, suggests calibration, a clip or a person', () => {
    const { checks, gaps } = proposeChecks({
      detection: line(),
      ignore: [],
      actions: nothing,
      endpoints,
      site: { timeZone: 'UTC', position: undefined, schedules: [] },
      from: NOW,
      stage: null,
      painted: false,
      inputName: (id) => id
    })
    expect(checks).toEqual([])
    expect(gaps[0]!.words).toSay(
      'This camera is not calibrated, so nothing can walk in its scene. Calibrate it on the Bench, or use a clip or a person on site.'
    )
  })
})

describe('scores', () => {
  // Worked by hand: 3 expected, 2 came; 3 came, 2 of them expected. F1 = 2·R·P/(R+P).
  test('of all checks', () => {
    const result = totals([
      { hits: 1, misses: 0, false: 0 },
      { hits: 1, misses: 1, false: 0 },
      { hits: 0, misses: 0, false: 1 }
    ])
    expect(result).toMatchObject({ hits: 2, misses: 1, false: 1 })
    expect(result.recall).toBeCloseTo(2 / 3, 12)
    expect(result.precision).toBeCloseTo(2 / 3, 12)
    expect(result.f1).toBeCloseTo(2 / 3, 12)
  })

  test('of one check with an extra trigger, a wrong direction, or outside its window', () => {
    const check = propose(line()).checks.find((c) => c.id === 'd.direction.leftToRight')!
    const d = line()
    expect(run(check, d)).toMatchObject({ outcome: 'passed', hits: 1, misses: 0, false: 0 })
    expect(run({ ...check, expect: { what: 'trigger', from: 0, to: 0.5 } }, d)).toMatchObject({
      outcome: 'failed',
      hits: 0,
      misses: 1,
      sentence: expect.saying('Triggered at 3.3 s; expected between 0.0 s and 0.5 s.')
    })
    expect(
      run({ ...check, expect: { what: 'trigger', from: 0, to: 10, times: 2 } }, d)
    ).toMatchObject({ outcome: 'failed', sentence: 'Expected 2 triggers, 1 came.' })
    expect(run({ ...check, expect: { what: 'silence' } }, d)).toMatchObject({
      outcome: 'failed',
      false: 1,
      sentence: expect.saying('Triggered at 3.3 s, but must not trigger.')
    })
    const back = propose(line({ direction: 'both' })).checks.find(
      (c) => c.id === 'd.direction.rightToLeft'
    )!
    expect(
      run(
        { ...back, expect: { ...back.expect, direction: 'leftToRight' } as Check['expect'] },
        line({ direction: 'both' })
      )
    ).toMatchObject({ outcome: 'failed', hits: 0, misses: 1 })
  })
})

describe('state of a proof', () => {
  const d = line({ schedule: 'nights' })
  const [check, other] = propose(d).checks
  const settings = { detection: d, plan, camera: { ignore: [] }, actions: nothing, endpoints }

  test('a proof depends on exactly the settings it was made with', () => {
    const text = settingsText(check!, settings)
    const unlike = (change: object) =>
      expect(settingsText(check!, { ...settings, ...change })).not.toBe(text)
    expect(settingsText(check!, { ...settings, endpoints: [] })).toBe(text)
    expect(settingsText(check!, { ...settings, detection: { ...d, note: { text: 'Why' } } })).toBe(
      text
    )
    unlike({ detection: { ...d, sensitivity: 51 } })
    unlike({
      plan: {
        ...plan,
        schedules: plan.schedules.map((s) =>
          s.id === 'nights' ? { ...s, week: { ...s.week, mon: [] } } : s
        )
      }
    })
    unlike({
      camera: {
        ignore: [
          [
            [0, 0],
            [1, 0],
            [1, 1]
          ]
        ]
      }
    })
    unlike({ actions: parseWith(ActionsSchema, { links: ['duty-mail'] }) })
    expect(settingsText({ ...check!, name: 'Other' }, settings)).not.toBe(text)
  })

  test('a proposal is the same on another day, not an hour later', () => {
    const day = 24 * 3600_000
    expect(isSameCheck(check!, { ...check!, at: check!.at + day }, 'Europe/London')).toBe(true)
    expect(isSameCheck(check!, { ...check!, at: check!.at + 3600_000 }, 'Europe/London')).toBe(
      false
    )
    // Across the change of the clock, 29 March 2026: the same hour on the wall.
    const noon = Date.parse('2026-03-28T12:00:00Z')
    expect(
      isSameCheck(
        { ...check!, at: noon },
        { ...check!, at: noon + day - 3600_000 },
        'Europe/London'
      )
    ).toBe(true)
  })

  test('coverage and proof', () => {
    const { checks, gaps } = propose(d)
    const armed = coverageOf(checks, gaps).find((c) => c.about === 'armed')!
    expect(armed).toMatchObject({ inside: 2, outside: 2, cannot: { inside: null, outside: null } })
    const results = new Map([
      [check!.id, { passed: true, current: true }],
      [other!.id, { passed: false, current: true }],
      [checks[2]!.id, { passed: true, current: false }]
    ])
    expect(proofOf(checks, results)).toMatchObject({
      checks: checks.length,
      passed: 1,
      failed: 1,
      outdated: 1,
      failing: [other!.name]
    })
  })
})

test('weather is checked only where it can come: none indoors, no rain or snow under a roof', () => {
  const motion = detection({ kind: 'motion' })
  const weathers = (surroundings: Surroundings): string[] => [
    ...new Set(
      proposalsFor(motion, nothing, [], surroundings).checks.flatMap(({ by }) =>
        by.how === 'walk' ? WEATHERS.filter((w) => by.walk.weather[w] > 0) : []
      )
    )
  ]
  expect(weathers('outdoors')).toEqual(expect.arrayContaining(['wind', 'rain', 'snow']))
  expect(weathers('roofed')).not.toEqual(expect.arrayContaining(['rain']))
  expect(weathers('roofed')).not.toEqual(expect.arrayContaining(['snow']))
  expect(weathers('indoors')).toEqual([])
  // What else is proposed stays: motion that must and must not trigger.
  const names = proposalsFor(motion, nothing, [], 'indoors').checks.map(({ side }) => side)
  expect(new Set(names)).toEqual(new Set(['inside', 'outside']))
})
