import { describe, expect, test } from '@jest/globals'
import { type Detection } from '../formats/plan.ts'
import {
  ability,
  asSent,
  camera,
  channel,
  clip,
  detection,
  device,
  facts,
  line,
  zone,
  type Walk
} from './testing/facts.ts'
import { findingsOf, readinessOf, type Facts, type Finding, type QuickFix } from './index.ts'
import { allCells } from '../kinds/parts.ts'

const found = (what: Facts, code: string): Finding[] =>
  findingsOf(what).filter((f) => f.code === code)
const lineD = (more: object = {}) => detection({ kind: 'line', line, classes: ['person'], ...more })
const zoneD = (more: object = {}) =>
  detection({ kind: 'intrusion', zone, classes: ['person'], ...more })
const edited = (f: Finding): Detection => (f.fix as Extract<QuickFix, { does: 'edit' }>).detection
/** The site after a finding's edit of the plan. */
const fixed = (what: Facts, f: Finding): Facts => {
  const d = edited(f)
  return {
    ...what,
    cameras: what.cameras.map((c) => ({
      ...c,
      detections: c.detections.some(({ id }) => id === d.id)
        ? c.detections.map((x) => (x.id === d.id ? d : x))
        : [...c.detections, d]
    }))
  }
}

test('a healthy camera has no issues, and both steps are done', () => {
  const d = lineD()
  const { cameras, findings } = readinessOf(
    facts([camera([d], { clips: [clip([{ from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }])] })])
  )
  expect(findings).toEqual([])
  expect(cameras).toEqual([
    {
      id: 'gate',
      steps: { drawn: 'done', armed: 'done', linked: 'done', sent: 'done', proven: 'done' },
      changes: 0
    }
  ])
})

describe('the device itself', () => {
  test.each([
    ['new', 'default-password', 'no account yet'],
    [
      'offline',
      'offline',
      'The camera can’t be reached: nothing can be sent to it, and no events arrive.'
    ],
    [
      'wrong-password',
      'offline',
      'The camera does not accept the user name and password. Enter the right ones under Devices.'
    ],
    ['broken', 'offline', 'invalid response'],
    ['clock-off', 'clock-off', 'The camera’s clock is 95 s fast. Set its clock.']
  ] as const)('%s: %s', (state, code, words) => {
    const what = facts([camera([lineD()])], { devices: [device({ state, clockAhead: 95 })] })
    expect(found(what, code)).toMatchObject([
      { severity: 'blocking', device: 'cam', sentence: expect.saying(words) }
    ])
    expect(readinessOf(what).cameras[0]!.steps.sent).toBe('failed')
  })
})

