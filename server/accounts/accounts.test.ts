import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { ROLES, mayAsk, type Role } from '../../core/accounts/accounts.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { hashed, isPassword } from './passwords.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, withPasswords: true })))
afterAll(() => t.close())

const signIn = (username: string, password: string) => fetch(`${t.address}/api/session`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ username, password }) })

describe('signing in', () => {
  test('the cookie is out of reach of scripts and of other sites; the token is kept only as its digest', async () => {
    const answer = await signIn('Ines', 'watch-the-slip')
    expect(await answer.json()).toEqual({ id: expect.any(Number), username: 'ines', name: 'Ines O.', role: 'operator', person: 'ines' })
    const cookie = answer.headers.get('set-cookie')!
    expect(cookie).toMatch(/; HttpOnly; SameSite=Strict/)
    const token = /=([\w-]+)/.exec(cookie)![1]
    const [{ n }] = await t.database.rows<{ n: number }>('SELECT COUNT(*) AS n FROM session WHERE token_hash = ?', [token])
    expect(n).toBe(0)
    const me = () => t.ask('GET', '/api/session', undefined, cookie.split(';')[0])
    expect((await me()).body.name).toBe('Ines O.')
    expect((await t.ask('DELETE', '/api/session', undefined, cookie.split(';')[0])).status).toBe(204)
    expect((await me()).status).toBe(401)
  })

  test('a wrong name and a wrong password are answered alike; after five the sixth waits, also with the right one', async () => {
    const wrong = await signIn('nobody', 'watch-the-slip')
    expect([wrong.status, await wrong.json()]).toEqual([401, { code: 'not-signed-in', message: 'name or password is wrong' }])
    for (let i = 0; i < 5; i++) expect((await signIn('ruth', 'guess')).status).toBe(401)
    const late = await signIn('ruth', 'only-looking-in')
    expect([late.status, (await late.json()).message]).toEqual([429, expect.stringMatching(/wrong 5 times; wait \d+ s/)])
  })

  test('an old session is none', async () => {
    const cookie = await t.as('operator')
    await t.database.run('UPDATE session SET expires_at = 1')
    expect((await t.ask('GET', '/api/session', undefined, cookie)).status).toBe(401)
    t.cookie = await t.as('installer')
  })
})

describe('passwords', () => {
  // RFC 7914 12, third vector: scrypt("SodiumChloride", "pleaseletmein", N 16384, r 8, p 1); the form is this project's.
  test('scrypt as published', async () => {
    const hash = Buffer.from('7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2', 'hex').toString('base64')
    const kept = ['scrypt', 16384, 8, 1, Buffer.from('SodiumChloride').toString('base64'), hash].join('$')
    expect(await isPassword('pleaseletmein', kept)).toBe(true)
    expect(await isPassword('pleaseletmeout', kept)).toBe(false)
  })

  test('salted: the same twice is kept differently, and neither says what it was', async () => {
    const [a, b] = [await hashed('ferry-at-seven'), await hashed('ferry-at-seven')]
    expect(a).not.toBe(b)
    expect(a).not.toContain('ferry')
    expect(await isPassword('ferry-at-seven', a)).toBe(true)
    expect(await isPassword('', null)).toBe(false)
  })
})

