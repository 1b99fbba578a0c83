import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { ENDPOINT_KINDS, type EndpointKind } from '../../core/formats/actions.ts'
import { Database, type DatabaseAddress } from '../database.ts'
import { eventually } from '../testing/testApp.ts'
import { deliveryKind, pauseAfter } from './kinds.ts'
import { Queue } from './queue.ts'
import { Refused } from './refused.ts'
import { parsed } from '../columns.ts'
import { markSent, type DueDelivery } from './queries.ts'

let database: Database
let alarm: number
beforeAll(async () => {
  database = await Database.open(
    JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress,
    `wardoptic_queue_${process.pid}`
  )
  await database.run("INSERT INTO site (id, name, time_zone) VALUES ('site', 'Site', 'UTC')")
  await database.run(
    "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES ('cam', 'site', 'Cam', 0, '[]')"
  )
  alarm = (
    await database.run(
      "INSERT INTO alarm (site_id, camera_id, detection_id, name, severity, priority, state, actions, first_at, last_at, triggers) VALUES ('site', 'cam', 'd', 'D', 'major', 'normal', 'waiting', '{}', 0, 0, 1)"
    )
  ).insertId
})
afterAll(() => database.close())
beforeEach(() => database.run('DELETE FROM delivery'))

const put = (endpoint: string, more: { at?: number; by?: string; kind?: EndpointKind } = {}) =>
  database.run(
    "INSERT INTO delivery (alarm_id, kind, recipient, state, next_at, endpoint_id, endpoint, made_by, created_at) VALUES (?, ?, 'x', 'pending', ?, ?, ?, ?, 0)",
    [
      alarm,
      more.kind ?? 'buzzer',
      more.at ?? 0,
      endpoint,
      JSON.stringify({ id: endpoint, name: endpoint, kind: more.kind ?? 'buzzer' }),
      more.by ?? 'server'
    ]
  )
const states = () =>
  database.rows<{
    id: number
    state: string
    attempts: number
    error: string | null
    next_at: number
  }>('SELECT id, state, attempts, error, next_at FROM delivery ORDER BY id')
/** A queue whose deliveries are all made in one way. */
async function running(make: (due: DueDelivery) => Promise<void>): Promise<Queue> {
  const send = async (due: DueDelivery) => {
    await make(due)
    return { outcome: said('deliveries.webhookDone', 200) }
  }
  const queue = new Queue(
    database,
    send,
    () => {},
    (error) => {
      throw error
    }
  )
  queue.start()
  return queue
}
const done = () => eventually(async () => (await states()).every((d) => d.state !== 'pending'))