describe('what the device can do', () => {
  const perimeter = {
    type: 'wo:Perimeter',
    runs: ['tt:LineDetector', 'tt:FieldDetector'],
    running: false
  }
  const faces = { type: 'wo:Faces', runs: ['wo:FaceDetector'], running: true }

  test('analysis-off: the needed family is off; the fix switches to it', () => {
    const modes = (running: boolean) =>
      facts([
        camera([lineD()], {
          channels: [
            {
              ...asSent([lineD()]),
              modes: [
                { ...perimeter, running },
                { ...faces, running: !running }
              ]
            }
          ]
        })
      ])
    expect(found(modes(true), 'analysis-off')).toEqual([])
    expect(found(modes(false), 'analysis-off')).toMatchObject([
      {
        severity: 'blocking',
        sentence: 'One can’t run: The camera is in Faces mode, One needs Perimeter.',
        fix: { does: 'mode', device: 'cam', channel: 'analytics', type: 'wo:Perimeter' }
      }
    ])
  })

  test('mode-conflict: detections of two families that exclude each other', () => {
    const both = [lineD(), detection({ id: 'two', kind: 'face', classes: ['person'] })]
    const of = (list: Detection[]) =>
      facts([camera(list, { channels: [{ ...asSent(list), modes: [perimeter, faces] }] })])
    expect(found(of(both), 'mode-conflict')).toMatchObject([
      {
        severity: 'blocking',
        sentence: expect.saying(
          'Gate needs Perimeter and Faces, and The camera runs one of them at a time. Switch some detections off, or use another device for them.'
        )
      }
    ])
    expect(found(of([both[0]!]), 'mode-conflict')).toEqual([])
  })

  test('motion-off: motion by class without motion; the fix adds it or switches it on', () => {
    const byClass = detection({ kind: 'classMotion', classes: ['person'], cells: allCells() })
    const what = facts([camera([byClass])])
    const [f] = found(what, 'motion-off') as [Finding]
    expect(f).toMatchObject({
      severity: 'blocking',
      fix: { does: 'add', detection: { kind: 'motion', enabled: true } }
    })
    expect(found(fixed(what, f), 'motion-off')).toEqual([])
    const off = detection({ id: 'motion', kind: 'motion', enabled: false })
    const [g] = found(facts([camera([byClass, off])]), 'motion-off') as [Finding]
    expect(edited(g)).toMatchObject({ id: 'motion', enabled: true })
  })

  test('too-many: of one kind, and in total', () => {
    const lines = ['one', 'two', 'three'].map((id) => lineD({ id }))
    const with2 = channel({ abilities: [ability('tt:LineDetector', { most: 2 })] })
    expect(
      found(facts([camera(lines, { channels: [asSent(lines, with2)] })]), 'too-many')
    ).toMatchObject([
      {
        severity: 'blocking',
        sentence: expect.saying(
          'Gate has 3 detections of the kind line crossing; The camera takes 2 and will refuse 1.'
        )
      }
    ])
    expect(
      found(
        facts([camera(lines, { channels: [asSent(lines, channel({ mostRules: 2 }))] })]),
        'too-many'
      )
    ).toHaveLength(1)
    expect(
      found(
        facts([camera(lines, { channels: [asSent(lines, channel({ mostRules: 3 }))] })]),
        'too-many'
      )
    ).toEqual([])
  })

  test('recorder-full: a camera needs its analysis and no channel is left', () => {
    const d = lineD()
    const poor = camera([d], { channels: [channel({ abilities: [] })] })
    const recorder = (on: string | null) =>
      channel({ device: 'rec', deviceName: 'Recorder', token: 'c1', camera: on })
    const second = { ...recorder('other'), token: 'c2' }
    expect(
      found(facts([poor], { recorders: [recorder('another'), second] }), 'recorder-full')
    ).toMatchObject([
      {
        severity: 'blocking',
        device: 'rec',
        camera: 'gate',
        sentence: expect.saying(
          'Gate needs the analysis of Recorder for One, but all 2 channels analyse other cameras.'
        )
      }
    ])
    expect(found(facts([poor], { recorders: [recorder(null), second] }), 'recorder-full')).toEqual(
      []
    )
  })

  test('kind-unsupported: on no route in use; the fix uses one that supports it', () => {
    const d = lineD()
    const poor = channel({ abilities: [ability('tt:TamperDetector')] })
    const recorder = channel({ device: 'rec', deviceName: 'Recorder', token: 'c1', used: false })
    expect(found(facts([camera([d], { channels: [poor] })]), 'kind-unsupported')).toMatchObject([
      { severity: 'blocking', detection: 'one', fix: null }
    ])
    expect(
      found(facts([camera([d], { channels: [poor, recorder] })]), 'kind-unsupported')
    ).toMatchObject([{ fix: { does: 'door', device: 'rec', channel: 'c1' } }])
    expect(
      found(
        facts([camera([d], { channels: [poor, { ...recorder, used: true }] })]),
        'kind-unsupported'
      )
    ).toEqual([])
  })

  test('out-of-range: blocks beyond the scale, hints between steps; the fix takes the nearest', () => {
    const d = zoneD({ dwellSeconds: 25 })
    const coarse = channel({
      abilities: [
        ability('tt:FieldDetector', {
          ranges: { Sensitivity: { min: 1, max: 4 }, TimeThreshold: { min: 0, max: 10 } }
        })
      ]
    })
    const what = facts([camera([d], { channels: [asSent([d], coarse)] })])
    const [dwell, step] = found(what, 'out-of-range') as [Finding, Finding]
    expect(dwell).toMatchObject({
      severity: 'blocking',
      sentence: 'One: The camera can’t use a dwell of 25 s; it will use 10 s.',
      fix: { words: 'Use 10 s in the plan' }
    })
    expect(edited(dwell)).toMatchObject({ dwellSeconds: 10, sensitivity: 50 })
    expect(step).toMatchObject({ severity: 'hint' })
    expect(edited(step)).toMatchObject({ dwellSeconds: 25, sensitivity: 34 })
    expect(
      found(
        fixed(fixed(what, dwell), {
          ...step,
          fix: { ...step.fix, detection: { ...edited(dwell), sensitivity: 34 } } as QuickFix
        }),
        'out-of-range'
      )
    ).toEqual([])
  })

  test('not-held: settings the device has no field for', () => {
    const d = lineD({ confirmSeconds: 1 })
    const poor = channel({
      abilities: [ability('tt:LineDetector', { parameters: ['Sensitivity', 'ClassFilter'] })]
    })
    expect(
      found(facts([camera([d], { channels: [asSent([d], poor)] })]), 'not-held')
    ).toMatchObject([
      {
        severity: 'warning',
        sentence: 'The camera ignores One’s confirmation time (1 s): on site it is left out.'
      }
    ])
    expect(found(facts([camera([d])]), 'not-held')).toEqual([])
  })

  test('wrong-door: an unused route would carry the setting', () => {
    const d = lineD({ confirmSeconds: 1 })
    const poor = channel({
      abilities: [ability('tt:LineDetector', { parameters: ['Sensitivity', 'ClassFilter'] })]
    })
    const recorder = channel({ device: 'rec', deviceName: 'Recorder', token: 'c1', used: false })
    const what = facts([camera([d], { channels: [asSent([d], poor), recorder] })])
    expect(found(what, 'wrong-door')).toMatchObject([
      { severity: 'warning', fix: { does: 'door', device: 'rec' } }
    ])
    expect(found(what, 'not-held')).toEqual([])
    expect(
      found(
        facts([
          camera([d], { channels: [asSent([d], poor), { ...asSent([d], recorder), used: true }] })
        ]),
        'wrong-door'
      )
    ).toEqual([])
  })

  test('switches-back: what it was seen to switch on; quiet once parked or in use', () => {
    const back = (list: Detection[]) =>
      facts([
        camera(list, { channels: [{ ...asSent(list), switchesBack: ['tt:TamperDetector'] }] })
      ])
    const [f] = found(back([lineD()]), 'switches-back') as [Finding]
    expect(f).toMatchObject({
      severity: 'warning',
      fix: { does: 'add', detection: { kind: 'tamper', parked: true } }
    })
    expect(found(fixed(back([lineD()]), f), 'switches-back')).toEqual([])
    expect(found(back([detection({ kind: 'tamper' })]), 'switches-back')).toEqual([])
    expect(
      edited(found(back([detection({ kind: 'tamper', enabled: false })]), 'switches-back')[0]!)
    ).toMatchObject({ enabled: true, parked: true })
  })
})

