import { request as ask, type IncomingMessage } from 'node:http'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { inWords } from '../testing/inWords.ts'
import { fastify } from 'fastify'
import type { Role } from '../../core/accounts/accounts.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { registerApi, type DeclaredRoute } from './plugin.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true })))
afterAll(() => t.close())

/** One request with its target exactly as written: `fetch` would put it right. Streams are cut at their head. */
function raw(
  method: string,
  target: string,
  headers: Record<string, string> = {},
  body?: string
): Promise<{ status: number; headers: IncomingMessage['headers']; body: string }> {
  const { port } = new URL(t.address)
  return new Promise((resolve, reject) => {
    const request = ask(
      {
        agent: false,
        host: '127.0.0.1',
        port,
        method,
        path: target,
        headers: {
          host: `127.0.0.1:${port}`,
          ...(body !== undefined && { 'content-type': 'application/json' }),
          ...headers
        }
      },
      (answer) => {
        const done = (text: string): void =>
          resolve({ status: answer.statusCode!, headers: answer.headers, body: text })
        if (/event-stream|octet-stream|multipart/.test(answer.headers['content-type'] ?? '')) {
          answer.destroy()
          return done('')
        }
        let text = ''
        answer.on('data', (part) => (text += part))
        answer.on('end', () => done(text))
      }
    )
    // What is no request at all is answered with a reason, which nobody expects after HEAD.
    request.on('error', (error: NodeJS.ErrnoException) =>
      method === 'HEAD' && error.code === 'HPE_INVALID_CONSTANT'
        ? resolve({ status: 400, headers: {}, body: '' })
        : reject(error)
    )
    request.end(body)
  })
}

const letterCoded = (path: string, at: number): string =>
  path.slice(0, at) + `%${path.charCodeAt(at).toString(16)}` + path.slice(at + 1)

/** Other spellings of a path, each of which some router takes for the same one. */
const spellings: Readonly<Record<string, (path: string) => string>> = {
  'as it is': (p) => p,
  'first letter coded': (p) => letterCoded(p, 1),
  'second letter coded': (p) => letterCoded(p, 2),
  'letter of the place coded': (p) => letterCoded(p, 5),
  'coded, upper case': (p) => letterCoded(p, 1).replace(/%[0-9a-f]{2}/, (c) => c.toUpperCase()),
  'coded twice': (p) => letterCoded(p, 1).replace('%', '%25'),
  'slash coded': (p) => p.replace('/api/', '/api%2f'),
  'both slashes coded': (p) => `%2Fapi%2F${p.slice(5)}`,
  'upper case': (p) => p.replace('/api', '/API'),
  'mixed case': (p) => p.replace('/api', '/Api'),
  'place in upper case': (p) => `/api/${p.slice(5).toUpperCase()}`,
  'doubled slash before': (p) => `/${p}`,
  'doubled slash within': (p) => p.replace('/api/', '/api//'),
  'trailing slash': (p) => `${p}/`,
  'two trailing slashes': (p) => `${p}//`,
  semicolon: (p) => `${p};a=b`,
  'semicolon within': (p) => p.replace('/api/', '/api;x/'),
  'semicolon, then a query': (p) => `${p};?x=1`,
  dot: (p) => p.replace('/api/', '/api/./'),
  'dots back': (p) => `/api/session/..${p.slice(4)}`,
  'dots from elsewhere': (p) => `/assets/..${p}`,
  'coded dots': (p) => `/api/session/%2e%2e${p.slice(4)}`,
  'dots of a free route': (p) => `/api/entrance/../..${p}`,
  backslash: (p) => p.replace('/api/', '/api\\'),
  'null byte': (p) => `${p}%00`,
  'a whole address': (p) => `http://127.0.0.1${p}`,
  'a whole address of somebody else': (p) => `http://x${p}`,
  'an address without its scheme': (p) => `//x${p}`,
  'a query before': (p) => `/?${p}`,
  'a fragment': (p) => `/#${p}`,
  'wide letters': (p) => p.replace('a', '%ef%bd%81'),
  'overlong coding': (p) => p.replace('/api', '/%c1%a1pi')
}

/** An address of a route that is not there: whoever may ask is told so, or what is wrong; nobody changes anything. */
const addressOf = ({ url }: DeclaredRoute): string =>
  url.replace(':site', 'skerrow').replace(/:\w+|\*/g, '999999')
const bodyOf = (method: string): string | undefined =>
  ['GET', 'HEAD', 'DELETE', 'OPTIONS'].includes(method) ? undefined : '{"nothing":true}'
/** Nothing of the system has been said: an error in words, or the page of the interface. */
const saysNothing = ({ status, body }: { status: number; body: string }): boolean =>
  status >= 400 || body.includes('<div id="root">') || body === ''