describe('the delivery queue', () => {
  test('makes each once: in order for one output, in parallel for several', async () => {
    for (let n = 0; n < 240; n++) await put(`e${n % 4}`)
    const made = new Map<number, number>()
    const order: Record<string, number[]> = {}
    const open = new Map<string, number>()
    let together = 0
    const queue = await running(async ({ id, endpoint }) => {
      expect(open.get(endpoint.id) ?? 0).toBe(0)
      open.set(endpoint.id, 1)
      together = Math.max(
        together,
        [...open.values()].reduce((a, b) => a + b, 0)
      )
      await new Promise((resolve) => setTimeout(resolve, Math.random() * 4))
      made.set(id, (made.get(id) ?? 0) + 1)
      ;(order[endpoint.id] ??= []).push(id)
      open.set(endpoint.id, 0)
      // Asked again while it is being written down: what was read before must not be made once more.
      queue.wake()
    })
    await done()
    await queue.close()
    expect([...made.values()].filter((n) => n !== 1)).toEqual([])
    expect(made.size).toBe(240)
    for (const ids of Object.values(order)) expect(ids).toEqual([...ids].sort((a, b) => a - b))
    expect(together).toBeGreaterThan(1)
    expect(
      (
        await database.rows<{ n: number }>('SELECT COUNT(*) AS n FROM delivery_attempt WHERE ok')
      )[0]!.n
    ).toBe(240)
  })

  test('postpones a failed delivery while others go on; gives up at once when refused', async () => {
    for (const endpoint of ['bad', 'bad', 'worse', 'good']) await put(endpoint)
    const began = Date.now()
    let bad = 0
    const queue = await running(async ({ endpoint }) => {
      if (endpoint.id === 'bad' && ++bad === 1) throw new Error('not now')
      if (endpoint.id === 'worse') throw new Refused('never')
    })
    await eventually(async () => (await states()).filter((d) => d.state === 'pending').length === 1)
    const [first, second, third, fourth] = await states()
    expect([first, second, third, fourth].map((d) => [d!.state, d!.error])).toEqual([
      ['pending', 'not now'],
      ['sent', null],
      ['failed', 'never'],
      ['sent', null]
    ])
    expect(first!.next_at - began).toBeGreaterThanOrEqual(2000)
    await done()
    expect((await states())[0]).toMatchObject({ state: 'sent', attempts: 2 })
    await queue.close()
  })

  test('a dead station holds up no mail and no second station; messages to one place overlap', async () => {
    for (let n = 0; n < 60; n++) await put('dead', { kind: 'station' })
    for (let n = 0; n < 30; n++) await put('mail', { kind: 'email' })
    await put('other', { kind: 'station' })
    let release = (): void => {}
    const never = new Promise<void>((resolve) => (release = resolve))
    let [open, most] = [0, 0]
    const queue = await running(async ({ endpoint }) => {
      if (endpoint.id === 'dead') return never
      most = Math.max(most, ++open)
      await new Promise((resolve) => setTimeout(resolve, 5))
      open--
    })
    const of = async (endpoint: string) =>
      (
        await database.rows<{ n: number }>(
          "SELECT COUNT(*) AS n FROM delivery WHERE endpoint_id = ? AND state = 'sent'",
          [endpoint]
        )
      )[0]!.n
    await eventually(async () => (await of('mail')) === 30 && (await of('other')) === 1)
    expect(await of('dead')).toBe(0)
    expect(most).toBeGreaterThan(1)
    release()
    await done()
    await queue.close()
  })

  test('what is made at the same time is written down together; what a camera has said meanwhile stays', async () => {
    for (const endpoint of ['a', 'b', 'c']) await put(endpoint)
    const [a, b, c] = (await states()).map(({ id }) => id) as [number, number, number]
    await database.run("UPDATE delivery SET state = 'sent', attempts = 7 WHERE id = ?", [b])
    const made = (id: number, result: object | null) => ({
      id,
      outcome: said('deliveries.webhookDone', 200),
      result,
      begun: 1000 + id,
      at: 2000 + id
    })
    await markSent(database, [made(c, { files: ['x"y'] }), made(b, null), made(a, null)])
    const rows = await database.rows<Record<string, unknown>>(
      'SELECT id, state, attempts, error, begun_at, sent_at, result FROM delivery ORDER BY id'
    )
    expect(rows).toMatchObject([
      {
        state: 'sent',
        attempts: 1,
        error: null,
        begun_at: 1000 + a,
        sent_at: 2000 + a,
        result: null
      },
      { state: 'sent', attempts: 7, begun_at: null },
      { state: 'sent', attempts: 1, begun_at: 1000 + c, sent_at: 2000 + c }
    ])
    expect(parsed(rows[2]!.result)).toEqual({ files: ['x"y'] })
    expect(
      await database.rows(
        'SELECT delivery_id, made_at, ok, words FROM delivery_attempt WHERE delivery_id IN (?, ?, ?) ORDER BY delivery_id',
        [a, b, c]
      )
    ).toEqual(
      [a, c].map((id) => ({
        delivery_id: id,
        made_at: 2000 + id,
        ok: 1,
        words: '{"code":"deliveries.webhookDone","values":[200]}'
      }))
    )
  })

  test('waits until due; switches the output itself when the camera does not confirm', async () => {
    await put('later', { at: Date.now() + 60_000 })
    await put('camera', { by: 'camera' })
    const queue = await running(async () => {})
    await eventually(async () => (await states())[1]!.state === 'failed')
    await queue.close()
    expect(await states()).toMatchObject([
      { state: 'pending', attempts: 0 },
      { error: '{"code":"deliveries.cameraSilent"}' }
    ])
  })
})

describe('pauses', () => {
  test.each(ENDPOINT_KINDS)('%s: grow to the longest, then it fails', (kind) => {
    const { attempts, longestMs } = deliveryKind(kind).patience
    const pauses = Array.from({ length: attempts }, (_, i) => pauseAfter(kind, i + 1))
    expect(pauses.at(-1)).toBeNull()
    const real = pauses.slice(0, -1) as number[]
    real.forEach((pause, i) => expect(pause).toBeGreaterThanOrEqual(real[i - 1] ?? 1))
    expect(Math.max(...real)).toBeLessThanOrEqual(longestMs)
  })

  test('a light is retried for half a minute, a message for some forty minutes', () => {
    const whole = (kind: EndpointKind): number => {
      let ms = 0
      for (let n = 1, p = pauseAfter(kind, n); p !== null; p = pauseAfter(kind, ++n)) ms += p
      return ms / 60_000
    }
    expect(whole('strobe')).toBeLessThan(0.5)
    expect(whole('station')).toBeGreaterThan(20)
    expect(whole('station')).toBeLessThan(90)
  })
})
