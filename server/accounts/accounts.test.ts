import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { SESSION_IDLE_MS, SESSION_LONGEST_MS } from '../../core/accounts/accounts.ts'
import { auditCodes, auditWords } from '../../core/accounts/auditWords.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { lockAccounts } from './queries.ts'
import { Attempts } from './attempts.ts'
import { hashed, isPassword, refuseCommon } from './passwords.ts'

// Requirements are those of the OWASP Application Security Verification Standard 4.0.3, level 2, chapters 2
// (authentication) and 3 (sessions); their numbers stand at the tests. Numbers and wording from memory.

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, withPasswords: true })))
afterAll(() => t.close())

const signIn = (username: string, password: string, cookie = '') =>
  fetch(`${t.address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify({ username, password })
  })
const cookiesOf = (answer: Response): string =>
  answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ')
const me = (cookie: string) => t.ask('GET', '/api/session', undefined, cookie)

describe('signing in', () => {
  test('3.4.2, 3.4.3, 3.2.1: the cookie is hidden from scripts and other sites, ends with the session, and is new each time', async () => {
    const answer = await signIn('Ines', 'watch-the-slip')
    expect(await answer.json()).toEqual({
      id: expect.any(Number),
      username: 'ines',
      name: 'Ines O.',
      role: 'operator',
      sites: []
    })
    const [cookie] = answer.headers.getSetCookie() as [string]
    expect(cookie).toMatch(/; Max-Age=43200; Path=\/; HttpOnly; SameSite=Strict/)
    const token = /=([\w-]+)/.exec(cookie)![1]!
    // 3.2.2: at least 64 bits of chance; 3.2.3: only its digest is kept.
    expect(Buffer.from(token, 'base64url')).toHaveLength(32)
    expect(await t.database.rows('SELECT 1 FROM session WHERE token_hash = ?', [token])).toEqual([])
    expect(cookiesOf(await signIn('ines', 'watch-the-slip'))).not.toContain(token)
  })

  test('3.3.1: after signing out nothing is answered, including parallel requests', async () => {
    const cookie = cookiesOf(await signIn('ines', 'watch-the-slip'))
    const beside = Array.from({ length: 30 }, () => me(cookie))
    const out = await t.ask('DELETE', '/api/session', undefined, cookie)
    expect(out.status).toBe(204)
    await Promise.all(beside)
    // Before, requests beside a sign-out brought the session back for five seconds.
    for (let i = 0; i < 5; i++) expect((await me(cookie)).status).toBe(401)
  })

  test('2.2.1: counts sixty parallel guesses as five; answers a wrong name like a wrong password', async () => {
    const answers = await Promise.all(
      Array.from({ length: 25 }, (_, i) => signIn('ruth', `guess number ${i}`))
    )
    const statuses = answers.map((a) => a.status)
    expect(statuses.filter((s) => s === 401)).toHaveLength(5)
    expect(statuses.filter((s) => s === 429)).toHaveLength(20)
    const [wrong] = answers.filter((a) => a.status === 401) as [Response]
    expect(await wrong.json()).toEqual({
      code: 'not-signed-in',
      said: 'Wrong user name or password.'
    })
    const nobody = await signIn('nobody', 'watch-the-slip')
    // More from one address wait as well, whatever the name.
    if (nobody.status !== 429)
      expect([nobody.status, await nobody.json()]).toEqual([
        401,
        { code: 'not-signed-in', said: 'Wrong user name or password.' }
      ])
  })
})

describe('limits of guessing', () => {
  const at = (address: string, device: string | null = null) => ({ address, device })

  test('2.2.1: a hundred an hour per name from any number of addresses, without locking out known clients', () => {
    let now = 0
    const attempts = new Attempts(() => now)
    let tried = 0
    for (let i = 0; i < 500; i++)
      try {
        attempts.begin(at(`192.0.2.${i}`), 'isla')
        tried++
      } catch {
        // Counted below.
      }
    expect(tried).toBe(100)
    // The right person, in the browser of the last sign-in, gets in while somebody goes on guessing.
    expect(() => attempts.begin(at('192.0.2.1', 'known'), 'isla')()).not.toThrow()
    // Another name at the same time, too.
    expect(() => attempts.begin(at('192.0.2.1'), 'ines')()).not.toThrow()
    now += 61 * 60_000
    expect(() => attempts.begin(at('198.51.100.1'), 'isla')).not.toThrow()
  })

  test('pauses grow from the fifth guess up to a quarter of an hour; a right one resets them', () => {
    let now = 0
    const attempts = new Attempts(() => now)
    const pauses: number[] = []
    for (let i = 0; i < 12; i++) {
      let waited = 0
      for (;;) {
        try {
          attempts.begin(at('192.0.2.9'), 'x')
          break
        } catch {
          now += 1000
          waited++
        }
      }
      pauses.push(waited)
    }
    expect(pauses).toEqual([0, 0, 0, 0, 0, 30, 60, 120, 240, 480, 900, 900])
    now += 900_000
    attempts.begin(at('192.0.2.9'), 'x')()
    for (let i = 0; i < 5; i++) expect(() => attempts.begin(at('192.0.2.9'), 'x')).not.toThrow()
  })

  test('bounds what it remembers', () => {
    const attempts = new Attempts(() => 0)
    const before = process.memoryUsage().heapUsed
    for (let i = 0; i < 200_000; i++) attempts.begin(at(`address ${i}`), `name ${i}`)
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(60 * 2 ** 20)
  })
})

describe('passwords', () => {
  const secret = Buffer.alloc(32, 7)

  // RFC 7914 12, third vector: scrypt("SodiumChloride", "pleaseletmein", N 16384, r 8, p 1); the
  // form is this project's.
  test('2.4.1: scrypt as published', async () => {
    const hash = Buffer.from(
      '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2',
      'hex'
    ).toString('base64')
    const kept = [
      'scrypt',
      16384,
      8,
      1,
      Buffer.from('SodiumChloride').toString('base64'),
      hash
    ].join('$')
    expect(await isPassword('pleaseletmein', kept, secret)).toBe(true)
    expect(await isPassword('pleaseletmeout', kept, secret)).toBe(false)
  })

  test('2.4.1, 2.4.5: salted and keyed: hashes of one password differ, and none verifies without the key', async () => {
    const [a, b] = [await hashed('ferry-at-seven', secret), await hashed('ferry-at-seven', secret)]
    expect(a).not.toBe(b)
    expect(a).not.toContain('ferry')
    expect(await isPassword('ferry-at-seven', a, secret)).toBe(true)
    expect(await isPassword('ferry-at-seven', a, Buffer.alloc(32, 8))).toBe(false)
    expect(await isPassword('', null, secret)).toBe(false)
  })

  test('2.1.1 to 2.1.4, 2.1.7: accepts 12 to 128 characters of any script, and refuses common ones', async () => {
    const add = (password: string) =>
      t.ask('POST', '/api/accounts', { username: 'trial', password, name: 'Trial', role: 'viewer' })
    expect((await add('eleven-char')).body.message).toBe(
      '$.password: must have at least 12 characters'
    )
    expect((await add('x'.repeat(129))).body.message).toBe(
      '$.password: is longer than 128 characters'
    )
    expect((await add('unbelievable')).body.message).toBe(
      '$.password: is too common; choose another'
    )
    expect((await add('aaaabbbbaaaa')).status).toBe(422)
    expect((await add('my trial 123')).status).toBe(201)
    await expect(
      refuseCommon('skerrow-landing', ['skerrow-landing'], 'password')
    ).rejects.toThrowWords('too close to the name')
    const long = `${'påssørd 船 '.repeat(12)}end`
    const id = (await t.ask('GET', '/api/accounts')).body.find(
      (a: any) => a.username === 'trial'
    ).id
    expect(
      (await t.ask('PUT', `/api/accounts/${id}`, { name: 'Trial', role: 'viewer', password: long }))
        .status
    ).toBe(200)
    // 2.1.3: nothing of it is cut off.
    expect((await signIn('trial', long.slice(0, -1))).status).not.toBe(200)
    expect((await t.ask('DELETE', `/api/accounts/${id}`)).status).toBe(204)
  })
})

describe('sessions', () => {
  test('3.3.2: ends after half an hour idle, and after twelve hours in any case', async () => {
    const cookie = await t.as('operator')
    expect((await me(cookie)).status).toBe(200)
    const newest = 'ORDER BY id DESC LIMIT 1'
    await t.database.run(`UPDATE session SET used_at = ? ${newest}`, [
      Date.now() - SESSION_IDLE_MS - 1000
    ])
    expect((await me(cookie)).status).toBe(401)
    const other = await t.as('operator')
    await t.database.run(`UPDATE session SET expires_at = ? ${newest}`, [Date.now() - 1])
    expect((await me(other)).status).toBe(401)
    expect(SESSION_LONGEST_MS).toBe(12 * 60 * 60_000)
  })

  test('3.3.4: lists and ends one’s own sessions, nobody else’s', async () => {
    const [here, elsewhere, others] = [
      await t.as('operator'),
      await t.as('operator'),
      await t.as('viewer')
    ]
    const { body } = await t.ask('GET', '/api/session/all', undefined, here)
    expect(body.sessions.length).toBeGreaterThanOrEqual(2)
    const mine = body.sessions.find((s: any) => s.id === body.current)
    expect(mine).toMatchObject({ address: '127.0.0.1', agent: 'test' })
    const { body: theirs } = await t.ask('GET', '/api/session/all', undefined, others)
    expect(
      (await t.ask('DELETE', `/api/session/all/${theirs.current}`, undefined, here)).status
    ).toBe(404)
    expect((await me(others)).status).toBe(200)
    expect((await t.ask('DELETE', '/api/session/all', undefined, here)).status).toBe(204)
    expect([(await me(here)).status, (await me(elsewhere)).status]).toEqual([200, 401])
  })

  test('a live stream ends with its session', async () => {
    const cookie = await t.as('operator')
    const answer = await fetch(`${t.address}${t.addressOf('/alarms/live')}`, {
      headers: { cookie }
    })
    expect(answer.status).toBe(200)
    const ended = (async () => {
      for await (const part of answer.body!) void part
    })().catch(() => 'cut')
    await t.ask('DELETE', '/api/session', undefined, cookie)
    await ended
  })

  test('one account has at most 24 open live streams', async () => {
    const cookie = await t.as('viewer')
    const stop = new AbortController()
    const answers = await Promise.all(
      Array.from({ length: 30 }, () =>
        fetch(`${t.address}${t.addressOf('/alarms/live')}`, {
          headers: { cookie },
          signal: stop.signal
        })
      )
    )
    expect(answers.filter((a) => a.status === 200)).toHaveLength(24)
    expect(answers.filter((a) => a.status === 429)).toHaveLength(6)
    stop.abort()
  })
})

describe('accounts', () => {
  test('creates, changes and deletes; 2.1.5, 2.1.6, 3.3.3: changing one’s password needs the old one and ends other sessions', async () => {
    const made = await t.ask('POST', '/api/accounts', {
      username: 'tormod',
      password: 'nets-and-lines',
      name: 'Tormod A.',
      role: 'operator'
    })
    expect(made).toMatchObject({ status: 201, body: { username: 'tormod', role: 'operator' } })
    expect(
      (
        await t.ask('POST', '/api/accounts', {
          username: 'Tormod',
          password: 'nets-and-lines',
          name: 'X',
          role: 'viewer'
        })
      ).body.message
    ).toBe('$.username: "tormod" is taken')
    expect(
      (
        await t.ask('POST', '/api/accounts', {
          username: 'x y',
          password: 'short',
          name: 'X',
          role: 'king'
        })
      ).status
    ).toBe(422)
    // Records hold names: no two accounts share one, however it is written.
    expect(
      (
        await t.ask('POST', '/api/accounts', {
          username: 'other',
          password: 'nets-and-lines',
          name: 'tormod  a.',
          role: 'viewer'
        })
      ).body.message
    ).toContain('$.name: is already the name of tormod; choose another')
    const { cookieOfAccount } = await import('../testing/session.ts')
    const [cookie, other] = [
      await cookieOfAccount(t.database, made.body.id),
      await cookieOfAccount(t.database, made.body.id)
    ]
    expect(
      (
        await t.ask(
          'PUT',
          '/api/session/password',
          { old: 'wrong', password: 'a-longer-password' },
          cookie
        )
      ).body.message
    ).toBe('$.old: is wrong')
    expect(
      (
        await t.ask(
          'PUT',
          '/api/session/password',
          { old: 'nets-and-lines', password: 'a-longer-password' },
          cookie
        )
      ).status
    ).toBe(204)
    expect([(await me(cookie)).status, (await me(other)).status]).toEqual([200, 401])
    // A changed role applies at once, also to open streams: its sessions end.
    expect(
      (await t.ask('PUT', `/api/accounts/${made.body.id}`, { name: 'Tormod A.', role: 'viewer' }))
        .body.role
    ).toBe('viewer')
    expect((await me(cookie)).status).toBe(401)
    expect((await t.ask('DELETE', `/api/accounts/${made.body.id}`)).status).toBe(204)
  })

  test('keeps one of two installers who demote each other at once', async () => {
    const { body: second } = await t.ask('POST', '/api/accounts', {
      username: 'second',
      password: 'another-installer',
      name: 'Second',
      role: 'installer'
    })
    const { cookieOfAccount } = await import('../testing/session.ts')
    const theirs = await cookieOfAccount(t.database, second.id)
    const { body: first } = await t.ask('GET', '/api/session')
    // Both are let in before either has changed anything: they wait for the accounts, which are held here until then.
    const asked = await t.database.transaction(async (sql) => {
      await lockAccounts(sql)
      const both = [
        t.ask('PUT', `/api/accounts/${second.id}`, { name: 'Second', role: 'viewer' }),
        t.ask('PUT', `/api/accounts/${first.id}`, { name: first.name, role: 'viewer' }, theirs)
      ]
      await eventually(async () => {
        const waiting = await t.database.rows(
          `SELECT 1 FROM information_schema.processlist
          WHERE db = DATABASE() AND info LIKE '%FROM account %FOR UPDATE'`
        )
        return waiting.length === 2
      })
      return { both }
    })
    const answers = await Promise.all(asked.both)
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409])
    expect(answers.find((a) => a.status === 409)!.body.message).toBe(
      'This is the last installer. Make another account an installer first.'
    )
    expect(
      await t.database.rows("SELECT COUNT(*) AS n FROM account WHERE role = 'installer'")
    ).toEqual([{ n: 1 }])
    await t.database.run("UPDATE account SET role = 'installer' WHERE id IN (?, ?)", [
      first.id,
      second.id
    ])
    t.cookie = await t.as('installer')
    expect((await t.ask('DELETE', `/api/accounts/${second.id}`)).status).toBe(204)
    expect((await t.ask('DELETE', `/api/accounts/${first.id}`)).status).toBe(409)
  })

  test('the audit log has words for every change', () => {
    const changing = t.app.routes
      .filter((r) => !/^(GET|HEAD|OPTIONS)$/.test(r.method))
      .map((r) => `${r.method} ${r.url.replace('/sites/:site', '')}`)
    const unsaid = [
      'POST /api/session',
      'DELETE /api/session',
      'POST /api/first-account',
      // Written down by itself, as sign-ins are.
      'POST /api/phone',
      'POST /api/cameras/:camera/look-back/counts',
      'POST /api/cameras/:camera/look-back/recommend',
      'POST /api/cameras/:camera/look-back/sweep',
      'POST /api/deliveries/:id/shown',
      'POST /api/proving/propose',
      'POST /api/triggers'
    ]
    expect(changing.filter((code) => !auditCodes.includes(code)).sort()).toEqual(unsaid.sort())
    expect(auditCodes.filter((code) => code.includes(' ') && !changing.includes(code))).toEqual([
      // Of before there were several sites.
      'PUT /api/sites/:site/schedules/:id'
    ])
    expect(auditWords('POST /api/accounts', 403)).toBe('Added an account: not allowed')
  })

  test('the audit log has sign-ins, actions and refusals', async () => {
    const operator = await t.as('operator')
    await t.ask(
      'POST',
      '/api/accounts',
      { username: 'nobody', password: 'nets-and-lines', name: 'N', role: 'viewer' },
      operator
    )
    const { body } = await t.ask('GET', '/api/audit')
    expect(body.entries[0]).toMatchObject({
      username: 'ines',
      what: 'POST /api/accounts',
      status: 403,
      address: '127.0.0.1'
    })
    const all = body.entries.map((e: any) => e.what)
    for (const what of [
      'signed-in',
      'wrong-password',
      'signed-out',
      'PUT /api/accounts/:id',
      'PUT /api/session/password'
    ])
      expect(all).toContain(what)
    expect(JSON.stringify(body)).not.toMatch(/nets-and-lines|guess number/)
    expect((await t.ask('GET', '/api/audit', undefined, operator)).status).toBe(403)
  })
})
