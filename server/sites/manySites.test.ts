import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { randomUUID } from 'node:crypto'
import type { Role } from '../../core/accounts/accounts.ts'
import { insertAccount } from '../accounts/queries.ts'
import { cookieOfAccount } from '../testing/session.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
/** Another site, with one camera. */
let other: string
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  const made = await t.ask('POST', '/api/sites', { name: 'Mole Head', from: null })
  expect(made).toMatchObject({
    status: 201,
    body: { name: 'Mole Head', isSetUp: false, cameras: 0 }
  })
  other = made.body.id
  await put('/cameras/mole/settings', {
    settings: { name: 'Mole', order: 0, surroundings: null },
    version: 0
  })
})
afterAll(() => t.close())

const at = (path: string, site = other): string => `/api/sites/${site}${path}`
const put = async (path: string, body: unknown) => {
  const { status, body: saved } = await t.ask('PUT', at(path), body)
  expect([path, status]).toEqual([path, 200])
  return saved
}

/** A session of a new account. */
async function signedIn(role: Role | null, sites: { site: string; role: Role }[]): Promise<string> {
  const name = `x${randomUUID().slice(0, 8)}`
  const id = await insertAccount(
    t.database,
    { username: name, name, role, sites },
    'none',
    Date.now()
  )
  return cookieOfAccount(t.database, id)
}

describe('rights per site', () => {
  test('an account with a role on one site sees that site and no other', async () => {
    const cookie = await signedIn(null, [{ site: other, role: 'installer' }])
    const sites = await t.ask('GET', '/api/sites', undefined, cookie)
    expect(sites.body.map((s: any) => [s.id, s.role])).toEqual([[other, 'installer']])
    expect((await t.ask('GET', at('/site'), undefined, cookie)).status).toBe(200)
    for (const path of ['/api/accounts', '/api/audit', '/api/retention'])
      expect([path, (await t.ask('GET', path, undefined, cookie)).status]).toEqual([path, 403])
    expect((await t.ask('POST', '/api/sites', { name: 'Mine' }, cookie)).status).toBe(403)
    expect((await t.ask('DELETE', `/api/sites/${other}`, undefined, cookie)).status).toBe(403)
  })

  test('whoever has no role on a site is told of none, on every route', async () => {
    const cookie = await signedIn(null, [{ site: other, role: 'installer' }])
    let asked = 0
    for (const { method, url, roles } of t.app.routes) {
      if (roles === 'anyone' || method === 'HEAD' || !url.startsWith('/api/sites/:site/')) continue
      const address = url.replace(':site', 'skerrow').replace(/:\w+/g, '1')
      const body = method === 'GET' ? undefined : {}
      const { status } = await t.ask(method, address, body, cookie)
      expect([method, url, status]).toEqual([method, url, 404])
      asked++
    }
    expect(asked).toBeGreaterThan(80)
  })

  test('the role on a site counts there in place of the one on every site', async () => {
    const cookie = await signedIn('viewer', [{ site: other, role: 'installer' }])
    expect((await t.ask('GET', at('/devices'), undefined, cookie)).status).toBe(200)
    expect((await t.ask('GET', '/devices', undefined, cookie)).status).toBe(403)
    const less = await signedIn('installer', [{ site: other, role: 'viewer' }])
    expect((await t.ask('GET', at('/devices'), undefined, less)).status).toBe(403)
    expect((await t.ask('GET', '/devices', undefined, less)).status).toBe(200)
  })

  test('changing roles on sites ends sessions, and refuses a site that is not there', async () => {
    const { body: made } = await t.ask('POST', '/api/accounts', {
      username: 'mole-watch',
      password: 'lanterns-and-rope',
      name: 'Mole Watch',
      role: null,
      sites: [{ site: other, role: 'operator' }]
    })
    expect(made.sites).toEqual([{ site: other, role: 'operator' }])
    const cookie = await cookieOfAccount(t.database, made.id)
    expect((await t.ask('GET', at('/alarms'), undefined, cookie)).status).toBe(200)
    const change = (sites: unknown) =>
      t.ask('PUT', `/api/accounts/${made.id}`, { name: 'Mole Watch', role: null, sites })
    expect((await change([{ site: 'nowhere', role: 'viewer' }])).status).toBe(404)
    expect((await change([{ site: other, role: 'king' }])).status).toBe(422)
    expect(
      (
        await change([
          { site: other, role: 'viewer' },
          { site: other, role: 'installer' }
        ])
      ).status
    ).toBe(422)
    expect((await change([])).body.sites).toEqual([])
    expect((await t.ask('GET', at('/alarms'), undefined, cookie)).status).toBe(401)
  })
})

