import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
/** What is written down, for the plain filters that the answers are held against. */
interface Made {
  id: number
  camera: string
  kind: string
  class: string | null
  direction: string | null
  way: string | null
  at: number
  acknowledged: boolean
  words: string
}
const made: Made[] = []
const START = Date.parse('2026-11-20T00:00:00Z')

beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  const cameras = ['slipway', 'quay-path', 'workshop-yard']
  const [kinds, classes, directions] = [
    ['line', 'tamper', 'intrusion'],
    ['person', 'vehicle', null],
    ['leftToRight', 'rightToLeft', null]
  ]
  let state = 7
  const pick = <T>(of: readonly T[]): T =>
    of[(state = (state * 1103515245 + 12345) % 2147483648) % of.length]!
  for (let n = 0; n < 400; n++) {
    const direction = pick(directions)
    const m = {
      camera: pick(cameras),
      kind: pick(kinds),
      class: pick(classes),
      direction,
      way: direction === null ? null : pick(['Water → Land', 'Land → Water', null]),
      at: START + 60_000 * Math.floor(n / 3),
      acknowledged: n % 4 === 0,
      words:
        n % 8 === 0 ? `A Fox by the boat number ${n}` : n % 16 === 4 ? `Ørjan’s père; the_boat` : ''
    }
    const { insertId: alarm } = await t.database.run(
      "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) VALUES ('skerrow', ?, 'd', 'D', 'minor', 'normal', ?, '{}', ?, ?, 1)",
      [m.camera, m.acknowledged ? 'acknowledged' : 'waiting', m.at, m.at]
    )
    if (m.words)
      await t.database.run(
        "INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) VALUES (?, 'comment', ?, 'Ines O.', ?)",
        [alarm, m.words, m.at]
      )
    const { insertId } = await t.database.run(
      'INSERT INTO fired_trigger (camera_id, detection_id, kind, class, direction, way, fired_at, fired_with, source, alarm_id, acknowledged) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        m.camera,
        'd',
        m.kind,
        m.class,
        m.direction,
        m.way,
        m.at,
        JSON.stringify({ name: n === 5 ? '=1+1, "quoted"' : 'D' }),
        'sender',
        alarm,
        m.acknowledged
      ]
    )
    made.push({ id: insertId, ...m })
  }
})
afterAll(() => t.close())

const address = (query: Record<string, string>): string => new URLSearchParams(query).toString()
const plain = (keep: (m: Made) => boolean): number[] =>
  made
    .filter(keep)
    .sort((a, b) => b.at - a.at || b.id - a.id)
    .map((m) => m.id)
async function all(query: Record<string, string>): Promise<number[]> {
  const ids: number[] = []
  for (let after: string | null = ''; after !== null;) {
    const { status, body }: { status: number; body: any } = await t.ask(
      'GET',
      `/triggers?${address({ ...query, ...(after && { after }) })}`
    )
    expect(status).toBe(200)
    ids.push(...body.triggers.map((x: any) => x.id))
    after = body.next
  }
  return ids
}

