import { describe, expect, test } from '@jest/globals'
import { EndpointHours, type SiteActions } from '../actions/plan.ts'
import type { DeliveryView } from '../api.ts'
import type { Ladder } from '../detections/index.ts'
import { ActionsSchema, EndpointSchema } from '../formats/actions.ts'
import type { Check } from '../formats/check.ts'
import { likelyCause, liveEffects, seenEffects } from './live.ts'
import { actor, plainWalk } from './stage.ts'
import { said } from '../messages/said.ts'
import { parseWith } from '../schema/parse.ts'

const at = Date.parse('2026-11-24T12:00:00Z')
const nights = {
  id: 'nights',
  name: 'Nights',
  week: Object.fromEntries(
    ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'].map((d) => [d, [['00:00', '06:00']]])
  ),
  exceptions: []
}
const endpoints = [
  { id: 'hook', name: 'Hook', kind: 'webhook', url: 'http://192.0.2.1/x' },
  {
    id: 'relay',
    name: 'Gate light',
    kind: 'relay',
    device: 'cam',
    output: 'r',
    mode: 'pulse',
    seconds: 5,
    schedule: 'nights'
  }
].map((e) => parseWith(EndpointSchema, e))
const site: SiteActions = {
  endpoints,
  hours: new EndpointHours([nights] as never, 'UTC', undefined),
  people: { people: [], groups: [] },
  mail: null,
  outputs: new Set(['cam r'])
}
const actions = parseWith(ActionsSchema, { links: ['hook', 'relay'] })
const check = (effects: Check['effects'] = []): Check => ({
  id: 'c',
  detection: 'd',
  name: 'C',
  about: 'passes',
  side: 'inside',
  by: {
    how: 'walk',
    walk: plainWalk(5, [
      actor('adult', [
        [0, 20],
        [0, 8]
      ])
    ]),
    through: 'truth'
  },
  at,
  expect: { what: 'trigger', from: 0, to: 5 },
  effects
})
const when = { instant: at, severity: 'major' as const }
const delivery = (more: Partial<DeliveryView>): DeliveryView => ({
  id: 1,
  trigger: 1,
  kind: 'webhook',
  name: 'Hook',
  recipient: '',
  state: 'pending',
  by: 'server',
  does: 'on',
  attempts: 0,
  error: null,
  createdAt: at,
  sentAt: null,
  nextAt: null,
  ...more
})
const by = (list: ReturnType<typeof liveEffects>) =>
  Object.fromEntries(list.map((e) => [e.endpoint, e]))

describe('expected and observed effects', () => {
  test('before a trigger, waits for every action but those outside their schedule', () => {
    expect(by(liveEffects(check(), actions, site, when, null, false))).toMatchObject({
      hook: { expected: true, state: 'waiting' },
      relay: { expected: false, state: 'waiting', words: 'outside its schedule' }
    })
  })

  test('ticks effects off with their delay; a planned absence is as expected', () => {
    const effects = liveEffects(
      check(),
      actions,
      site,
      when,
      {
        heardAt: at,
        deliveries: [
          delivery({ state: 'sent', sentAt: at + 1400 }),
          delivery({
            id: 2,
            kind: 'relay',
            name: 'Gate light',
            state: 'held',
            error: 'outside its schedule'
          })
        ]
      },
      false
    )
    expect(by(effects)).toMatchObject({
      hook: { state: 'came', after: 1.4 },
      relay: { state: 'stayedOut' }
    })
    expect(seenEffects(effects).map((e) => [e.acts, e.wrong])).toEqual([
      [true, null],
      [false, null]
    ])
  })

  test('the check’s expectations override the links: skipped or unlinked is missing', () => {
    const effects = liveEffects(
      check([
        { endpoint: 'relay', acts: true },
        { endpoint: 'gone', acts: true }
      ]),
      actions,
      site,
      when,
      {
        heardAt: at,
        deliveries: [
          delivery({ state: 'failed', error: 'nobody answers' }),
          delivery({
            id: 2,
            kind: 'relay',
            name: 'Gate light',
            state: 'held',
            error: 'outside its schedule'
          })
        ]
      },
      true
    )
    expect(by(effects)).toMatchObject({
      hook: { state: 'failed', words: 'nobody answers' },
      relay: { expected: true, state: 'failed', words: 'outside its schedule' },
      gone: { state: 'failed', words: 'it no longer exists' }
    })
    expect(seenEffects(effects).every((e) => e.wrong !== null)).toBe(true)
  })

  test('unconfirmed or without a trigger: missing, with the reason known', () => {
    expect(
      by(
        liveEffects(check(), actions, site, when, { heardAt: at, deliveries: [delivery({})] }, true)
      ).hook
    ).toMatchObject({ state: 'failed', words: 'not confirmed within the time of this test' })
    expect(by(liveEffects(check(), actions, site, when, null, true)).hook).toMatchObject({
      state: 'failed',
      words: 'there was no trigger'
    })
  })
})

test('likely causes: no target seen, a gate, or an issue of the camera', () => {
  const ladder = (fired: boolean): Ladder => ({
    detection: 'd',
    target: 1,
    frame: 20,
    time: 1.9,
    fired,
    readings: [],
    sentence: said('why.noPart', said('why.isOverLine'))
  })
  const unsent = said('readiness.offline', 'Slipway')
  expect(likelyCause(null, [])).toSay('The camera reported no target: is the walk in its picture?')
  expect(likelyCause(ladder(false), [unsent])).toEqual('No part of the target was over the line.')
  expect(likelyCause(ladder(true), [unsent])).toSay(
    /should have triggered at 1\.9 s.*Slipway can’t be reached/
  )
  expect(likelyCause(ladder(true), [])).toSay('its own analysis')
})
