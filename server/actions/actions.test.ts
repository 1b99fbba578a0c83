import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { inWords } from '../testing/inWords.ts'
import ICAL from 'ical.js'
import type { SavedEndpoint, SiteActionsView } from '../../core/api.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true })))
afterAll(() => t.close())

const view = async (): Promise<SiteActionsView> => (await t.ask('GET', '/actions')).body
const popup = { id: 'second', name: 'Second pop-up', kind: 'popup', sound: 'none' }
const post = async (
  path: string,
  type: string,
  body: Uint8Array | string
): Promise<{ status: number; body: any }> => {
  const answer = await t.fetch(path, {
    method: 'POST',
    headers: { 'content-type': type },
    body: body as never
  })
  return { status: answer.status, body: inWords(await answer.json()) }
}

describe('actions', () => {
  test('creates, changes by version, deletes and restores; a test of other settings no longer counts', async () => {
    const put = (version: number, more: object = {}) =>
      t.ask('PUT', '/endpoints/second', { version, endpoint: { ...popup, ...more } })
    expect(await put(0)).toMatchObject({ status: 200, body: { version: 1, testedAt: null } })
    expect((await t.ask('POST', '/endpoints/second/test')).body.message).toBe(
      'Wardoptic is not open in any browser'
    )
    expect((await view()).endpoints.find((e) => e.endpoint.id === 'second')).toMatchObject({
      testError: 'Wardoptic is not open in any browser',
      testedAt: expect.any(Number)
    })
    expect((await put(1, { name: 'Renamed' })).body).toMatchObject({
      version: 2,
      testedAt: null,
      testError: null
    })
    expect(await put(1)).toMatchObject({
      status: 409,
      body: { current: { version: 2, endpoint: { name: 'Renamed' } } }
    })
    expect(await t.ask('DELETE', '/endpoints/second?version=2')).toEqual({
      status: 200,
      body: { version: 3 }
    })
    expect((await view()).endpoints.some((e) => e.endpoint.id === 'second')).toBe(false)
    expect(await put(2)).toMatchObject({
      status: 409,
      body: { current: { deleted: true, version: 3 } }
    })
    expect((await put(3)).status).toBe(200)
  })

  test.each([
    [{ ...popup, id: 'other' }, 'they must be the same'],
    [{ ...popup, schedule: 'gone' }, '$.endpoint.schedule: names "gone", which does not exist'],
    [
      {
        id: 'second',
        name: 'X',
        kind: 'recording',
        camera: 'gone',
        beforeSeconds: 5,
        afterSeconds: 5
      },
      '$.endpoint.camera: names "gone", which does not exist'
    ],
    [
      {
        id: 'second',
        name: 'X',
        kind: 'strobe',
        device: 'cam-slipway',
        output: 'strobe',
        seconds: 5,
        pattern: 'slow'
      },
      '$.endpoint.output: exists already, as Strobe on the mast'
    ],
    [
      {
        id: 'second',
        name: 'X',
        kind: 'strobe',
        device: 'd',
        output: 'o',
        seconds: 61,
        pattern: 'slow'
      },
      '$.endpoint.seconds: is 61 s; enter 1 to 60 s'
    ]
  ])('%j is refused: %s', async (endpoint, why) => {
    const { version } = (await view()).endpoints.find(
      (e) => e.endpoint.id === 'second'
    ) as SavedEndpoint
    expect(await t.ask('PUT', '/endpoints/second', { version, endpoint })).toMatchObject({
      status: 422,
      body: { message: expect.saying(why) }
    })
  })
})

