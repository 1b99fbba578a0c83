import { describe, expect, test } from '@jest/globals'
import { said } from '../messages/said.ts'
import fc from 'fast-check'
import {
  ActionsSchema,
  EndpointSchema,
  addressesOf,
  missingOf,
  type Actions,
  type Endpoint,
  type EndpointOf
} from '../formats/actions.ts'
import { NO_ACTIONS } from '../formats/noActions.ts'
import { ScheduleSchema } from '../formats/plan.ts'
import { acknowledgeLacks, byPriority, joins } from './alarms.ts'
import { block, crossingOf, sharePercent } from './matrix.ts'
import { EndpointHours, planDeliveries, type SiteActions } from './plan.ts'
import { SiteHours } from '../arming/coverage.ts'
import { detection, line } from '../readiness/testing/facts.ts'
import { SEVERITIES } from '../kinds/parts.ts'
import { parseWith } from '../schema/parse.ts'

const endpoint = (settings: object): Endpoint =>
  parseWith(EndpointSchema, { id: 'e', name: 'E', ...settings })
const actions = (settings: object): Actions => parseWith(ActionsSchema, settings)
const strobe = endpoint({
  id: 'strobe',
  kind: 'strobe',
  device: 'cam',
  output: 'o1',
  seconds: 10,
  pattern: 'fast',
  schedule: 'evening'
})
const mail = endpoint({
  id: 'mail',
  kind: 'email',
  recipients: ['a@b.example'],
  after: 3,
  stepSeconds: 2
})
const station = endpoint({
  id: 'station',
  kind: 'station',
  host: 'h',
  port: 1,
  account: '12ab',
  accepts: 'major',
  heartbeatSeconds: 0
})
const evening = parseWith(ScheduleSchema, {
  id: 'evening',
  name: 'Evening',
  week: { tue: [['18:00', '20:00']] }
})
const site: SiteActions = {
  endpoints: [strobe, mail, station],
  hours: new EndpointHours([evening], 'Europe/London', undefined),
  people: {
    people: [
      { id: 'ines', name: 'Ines', email: 'i@x.example' },
      { id: 'ruth', name: 'Ruth' }
    ],
    groups: [{ id: 'duty', name: 'Duty', members: ['ines', 'ruth'] }]
  },
  mail: { host: 'h', port: 25, encryption: 'none', username: null, sender: 's@x.example' },
  outputs: new Set(['cam o1'])
}
const tuesday = (time: string): number => Date.parse(`2026-11-24T${time}:00Z`)
const occasion = {
  instant: tuesday('19:00'),
  severity: 'major' as const,
  lastActedAt: null,
  byCamera: new Set<string>()
}
const links = ['strobe', 'mail', 'station']

describe('actions of a trigger', () => {
  test('makes one delivery per link, in order, with the current settings', () => {
    expect(planDeliveries(occasion, actions({ links }), site)).toEqual([
      { endpoint: strobe, by: 'server', waitMs: 0, held: null },
      { endpoint: mail, by: 'server', waitMs: 6000, held: null },
      { endpoint: station, by: 'server', waitMs: 0, held: null }
    ])
    expect(
      planDeliveries(
        { ...occasion, byCamera: new Set(['strobe']) },
        actions({ links: ['strobe', 'gone'] }),
        site
      )
    ).toMatchObject([{ by: 'camera' }])
  })

  test.each<[string, object, Partial<SiteActions>, string | null, string]>([
    ['hours', { instant: tuesday('20:00') }, {}, 'strobe', 'outside its schedule'],
    [
      'severity',
      { severity: 'minor' },
      {},
      'station',
      'severity minor is below major, the lowest it accepts'
    ],
    ['no mail server', {}, { mail: null }, 'mail', 'no mail server is set up'],
    ['no device', {}, { outputs: new Set() }, 'strobe', 'no device has this output'],
    [
      'hours that are gone',
      {},
      { hours: new EndpointHours([], 'UTC', undefined) },
      'strobe',
      'outside its schedule'
    ]
  ])('held back for %s, and said why; the others are made', (_, change, of, who, why) => {
    const planned = planDeliveries({ ...occasion, ...change }, actions({ links }), {
      ...site,
      ...of
    })
    expect(planned.map((p) => [p.endpoint.id, p.held])).toEqual(
      links.map((id) => [id, id === who ? why : null])
    )
  })

  test('runs no actions during the pause, and runs them again after it', () => {
    const quiet = actions({ links, quietSeconds: 60 })
    const after = (seconds: number) =>
      planDeliveries({ ...occasion, lastActedAt: occasion.instant - seconds * 1000 }, quiet, site)
        .length
    expect([after(0), after(59.999), after(60), after(-5)]).toEqual([0, 0, 3, 3])
    expect(
      planDeliveries({ ...occasion, lastActedAt: occasion.instant }, actions({ links }), site)
    ).toHaveLength(3)
  })

  test('mails people and groups once each, and nobody without an address', () => {
    const to = endpoint({
      kind: 'email',
      recipients: ['i@x.example'],
      people: ['duty', 'ruth', 'gone']
    }) as EndpointOf<'email'>
    expect(addressesOf(to, site.people)).toEqual(['i@x.example'])
    expect(missingOf({ ...to, recipients: [], people: ['ruth'] }, site)).toEqual(
      'it has no recipient'
    )
  })
})