describe('no access without signing in', () => {
  const routes = () => t.app.routes.filter(({ roles }) => roles !== 'anyone')

  test('refuses every route in every spelling', async () => {
    expect(routes().length).toBeGreaterThan(90)
    let asked = 0
    const inside: string[] = []
    for (const route of routes())
      for (const [name, spell] of Object.entries(spellings)) {
        const answer = await raw(
          route.method,
          spell(addressOf(route)),
          {},
          bodyOf(route.method)
        ).catch((error: Error) => {
          throw new Error(`${name}: ${route.method} ${route.url}: ${error.message}`)
        })
        asked++
        if (answer.status < 400 || ![400, 401, 403, 404, 415, 422].includes(answer.status))
          inside.push(`${name}: ${route.method} ${route.url} → ${answer.status}`)
      }
    expect(inside).toEqual([])
    expect(asked).toBeGreaterThan(3000)
  })

  test('refuses GET /%61pi/accounts, POST /%61pi/accounts and GET http://x/api/accounts, which once answered', async () => {
    expect((await raw('GET', '/%61pi/accounts')).status).toBe(401)
    const made = await raw(
      'POST',
      '/%61pi/accounts',
      {},
      JSON.stringify({
        username: 'intruder',
        password: 'a-way-in-for-me',
        name: 'I',
        role: 'installer'
      })
    )
    expect(made.status).toBe(401)
    expect((await raw('GET', 'http://x/api/accounts')).status).toBe(422)
    expect(
      (await t.ask('GET', '/api/accounts')).body.some((a: any) => a.username === 'intruder')
    ).toBe(false)
  })

  test.each(['HEAD', 'OPTIONS', 'TRACE', 'PROPFIND', 'CONNECT-LIKE'])(
    '%s gives nothing away',
    async (method) => {
      for (const target of [
        '/api/accounts',
        '/%61pi/accounts',
        '/api/sites/skerrow/alarms/live',
        '*'
      ]) {
        const answer = await raw(method, target).catch(() => ({ status: 400, body: '' }))
        expect([target, answer.status >= 400 || answer.body === '']).toEqual([target, true])
        expect([target, answer.status]).not.toEqual([target, 200])
      }
    }
  )

  test.each(['viewer', 'operator', 'installer'] as const)(
    '%s: may do what the routes declare, in every spelling',
    async (role: Role) => {
      const cookie = await t.as(role)
      for (const route of routes()) {
        if (/\/api\/session/.test(route.url)) continue
        const may = route.roles.includes(role)
        for (const name of [
          'as it is',
          'first letter coded',
          'letter of the place coded',
          'trailing slash',
          'coded twice',
          'semicolon'
        ]) {
          const answer = await raw(
            route.method,
            spellings[name]!(addressOf(route)),
            { cookie },
            bodyOf(route.method)
          )
          const where = `${name}: ${route.method} ${route.url}`
          if (!may) expect([where, saysNothing(answer)]).toEqual([where, true])
          // Nobody who signs in is a phone that was let in for one walk test.
          const refused = route.roles === 'phone' ? 401 : 403
          if (name === 'as it is') expect([where, answer.status === refused]).toEqual([where, !may])
          expect([where, answer.status < 500 || answer.status === 503]).toEqual([where, true])
        }
      }
    },
    600_000
  )

  test('what roles other than installer may change, by hand', () => {
    const changing = (role: Role): string[] =>
      routes()
        .filter(
          (r) =>
            r.roles.includes(role) &&
            !/^(GET|HEAD)$/.test(r.method) &&
            !r.url.startsWith('/api/session')
        )
        .map((r) => `${r.method} ${r.url}`)
        .sort()
    expect(changing('viewer')).toEqual([])
    expect(changing('operator')).toEqual([
      'DELETE /api/sites/:site/cameras/:camera/marks/:id',
      'POST /api/sites/:site/alarms/:id/acknowledge',
      'POST /api/sites/:site/alarms/:id/close',
      'POST /api/sites/:site/alarms/:id/hand',
      'POST /api/sites/:site/alarms/:id/mark',
      'POST /api/sites/:site/alarms/:id/notes',
      'POST /api/sites/:site/cameras/:camera/marks',
      'POST /api/sites/:site/deliveries/:id/retry',
      'POST /api/sites/:site/deliveries/:id/shown',
      'POST /api/sites/:site/shift/notes',
      'POST /api/sites/:site/shift/notes/:id/read'
    ])
    const reading = routes()
      .filter((r) => r.roles.includes('operator') && r.method === 'GET')
      .map((r) => r.url)
    expect(
      reading.some((url) =>
        /detections|schedules|endpoints|settings|devices|accounts|audit|proving|checks|clips/.test(
          url
        )
      )
    ).toBe(false)
    expect(
      t.app.routes
        .filter((r) => r.roles === 'anyone')
        .map((r) => `${r.method} ${r.url}`)
        .sort()
    ).toEqual([
      'GET /api/entrance',
      'HEAD /api/entrance',
      'POST /api/first-account',
      'POST /api/phone',
      'POST /api/session'
    ])
  })

  test('a route without roles stops the start', async () => {
    const http = fastify()
    const parts = {
      database: null as never,
      sessions: null as never,
      phones: null as never,
      audit: null as never,
      secure: false
    }
    await expect(
      registerApi(http, parts, (api) => void api.get('/open', () => 'for all'))
    ).rejects.toThrowWords('GET /api/open does not say who may ask for it')
  })
})