describe('what the device holds', () => {
  test('not-sent: added, changed, and removed from the plan', () => {
    const d = lineD()
    expect(found(facts([camera([d], { channels: [channel()] })]), 'not-sent')).toMatchObject([
      {
        severity: 'warning',
        sentence: '1 unsent change on The camera (One); Gate runs the old settings.',
        fix: { does: 'send', devices: ['cam'] }
      }
    ])
    const held = asSent([d])
    const unmanagedRule = {
      ...held,
      held: [...held.held, { ...held.held[0]!, name: 'somebody-else' }]
    }
    expect(
      found(
        facts([camera([d, zoneD({ id: 'two' })], { channels: [unmanagedRule] })]),
        'not-sent'
      )[0]!.sentence
    ).toSay('2 unsent changes on')
    expect(readinessOf(facts([camera([d], { channels: [channel()] })])).cameras[0]).toEqual({
      id: 'gate',
      steps: { drawn: 'done', armed: 'done', linked: 'done', sent: 'open', proven: 'done' },
      changes: 1
    })
  })

  test('drift: it holds something else than was sent', () => {
    const d = lineD({ sensitivity: 50 })
    const sent = asSent([d])
    const drifted = {
      ...sent,
      held: [{ ...sent.held[0]!, simple: { ...sent.held[0]!.simple, Sensitivity: '80' } }]
    }
    const what = facts([camera([d], { channels: [drifted] })])
    expect(found(what, 'drift')).toMatchObject([
      {
        severity: 'blocking',
        sentence: expect.saying('sensitivity 50, now 80'),
        fix: { does: 'send' }
      }
    ])
    expect(found(what, 'not-sent')).toEqual([])
    // The plan was changed in the meantime to what the device holds: nothing is left to say.
    expect(
      found(
        facts([camera([{ ...d, sensitivity: 80 } as Detection], { channels: [drifted] })]),
        'drift'
      )
    ).toEqual([])
  })
})