describe('search, against a plain filter over what was written', () => {
  test.each<[Record<string, string>, (m: Made) => boolean]>([
    [{}, () => true],
    [{ camera: 'quay-path' }, (m) => m.camera === 'quay-path'],
    [{ kind: 'tamper' }, (m) => m.kind === 'tamper'],
    [{ class: 'vehicle' }, (m) => m.class === 'vehicle'],
    [{ direction: 'rightToLeft' }, (m) => m.direction === 'rightToLeft'],
    [{ way: 'Water → Land' }, (m) => m.way === 'Water → Land'],
    [{ acknowledged: 'yes' }, (m) => m.acknowledged],
    [
      { acknowledged: 'no', camera: 'slipway', class: 'person' },
      (m) => !m.acknowledged && m.camera === 'slipway' && m.class === 'person'
    ],
    [
      { from: String(START + 1_800_000), to: String(START + 3_600_000) },
      (m) => m.at >= START + 1_800_000 && m.at < START + 3_600_000
    ],
    [{ words: 'fox boat' }, (m) => m.words.includes('Fox')],
    [{ words: 'BOAT the' }, (m) => m.words !== ''],
    [{ words: 'ørjan PERE' }, (m) => m.words.includes('père')],
    [{ words: 'number 16' }, (m) => / 16\d?$/.test(m.words)],
    [
      { words: 'fox', camera: 'slipway', kind: 'tamper' },
      (m) => m.words.includes('Fox') && m.camera === 'slipway' && m.kind === 'tamper'
    ],
    [{ words: 'fox père' }, () => false],
    [{ words: 'ox' }, () => false],
    [{ words: 'badger' }, () => false],
    [{ words: '+++"' }, () => true],
    [{ camera: 'nobody' }, () => false],
    // From the tallies of whole days and hours, and the parts of them at both ends.
    [{ from: String(START - 40 * 86_400_000 + 1) }, () => true],
    [
      { kind: 'line', from: String(START + 60_000), to: String(START + 7_380_000) },
      (m) => m.kind === 'line' && m.at >= START + 60_000 && m.at < START + 7_380_000
    ],
    [{ from: String(START + 60_000), to: String(START + 120_000) }, (m) => m.at === START + 60_000],
    [{ from: String(START + 3_600_000), to: String(START + 60_000) }, () => false]
  ])('%j', async (query, keep) => {
    expect(await all(query)).toEqual(plain(keep))
    const { body } = await t.ask('GET', `/triggers/counts?${address(query)}`)
    expect(body.total).toBe(plain(keep).length)
    expect(body.buckets.reduce((sum: number, b: any) => sum + b.n, 0)).toBe(body.total)
    for (const b of body.buckets)
      expect(
        made.filter((m) => keep(m) && Math.floor(m.at / body.step) * body.step === b.at)
      ).toHaveLength(b.n)
  })

  // So many that they are not gathered first (server/search/queries.ts); a third of them with a second
  // word that is as common.
  test('finds frequent words alone, together and with other filters: every trigger, newest first', async () => {
    const many = 9000
    const first = START + 100_000_000
    await t.database.run(
      "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) SELECT 'skerrow', 'waiting-room', 'd', 'D', 'minor', 'normal', 'acknowledged', '{}', ? + seq, ? + seq, 1 FROM seq_1_to_9000",
      [first, first]
    )
    await t.database.run(
      "INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at) SELECT id, 'comment', IF((first_at - ?) % 3, 'A heron', 'A heron and an otter'), 'Ines O.', first_at FROM alarm WHERE camera_id = 'waiting-room' AND first_at > ?",
      [first, first]
    )
    await t.database.run(
      "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, alarm_id) SELECT camera_id, 'd', IF((first_at - ?) % 900, 'face', 'contact'), first_at, '{\"name\":\"D\"}', 'sender', id FROM alarm WHERE camera_id = 'waiting-room' AND first_at > ?",
      [first, first]
    )
    const numbers = Array.from({ length: many }, (_, i) => many - i)
    const at = async (query: Record<string, string>) => {
      const { body } = await t.ask('GET', `/triggers?${address(query)}`)
      return { at: body.triggers.map((x: any) => x.at - first), next: body.next }
    }
    const total = async (query: Record<string, string>) =>
      (await t.ask('GET', `/triggers/counts?${address(query)}`)).body.total
    for (const [words, of] of [
      ['heron', numbers],
      ['her ott', numbers.filter((n) => n % 3 === 0)]
    ] as const) {
      const one = await at({ words })
      expect(one.at).toEqual(of.slice(0, 48))
      expect((await at({ words, after: one.next })).at).toEqual(of.slice(48, 96))
      expect((await at({ words, to: String(first + 100) })).at).toEqual(
        of.filter((n) => n < 100).slice(0, 48)
      )
      expect((await at({ words, kind: 'contact' })).at).toEqual(of.filter((n) => n % 900 === 0))
      expect(await total({ words })).toBe(of.length)
      expect(await total({ words, kind: 'contact' })).toBe(of.filter((n) => n % 900 === 0).length)
    }
    expect((await at({ words: 'otter fox' })).at).toEqual([])
    await t.database.run("DELETE FROM alarm WHERE camera_id = 'waiting-room' AND first_at > ?", [
      first
    ])
    expect(await total({ words: 'heron' })).toBe(0)
  })

  test('counts over months by whole days and parts of days, through acknowledging and deleting', async () => {
    const [first, hours] = [START + 365 * 86_400_000, 2400]
    await t.database.run(
      `INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) SELECT 'skerrow', 'waiting-room', 'months', 'D', 'minor', 'normal', 'waiting', '{}', ? + seq * 3600000, ? + seq * 3600000, 1 FROM seq_1_to_${hours}`,
      [first, first]
    )
    await t.database.run(
      "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, alarm_id) SELECT camera_id, detection_id, IF(id % 2, 'face', 'contact'), first_at, '{\"name\":\"D\"}', 'sender', id FROM alarm WHERE detection_id = 'months'"
    )
    const held = async (query: Record<string, string>, where: string) => {
      const { body } = await t.ask(
        'GET',
        `/triggers/counts?${address({ detection: 'months', ...query })}`
      )
      // The same, trigger by trigger, by the database's own arithmetic.
      const rows = await t.database.rows<{ at: number; n: number }>(
        `SELECT fired_at DIV ${body.step} * ${body.step} AS at, COUNT(*) AS n FROM fired_trigger WHERE detection_id = 'months' AND ${where} GROUP BY at ORDER BY at`
      )
      expect(body.buckets).toEqual(rows.map((r) => ({ at: Number(r.at), n: Number(r.n) })))
      return body
    }
    expect((await held({}, '1')).total).toBe(hours)
    const [from, to] = [first + 5 * 3_600_000, first + 1500 * 3_600_000 + 1]
    expect(
      (
        await held(
          { from: String(from), to: String(to) },
          `fired_at >= ${from} AND fired_at < ${to}`
        )
      ).total
    ).toBe(1496)
    await held({ kind: 'face', from: String(from) }, `kind = 'face' AND fired_at >= ${from}`)
    // Five days: by hours.
    expect(
      (await held({ to: String(first + 120 * 3_600_000) }, `fired_at < ${first + 120 * 3_600_000}`))
        .step
    ).toBe(6 * 3_600_000)
    await t.database.run(
      "UPDATE fired_trigger SET acknowledged = TRUE WHERE detection_id = 'months' ORDER BY fired_at LIMIT 3"
    )
    expect((await held({ acknowledged: 'yes' }, 'acknowledged')).total).toBe(3)
    expect((await held({ acknowledged: 'no' }, 'NOT acknowledged')).total).toBe(hours - 3)
    await t.database.run(
      "DELETE FROM fired_trigger WHERE detection_id = 'months' AND fired_at > ?",
      [to]
    )
    await held({}, '1')
    await held({ acknowledged: 'yes' }, 'acknowledged')
    expect(
      await t.database.rows(
        'SELECT SUM(n) AS n FROM tally_of_alarm t JOIN alarm ON alarm.id = t.alarm_id WHERE detection_id = ?',
        ['months']
      )
    ).toEqual(
      await t.database.rows(
        "SELECT CAST(COUNT(*) AS DECIMAL) AS n FROM fired_trigger WHERE detection_id = 'months'"
      )
    )
    await t.database.run("DELETE FROM fired_trigger WHERE detection_id = 'months'")
    await t.database.run("DELETE FROM alarm WHERE detection_id = 'months'")
  })

  test('pages by key: new triggers move nothing', async () => {
    const { body: first } = await t.ask('GET', '/triggers')
    await t.database.run(
      "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source) VALUES ('slipway', 'd', 'line', ?, '{\"name\":\"New\"}', 'sender')",
      [START + 10_000_000_000]
    )
    const { body: second } = await t.ask('GET', `/triggers?after=${first.next}`)
    expect([...first.triggers, ...second.triggers].map((x: any) => x.id)).toEqual(
      plain(() => true).slice(0, first.triggers.length + second.triggers.length)
    )
    await t.database.run("DELETE FROM fired_trigger WHERE JSON_VALUE(fired_with, '$.name') = 'New'")
  })

  test('refuses wrong requests with their place', async () => {
    const refused = async (query: string) => (await t.ask('GET', `/triggers?${query}`)).body.message
    expect(await refused('kind=dance')).toContain('kind: must be one of line')
    expect(await refused('from=yesterday')).toBe('from: must be an instant in milliseconds')
    expect(await refused('after=1;DROP')).toContain('must be the cursor of the previous page')
  })

  // CSV as RFC 4180 2 has it: quotes doubled, a field with a comma in quotes; lines end in CR LF.
  test('exports each result once as CSV; formulas stay text', async () => {
    const { body } = await t.ask('GET', '/triggers.csv?camera=quay-path')
    const lines = (body as string).trimEnd().split('\r\n')
    expect(lines[0]).toBe(
      'site time,UTC,camera,detection,kind,class,direction,cause,severity,acknowledged,from,alarm'
    )
    expect(lines).toHaveLength(1 + plain((m) => m.camera === 'quay-path').length)
    expect(lines[1]).toMatch(
      /^2026-11-20 \d\d:\d\d:\d\d,2026-11-20T\d\d:\d\d:\d\d\.000Z,Quay path,D,/
    )
    const { body: whole } = await t.ask('GET', '/triggers.csv')
    expect(whole).toContain(`,"'=1+1, ""quoted""",`)
  })
})