describe('roles, tried from outside, route by route', () => {
  /** An address of a route that is not there: whoever may ask is told so, or what is wrong; nobody changes anything. */
  const address = (route: string): string => route.replace(/:\w+|\*/g, '999999')
  const statusOf = async (route: string, cookie: string): Promise<number> => {
    const [method, path] = route.split(' ')
    const stop = new AbortController()
    // Streams do not end by themselves; who is let in is known from their head.
    const answer = await fetch(t.address + address(path), { method, signal: stop.signal, headers: { cookie, ...(!['GET', 'HEAD', 'DELETE'].includes(method) && { 'content-type': 'application/json' }) }, ...(!['GET', 'HEAD', 'DELETE'].includes(method) && { body: '{"nothing":true}' }) })
    stop.abort()
    return answer.status
  }
  const routes = (): string[] => t.app.routes.filter((r) => !/ \/api\/session|^OPTIONS/.test(r))

  test('nobody who is not signed in is answered', async () => {
    expect(routes().length).toBeGreaterThan(80)
    for (const route of routes()) expect([route, await statusOf(route, '')]).toEqual([route, 401])
    expect((await fetch(`${t.address}/api/anything`)).status).toBe(401)
    expect((await fetch(`${t.address}/api/anything`, { headers: { cookie: 'wardoptic_session=made-up' } })).status).toBe(401)
  })

  test.each(['operator', 'viewer'] as const)('%s: what is set up is out of reach', async (role: Role) => {
    const cookie = await t.as(role)
    const allowed: string[] = []
    for (const route of routes()) {
      const status = await statusOf(route, cookie)
      if (status !== 403) allowed.push(route)
      expect([route, status === 403]).toEqual([route, !mayAsk(role, ...(route.split(' ') as [string, string]))])
    }
    // Said once more by hand: nothing of what an installer edits can be changed by them.
    const changing = allowed.filter((r) => !/^(GET|HEAD) /.test(r)).sort()
    expect(changing).toEqual(role === 'viewer' ? ['POST /api/deliveries/:id/shown'] : ['POST /api/alarms/:id/acknowledge', 'POST /api/alarms/:id/close', 'POST /api/alarms/:id/hand', 'POST /api/alarms/:id/notes', 'POST /api/deliveries/:id/retry', 'POST /api/deliveries/:id/shown'])
    expect(allowed.some((r) => /detections|schedules|endpoints|settings|devices|accounts|proving|checks|clips/.test(r))).toBe(false)
  })

  test('an installer may ask everything', () => {
    for (const route of routes()) expect(mayAsk('installer', ...(route.split(' ') as [string, string]))).toBe(true)
    expect(ROLES).toHaveLength(3)
  })
})

describe('accounts', () => {
  test('made, changed, and gone; the last installer stays', async () => {
    const made = await t.ask('POST', '/api/accounts', { username: 'tormod', password: 'nets-and-lines', name: 'Tormod A.', role: 'operator' })
    expect(made).toMatchObject({ status: 201, body: { username: 'tormod', role: 'operator' } })
    expect((await t.ask('POST', '/api/accounts', { username: 'Tormod', password: 'nets-and-lines', name: 'X', role: 'viewer' })).body.message).toBe('$.username: "tormod" is taken')
    expect((await t.ask('POST', '/api/accounts', { username: 'x y', password: 'short', name: 'X', role: 'king' })).status).toBe(422)
    const cookie = (await signIn('tormod', 'nets-and-lines')).headers.get('set-cookie')!.split(';')[0]
    expect((await t.ask('PUT', `/api/accounts/${made.body.id}`, { name: 'Tormod A.', role: 'viewer' })).body.role).toBe('viewer')
    expect((await t.ask('GET', '/api/session', undefined, cookie)).body.role).toBe('viewer')
    // One's own password: the old one is asked for, and other sessions end.
    const other = (await signIn('tormod', 'nets-and-lines')).headers.get('set-cookie')!.split(';')[0]
    expect((await t.ask('PUT', '/api/session/password', { old: 'wrong', password: 'a-longer-password' }, cookie)).body.message).toBe('$.old: is not your password')
    expect((await t.ask('PUT', '/api/session/password', { old: 'nets-and-lines', password: 'a-longer-password' }, cookie)).status).toBe(204)
    expect((await t.ask('GET', '/api/session', undefined, cookie)).status).toBe(200)
    expect((await t.ask('GET', '/api/session', undefined, other)).status).toBe(401)
    expect((await t.ask('DELETE', `/api/accounts/${made.body.id}`)).status).toBe(204)
    expect((await t.ask('GET', '/api/session', undefined, cookie)).status).toBe(401)
    const { body: me } = await t.ask('GET', '/api/session')
    expect(await t.ask('DELETE', `/api/accounts/${me.id}`)).toMatchObject({ status: 409, body: { message: expect.stringContaining('nobody would be left') } })
    expect((await t.ask('PUT', `/api/accounts/${me.id}`, { name: me.name, role: 'viewer' })).status).toBe(409)
  })
})
