import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Check } from '../../core/formats/check.ts'
import { WatchReader } from '../../core/watch/frames.ts'
import { actor, plainWalk } from '../../core/proving/stage.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

/** A walk test is opened on a phone by a code: who has it may walk, once, for an hour, and see nothing else. */
const devices = new TestDevices()
let t: TestApp
beforeAll(async () => {
  const [camera] = await devices.startSite('cam-slipway')
  t = await startTestApp({ withDemo: true, devices: [camera!], contacts: devices.contacts })
  await t.app.devices.add('skerrow', asAdded(camera!) as never, camera!.model.id)
})
afterAll(async () => {
  await t.close()
  await devices.close()
})

const check: Check = {
  id: 'by-phone',
  detection: 'quay-edge',
  name: 'Up from the water',
  about: 'passes',
  side: 'inside',
  by: {
    how: 'walk',
    walk: plainWalk(3, [
      actor('adult', [
        [0, 20],
        [0, 8]
      ])
    ]),
    through: 'truth'
  },
  at: Date.parse('2026-11-24T23:30:00Z'),
  expect: { what: 'trigger', from: 0, to: 3 },
  effects: []
}
const LINKS = '/cameras/slipway/walk/links'
const made = async (): Promise<{ id: number; token: string; expiresAt: number }> => {
  const answer = await t.ask('POST', LINKS, { check })
  expect(answer.status).toBe(201)
  return answer.body
}
const opening = (token: string): Promise<Response> =>
  fetch(`${t.address}/api/phone`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'user-agent': 'a phone' },
    body: JSON.stringify({ token })
  })
/** Opens a new link. */
const phone = async (): Promise<{ id: number; cookie: string }> => {
  const { id, token } = await made()
  const answer = await opening(token)
  expect(answer.status).toBe(204)
  return { id, cookie: answer.headers.getSetCookie()[0]!.split(';')[0]! }
}
const seen = (cookie: string) => t.ask('GET', '/api/phone', undefined, cookie)

describe('the code', () => {
  test('is good once, however many use it at the same time', async () => {
    const { token } = await made()
    const statuses = (await Promise.all(Array.from({ length: 8 }, () => opening(token)))).map(
      (a) => a.status
    )
    expect(statuses.sort()).toEqual([204, 401, 401, 401, 401, 401, 401, 401])
    expect((await opening('A'.repeat(43))).status).toBe(401)
    expect((await opening('')).status).toBe(401)
  })

  test('is kept as a digest, and is hidden from scripts on the phone', async () => {
    const { token } = await made()
    const rows = await t.database.rows('SELECT * FROM phone_link')
    expect(JSON.stringify(rows)).not.toContain(token)
    const [cookie] = (await opening(token)).headers.getSetCookie() as [string]
    expect(cookie).toMatch(/; Max-Age=3600; Path=\/; HttpOnly; SameSite=Strict/)
    expect(cookie).not.toContain(token)
  })

  test('ends after an hour, used or not', async () => {
    const now = Date.now()
    const { id, token, expiresAt } = await made()
    expect(Math.abs(expiresAt - now - 3_600_000)).toBeLessThan(60_000)
    // An hour later.
    await t.database.run('UPDATE phone_link SET expires_at = ? WHERE id = ?', [now - 1, id])
    expect((await opening(token)).status).toBe(401)
    expect((await t.ask('GET', LINKS)).body.links.map((l: any) => l.id)).not.toContain(id)
  })

  test('is made for walks before this site’s cameras, by installers', async () => {
    for (const role of ['operator', 'viewer'] as const)
      expect((await t.ask('POST', LINKS, { check }, await t.as(role))).status).toBe(403)
    expect((await t.ask('POST', '/cameras/nowhere/walk/links', { check })).status).toBe(404)
    const gone = { ...check, detection: 'gone' }
    expect((await t.ask('POST', LINKS, { check: gone })).status).toBe(404)
    const clip = { ...check, by: { how: 'clip', clip: 'c', from: 0, to: 3 } }
    expect((await t.ask('POST', LINKS, { check: clip })).status).toBe(409)
  })
})