describe('drawings compared with clips', () => {
  const across: Walk = { from: [0.1, 0.6], to: [0.9, 0.6], seconds: 20 }
  const seen = (d: Detection, walks: Walk[], more: object = {}) =>
    facts([camera([d], { clips: [clip(walks)], ...more })])

  test('frames-swapped: the smallest is not inside the largest', () => {
    const d = lineD({ size: { min: { w: 0.2, h: 0.4 }, max: { w: 0.05, h: 0.1 } } })
    const what = facts([camera([d])])
    const [f] = found(what, 'frames-swapped') as [Finding]
    expect(f.severity).toBe('blocking')
    expect(edited(f)).toMatchObject({ size: { min: { w: 0.05, h: 0.1 }, max: { w: 0.2, h: 0.4 } } })
    expect(found(fixed(what, f), 'frames-swapped')).toEqual([])
    expect(
      found(facts([camera([lineD({ size: { minMetres: 2, maxMetres: 1 } })])]), 'frames-swapped')
    ).toHaveLength(1)
  })

  test('frames-reject-all: no target of the clips fits; the fix fits the limits', () => {
    const d = lineD({ size: { min: { w: 0.3, h: 0.5 }, max: { w: 0.6, h: 0.9 } } })
    const what = seen(d, [across])
    const [f] = found(what, 'frames-reject-all') as [Finding]
    expect(f.severity).toBe('warning')
    expect(found(fixed(what, f), 'frames-reject-all')).toEqual([])
    expect(
      found(seen(lineD({ size: { min: { w: 0.01, h: 0.03 } } }), [across]), 'frames-reject-all')
    ).toEqual([])
  })

  test('line-at-edge: closer to the edge than a target is large', () => {
    const walk: Walk = { from: [0.01, 0.6], to: [0.3, 0.6], seconds: 10 }
    expect(
      found(
        seen(
          lineD({
            line: [
              [0.03, 0.2],
              [0.03, 0.9]
            ]
          }),
          [walk]
        ),
        'line-at-edge'
      )
    ).toMatchObject([{ severity: 'warning', sentence: expect.saying('left edge') }])
    expect(
      found(
        seen(
          lineD({
            line: [
              [0.15, 0.2],
              [0.15, 0.9]
            ]
          }),
          [walk]
        ),
        'line-at-edge'
      )
    ).toEqual([])
  })

  test('seen-too-short: crossed within 2 s of first sight', () => {
    const quick: Walk = { from: [0.4, 0.6], to: [0.9, 0.6], seconds: 5 }
    expect(found(seen(lineD(), [quick]), 'seen-too-short')).toMatchObject([
      { severity: 'warning', sentence: expect.saying(/visible for (0\.9|1(\.1)?) s/) }
    ])
    expect(found(seen(lineD(), [across]), 'seen-too-short')).toEqual([])
  })

  test('target-too-large: above a tenth of the picture, as a limit or on the clips', () => {
    expect(
      found(facts([camera([lineD({ size: { max: { w: 0.4, h: 0.5 } } })])]), 'target-too-large')
    ).toMatchObject([
      {
        sentence: expect.saying(
          'One: its largest target is 20% of the picture; above 10% targets can’t be classified reliably.'
        )
      }
    ])
    expect(found(seen(lineD(), [{ ...across, w: 0.3, h: 0.6 }]), 'target-too-large')).toMatchObject(
      [
        {
          sentence: expect.saying(
            'One: targets fill 18% of the picture there; above 10% they can’t be classified reliably. Move it further from the camera.'
          )
        }
      ]
    )
    expect(found(seen(lineD(), [across]), 'target-too-large')).toEqual([])
  })

  test('target-too-small: below 25 px/m at the far end of a calibrated scene', () => {
    const pose = { height: 6, tilt: 20, fieldOfView: 50, aspect: 16 / 9 }
    expect(
      found(
        seen(
          lineD({
            line: [
              [0.5, 0.2],
              [0.5, 0.9]
            ]
          }),
          [across],
          { pose }
        ),
        'target-too-small'
      )
    ).toMatchObject([
      {
        severity: 'warning',
        sentence: expect.saying(
          'One: 10.2 px/m at its far end; detection needs 25 px/m. Draw it nearer, or use a longer lens.'
        )
      }
    ])
    expect(
      found(
        seen(
          lineD({
            line: [
              [0.2, 0.9],
              [0.8, 0.9]
            ]
          }),
          [across],
          { pose }
        ),
        'target-too-small'
      )
    ).toEqual([])
  })

  test('obstructed: targets are lost at one place repeatedly', () => {
    const lost = [0, 1, 2, 3, 4].map((n): Walk => ({
      from: [0.1, 0.6],
      to: [0.5, 0.6],
      seconds: 10,
      begins: 12 * n
    }))
    expect(found(seen(zoneD(), lost), 'obstructed')).toMatchObject([
      { severity: 'hint', sentence: expect.saying('5 targets are lost') }
    ])
    expect(
      found(
        seen(
          zoneD(),
          lost.map((walk) => ({ ...walk, to: [0.98, 0.6] }))
        ),
        'obstructed'
      )
    ).toEqual([])
  })

  test('dwell-below-passers: shorter than passers-by take', () => {
    const passing = [0, 1, 2, 3].map((n): Walk => ({ ...across, begins: 25 * n }))
    const what = seen(zoneD({ dwellSeconds: 4 }), passing)
    const [f] = found(what, 'dwell-below-passers') as [Finding]
    // 0.4 of the picture at 0.04 a second.
    expect(f).toMatchObject({
      severity: 'hint',
      sentence: expect.saying(/up to (9\.9|10) s to cross it/)
    })
    expect(edited(f)).toMatchObject({ dwellSeconds: 11 })
    expect(found(fixed(what, f), 'dwell-below-passers')).toEqual([])
    expect(
      found(seen(zoneD({ dwellSeconds: 4 }), passing.slice(0, 2)), 'dwell-below-passers')
    ).toEqual([])
  })

  test.each([
    [95, 'a hand over it'],
    [5, 'One has a sensitivity of 5: almost the whole body must overlap.']
  ])('sensitivity-extreme: %d', (sensitivity, words) => {
    const [f] = found(facts([camera([lineD({ sensitivity })])]), 'sensitivity-extreme') as [Finding]
    expect(f).toMatchObject({ severity: 'hint', sentence: expect.saying(words) })
    expect(edited(f)).toMatchObject({ sensitivity: 50 })
  })

  test('no-classes-search: every class counts', () => {
    expect(found(facts([camera([lineD({ classes: [] })])]), 'no-classes-search')).toMatchObject([
      { severity: 'hint' }
    ])
  })

  test('tamper-dark-view and tamper-low-mount', () => {
    const d = detection({ kind: 'tamper' })
    const look = (luma: number, contrast: number) =>
      facts([camera([d], { clips: [clip([across], { look: { luma, contrast } })] })])
    expect(found(look(120, 50), 'tamper-dark-view')).toEqual([])
    expect(found(look(20, 50), 'tamper-dark-view')).toMatchObject([
      { severity: 'warning', sentence: expect.saying('dark') }
    ])
    expect(found(look(120, 5), 'tamper-dark-view')).toMatchObject([
      { sentence: expect.saying('almost uniform') }
    ])
    const pose = (height: number) =>
      facts([camera([d], { pose: { height, tilt: 20, fieldOfView: 50, aspect: 16 / 9 } })])
    expect(found(pose(2.2), 'tamper-low-mount')).toMatchObject([
      { severity: 'hint', sentence: expect.saying('2.2 m') }
    ])
    expect(found(pose(4), 'tamper-low-mount')).toEqual([])
  })
})

