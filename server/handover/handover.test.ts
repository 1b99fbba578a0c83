import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  utimesSync,
  writeFileSync
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { findingKey } from '../../core/readiness/index.ts'
import { verify } from '../../core/handover/manifest.ts'
import type { HandoverView, JobView, RecordView } from '../../core/handover/views.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { unzipped } from './files.ts'

/** Programs of Debian: they know nothing of this project. */
const python = (code: string, ...args: string[]): any =>
  JSON.parse(execFileSync('/usr/bin/python3', ['-c', code, ...args], { encoding: 'utf8' }))

const devices = new TestDevices()
let t: TestApp
let home: string
const asked = {
  client: 'Harbour Trust of Łódź',
  installer: 'Brae Security',
  note: 'Service once a year. Ωμέγα → ok.',
  paper: 'a4',
  runChecks: false,
  allowOpen: true
}
const view = async (): Promise<HandoverView> => (await t.ask('GET', '/handover')).body
const make = async (more: object = {}): Promise<JobView> => {
  const { status, body } = await t.ask('POST', '/records', { ...asked, ...more })
  expect([status, body.said]).toEqual([200, undefined])
  return eventually(async () => {
    const { job } = await view()
    return job && job.state !== 'running' && job
  })
}
const zip = async (number: number): Promise<Map<string, Uint8Array>> => {
  const answer = await t.fetch(`/records/${number}/zip`)
  expect(answer.status).toBe(200)
  return unzipped(new Uint8Array(await answer.arrayBuffer()))
}
const record = async (number: number): Promise<RecordView> =>
  (await view()).records.find((r) => r.number === number)!

beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'wardoptic-record-'))
  t = await startTestApp({ withDemo: true, clipsOf: [] })
  const camera = await devices.start('cam-path', { switchesBack: undefined })
  expect((await t.ask('POST', '/devices', asAdded(camera))).status).toBe(201)
  // Kept, and not run: a record says so.
  expect((await t.ask('POST', '/proving/take', {})).status).toBe(200)
}, 600_000)
afterAll(async () => {
  await devices.close()
  await t.close()
  rmSync(home, { recursive: true, force: true })
})