describe('the phone', () => {
  test('is shown its walk, its camera and its detection', async () => {
    const { id, cookie } = await phone()
    const { status, body } = await seen(cookie)
    expect(status).toBe(200)
    expect(Object.keys(body).sort()).toEqual(
      ['by', 'camera', 'check', 'detection', 'expiresAt', 'site', 'unheld'].sort()
    )
    expect(body).toMatchObject({
      site: { name: 'Skerrow Landing', timeZone: 'Europe/London' },
      camera: { id: 'slipway', name: 'Slipway' },
      detection: { id: 'quay-edge' },
      unheld: true,
      check: { id: 'by-phone' },
      by: 'Isla Brae'
    })
    expect((await t.ask('GET', LINKS)).body.links.find((l: any) => l.id === id)).toMatchObject({
      name: 'Up from the water',
      by: 'Isla Brae',
      opened: { agent: 'a phone' }
    })
  })

  test('reaches nothing else', async () => {
    const { cookie } = await phone()
    const inside: string[] = []
    for (const route of t.app.routes) {
      if (route.roles === 'phone' || route.roles === 'anyone') continue
      const path = route.url.replace(':site', 'skerrow').replace(':camera', 'slipway')
      const body = /GET|HEAD|DELETE/.test(route.method) ? {} : { body: '{}' }
      const answer = await fetch(`${t.address}${path.replaceAll(/:\w+/g, '1')}`, {
        method: route.method,
        headers: { cookie, ...('body' in body && { 'content-type': 'application/json' }) },
        ...body
      })
      if (answer.status !== 401) inside.push(`${route.method} ${route.url} → ${answer.status}`)
    }
    expect(inside).toEqual([])
    // Nor does its token count as a sign-in under the other cookie's name, or a sign-in as a phone.
    const token = cookie.split('=')[1]!
    const asSession = `wardoptic_session=${token}`
    expect((await t.ask('GET', '/api/session', undefined, asSession)).status).toBe(401)
    const session = (await t.as('installer')).split(/[=;]/)[1]!
    expect((await seen(`wardoptic_phone=${session}`)).status).toBe(401)
  })

  test('walks what it was let in for, whatever it sends; the result is its maker’s', async () => {
    const { cookie } = await phone()
    const other = {
      check: { ...check, id: 'other', by: { how: 'person', words: 'x', seconds: 5 } }
    }
    const begun = await t.ask('POST', '/api/phone/walk', other, cookie)
    expect(begun).toMatchObject({
      status: 201,
      body: { camera: 'slipway', check: { id: 'by-phone' } }
    })
    expect((await t.ask('POST', '/api/phone/walk', undefined, cookie)).status).toBe(409)
    const done = await eventually(async () => {
      const { body } = await t.ask('GET', '/api/phone/walk', undefined, cookie)
      return ['done', 'failed'].includes(body.state) && body
    })
    // Its line was never sent to the camera.
    expect(done).toMatchObject({ state: 'done', verdict: { outcome: 'failed' } })
    const { body } = await t.ask('GET', '/api/audit')
    expect(body.entries.map((e: any) => e.what)).toEqual(
      expect.arrayContaining(['opened-on-phone', 'POST /api/phone/walk'])
    )
    expect(body.entries.find((e: any) => e.what === 'opened-on-phone')).toMatchObject({
      username: 'isla',
      detail: 'slipway',
      site: 'Skerrow Landing'
    })
  })

  test('does not end a walk that is not its own', async () => {
    const { cookie } = await phone()
    const by = { how: 'person', words: 'Walk.', seconds: 60 }
    const begun = await t.ask('POST', '/cameras/slipway/walk', {
      check: { ...check, id: 'from-the-desk', by, expect: { ...check.expect, to: 60 } }
    })
    expect(begun.status).toBe(201)
    for (const [method, path] of [
      ['DELETE', '/api/phone/walk'],
      ['POST', '/api/phone/walk/finish'],
      ['POST', '/api/phone/walk']
    ] as const)
      expect((await t.ask(method, path, undefined, cookie)).status).toBe(409)
    expect((await t.ask('DELETE', '/cameras/slipway/walk')).status).toBe(200)
  })

  test('sees its camera alone, until it is revoked', async () => {
    const { id, cookie } = await phone()
    const answer = await fetch(`${t.address}/api/phone/stream?cameras=waiting-room`, {
      headers: { cookie }
    })
    expect(answer.status).toBe(200)
    const reader = new WatchReader()
    const body = answer.body!.getReader()
    const cameras = new Set<string>()
    let pictures = 0
    while (pictures < 3) {
      const piece = await body.read()
      if (piece.done) throw new Error('the stream has ended')
      for (const { head } of reader.push(piece.value)) {
        cameras.add(head.camera)
        if (head.what === 'picture') pictures++
      }
    }
    expect([...cameras]).toEqual(['slipway'])
    expect((await t.ask('DELETE', `${LINKS}/${id}`)).status).toBe(204)
    // What is open is cut, not left to its end.
    const rest = async (): Promise<void> => {
      while (!(await body.read()).done);
    }
    await rest().catch(() => {})
    expect((await seen(cookie)).status).toBe(401)
    expect((await t.ask('DELETE', `${LINKS}/${id}`)).status).toBe(404)
  })

  test('stays in for its hour in a pocket, and not longer; may leave before', async () => {
    const { cookie, id } = await phone()
    await t.database.run('UPDATE session SET used_at = used_at - 3000000 WHERE link_id = ?', [id])
    expect((await seen(cookie)).status).toBe(200)
    expect((await t.ask('DELETE', '/api/phone', undefined, cookie)).status).toBe(204)
    expect((await seen(cookie)).status).toBe(401)
    const late = await phone()
    await t.database.run('UPDATE session SET expires_at = 1 WHERE link_id = ?', [late.id])
    expect((await seen(late.cookie)).status).toBe(401)
  })

  test('is named among the sessions of who let it in, and ends with them', async () => {
    const { cookie } = await phone()
    const { body } = await t.ask('GET', '/api/session/all')
    const own = body.sessions.filter((s: any) => s.walk !== null)
    expect(own[0]).toMatchObject({ walk: 'Slipway', agent: 'a phone' })
    expect((await t.ask('DELETE', `/api/session/all/${own[0].id}`)).status).toBe(204)
    expect((await seen(cookie)).status).toBe(401)
  })

  test('is out when its maker may no longer set up the site', async () => {
    const second = await t.ask('POST', '/api/accounts', {
      username: 'second',
      password: 'nets-and-lines-again',
      name: 'Second',
      role: 'installer',
      sites: []
    })
    const { token } = await made()
    await t.database.run('UPDATE phone_link SET account_id = ? WHERE token_hash IS NOT NULL', [
      second.body.id
    ])
    const cookie = (await opening(token)).headers.getSetCookie()[0]!.split(';')[0]!
    expect((await seen(cookie)).status).toBe(200)
    await t.database.run("UPDATE account SET role = 'viewer' WHERE id = ?", [second.body.id])
    expect((await seen(cookie)).status).toBe(403)
    expect((await t.ask('DELETE', `/api/accounts/${second.body.id}`)).status).toBe(204)
    expect((await seen(cookie)).status).toBe(401)
  })
})