test('finds a trigger by class, sides and acknowledgement', async () => {
  const { body } = await t.ask('POST', '/triggers', {
    key: 'one',
    camera: 'slipway',
    detection: 'quay-edge',
    direction: 'leftToRight',
    at: START + 5_000_000_000
  })
  const of = async (query: object) =>
    (
      await t.ask('GET', `/triggers?${address({ detection: 'quay-edge', ...query })}`)
    ).body.triggers.map((x: any) => x.id)
  expect(await of({ way: 'Water → Land', acknowledged: 'no' })).toEqual([body.id])
  expect(
    (
      await t.ask('POST', `/alarms/${body.alarm}/acknowledge`, {
        comment: 'A swimmer, ashore again'
      })
    ).status
  ).toBe(200)
  expect(await of({ acknowledged: 'no' })).toEqual([])
  expect(await of({ words: 'swimmer ash' })).toEqual([body.id])
  expect((await t.ask('GET', '/triggers/ways')).body).toEqual(['Land → Water', 'Water → Land'])
})

describe('handling an alarm', () => {
  test('records who and when: acknowledged, assigned, closed, in this order only', async () => {
    const [ines, isla] = [await t.as('operator'), t.cookie]
    const { body: taken } = await t.ask('POST', '/triggers', {
      key: 'two',
      camera: 'slipway',
      detection: 'quay-edge'
    })
    const post = (what: string, body: object, who = ines) =>
      t.ask('POST', `/alarms/${taken.alarm}/${what}`, body, who)
    expect(await post('close', {})).toMatchObject({
      status: 409,
      body: { message: expect.saying('Acknowledge this alarm first.') }
    })
    expect((await post('notes', { words: ' ' })).status).toBe(422)
    expect((await post('notes', { words: 'Two people with a canoe' })).status).toBe(200)
    expect((await post('hand', { to: 'Tormod A.' }, isla)).body.assignee).toBe('Tormod A.')
    expect((await post('acknowledge', { comment: 'Guests of the harbour' })).body.state).toBe(
      'acknowledged'
    )
    expect((await post('close', { words: 'Nothing to do' }, isla)).body.state).toBe('closed')
    expect((await post('hand', { to: 'Ruth M.' })).status).toBe(409)
    expect(
      (
        await t.ask('GET', `/alarms/${taken.alarm}/notes`, undefined, await t.as('viewer'))
      ).body.map((n: any) => [n.what, n.words, n.by])
    ).toEqual([
      ['comment', 'Two people with a canoe', 'Ines O.'],
      ['handed', 'Tormod A.', 'Isla Brae'],
      ['acknowledged', 'Guests of the harbour', 'Ines O.'],
      ['closed', 'Nothing to do', 'Isla Brae']
    ])
    // A new trigger does not join what is closed.
    const { body: next } = await t.ask('POST', '/triggers', {
      key: 'three',
      camera: 'slipway',
      detection: 'quay-edge'
    })
    expect(next.alarm).not.toBe(taken.alarm)
  })
})
