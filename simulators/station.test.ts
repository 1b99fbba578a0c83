import { connect } from 'node:net'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { eventData, readFrame, writeFrame, type Frame } from '../core/formats/dc09.ts'
import { Contacts } from './contacts.ts'
import { DEMO_CONTACTS, startPages } from './pages.ts'
import { Station } from './station.ts'

let station: Station
let pages: Awaited<ReturnType<typeof startPages>>
/** What the station waited before each answer, in milliseconds. */
const waits: number[] = []
const contacts = new Contacts()
beforeAll(async () => {
  station = await new Station((what, ms) => {
    waits.push(ms)
    setImmediate(what)
  }).start()
  pages = await startPages({ station, contacts, held: DEMO_CONTACTS, devices: [], mailboxPort: 1 })
})
afterAll(() => Promise.all([station.close(), pages.close()]))
beforeEach(() => {
  station.mood = 'answers'
  station.accepts = 'minor'
})

const event = (sequence: number, severity: 'minor' | 'major' | 'information' = 'major'): Frame => ({
  id: 'SIA-DCS',
  sequence,
  account: '5A31',
  data: eventData({ kind: 'line', zone: 1, severity, words: 'Slipway: crossed' }),
  at: Date.UTC(2026, 10, 24)
})

/**
 * Sends raw text in pieces, each once it is there to be sent; what has come back once it is so many answers, by default
 * one.
 */
const say = (pieces: (string | (() => Promise<string>))[], awaited = 1): Promise<string> =>
  new Promise((resolve, reject) => {
    const socket = connect({ host: '127.0.0.1', port: station.port, noDelay: true })
    let text = ''
    socket.setEncoding('utf8').on('data', (part: string) => {
      text += part
      if (text.split('\r').length <= awaited) return
      socket.destroy()
      resolve(text)
    })
    const saying = async (): Promise<void> => {
      for (const piece of pieces) {
        socket.write(typeof piece === 'string' ? piece : await piece())
        await new Promise((next) => setTimeout(next, 20))
      }
    }
    socket.on('connect', () => void saying().catch(reject))
    socket.on('error', reject)
  })
const answers = (text: string): Frame[] =>
  text
    .split('\r')
    .filter(Boolean)
    .map((t) => readFrame(`${t}\r`))

describe('the monitoring station simulator', () => {
  test('confirms frames in one piece, in several, or several at once', async () => {
    const text = writeFrame(event(7))
    expect(answers(await say([text]))).toMatchObject([{ id: 'ACK', sequence: 7, account: '5A31' }])
    expect(
      answers(await say([text.slice(0, 10), text.slice(10, 30), text.slice(30)]))
    ).toMatchObject([{ id: 'ACK', sequence: 7 }])
    expect(
      answers(
        await say(
          [writeFrame(event(8)) + writeFrame({ ...event(9), id: 'NULL', data: '', at: null })],
          2
        )
      ).map((a) => [a.id, a.sequence])
    ).toEqual([
      ['ACK', 8],
      ['ACK', 9]
    ])
  })

  test('recognises a repeated frame by its number and text', () => {
    expect(station.messages.filter((m) => m.sequence === 7).map((m) => m.again)).toEqual([
      false,
      true
    ])
  })

  test('refuses a damaged frame and keeps nothing', async () => {
    const before = station.messages.length
    expect(answers(await say([writeFrame(event(10)).replace('crossed', 'crossEd')]))).toMatchObject(
      [{ id: 'NAK' }]
    )
    expect(station.messages).toHaveLength(before)
  })

  test('refuses severities below its limit, and other messages', async () => {
    expect(answers(await say([writeFrame(event(11, 'information'))]))).toMatchObject([
      { id: 'DUH', sequence: 11 }
    ])
    expect(answers(await say([writeFrame({ ...event(12), data: 'nonsense' })]))).toMatchObject([
      { id: 'DUH' }
    ])
    station.mood = 'refuses'
    expect(answers(await say([writeFrame(event(13))]))).toMatchObject([{ id: 'DUH', sequence: 13 }])
  })

  test('silent: answers nothing; slow: answers later', async () => {
    station.mood = 'silent'
    // The next one on the same line is answered: what is heard first is the answer to it.
    const next = async (): Promise<string> => {
      while (station.messages.at(-1)?.sequence !== 14)
        await new Promise((goOn) => setImmediate(goOn))
      expect(station.messages.at(-1)).toMatchObject({ answer: 'nothing' })
      station.mood = 'answers'
      return writeFrame(event(15))
    }
    expect(answers(await say([writeFrame(event(14)), next]))).toMatchObject([
      { id: 'ACK', sequence: 15 }
    ])
    station.mood = 'slow'
    waits.length = 0
    expect(answers(await say([writeFrame(event(16))]))).toMatchObject([{ id: 'ACK', sequence: 16 }])
    expect(waits).toEqual([3000])
  })
})

describe('its pages', () => {
  const at = (path: string): string => `http://127.0.0.1:${pages.port}${path}`
  const press = (path: string, value: string) =>
    fetch(at(path), { method: 'POST', body: new URLSearchParams({ value }), redirect: 'manual' })

  test('show received messages, never as markup', async () => {
    await say([
      writeFrame({
        ...event(20),
        data: eventData({
          kind: 'line',
          zone: 1,
          severity: 'major',
          words: '<script>alert(1)</script>'
        })
      })
    ])
    const page = await (await fetch(at('/station'))).text()
    expect(page).toContain('&#60;script&#62;alert(1)&#60;/script&#62;')
    expect(page).not.toContain('<script>alert(1)')
  })

  test('operate the station, the panel and the contacts only', async () => {
    expect((await press('/station/mood', 'silent')).status).toBe(303)
    expect(station.mood).toBe('silent')
    expect((await press('/station/mood', 'asleep')).status).toBe(404)
    expect((await press('/station/accepts', 'critical')).status).toBe(303)
    expect(station.accepts).toBe('critical')
    await press('/contacts/panel', 'on')
    expect(contacts.get('panel')).toBe(true)
    await press('/contacts/panel', 'off')
    expect(contacts.get('panel')).toBe(false)
    await press('/contacts/panel', 'free')
    expect(contacts.get('panel')).toBeNull()
    expect((await press('/contacts/vault', 'on')).status).toBe(404)
    for (const path of ['/', '/panel', '/outputs', '/hooks'])
      expect((await fetch(at(path))).headers.get('content-type')).toContain('text/html')
    expect((await fetch(at('/outputs/nowhere/horn.wav'))).status).toBe(404)
  })

  test('accept webhooks with their key', async () => {
    expect(
      (
        await fetch(at('/hooks'), {
          method: 'POST',
          headers: { 'idempotency-key': 'delivery-7' },
          body: '{"a":1}'
        })
      ).status
    ).toBe(204)
    expect(
      ((await (await fetch(at('/state'))).json()) as { hooks: object[] }).hooks.at(-1)
    ).toMatchObject({ key: 'delivery-7', body: '{"a":1}' })
  })
})
