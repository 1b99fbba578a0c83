import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv } from 'ajv'
import { strToU8, zipSync } from 'fflate'
import type { SiteArchive } from '../../core/sites/archive.ts'
import { canonical } from '../../core/history/states.ts'
import { startTestApp, type TestApp } from '../testing/testApp.ts'

let here: TestApp
let there: TestApp
/** The demo site, as it was exported. */
let file: Buffer
let archive: SiteArchive
const folder = mkdtempSync(join(tmpdir(), 'wardoptic-archive-'))
/** A file of an archive, as Info-ZIP's own program reads it. */
const inside = (name: string, bytes = file): Buffer => {
  writeFileSync(join(folder, 'site.zip'), bytes)
  return execFileSync('unzip', ['-p', join(folder, 'site.zip'), name])
}
const send = async (t: TestApp, bytes: Buffer, query = '') => {
  const answer = await t.fetch(`/api/sites/import${query}`, {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: new Uint8Array(bytes)
  })
  return { status: answer.status, body: (await answer.json()) as any }
}
const exported = async (t: TestApp, site: string): Promise<SiteArchive> => {
  const answer = await t.fetch(`/api/sites/${site}/archive`)
  expect(answer.status).toBe(200)
  return JSON.parse(inside('site.json', Buffer.from(await answer.arrayBuffer())).toString())
}
/** What has to be the same wherever it is; an archive says besides when it was made. */
const settings = (archive: SiteArchive): string =>
  canonical({
    ...archive,
    madeAt: 0,
    schedules: [...archive.schedules].sort((a, b) => a.id.localeCompare(b.id))
  })

beforeAll(async () => {
  ;[here, there] = await Promise.all([
    startTestApp({ withDemo: true, clipsOf: [] }),
    startTestApp({ withDemo: false })
  ])
  await here.database.run(
    "INSERT INTO device (id, site_id, camera_id, name, address, username, password_sealed, state, added_at) VALUES ('cam-1', 'skerrow', 'slipway', 'Slipway camera', 'http://192.0.2.7', 'admin', 'sealed-secret', 'online', 0)"
  )
  await here.ask('POST', '/proving/take', {})
  const wave = readFileSync(new URL('../voices/called.wav', import.meta.url))
  await here.fetch('/voices?name=Own', {
    method: 'POST',
    headers: { 'content-type': 'audio/wav' },
    body: new Uint8Array(wave)
  })
  file = Buffer.from(await (await here.fetch('/archive')).arrayBuffer())
  archive = JSON.parse(inside('site.json').toString())
}, 600_000)
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await Promise.all([here.close(), there.close()])
})

describe('an exported site', () => {
  test('has what was set up, and is what its JSON Schema says', () => {
    expect(archive.cameras.map((c) => c.id)).toContain('slipway')
    expect(archive.cameras.flatMap((c) => c.checks).length).toBeGreaterThan(10)
    expect(archive.devices).toMatchObject([{ id: 'cam-1', username: 'admin' }])
    expect(archive.voices).toHaveLength(1)
    // Ajv: general JSON Schema validator.
    const schema = JSON.parse(
      readFileSync(new URL('../../docs/site.schema.json', import.meta.url), 'utf8')
    )
    const accepts = new Ajv({ strict: false, formats: { email: true } }).compile(schema)
    expect([accepts(archive), accepts.errors]).toEqual([true, null])
  })

  test('has schedules as calendars and voices as they were, and no password', () => {
    expect(inside('schedules/nights.ics').toString()).toMatch(/^BEGIN:VCALENDAR/)
    const voice = readFileSync(new URL('../voices/called.wav', import.meta.url))
    expect(inside(`voices/${archive.voices[0]!.id}.wav`).equals(voice)).toBe(true)
    for (const secret of ['sealed-secret', 'skerrow-1', 'ferry-at-seven'])
      expect(inside('site.json').toString()).not.toContain(secret)
  })
})