describe('a record', () => {
  test('is not made while issues stand in its way, unless that is wanted', async () => {
    const { state, error } = await make({ allowOpen: false })
    expect(state).toBe('failed')
    expect(wordsOf(error!)).toMatch(/^\d+ issues stand in the way of a clean record/)
    expect((await view()).records).toEqual([])
    expect(readdirSync(t.folder)).not.toContain('records')
  })

  test('has everything, under its digest', async () => {
    expect(await make()).toMatchObject({ state: 'made', number: 1, error: null })
    const answer = await t.fetch('/records/1/zip')
    const file = join(home, 'record.zip')
    writeFileSync(file, Buffer.from(await answer.arrayBuffer()))
    execFileSync('unzip', ['-q', '-o', file, '-d', join(home, '1')])
    const sums = execFileSync('sha256sum', ['record.json'], {
      cwd: join(home, '1'),
      encoding: 'utf8'
    })
    expect(sums.slice(0, 64)).toBe((await record(1)).digest)
    const manifest = JSON.parse(readFileSync(join(home, '1', 'manifest.json'), 'utf8'))
    for (const { file: name, sha256 } of manifest.files)
      expect([
        name,
        createHash('sha256')
          .update(readFileSync(join(home, '1', name)))
          .digest('hex')
      ]).toEqual([name, sha256])
    const kept = JSON.parse(readFileSync(join(home, '1', 'record.json'), 'utf8'))
    expect(kept).toMatchObject({ client: asked.client, kind: 'handover', number: 1 })
    expect(kept.devices).toMatchObject([
      {
        manufacturer: 'Brightmoor',
        model: 'BM 220',
        account: 'admin',
        accounts: ['admin'],
        trouble: null
      }
    ])
    expect(kept.notPossible[0]).toMatch(/^Checks were not run: \d+ results are out of date$/)
    expect(JSON.stringify(kept)).not.toMatch(/"password"|"sealed"/)
    expect(kept.cameras.find((c: any) => c.id === 'quay-path').picture.file).toBe(
      'pictures/quay-path-day.jpg'
    )
  })

  test('its pages: text, fonts, outline, tags, every page (poppler)', () => {
    const pdf = join(home, '1', 'record.pdf')
    const info = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' })
    expect(info).toMatch(/Title:\s+Handover record 1, Skerrow Landing/)
    expect(info).toMatch(/Tagged:\s+yes/)
    expect(info).toMatch(/Page size:\s+595\.28 x 841\.89 pts \(A4\)/)
    const pages = Number(/Pages:\s+(\d+)/.exec(info)![1])
    const texts = execFileSync('pdftotext', ['-layout', pdf, '-'], {
      encoding: 'utf8',
      maxBuffer: 2 ** 26
    }).split('\f')
    expect(texts.length - 1).toBe(pages)
    const digest = /[0-9a-f]{64}/
    const { sha256 } = JSON.parse(
      readFileSync(join(home, '1', 'manifest.json'), 'utf8')
    ).files.find((f: any) => f.file === 'record.json')
    texts.slice(0, pages).forEach((text, i) => {
      expect([i, digest.exec(text)?.[0]]).toEqual([i, sha256])
      expect([i, text.includes(`${i + 1} / ${pages}`)]).toEqual([i, true])
      // No page has its foot alone.
      expect([i, text.trim().split('\n').length > 4]).toEqual([i, true])
    })
    const all = texts.join('\n')
    // Letters that the first font has not come from the second.
    for (const words of ['Harbour Trust of Łódź', 'Ωμέγα → ok.', 'Water → Land', 'Quay edge'])
      expect([words, all.includes(words)]).toEqual([words, true])
    const fonts = execFileSync('pdffonts', [pdf], { encoding: 'utf8' }).split('\n').slice(2, -1)
    expect(fonts.length).toBeGreaterThan(1)
    for (const font of fonts) expect(font).toMatch(/ yes yes yes /)
    const outline = execFileSync('pdftohtml', ['-xml', '-i', '-stdout', pdf], {
      encoding: 'utf8',
      maxBuffer: 2 ** 26
    })
    const chapters = [...outline.matchAll(/<item page="(\d+)">([^<]+)<\/item>/g)]
    for (const chapter of ['What protects what', 'Slipway', 'When', 'What then', 'Devices'])
      expect(chapters.map(([, , title]) => title)).toContain(chapter)
    for (const [, page, title] of chapters) expect(texts[Number(page) - 1]).toContain(title)
    // Every page can be drawn, none of them is left white but for its foot.
    for (let page = 1; page <= pages; page++) {
      const drawn = execFileSync('pdftoppm', [
        ...['-r', '30', '-gray', '-f', String(page), '-l', String(page), pdf]
      ])
      const ink = drawn.subarray(0, Math.floor(drawn.length * 0.9)).filter((grey) => grey < 200)
      expect([page, ink.length > 30]).toEqual([page, true])
    }
    expect(execFileSync('pdfinfo', ['-struct', pdf], { encoding: 'utf8' })).toMatch(
      /Document[\s\S]*Sect[\s\S]*H1[\s\S]*Figure[\s\S]*Table[\s\S]*TR[\s\S]*TH/
    )
  })

  test('its tables: a general reader of sheets, of CSV and of JUnit', () => {
    const folder = join(home, '1')
    const sheet = python(
      'import sys,json,openpyxl; s=openpyxl.load_workbook(sys.argv[1]).active; print(json.dumps([[c or "" for c in r] for r in s.values]))',
      join(folder, 'causes-effects.xlsx')
    )
    const csv = python(
      'import sys,json,csv; print(json.dumps(list(csv.reader(open(sys.argv[1],encoding="utf-8-sig",newline="")))))',
      join(folder, 'causes-effects.csv')
    )
    expect(sheet).toEqual(csv)
    expect(sheet[0].slice(0, 2)).toEqual(['camera', 'detection'])
    expect(sheet.find((row: string[]) => row[1] === 'Quay edge')).toContain('x')
    const suites = python(
      'import sys,json,junitparser; x=junitparser.JUnitXml.fromfile(sys.argv[1]); print(json.dumps([[s.name,s.tests,s.skipped,len(list(s))] for s in x]))',
      join(folder, 'checks.junit.xml')
    )
    expect(suites.map(([name]: [string]) => name)).toContain('Quay path')
    for (const [, tests, skipped, cases] of suites) expect([tests, skipped]).toEqual([cases, cases])
    const valid = spawnSync(
      'xmllint',
      [
        ...['--noout', '--schema', 'server/handover/testing/junit.xsd'],
        join(folder, 'checks.junit.xml')
      ],
      { encoding: 'utf8' }
    )
    expect(valid.stderr).toMatch(/checks.junit.xml validates\n$/)
    for (const file of readdirSync(join(folder, 'schedules')))
      expect(
        python(
          'import sys,json,icalendar; c=icalendar.Calendar.from_ical(open(sys.argv[1],"rb").read()); print(json.dumps([len(c.walk("VEVENT")),len(c.walk("VTIMEZONE"))]))',
          join(folder, 'schedules', file)
        )[0]
      ).toBeGreaterThan(0)
  })

  test('a signature binds to its digest, and is on the pages', async () => {
    const { digest } = await record(1)
    const signature = {
      name: 'Ina Marwick',
      role: 'client',
      strokes: [[[0.1, 0.5], [0.5, 0.2], [0.9, 0.6]]] // prettier-ignore
    }
    const refused = await t.ask('POST', '/records/1/signatures', {
      ...signature,
      digest: 'a'.repeat(64)
    })
    expect([refused.status, refused.body.said]).toEqual([
      409,
      'This is not the digest of record 1. Reload the page and sign again.'
    ])
    const signed = await t.ask('POST', '/records/1/signatures', { ...signature, digest })
    expect(signed.status).toBe(200)
    expect((await record(1)).signatures).toMatchObject([{ name: 'Ina Marwick', digest }])
    const files = await zip(1)
    expect(verify(files)).toMatchObject({ number: 1, digest, wrong: [] })
    const pdf = join(home, 'signed.pdf')
    writeFileSync(pdf, files.get('record.pdf')!)
    expect(execFileSync('pdftotext', [pdf, '-'], { encoding: 'utf8' })).toContain('Ina Marwick')
    // The record itself is what it was.
    expect(createHash('sha256').update(files.get('record.json')!).digest('hex')).toBe(digest)
    const nothing = await t.ask('POST', '/records/1/signatures', {
      ...signature,
      digest,
      strokes: []
    })
    expect(nothing.status).toBe(422)
  })

  test('one change is listed, exactly', async () => {
    const changes = async () => (await t.ask('GET', '/records/1/changes')).body.changes
    expect(await changes()).toEqual([])
    const { body } = await t.ask('GET', '/cameras/slipway')
    const { detection, version } = body.detections.find((d: any) => d.detection.id === 'quay-edge')
    const saved = await t.ask('PUT', '/cameras/slipway/detections/quay-edge', {
      detection: { ...detection, confirmSeconds: 0.9 },
      version,
      position: 0
    })
    expect(saved.status).toBe(200)
    expect(await changes()).toEqual([
      {
        area: 'camera',
        where: 'Slipway',
        name: 'Quay edge',
        change: 'changed',
        settings: [{ setting: 'confirmation time', before: '0.5 s', after: '0.9 s' }]
      }
    ])
  })

  test('an issue that is accepted stands in nobody’s way, and is on the record with its reason', async () => {
    const before = await view()
    const issue = before.open[0]!
    const key = findingKey(issue)
    const accept = (reason: string) => t.ask('POST', '/handover/accepted', { key, reason })
    expect((await accept('')).status).toBe(422)
    expect((await accept('Agreed with the client.')).status).toBe(200)
    const after = await view()
    expect(after.open).toHaveLength(before.open.length - 1)
    expect(after.accepted).toMatchObject([{ key, reason: 'Agreed with the client.' }])
    expect((await t.ask('POST', '/handover/accepted', { key: 'none', reason: 'x' })).status).toBe(
      404
    )
    expect(await make()).toMatchObject({ state: 'made', number: 2 })
    const kept = JSON.parse(new TextDecoder().decode((await zip(2)).get('record.json')))
    expect(kept.accepted).toMatchObject([{ reason: 'Agreed with the client.' }])
    expect(kept.open.map((o: any) => o.key)).not.toContain(key)
    await t.ask('DELETE', `/handover/accepted?key=${encodeURIComponent(key)}`)
    expect((await view()).open).toHaveLength(before.open.length)
  }, 600_000)

  test('operators read records and make none; viewers do neither', async () => {
    const operator = await t.as('operator')
    const viewer = await t.as('viewer')
    const { digest } = await record(1)
    const statuses = async (cookie: string) =>
      Promise.all(
        (
          [
            ['GET', '/records'],
            ['GET', '/records/1/pdf'],
            ['GET', '/handover'],
            ['POST', '/records', asked],
            ['POST', '/records/1/signatures', { name: 'x', role: 'client', digest, strokes: null }]
          ] as const
        ).map(async ([method, path, body]) => (await t.ask(method, path, body, cookie)).status)
      )
    expect(await statuses(operator)).toEqual([200, 200, 403, 403, 403])
    expect(await statuses(viewer)).toEqual([403, 403, 403, 403, 403])
    expect((await t.ask('GET', '/records/99/pdf')).status).toBe(404)
  })

  test('can be stopped; the next one takes its number', async () => {
    await t.ask('POST', '/records', asked)
    const stopped = await t.ask('DELETE', '/handover/job')
    expect(stopped.status).toBe(200)
    expect((await view()).job).toMatchObject({ state: 'failed', error: 'the record was stopped' })
    expect((await t.ask('DELETE', '/handover/job')).status).toBe(409)
    expect(readdirSync(join(t.folder, 'records', t.site)).sort()).toEqual(['1', '2'])
  })

  test('what was left unfinished is taken away at the next start; what is being made stays', async () => {
    const home = join(t.folder, 'records', t.site)
    for (const name of ['9.old.part', '9.new.part']) mkdirSync(join(home, name))
    utimesSync(join(home, '9.old.part'), new Date(0), new Date(0))
    await t.restart()
    expect(readdirSync(home).sort()).toEqual(['1', '2', '9.new.part'])
    rmSync(join(home, '9.new.part'), { recursive: true })
  })

  test('whose files are gone says so, and takes nothing else with it', async () => {
    rmSync(join(t.folder, 'records', t.site, '2'), { recursive: true })
    const answer = await t.ask('GET', '/records/2/zip')
    expect([answer.status, answer.body.said]).toEqual([
      409,
      'The files of record 2 are not in the data folder. Restore them from a backup, or use a copy of the ZIP file.'
    ])
    expect((await t.fetch('/records/1/pdf')).status).toBe(200)
  })
})