describe('together', () => {
  test('sorts worst first; ignores what is switched off or parked', () => {
    const list = [
      lineD({ classes: [], size: { min: { w: 0.2, h: 0.4 }, max: { w: 0.05, h: 0.1 } } }),
      zoneD({ id: 'two' })
    ]
    expect(
      findingsOf(facts([camera(list, { channels: [asSent([list[1]!])] })])).map(
        ({ severity }) => severity
      )
    ).toEqual(['blocking', 'warning', 'hint'])
    const off = list.map((d) => ({ ...d, enabled: false }))
    const parked = list.map((d) => ({ ...d, parked: true }))
    expect(findingsOf(facts([camera(off, { channels: [channel()] })]))).toEqual([])
    expect(findingsOf(facts([camera(parked)]))).toEqual([])
    expect(readinessOf(facts([camera(off, { channels: [channel()] })])).cameras[0]!.steps).toEqual({
      drawn: 'empty',
      armed: 'empty',
      linked: 'empty',
      sent: 'empty',
      proven: 'empty'
    })
  })

  test('detections without a device that was read fail the step Sent', () => {
    expect(
      readinessOf(facts([camera([lineD()], { channels: [channel({ readAt: null })] })])).cameras[0]!
        .steps
    ).toEqual({ drawn: 'done', armed: 'done', linked: 'done', sent: 'failed', proven: 'done' })
    expect(readinessOf(facts([camera([lineD()], { channels: [] })])).cameras[0]!.steps.sent).toBe(
      'empty'
    )
  })
})