describe('importing a site', () => {
  test('into another installation: a list first, then the same settings', async () => {
    const preview = await send(there, file, '?preview=1')
    expect(preview.status).toBe(200)
    expect(preview.body.name).toBe(archive.site.name)
    expect(preview.body.changes.every((c: any) => c.change === 'added')).toBe(true)
    expect((await there.ask('GET', '/api/sites')).body).toHaveLength(1)
    const made = await send(there, file)
    expect(made.status).toBe(201)
    expect(settings(await exported(there, made.body.id))).toBe(settings(archive))
    // Its device waits for its account.
    const { body: devices } = await there.ask('GET', `/api/sites/${made.body.id}/devices`)
    expect(devices).toMatchObject([{ name: 'Slipway camera', username: 'admin' }])
    const voice = await there.fetch(`/api/sites/${made.body.id}/voices/${archive.voices[0]!.id}`)
    expect(voice.status).toBe(200)
  })

  test('beside itself: cameras and devices get ids of their own, and what names them follows', async () => {
    const made = await send(here, file)
    expect(made.status).toBe(201)
    const twin = await exported(here, made.body.id)
    const ids = new Set(archive.cameras.map((c) => c.id))
    expect(twin.cameras.some((c) => ids.has(c.id))).toBe(false)
    const idOf = new Map(archive.cameras.map((c, i) => [c.id, twin.cameras[i]!.id]))
    for (const [i, e] of twin.endpoints.entries()) {
      const before = archive.endpoints[i]!
      if ('camera' in before && before.camera)
        expect(e).toMatchObject({ camera: idOf.get(before.camera) })
    }
    // A device is at one site: its address is known.
    expect(twin.devices).toEqual([])
    // The first site is as it was.
    expect(settings(await exported(here, 'skerrow'))).toBe(settings(archive))
  })

  test('into a site that is there: only what differs is listed and changed', async () => {
    const again = await send(here, file, '?into=skerrow&preview=1')
    expect(again.body.changes).toEqual([])
    const changed = structuredClone(archive)
    changed.cameras[0]!.detections[0]!.detection.name = 'Other name'
    changed.cameras[0]!.name = 'Slip'
    changed.schedules.push({ ...changed.schedules[0]!, id: 'more', name: 'More' })
    const voices = {
      [`voices/${archive.voices[0]!.id}.wav`]: new Uint8Array(
        inside(`voices/${archive.voices[0]!.id}.wav`)
      )
    }
    const next = Buffer.from(zipSync({ 'site.json': strToU8(JSON.stringify(changed)), ...voices }))
    const preview = await send(here, next, '?into=skerrow&preview=1')
    expect(preview.body.changes.map((c: any) => [c.thing, c.name, c.change])).toEqual([
      ['schedule', 'More', 'added'],
      ['camera', 'Slip', 'changed'],
      ['detection', 'Other name', 'changed']
    ])
    expect((await send(here, next, '?into=skerrow')).status).toBe(201)
    expect(settings(await exported(here, 'skerrow'))).toBe(settings(changed))
    const { body: history } = await here.ask('GET', `/cameras/${archive.cameras[0]!.id}/history`)
    expect(JSON.stringify(history.entries)).toContain('importSite')
  })

  test('of a deleted camera brings it back', async () => {
    const id = archive.cameras.at(-1)!.id
    const { version } = (await here.ask('GET', '/site')).body.cameras.at(-1)
    await here.ask('DELETE', `/cameras/${id}/settings?version=${version}`)
    expect((await send(here, file, '?into=skerrow')).status).toBe(201)
    expect((await exported(here, 'skerrow')).cameras.map((c) => c.id)).toEqual(
      archive.cameras.map((c) => c.id)
    )
  })

  const torn = (change: (a: any) => void): Buffer => {
    const a = structuredClone(archive) as any
    change(a)
    return Buffer.from(zipSync({ 'site.json': strToU8(JSON.stringify(a)) }))
  }
  test.each<[string, () => Buffer, RegExp]>([
    ['no ZIP file', () => Buffer.from('hello'), /not a ZIP file/],
    ['another ZIP file', () => Buffer.from(zipSync({ 'a.txt': strToU8('a') })), /no site\.json/],
    ['half of one', () => file.subarray(0, file.length >> 1), /not a ZIP file/],
    ['text that is no JSON', () => Buffer.from(zipSync({ 'site.json': strToU8('{') })), /not JSON/],
    ['a later format', () => torn((a) => (a.format = 'wardoptic-site/9')), /format/],
    ['an unknown field', () => torn((a) => (a.extra = 1)), /extra/],
    ['a missing voice file', () => torn(() => {}), /lacks the voice file/],
    [
      'a schedule that is not there',
      () => torn((a) => (a.cameras[0].detections[0].detection.schedule = 'nowhere')),
      /schedule "nowhere"/
    ],
    ['a camera twice', () => torn((a) => a.cameras.push(a.cameras[0])), /"slipway" twice/],
    [
      'one that unpacks to more than can be',
      () => Buffer.from(zipSync({ 'site.json': new Uint8Array(210 * 2 ** 20) })),
      /more than 200 MB/
    ]
  ])('refuses %s, and changes nothing', async (_name, bytes, words) => {
    const { status, body } = await send(there, bytes())
    expect(status).toBe(422)
    const { inWords } = await import('../testing/inWords.ts')
    expect(inWords(body).message).toMatch(words)
    expect((await there.ask('GET', '/api/sites')).body).toHaveLength(2)
  })

  test('is for installers of all sites', async () => {
    here.cookie = await here.as('operator')
    expect((await send(here, file)).status).toBe(403)
    expect((await here.fetch('/archive')).status).toBe(403)
    here.cookie = await here.as('installer')
  })
})