describe('a service visit', () => {
  test('ends with a record of two pages beside the first one', async () => {
    expect((await t.ask('POST', '/handover/visit', { record: 9 })).status).toBe(404)
    expect((await t.ask('POST', '/handover/visit', { record: 1 })).status).toBe(200)
    expect((await view()).visit).toMatchObject({ record: 1, walked: { of: 0 } })
    expect(await make({ service: true, paper: 'letter' })).toMatchObject({ state: 'made' })
    const [{ number, kind }] = (await view()).records as [RecordView]
    expect([number, kind, (await view()).visit]).toEqual([3, 'service', null])
    const files = await zip(number)
    const { service } = JSON.parse(new TextDecoder().decode(files.get('record.json')))
    expect(service.number).toBe(1)
    const found = (what: string) => service.items.filter((i: any) => i.what === what)
    expect(found('read')).toMatchObject([{ where: 'Quay path camera', result: 'good' }])
    expect(found('firmware')).toMatchObject([{ result: 'good' }])
    expect(found('picture').find((i: any) => i.where === 'Quay path')).toMatchObject({
      result: 'good',
      sentence: 'Picture as in the record'
    })
    expect(found('walk')).toMatchObject([{ result: 'not-done' }])
    expect(found('output')).not.toEqual([])
    expect(service.changes.map((c: any) => c.name)).toContain('Quay edge')
    expect(found('checks')).toMatchObject([{ result: 'not-done' }])
    const pdf = join(home, 'service.pdf')
    writeFileSync(pdf, files.get('record.pdf')!)
    const info = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' })
    expect(info).toMatch(/Pages:\s+2\n/)
    expect(info).toMatch(/\(letter\)/)
  }, 600_000)
})