describe('voices', () => {
  test('stores a file and plays it back byte for byte; refuses another naming the byte', async () => {
    const file = readFileSync(new URL('../voices/leave.wav', import.meta.url))
    const { status, body } = await post('/voices?name=Own%20words', 'audio/wav', file)
    expect([status, body]).toEqual([
      201,
      {
        id: expect.any(String),
        name: 'Own words',
        seconds: expect.closeTo(3.9, 1),
        bytes: file.length
      }
    ])
    expect(Buffer.from(await (await t.fetch(`/voices/${body.id}`)).arrayBuffer())).toEqual(file)
    expect((await view()).voices).toMatchObject([{ name: 'Own words' }])
    expect((await post('/voices', 'audio/wav', 'no wave')).body.message).toContain(
      'byte 7: the file ends here'
    )
    const stereo = spawnSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'sine=duration=1',
      '-ar',
      '8000',
      '-ac',
      '2',
      '-f',
      'wav',
      'pipe:1'
    ]).stdout
    expect((await post('/voices', 'audio/wav', stereo)).body.message).toMatch(/^byte/)
    expect((await post('/voices', 'audio/wav', new Uint8Array(600_000))).body.message).toContain(
      'at most 524288 (512 KB) are allowed'
    )
    expect((await t.ask('GET', '/phrases/leave')).status).toBe(200)
    expect((await t.ask('GET', '/phrases/..%2fseed')).status).toBe(404)
  })
})

describe('hours', () => {
  test('exports a calendar and imports it', async () => {
    const { body: text } = await t.ask('GET', '/schedules/nights/calendar.ics')
    expect(new ICAL.Component(ICAL.parse(text)).getFirstPropertyValue('x-wr-calname')).toBe(
      'Nights'
    )
    const { body } = await post('/calendars?id=read', 'text/calendar', text)
    const { schedules } = await view()
    expect(body).toMatchObject({
      id: 'read',
      name: 'Nights',
      week: schedules.find((s) => s.schedule.id === 'nights')!.schedule.week
    })
    expect((await post('/calendars', 'text/calendar', 'hello')).status).toBe(422)
  })

  // Each of these hung the whole server for ever.
  test.each([
    ['RRULE:FREQ=DAILY;INTERVAL=99999999999', 'the interval 99999999999; must be 1 to 1000'],
    [
      'RRULE:FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30',
      'a rule of each second; must recur each hour or more seldom'
    ],
    [
      'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
      'the calendar: takes longer than 5 s to read: a rule never occurs or has too many dates'
    ],
    ['DURATION:P999999999999D', 'a duration that is negative or longer than 366 days'],
    ['DTEND:99990101T000000', 'DTEND that is no date of the years 1970 to 2200']
  ])(
    'a calendar with %s is refused, and everybody else goes on',
    async (line, words) => {
      const calendar = [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'BEGIN:VEVENT',
        'UID:1',
        'SUMMARY:Odd',
        'DTSTART:20261127T220000',
        ...(line.startsWith('D') ? [] : ['DTEND:20261128T060000']),
        line,
        'END:VEVENT',
        'END:VCALENDAR',
        ''
      ].join('\r\n')
      const asked = post('/calendars', 'text/calendar', calendar)
      const began = performance.now()
      expect((await t.ask('GET', '/site')).status).toBe(200)
      expect(performance.now() - began).toBeLessThan(20_000)
      const { status, body } = await asked
      expect([status, body.message]).toEqual([422, expect.saying(words)])
    },
    600_000
  )

  test('refuses a calendar that is not UTF-8 or has an invalid start', async () => {
    expect(
      (await post('/calendars', 'text/calendar', new Uint8Array([66, 255, 254]))).body.message
    ).toBe('the calendar: is not UTF-8; save it as UTF-8')
    const odd = (start: string) =>
      post(
        '/calendars',
        'text/calendar',
        `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:${start}\r\nDTEND:20261128T060000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`
      )
    for (const start of ['yesterday', '', '99999999T999999', '00000000'])
      expect([start, (await odd(start)).status]).toEqual([start, 422])
    // The thirteenth month is read as some read it: the first of the next year.
    expect((await odd('20261327T250000')).status).toBeLessThan(500)
  })

  test('are deleted only when unused, and restored under their version', async () => {
    expect((await t.ask('DELETE', '/schedules/dark-hours?version=1')).body.message).toBe(
      'This schedule is used by Floodlight, Strobe on the mast. Choose another there first.'
    )
    const spare = { id: 'spare', name: 'Spare', week: {} }
    const put = (version: number) =>
      t.ask('PUT', '/api/sites/skerrow/schedules/spare', { version, schedule: spare })
    expect((await put(0)).status).toBe(200)
    expect((await t.ask('DELETE', '/schedules/spare?version=1')).body).toEqual({ version: 2 })
    expect((await view()).schedules.some((s) => s.schedule.id === 'spare')).toBe(false)
    expect(await put(1)).toMatchObject({
      status: 409,
      body: { current: { deleted: true, version: 2 } }
    })
    expect((await put(2)).status).toBe(200)
  })

  test('contacts of the site: one in use cannot be deleted', async () => {
    const { inputs } = (await view()).site
    expect(
      await t.ask('PUT', '/inputs', {
        inputs: [...inputs, { id: 'gate', name: 'Gate', device: 'recorder', token: 'input-3' }]
      })
    ).toMatchObject({ status: 200 })
    expect((await view()).site.inputs).toHaveLength(3)
    expect(
      (await t.ask('PUT', '/inputs', { inputs: inputs.filter((i) => i.id !== 'door') })).body
        .message
    ).toBe('$.inputs: must have "door": Door after hours uses it')
    expect(
      (await t.ask('PUT', '/inputs', { inputs: [inputs[0], inputs[0]] })).body.message
    ).toContain('is used twice')
  })
})