describe('what belongs to another site', () => {
  /** One of each thing of the demo site that has an id of its own. */
  async function things(): Promise<Record<string, string>> {
    const { body: taken } = await t.ask('POST', '/triggers', {
      key: 'k-1',
      camera: 'slipway',
      detection: 'quay-edge'
    })
    const now = Date.now()
    await t.database.run(
      "INSERT INTO clip (id, camera_id, name, state, start_at, fps, width, height, bytes, created_at) VALUES ('c-1', 'slipway', 'C', 'stopped', 0, 10, 64, 36, 1, ?)",
      [now]
    )
    await t.database.run(
      "INSERT INTO device (id, site_id, name, address, state, added_at) VALUES ('d-1', 'skerrow', 'D', 'http://192.0.2.1', 'unknown', 0)"
    )
    const { insertId: run } = await t.database.run(
      "INSERT INTO proof_run (site_id, state, asked, started_at, made_by) VALUES ('skerrow', 'stopped', '[]', 0, 'X')"
    )
    const { insertId: delivery } = await t.database.run(
      "INSERT INTO delivery (trigger_id, alarm_id, kind, recipient, state, next_at, endpoint_id, endpoint, created_at) VALUES (?, ?, 'email', 'x', 'failed', 0, 'e', '{}', 0)",
      [taken.id, taken.alarm]
    )
    return {
      cameras: 'slipway',
      clips: 'c-1',
      devices: 'd-1',
      'proving/runs': String(run),
      alarms: String(taken.alarm),
      triggers: String(taken.id),
      deliveries: String(delivery)
    }
  }

  test('is not there, for an installer of both, on every route that names it', async () => {
    const known = await things()
    let asked = 0
    for (const { method, url, roles } of t.app.routes) {
      const rest = url.slice('/api/sites/:site/'.length)
      const kind = Object.keys(known).find((k) => rest.startsWith(`${k}/:`))
      if (roles === 'anyone' || !url.startsWith('/api/sites/:site/') || !kind) continue
      if (!/^(GET|POST|PUT|PATCH|DELETE)$/.test(method)) continue
      const address = url
        .replace(':site', other)
        .replace(/:\w+/, known[kind]!)
        .replace(/:\w+/g, 'x')
      const { status, body } = await t.ask(method, address, method === 'GET' ? undefined : {})
      expect([method, url, status, body.code]).toEqual([method, url, 404, 'not-found'])
      asked++
    }
    expect(asked).toBeGreaterThan(50)
    // At its own site it is.
    expect((await t.ask('GET', `/alarms/${known.alarms}`)).status).toBe(200)
  })

  test('cannot be named in a body either', async () => {
    const trigger = { key: 'k-2', camera: 'slipway', detection: 'quay-edge' }
    expect((await t.ask('POST', at('/triggers'), trigger)).status).toBe(404)
    expect((await t.ask('POST', at('/sendings'), { devices: ['d-1'] })).status).toBe(404)
    const device = { name: 'N', address: 'http://192.0.2.9', username: null, password: null }
    expect((await t.ask('POST', at('/devices'), { ...device, camera: 'slipway' })).status).toBe(404)
    expect((await t.ask('GET', at('/watch/stream?cameras=slipway'))).status).toBe(404)
  })

  test('is not named where its device’s address is given again', async () => {
    // Nobody listens there.
    const device = { name: 'Mine', address: 'http://127.0.0.1:9', username: null, password: null }
    expect((await t.ask('POST', '/devices', device)).status).toBe(201)
    const again = async (path: string) => (await t.ask('POST', path, device)).body.message
    expect(await again('/devices')).toBe('$.address: is already added, as Mine')
    expect(await again(at('/devices'))).toBe('$.address: is already added, at another site')
  })

  test('alarms, triggers and issues are those of each site', async () => {
    const { body: bench } = await t.ask('GET', at('/cameras/mole'))
    expect(bench.site.id).toBe(other)
    const sent = await t.ask('POST', '/triggers', {
      key: 'k-3',
      camera: 'slipway',
      detection: 'quay-edge'
    })
    expect(sent.status).toBe(201)
    const [own, foreign] = [await t.ask('GET', '/alarms'), await t.ask('GET', at('/alarms'))]
    expect(own.body.alarms.length).toBeGreaterThan(0)
    expect(foreign.body).toMatchObject({ alarms: [], waiting: 0 })
    expect((await t.ask('GET', '/triggers')).body.triggers.length).toBeGreaterThan(0)
    expect((await t.ask('GET', at('/triggers'))).body.triggers).toEqual([])
    expect((await t.ask('GET', at('/triggers?camera=slipway'))).body.triggers).toEqual([])
    expect((await t.ask('GET', at('/triggers/counts'))).body.total).toBe(0)
    expect((await t.ask('GET', '/triggers/counts')).body.total).toBeGreaterThan(0)
    expect((await t.ask('GET', at('/triggers.csv'))).body.trim().split('\r\n')).toHaveLength(1)
    const findings = (await t.ask('GET', at('/readiness'))).body.findings
    expect(findings.every((f: any) => f.camera === null || f.camera === 'mole')).toBe(true)
    expect((await t.ask('GET', at('/devices'))).body).toEqual([])
    expect((await t.ask('GET', at('/proving'))).body.checks).toEqual([])
  })

  test('the search of one of several sites finds the same as that of the only one', async () => {
    const ids = async (query: string): Promise<number[]> => {
      const found: number[] = []
      for (let after = ''; ;) {
        const { body } = await t.ask('GET', `/triggers?${query}${after}`)
        found.push(...body.triggers.map((x: any) => x.id))
        if (body.next === null) return found
        after = `&after=${body.next}`
      }
    }
    for (let n = 0; n < 120; n++)
      await t.database.run(
        "INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, severity) VALUES (?, 'quay-edge', 'line', ?, '{\"name\":\"Q\"}', 'sender', 'major')",
        [n % 3 ? 'slipway' : n % 2 ? 'mole' : 'quay-path', 1_700_000_000_000 + (n % 40) * 1000]
      )
    const rows = await t.database.rows<{ id: number }>(
      "SELECT id FROM fired_trigger WHERE camera_id <> 'mole' ORDER BY fired_at DESC, id DESC"
    )
    expect(await ids('')).toEqual(rows.map((r) => Number(r.id)))
    expect((await t.ask('GET', '/triggers/counts')).body.total).toBe(rows.length)
    const until = await t.database.rows<{ id: number }>(
      "SELECT id FROM fired_trigger WHERE camera_id <> 'mole' AND fired_at < 1700000020000 ORDER BY fired_at DESC, id DESC"
    )
    expect(await ids('to=1700000020000')).toEqual(until.map((r) => Number(r.id)))
  })
})