describe('alarms', () => {
  test('groups triggers within the set seconds until the alarm is acknowledged', () => {
    const at = (state: 'waiting' | 'acknowledged', seconds: number, groupSeconds: number) =>
      joins({ state, lastAt: 0 }, seconds * 1000, actions({ groupSeconds }))
    expect([
      at('waiting', 60, 60),
      at('waiting', 60.001, 60),
      at('acknowledged', 1, 60),
      at('waiting', 0, 0)
    ]).toEqual([true, false, false, false])
  })

  test('acknowledging asks for what the settings require', () => {
    const of = (wanted: object, comment: string, confirmed: boolean) =>
      acknowledgeLacks(actions({ acknowledge: wanted }).acknowledge, { comment, confirmed })
    expect(of({}, '', false)).toBeNull()
    expect(of({ comment: true }, '  ', true)).toSay('Enter a comment')
    expect(of({ comment: true, confirm: true }, 'A gull', false)).toSay(
      'Confirm that you have dealt with'
    )
    expect(of({ comment: true, confirm: true }, 'A gull', true)).toBeNull()
  })

  test('sorts by priority, then newest first', () => {
    const list = [
      { priority: 'low' as const, lastAt: 9 },
      { priority: 'high' as const, lastAt: 1 },
      { priority: 'normal' as const, lastAt: 5 },
      { priority: 'high' as const, lastAt: 2 }
    ]
    expect([...list].sort(byPriority).map((a) => a.lastAt)).toEqual([2, 1, 5, 9])
  })
})

test('gives an unlinked detection the schema’s defaults', () =>
  expect(actions({})).toEqual(NO_ACTIONS))

describe('refuses settings out of range and names the range', () => {
  test.each([
    [
      { kind: 'strobe', device: 'd', output: 'o', seconds: 75, pattern: 'fast' },
      '$.seconds: is 75 s; enter 1 to 60 s'
    ],
    [
      { kind: 'strobe', device: 'd', output: 'o', seconds: 0, pattern: 'fast' },
      '$.seconds: is 0 s; enter 1 to 60 s'
    ],
    [
      { kind: 'strobe', device: 'd', output: 'o', seconds: 2.5, pattern: 'fast' },
      '$.seconds: is 2.5; must be a whole number from 1 to 60 s'
    ],
    [
      { kind: 'strobe', device: 'd', output: 'o', seconds: 5, pattern: 'disco' },
      '$.pattern: must be one of slow, medium, fast, steady'
    ],
    [
      {
        kind: 'speaker',
        device: 'd',
        output: 'o',
        voice: { phrase: 'leave' },
        repeats: 51,
        volume: 80
      },
      '$.repeats: is 51; enter 1 to 50'
    ],
    [
      {
        kind: 'speaker',
        device: 'd',
        output: 'o',
        voice: { phrase: 'sing' },
        repeats: 1,
        volume: 80
      },
      '$.voice'
    ],
    [{ kind: 'email', recipients: ['a@b.example'], before: 6 }, '$.before: is 6; enter 0 to 5'],
    [
      { kind: 'email', recipients: ['nobody'] },
      '$.recipients[0]: is "nobody"; must be an e-mail address such as duty@example.org'
    ],
    [
      { kind: 'recording', camera: null, beforeSeconds: 61, afterSeconds: 1 },
      '$.beforeSeconds: is 61 s; enter 0 to 60 s'
    ],
    [
      {
        kind: 'station',
        host: 'h',
        port: 1,
        account: 'XYZ',
        accepts: 'minor',
        heartbeatSeconds: 0
      },
      '$.account: is "XYZ"; must be 3 to 16 hexadecimal digits'
    ],
    [
      {
        kind: 'station',
        host: 'h',
        port: 1,
        account: '123',
        accepts: 'minor',
        heartbeatSeconds: 5
      },
      '$.heartbeatSeconds: is 5 s; enter 10 to 86400 s'
    ],
    [
      { kind: 'webhook', url: 'ftp://x' },
      '$.url: must be an address such as https://example.org/alarms'
    ],
    [{ kind: 'bell' }, '$.kind: must be one of strobe, speaker']
  ])('%j', (settings, message) => expect(() => endpoint(settings)).toThrowWords(message))
})

describe('the matrix', () => {
  const hours = new SiteHours([evening], 'Europe/London', undefined, tuesday('12:00'))
  const d = detection({ kind: 'line', line })

  test('a crossing says whether it is linked and for what share of the armed time it can act', () => {
    expect(crossingOf(d, actions({ links: ['strobe'] }), strobe, null, hours)).toEqual({
      linked: true,
      share: expect.closeTo(2 / 168, 4),
      never: null
    })
    expect(crossingOf({ ...d, schedule: 'evening' }, actions({}), strobe, null, hours)).toEqual({
      linked: false,
      share: 1,
      never: null
    })
    expect(crossingOf(d, actions({}), strobe, said('actions.noSuchOutput'), hours)).toMatchObject({
      share: 0,
      never: 'no device has this output'
    })
    expect(crossingOf(d, actions({ severity: 'minor' }), station, null, hours)).toMatchObject({
      share: 0,
      never: 'severity minor is below major, the lowest it accepts'
    })
    expect(crossingOf({ ...d, schedule: 'gone' }, actions({}), mail, null, hours).share).toBeNull()
  })

  test('rounding never shows 0% or 100% of a part', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (share) => {
        const percent = sharePercent(share)
        expect(percent === 0).toBe(share === 0)
        expect(percent === 100).toBe(share === 1)
      })
    )
  })

  test('selects a block between any two corners', () => {
    expect(block(['a', 'b', 'c'], [1, 2, 3], [2, 1], [1, 2])).toEqual([
      { row: 'b', column: 2 },
      { row: 'b', column: 3 },
      { row: 'c', column: 2 },
      { row: 'c', column: 3 }
    ])
  })

  test('ranks every severity', () =>
    expect(SEVERITIES).toEqual(['information', 'minor', 'major', 'critical']))
})
