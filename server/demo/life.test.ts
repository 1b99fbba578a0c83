import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { PAST_DAYS, daysAgo } from './simulate.ts'
import { readStory } from './story.ts'

const HOUR_MS = 3_600_000
const story = readStory()
let t: TestApp
let begun: number
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  expect((await t.ask('GET', '/demo')).body).toMatchObject({ hasPast: false })
  // Clips are analysed in other tests, and take most of the time.
  t.app.demo.begin(true, { story: { ...story, clips: [] } })
  await t.app.demo.ended()
  begun = (JSON.parse(readFileSync(join(t.folder, 'demo.json'), 'utf8')) as { begun: number }).begun
}, 900_000)
afterAll(() => t.close())

const triggersOf = async (detection: string): Promise<{ fired_at: number }[]> =>
  t.database.rows(
    "SELECT fired_at FROM fired_trigger WHERE detection_id = ? AND source = 'device' AND fired_at < ? ORDER BY fired_at",
    [detection, begun]
  )

describe('the demo site’s past', () => {
  test('is done, and says so', async () => {
    expect((await t.ask('GET', '/demo')).body).toEqual({ hasPast: true, filling: null })
  })

  test('has been listened to for seven days but for what was cut off', async () => {
    const { outage } = story
    for (const camera of Object.keys(story.habits)) {
      const from = begun - (PAST_DAYS + 1) * 24 * HOUR_MS
      const { body } = await t.ask('GET', `/cameras/${camera}/look-back?from=${from}&to=${begun}`)
      const heard = body.heard.reduce((sum: number, [a, b]: [number, number]) => sum + b - a, 0)
      const missing = camera === outage.camera ? outage.hours : 0
      expect([camera, heard / HOUR_MS]).toEqual([camera, PAST_DAYS * 24 - missing])
      expect(body.tens.length).toBeGreaterThan(10)
    }
    const cut = daysAgo(begun, outage.daysAgo, outage.from, 'Europe/London')
    const tens = (
      await t.ask('GET', `/cameras/${outage.camera}/look-back?from=${cut}&to=${cut + HOUR_MS}`)
    ).body.tens
    expect(tens.filter(({ at }: { at: number }) => at >= cut)).toEqual([])
  })

  // The look-back reads the hours from their files and evaluates them by itself.
  test('has the triggers that looking back finds', async () => {
    const start = Math.floor(begun / HOUR_MS) * HOUR_MS - PAST_DAYS * 24 * HOUR_MS
    const site = await t.ask('GET', '/site')
    expect(site.status).toBe(200)
    for (const [camera, detection] of [
      ['vehicle-lanes', 'lane-waiting'],
      ['vehicle-lanes', 'wrong-way'],
      ['fuel-pontoon', 'pontoon-after-hours'],
      ['slipway', 'quay-edge']
    ] as const) {
      const bench = (await t.ask('GET', `/cameras/${camera}`)).body
      const { body } = await t.ask('POST', `/cameras/${camera}/look-back/counts`, {
        schedules: bench.schedules.map((s: any) => s.schedule),
        ignore: bench.scene.ignore,
        from: start,
        to: begun,
        detections: bench.detections
          .map((d: any) => d.detection)
          .filter((d: any) => d.id === detection)
      })
      const { count } = body.counted[0]
      expect(count).toBeGreaterThan(0)
      expect([detection, (await triggersOf(detection)).length]).toEqual([detection, count])
    }
  })

  test('has the yard’s triggers only while the panel was set', async () => {
    const { panel } = story.inputs
    const minutes = (clock: string): number => 60 * +clock.slice(0, 2) + +clock.slice(3)
    const found = await triggersOf('yard-set')
    expect(found.length).toBeGreaterThan(0)
    for (const { fired_at } of found) {
      const clock = new Intl.DateTimeFormat('en-GB', {
        timeZone: 'Europe/London',
        hour: '2-digit',
        minute: '2-digit'
      }).format(fired_at)
      const at = minutes(clock)
      expect([clock, at >= minutes(panel.set) || at < minutes(panel.unset)]).toEqual([clock, true])
    }
    expect((await triggersOf('waiting-room-door')).map(({ fired_at }) => fired_at)).toEqual(
      story.inputs.door.opened
        .map(({ daysAgo: days, at }) => daysAgo(begun, days, at, 'Europe/London') + 100)
        .sort((a, b) => a - b)
    )
  })

  test('has told nobody of what is long over', async () => {
    const [{ n }] = (await t.database.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM delivery WHERE state = 'pending' AND created_at < ?",
      [begun]
    )) as [{ n: number }]
    expect(n).toBe(0)
    // The test of the action is the only e-mail.
    expect(readdirSync(join(t.folder, 'mailbox')).filter((f) => f.endsWith('.eml'))).toHaveLength(1)
  })

  test('has alarms in each state, answered after they came, with comments and marks', async () => {
    const alarms = await t.database.rows<{
      state: string
      first_at: number
      acknowledged_at: number | null
      closed_at: number | null
    }>('SELECT state, first_at, acknowledged_at, closed_at FROM alarm WHERE first_at < ?', [begun])
    const of = (state: string): number => alarms.filter((a) => a.state === state).length
    expect(of('waiting')).toBeGreaterThanOrEqual(4)
    expect(of('acknowledged')).toBe(1)
    expect(of('closed')).toBeGreaterThan(100)
    for (const a of alarms) {
      if (a.acknowledged_at !== null) expect(a.acknowledged_at).toBeGreaterThan(a.first_at)
      if (a.closed_at !== null) expect(a.closed_at).toBeGreaterThan(a.acknowledged_at!)
    }
    const { body } = await t.ask('GET', '/nuisances')
    const worst = body.detections.find((d: any) => d.detection === 'pontoon-after-hours')
    expect(worst.nuisances).toBeGreaterThan(5)
    expect(worst.wanted).toBeGreaterThan(5)
  })

  test('has a signed record of last spring, from which one setting and its check differ', async () => {
    const { body } = await t.ask('GET', '/handover')
    expect(body.records).toMatchObject([
      { number: 1, madeAt: Date.parse(story.record.at), signatures: [{ role: 'client' }] }
    ])
    const { changes } = (await t.ask('GET', '/records/1/changes')).body
    expect(changes.map((c: any) => [c.area, c.name, c.settings.length])).toEqual([
      ['camera', 'Path crossing', 1],
      ['check', 'A child', 1]
    ])
  })

  test('has checks that pass, and one that fails by that change', async () => {
    const { checks } = (await t.ask('GET', '/proving')).body
    expect(checks.length).toBeGreaterThan(25)
    const failed = checks.filter((c: any) => !c.last.passed)
    expect(failed.map((c: any) => [c.check.id, c.last.current])).toEqual([
      ['path-crossing.person.child', true]
    ])
    expect(checks.every((c: any) => c.last.current)).toBe(true)
  })

  test('is made once', async () => {
    const alarms = async (): Promise<unknown> =>
      t.database.rows('SELECT COUNT(*) AS n FROM alarm WHERE first_at < ?', [begun])
    const before = await alarms()
    await t.restart()
    t.app.demo.begin(false)
    await t.app.demo.ended()
    expect(await alarms()).toEqual(before)
    expect((await t.ask('GET', '/handover')).body.records).toHaveLength(1)
  })

  test('is of no site that was begun without it', async () => {
    const bare = await startTestApp()
    try {
      bare.app.demo.begin(false)
      await bare.app.demo.ended()
      expect((await bare.ask('GET', '/demo')).body).toEqual({ hasPast: false, filling: null })
    } finally {
      await bare.close()
    }
  }, 600_000)
})