describe('templates and deleting', () => {
  test('a site takes schedules, default actions and messages from another one', async () => {
    const { body: made } = await t.ask('POST', '/api/sites', { name: 'Second', from: 'skerrow' })
    const [from, now] = [
      (await t.ask('GET', '/actions')).body,
      (await t.ask('GET', at('/actions', made.id))).body
    ]
    expect(now.schedules.map((s: any) => s.schedule)).toEqual(
      from.schedules.map((s: any) => s.schedule)
    )
    expect(now.site).toMatchObject({ name: 'Second', cameras: [], timeZone: from.site.timeZone })
    expect(now.mail.mail).toEqual(from.mail.mail)
    expect(now.people.people.people).toEqual([])
    expect(now.outputs).toEqual([])
    const kinds = now.endpoints.map((e: any) => e.endpoint.kind)
    expect(kinds).toContain('email')
    expect(kinds).not.toContain('strobe')
    const ids = now.endpoints.map((e: any) => e.endpoint.id)
    expect(now.usual.actions.links.every((id: string) => ids.includes(id))).toBe(true)
    expect((await t.ask('DELETE', `/api/sites/${made.id}`)).status).toBe(204)
  })

  test('a deleted site is not there, and comes back with all that it had', async () => {
    expect((await t.ask('DELETE', `/api/sites/${other}`)).status).toBe(204)
    expect((await t.ask('GET', at('/site'))).status).toBe(404)
    expect((await t.ask('GET', '/api/sites')).body.map((s: any) => s.id)).toEqual(['skerrow'])
    expect((await t.ask('DELETE', '/api/sites/skerrow')).status).toBe(409)
    expect((await t.ask('POST', `/api/sites/${other}/restore`)).status).toBe(204)
    expect((await t.ask('GET', at('/site'))).body.cameras).toMatchObject([{ id: 'mole' }])
  })
})
