import { describe, expect, test } from '@jest/globals'
import { said } from '../messages/said.ts'
import { ScheduleSchema, type Detection, type Schedule } from '../formats/plan.ts'
import {
  actions,
  camera,
  detection,
  device,
  endpoint,
  facts,
  line,
  popup,
  tested,
  zone
} from './testing/facts.ts'
import { findingsOf, readinessOf, type Facts, type Finding, type QuickFix } from './index.ts'
import type { DeviceFacts } from './facts.ts'
import { parseWith } from '../schema/parse.ts'

const found = (what: Facts, code: string): Finding[] =>
  findingsOf(what).filter((f) => f.code === code)
const lineD = (more: object = {}): Detection =>
  detection({ kind: 'line', line, classes: ['person'], ...more })
const schedule = (id: string, week: object): Schedule =>
  parseWith(ScheduleSchema, { id, name: id[0]!.toUpperCase() + id.slice(1), week })
const every = (...spans: [string, string][]): object =>
  Object.fromEntries(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'].map((d) => [d, spans]))
const nights = schedule('nights', {
  ...every(['00:00', '06:30'], ['18:30', '24:00']),
  sat: [['00:00', '24:00']],
  sun: [['00:00', '24:00']]
})
const lights = schedule('lights', every(['00:00', '06:30'], ['18:30', '24:00']))
const strobe = (more: object = {}) =>
  endpoint({
    id: 'strobe',
    name: 'Strobe',
    kind: 'strobe',
    device: 'cam',
    output: 'o1',
    seconds: 10,
    pattern: 'fast',
    ...more
  })
const station = endpoint({
  id: 'station',
  name: 'Northwatch',
  kind: 'station',
  host: 'h',
  port: 1,
  account: '123',
  accepts: 'minor',
  heartbeatSeconds: 0
})
const linked = (d: Detection, links: string[], more: object = {}) =>
  camera([d], { actions: new Map([[d.id, actions({ links, ...more })]]) })

/** The site after a fix of the actions, the plan or an endpoint. */
function fixed(what: Facts, fix: QuickFix | null | undefined): Facts {
  if (fix?.does === 'edit')
    return {
      ...what,
      cameras: what.cameras.map((c) => ({
        ...c,
        detections: c.detections.map((d) => (d.id === fix.detection.id ? fix.detection : d))
      }))
    }
  if (fix?.does === 'actions')
    return {
      ...what,
      cameras: what.cameras.map((c) => ({
        ...c,
        actions: new Map([...c.actions, [fix.detection, fix.actions]])
      }))
    }
  if (fix?.does === 'endpoint')
    return {
      ...what,
      endpoints: what.endpoints.map((e) =>
        e.endpoint.id === fix.endpoint.id ? { ...e, endpoint: fix.endpoint } : e
      )
    }
  throw new Error(`a fix that is ${fix?.does}`)
}

describe('armed', () => {
  test('never-armed: an empty schedule; the fix arms always', () => {
    const what = facts([linked(lineD({ schedule: 'empty' }), ['popup'])], {
      schedules: [schedule('empty', {})]
    })
    const [f] = found(what, 'never-armed') as [Finding]
    expect(f).toMatchObject({
      severity: 'blocking',
      step: 'armed',
      sentence: 'One never triggers: Empty is empty all year.'
    })
    expect(readinessOf(what).cameras[0]!.steps.armed).toBe('failed')
    expect(found(fixed(what, f.fix), 'never-armed')).toEqual([])
    // One that has an exception alone is armed on that day.
    const only = {
      ...schedule('empty', {}),
      exceptions: [{ date: '2026-12-25', spans: [['00:00', '24:00'] as const] }]
    }
    expect(
      found(
        facts([linked(lineD({ schedule: 'empty' }), ['popup'])], { schedules: [only] }),
        'never-armed'
      )
    ).toEqual([])
  })

  test('barely-armed: less than a quarter of an hour a week; the fix parks it', () => {
    const of = (to: string) =>
      facts([linked(lineD({ schedule: 's' }), ['popup'])], {
        schedules: [schedule('s', { mon: [['00:00', to]] })]
      })
    expect(found(of('00:15'), 'barely-armed')).toEqual([])
    const [f] = found(of('00:14'), 'barely-armed') as [Finding]
    expect(f).toMatchObject({
      severity: 'warning',
      step: 'armed',
      sentence: expect.saying(
        'One is armed 14 min a week: S is almost empty. To keep a device quiet, park it instead.'
      )
    })
    expect(findingsOf(fixed(of('00:14'), f.fix)).filter(({ step }) => step === 'armed')).toEqual([])
  })

  test('arm-input-missing: a contact that no device has', () => {
    const d = lineD({ armInput: { input: 'panel' } })
    const of = (known: boolean) =>
      facts([linked(d, ['popup'])], { inputs: [{ id: 'panel', name: 'Alarm panel', known }] })
    expect(found(of(true), 'arm-input-missing')).toEqual([])
    expect(found(of(false), 'arm-input-missing')).toMatchObject([
      {
        severity: 'blocking',
        sentence:
          'One will not trigger on site: Alarm panel is never set, because no device has it.',
        fix: { does: 'go' }
      }
    ])
    expect(
      found(
        facts([linked(detection({ kind: 'contact', input: 'door' }), ['popup'])]),
        'arm-input-missing'
      )
    ).toMatchObject([
      {
        sentence: expect.saying(
          'One will not trigger on site: door is never reported, because no device has it.'
        )
      }
    ])
  })
})

describe('linked', () => {
  test('nothing-linked: the fix links the default actions, if any', () => {
    const of = (usual: string[]) =>
      facts([linked(lineD(), [])], { usual: actions({ links: usual }) })
    const [f] = found(of(['popup', 'gone']), 'nothing-linked') as [Finding]
    expect(f).toMatchObject({
      severity: 'blocking',
      step: 'linked',
      fix: { does: 'actions', actions: { links: ['popup'] } }
    })
    expect(found(fixed(of(['popup']), f.fix), 'nothing-linked')).toEqual([])
    expect(found(of([]), 'nothing-linked')[0]!.fix).toMatchObject({
      does: 'go',
      to: '/actions?camera=gate&detection=one'
    })
    // A link to what has been deleted is none.
    expect(found(facts([linked(lineD(), ['gone'])]), 'nothing-linked')).toHaveLength(1)
  })

  test('motion needed only by motion by class needs no link', () => {
    const both = [
      detection({ kind: 'motion' }),
      detection({ id: 'two', name: 'Two', kind: 'classMotion' })
    ]
    expect(
      found(facts([camera(both, { actions: new Map() })]), 'nothing-linked').map((f) => f.detection)
    ).toEqual(['two'])
    expect(
      found(facts([camera(both.slice(0, 1), { actions: new Map() })]), 'nothing-linked')
    ).toHaveLength(1)
  })

  test('output-not-set and untested-output: once per action for all its cameras', () => {
    const [a, b] = ['gate', 'yard'].map((id) => ({ ...linked(lineD(), ['popup']), id }))
    const of = (more: object) => facts([a!, b!], { endpoints: [tested(popup, more)] })
    expect(found(of({ missing: 'it has no recipient' }), 'output-not-set')).toMatchObject([
      {
        severity: 'blocking',
        camera: 'gate',
        shared: ['gate', 'yard'],
        sentence: 'Pop-up can’t run: it has no recipient.'
      }
    ])
    expect(readinessOf(of({ missing: 'x' })).cameras.map((c) => c.steps.linked)).toEqual([
      'failed',
      'failed'
    ])
    expect(found(of({ tested: 'never' }), 'untested-output')).toMatchObject([
      { severity: 'warning', fix: { does: 'test', endpoint: 'popup' } }
    ])
    expect(found(of({ tested: 'failed' }), 'untested-output')[0]!.sentence).toEqual(
      'The last test of Pop-up failed.'
    )
    // What nothing is linked to bothers nobody.
    expect(
      findingsOf(
        facts([a!], {
          endpoints: [
            tested(popup),
            tested(strobe(), { missing: said('actions.noSuchOutput'), tested: 'never' })
          ]
        })
      ).filter((f) => f.step === 'linked')
    ).toEqual([])
  })

  test('hours-miss: names the gaps; can be matched or accepted', () => {
    const of = (d: object, s: object) =>
      facts([linked(lineD({ schedule: 'nights', ...d }), ['strobe'])], {
        schedules: [nights, lights, schedule('noon', every(['12:00', '13:00']))],
        endpoints: [tested(strobe(s))]
      })
    expect(found(of({}, {}), 'hours-miss')).toEqual([])
    const partly = of({}, { schedule: 'lights' })
    const [f] = found(partly, 'hours-miss') as [Finding]
    expect(f.sentence).toEqual(
      'Strobe is off for 22.2% of One’s armed time: Sat and Sun, 06:30 to 18:30.'
    )
    expect(f.fix).toMatchObject({ words: 'Follow Nights' })
    for (const fix of [f.fix, f.orElse]) expect(found(fixed(partly, fix), 'hours-miss')).toEqual([])
    expect(
      found(of({ schedule: 'lights' }, { schedule: 'noon' }), 'hours-miss')[0]!.sentence
    ).toEqual('Strobe never runs for One: Noon and Lights don’t overlap.')
    expect(
      found(of({ schedule: undefined }, { schedule: 'lights' }), 'hours-miss')[0]!.fix
    ).toMatchObject({ words: 'Follow all the time', endpoint: { schedule: undefined } })
  })

  test('severity-not-accepted: blocks, and the fix raises it; tamper has its own severity', () => {
    const high = { ...station, accepts: 'major' as const }
    const what = facts([linked(lineD(), ['station'], { severity: 'minor' })], {
      endpoints: [tested(high)]
    })
    const [f] = found(what, 'severity-not-accepted') as [Finding]
    expect(f).toMatchObject({
      severity: 'blocking',
      sentence:
        'Northwatch will refuse alarms of One: their severity is minor, the lowest accepted is major.'
    })
    expect(found(fixed(what, f.fix), 'severity-not-accepted')).toEqual([])
    const care = facts(
      [linked(detection({ kind: 'tamper', severity: 'information' }), ['station'])],
      { endpoints: [tested(high)] }
    )
    expect(found(care, 'severity-not-accepted')[0]!.fix).toMatchObject({
      does: 'edit',
      detection: { severity: 'major' }
    })
  })

  test('no-station-push: perimeter detections not sent to the station, unless intended', () => {
    const of = (d: Detection, links: string[]) =>
      facts([linked(d, links)], { endpoints: [tested(popup), tested(station)] })
    const what = of(detection({ kind: 'intrusion', zone }), ['popup'])
    const [f] = found(what, 'no-station-push') as [Finding]
    for (const fix of [f.fix, f.orElse])
      expect(found(fixed(what, fix), 'no-station-push')).toEqual([])
    expect(found(of(lineD(), ['station']), 'no-station-push')).toEqual([])
    expect(found(of(detection({ kind: 'tamper' }), ['popup']), 'no-station-push')).toEqual([])
    expect(found(facts([linked(lineD(), ['popup'])]), 'no-station-push')).toEqual([])
  })

  test('pre-record-off: a recording that starts at the trigger', () => {
    const record = endpoint({
      id: 'record',
      name: 'Recording',
      kind: 'recording',
      camera: null,
      beforeSeconds: 0,
      afterSeconds: 15
    })
    const what = facts([linked(lineD(), ['record'])], { endpoints: [tested(record)] })
    const [f] = found(what, 'pre-record-off') as [Finding]
    expect(f.fix).toMatchObject({ words: 'Record 5 s before', endpoint: { beforeSeconds: 5 } })
    expect(found(fixed(what, f.fix), 'pre-record-off')).toEqual([])
  })

  describe('storage of the device that records', () => {
    const record = endpoint({
      id: 'record',
      name: 'Recording',
      kind: 'recording',
      camera: null,
      beforeSeconds: 5,
      afterSeconds: 15
    })
    const site = (storage: DeviceFacts['storage'], links = ['record']): Facts =>
      facts([linked(lineD(), links)], {
        endpoints: [tested(record), tested(popup)],
        devices: [device({ storage })]
      })
    const codes = (what: Facts): string[] =>
      findingsOf(what)
        .map(({ code }) => code)
        .filter((code) => code.includes('storage'))
    const card = { place: '/card', whenFull: 'stop', full: false } as const

    test('no-storage: blocks where a recording would go to a device without', () => {
      expect(found(site([]), 'no-storage')).toMatchObject([
        {
          severity: 'blocking',
          device: 'cam',
          sentence:
            'Recordings of Gate are lost: The camera has no storage. Insert a card, or record through a recorder.'
        }
      ])
      expect(codes(site(null))).toEqual([])
      expect(codes(site([], ['popup']))).toEqual([])
    })

    test('storage-stops and storage-full: only where it does not overwrite', () => {
      expect(codes(site([card]))).toEqual(['storage-stops'])
      expect(codes(site([{ ...card, full: true }]))).toEqual(['storage-full'])
      expect(codes(site([{ ...card, whenFull: 'overwrite', full: true }]))).toEqual([])
      expect(codes(site([{ ...card, whenFull: null, full: true }]))).toEqual([])
    })

    test('a recorder that shows the camera is asked for its storage, not the camera', () => {
      const own = camera([lineD()]).channels[0]!
      const [first, second] = ['1', '2'].map((token) => ({ ...own, device: 'recorder', token }))
      const at = linked(lineD(), ['record'])
      const what = facts([{ ...at, channels: [own, first!] }], {
        endpoints: [tested(record)],
        recorders: [first!, second!],
        devices: [device({ storage: [] }), device({ id: 'recorder', name: 'NVR', storage: [card] })]
      })
      expect(codes(what)).toEqual(['storage-stops'])
    })
  })
})