describe('the site', () => {
  test('encrypts the mail server’s password and never returns it', async () => {
    const mail = {
      host: 'mail.example.org',
      port: 587,
      encryption: 'starttls',
      username: 'alarms',
      sender: 'alarms@example.org'
    }
    expect(
      (await t.ask('PUT', '/settings/mail', { version: 1, mail, password: 'gull-and-tide' })).body
    ).toMatchObject({ hasPassword: true, version: 2, mail })
    expect(JSON.stringify(await view())).not.toContain('gull-and-tide')
    const [row] = await t.database.rows<{ sealed: Buffer }>(
      "SELECT sealed FROM site_setting WHERE name = 'mail'"
    )
    expect(row!.sealed.includes('gull')).toBe(false)
    // Left out, it stays.
    expect(
      (
        await t.ask('PUT', '/settings/mail', {
          version: 2,
          mail: { ...mail, host: 'simulator' }
        })
      ).body.hasPassword
    ).toBe(true)
    // What is asked to be encrypted is never sent in the clear: the simulator has no STARTTLS.
    expect((await t.ask('POST', '/endpoints/duty-mail/test')).body.message).toMatch(/STARTTLS/i)
    expect(
      (
        await t.ask('PUT', '/settings/mail', {
          version: 3,
          mail: { ...mail, host: 'simulator', encryption: 'none', username: null },
          password: null
        })
      ).body.hasPassword
    ).toBe(false)
    expect((await t.ask('POST', '/endpoints/duty-mail/test')).status).toBe(200)
    expect(
      (await t.ask('PUT', '/settings/mail', { version: 4, mail: { ...mail, port: 70000 } })).body
        .message
    ).toBe('$.mail.port: is 70000; enter 1 to 65535')
  })

  test('people and groups: a group names only people of the site', async () => {
    const { people, version } = (await view()).people
    expect(
      (
        await t.ask('PUT', '/settings/people', {
          version,
          people: { ...people, groups: [{ id: 'g', name: 'G', members: ['nobody'] }] }
        })
      ).body.message
    ).toBe('$.people.groups[0].members[0]: names "nobody", who does not exist')
    expect(
      (
        await t.ask('PUT', '/settings/people', {
          version,
          people: { people: [...people.people, people.people[0]], groups: [] }
        })
      ).body.message
    ).toContain('twice')
    expect((await t.ask('PUT', '/settings/people', { version: version + 9, people })).status).toBe(
      409
    )
  })
})