describe('origin of requests', () => {
  const statusWith = async (headers: Record<string, string>, method = 'GET') =>
    (await raw(method, '/api/entrance', headers)).status

  test('refuses names, ports and schemes that are not this server’s', async () => {
    const own = new URL(t.address).port
    for (const host of [
      'evil.example',
      `evil.example:${own}`,
      '127.0.0.1',
      '127.0.0.1:1',
      'localhost.evil.example',
      `127.0.0.1:${own}.evil`,
      `[::ffff:127.0.0.1]:${own}`
    ])
      expect([host, await statusWith({ host })]).toEqual([host, 403])
    for (const host of [`localhost:${own}`, `127.0.0.1:${own}`, `LOCALHOST:${own}`])
      expect([host, await statusWith({ host })]).toEqual([host, 200])
    const post = (origin: string) => raw('POST', '/api/session', { origin }, '{}')
    for (const origin of [
      `https://127.0.0.1:${own}`,
      'http://127.0.0.1',
      `http://localhost:${own}`,
      'null',
      'http://evil.example'
    ])
      expect([origin, (await post(origin)).status]).toEqual([origin, 403])
    expect((await post(`http://127.0.0.1:${own}`)).status).toBe(422)
    expect(
      (await raw('POST', '/api/session', { 'sec-fetch-site': 'cross-site' }, '{}')).status
    ).toBe(403)
  })

  test('headers forbid caching, framing, sniffing and foreign code', async () => {
    for (const answer of [
      await raw('GET', '/api/sites/skerrow/site', { cookie: t.cookie }),
      await raw('GET', '/api/nothing'),
      await raw('GET', '/nothing', { host: 'evil' })
    ]) {
      const { headers } = answer
      expect(headers['content-security-policy']).toMatch(
        /default-src 'none'.*frame-ancestors 'none'/
      )
      expect(headers['content-security-policy']).not.toMatch(/unsafe|\*/)
      expect(headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'referrer-policy': 'no-referrer',
        'x-frame-options': 'DENY',
        'cross-origin-opener-policy': 'same-origin',
        'cross-origin-resource-policy': 'same-origin'
      })
    }
    const { headers } = await raw('GET', '/api/sites/skerrow/site', { cookie: t.cookie })
    expect(headers).toMatchObject({ 'cache-control': 'no-store', vary: 'Cookie' })
    const live = await raw('GET', '/api/sites/skerrow/alarms/live', { cookie: t.cookie })
    expect(live.headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store'
    })
  })
})

describe('validates requests before doing anything', () => {
  test.each([
    [
      'a parameter given twice',
      'GET',
      '/api/sites/skerrow/triggers?kind=line&kind=line',
      undefined,
      'kind: is given twice; give it once'
    ],
    [
      'half a character in a text',
      'POST',
      '/api/accounts',
      '{"username":"half","password":"long-enough-words","name":"a\\ud800b","role":"viewer"}',
      '$.name: has a broken character; type it again'
    ],
    [
      'half a character in a key',
      'POST',
      '/api/sites/skerrow/triggers',
      '{"key":"k\\udc00","camera":"slipway","detection":"quay-edge"}',
      '$.key: has a broken character; type it again'
    ],
    [
      'a target beyond what is stored',
      'POST',
      '/api/sites/skerrow/triggers',
      '{"key":"k","camera":"slipway","detection":"quay-edge","target":99999999999}',
      expect.saying(/target: must be at most/)
    ]
  ])('%s', async (_name, method, path, body, message) => {
    const answer = await raw(method, path, { cookie: t.cookie }, body)
    expect([answer.status, inWords(JSON.parse(answer.body)).message]).toEqual([422, message])
  })

  test.each([
    ['an object', '{"a":1}', 'application/json', 415],
    ['an array', '[1]', 'application/json', 415],
    ['a number', '7', 'application/json', 415],
    ['a text', 'x'.repeat(1000), 'text/plain', 415],
    ['nothing', '', 'application/octet-stream', 422]
  ])('%s as a clip', async (_name, body, type, status) => {
    const answer = await raw(
      'POST',
      '/api/sites/skerrow/cameras/slipway/clips?name=X',
      { cookie: t.cookie, 'content-type': type },
      body
    )
    expect([answer.status, JSON.parse(answer.body).code]).toEqual([status, 'bad-input'])
  })

  test('treats keys that differ in a trailing space as two', async () => {
    const send = (key: string) =>
      t.ask('POST', '/api/sites/skerrow/triggers', {
        key,
        camera: 'slipway',
        detection: 'quay-edge'
      })
    const [first, second, again] = [
      await send('gate-7'),
      await send('gate-7 '),
      await send('gate-7')
    ]
    expect([first.status, second.status, again.status]).toEqual([201, 201, 200])
    expect(second.body.id).not.toBe(first.body.id)
    expect(again.body.id).toBe(first.body.id)
    // A camera of nearly the same name is not taken for it.
    expect((await t.ask('GET', '/api/sites/skerrow/cameras/slipway%20')).status).toBe(422)
  })
})