describe('npm run verify', () => {
  const run = (file: string) =>
    spawnSync(process.execPath, ['scripts/run.mjs', 'server/handover/verifyCli.ts', file], {
      encoding: 'utf8'
    })

  test('says that a record holds, or what does not', async () => {
    const file = join(home, 'v.zip')
    writeFileSync(file, Buffer.from(await (await t.fetch('/records/1/zip')).arrayBuffer()))
    const good = run(file)
    expect([good.status, good.stdout.split('\n')]).toEqual([
      0,
      [expect.stringMatching(/^Record 1 holds: \d+ files, digest [0-9a-f]{64}$/), '']
    ])
    const folder = join(home, 'torn')
    execFileSync('unzip', ['-q', file, '-d', folder])
    writeFileSync(join(folder, 'station.csv'), 'account\r\n')
    rmSync(file)
    // Packed again by another program.
    execFileSync('/usr/bin/python3', ['-m', 'zipfile', '-c', file, ...readdirSync(folder)], {
      cwd: folder
    })
    const bad = run(file)
    expect([bad.status, bad.stderr]).toEqual([
      1,
      'station.csv was changed: its digest differs from the manifest\n'
    ])
    writeFileSync(file, 'no zip')
    expect(run(file)).toMatchObject({ status: 1, stderr: `error: ${file}: is not a ZIP file\n` })
  })
})
