import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { shiftSince } from '../../core/watch/shift.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true })))
afterAll(() => t.close())

const HOUR = 3_600_000
const raise = async (key: string): Promise<number> =>
  (
    await t.ask('POST', '/triggers', {
      key,
      camera: 'waiting-room',
      detection: 'waiting-room-door'
    })
  ).body.alarm
const read = async () => (await t.ask('GET', '/shift')).body

describe('a shift note', () => {
  test('begins at the note before, within a day; without one, half a day ago', () => {
    const now = Date.UTC(2026, 10, 29, 6)
    expect(shiftSince(null, now)).toBe(now - 12 * HOUR)
    expect(shiftSince(now - 8 * HOUR, now)).toBe(now - 8 * HOUR)
    expect(shiftSince(now - 50 * HOUR, now)).toBe(now - 24 * HOUR)
  })

  test('holds how things stood; the next shift reads it, once', async () => {
    expect(await read()).toMatchObject({
      note: null,
      counts: { alarms: 0, closed: 0, nuisance: 0, active: 0 }
    })
    const first = await raise('one')
    await t.ask('POST', `/alarms/${first}/acknowledge`, { comment: 'Looked.', confirmed: true })
    await t.ask('POST', `/alarms/${first}/mark`, { mark: 'nuisance', reason: null })
    await t.ask('POST', `/alarms/${first}/close`, { words: '' })
    await raise('two')
    const operator = await t.as('operator')
    const words = 'Contractor on the pontoon until 02:00.'
    const made = await t.ask('POST', '/shift/notes', { words }, operator)
    expect(made).toMatchObject({
      status: 201,
      body: {
        words,
        counts: { alarms: 2, closed: 1, nuisance: 1, active: 1 },
        readBy: null
      }
    })
    // What comes after it is of the next shift; what is active is active for both.
    await raise('three')
    const later = await read()
    expect(later.note.id).toBe(made.body.id)
    expect(later.counts.since).toBe(made.body.at)
    expect(later.counts.active).toBe(1)
    const mark = (cookie?: string) =>
      t.ask('POST', `/shift/notes/${made.body.id}/read`, undefined, cookie)
    expect((await mark(await t.as('viewer'))).status).toBe(403)
    const both = await Promise.all([mark(), mark(operator)])
    expect(both.map((a) => a.status).sort()).toEqual([200, 409])
    expect((await read()).note.readBy).not.toBeNull()
  })

  test('needs words, and is there at its own site alone', async () => {
    expect((await t.ask('POST', '/shift/notes', { words: ' ' })).status).toBe(422)
    expect((await t.ask('POST', '/shift/notes/999/read')).status).toBe(404)
    const { id } = (await read()).note
    const other = await t.ask('POST', '/api/sites', { name: 'Other' })
    const at = `/api/sites/${other.body.id}/shift`
    expect((await t.ask('GET', at)).body).toMatchObject({ note: null, counts: { active: 0 } })
    expect((await t.ask('POST', `${at}/notes/${id}/read`)).status).toBe(404)
  })
})

test('who is signed in and has asked for something lately is named, each once', async () => {
  await t.as('viewer')
  await t.as('viewer')
  const names = async (): Promise<string[]> =>
    (await read()).signedIn.map((p: { name: string }) => p.name)
  const before = await names()
  expect(new Set(before).size).toBe(before.length)
  expect(before.length).toBeGreaterThan(1)
  // Ten minutes in which nobody but the one who asks asks for anything.
  await t.database.run('UPDATE session SET used_at = used_at - 600000')
  expect(await names()).toEqual([])
})
