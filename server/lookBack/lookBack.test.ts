import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { createCanvas } from '@napi-rs/canvas'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { evaluate } from '../../core/detections/index.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { readMot } from '../../core/formats/mot.ts'
import { readTracks } from '../../core/lookBack/tracksBytes.ts'
import { eventually, shortClip, startTestApp, type TestApp } from '../testing/testApp.ts'
import { HourWriter } from './hourWriter.ts'
import { HOUR_MS } from './hours.ts'
import { PictureWriter } from './pictureFile.ts'

const DAY_MS = 24 * HOUR_MS
let t: TestApp
/** Ten in the morning (UTC) of a day before now: what happens in the hours after it is of one day of the site's. */
let from: number
const to = (): number => from + 4 * DAY_MS
let drawn: { schedules: never[]; ignore: never[] }
let gate: Detection

/** When pictures were taken, ms from the beginning. */
const PICTURED = [700_000, 1_000_000, HOUR_MS + 5]
/** A picture of its own for each of them. */
const picture = (n: number): Buffer => {
  const canvas = createCanvas(480, 270)
  const g = canvas.getContext('2d')
  g.fillStyle = `hsl(${120 * n} 80% 50%)`
  g.fillRect(0, 0, 480, 270)
  return canvas.toBuffer('image/jpeg')
}

/** Four days, each with four who pass for 3 s and four who stay for 20 s; the camera was away on the second evening. */
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, clipsOf: [] })
  from = Math.floor(Date.now() / DAY_MS) * DAY_MS - 5 * DAY_MS + 10 * HOUR_MS
  const writer = new HourWriter(join(t.folder, 'look-back'), {
    closed: () => {},
    failed: (error) => {
      throw error
    }
  })
  const row = (id: number, x: number) => ({ id, class: 'person', x, y: 0.5, w: 0.04, h: 0.15 })
  writer.begin('slipway', from)
  let id = 0
  for (let day = 0; day < 4; day++)
    for (let n = 0; n < 8; n++) {
      id++
      const at = from + day * DAY_MS + n * 600_000 + 60_000
      const frames = n % 2 ? 200 : 30
      for (let k = 0; k < 5; k++) writer.take('slipway', at + 100 * k, [row(id, 0.05)])
      for (let k = 5; k <= 5 + frames; k++) writer.take('slipway', at + 100 * k, [row(id, 0.5)])
      for (let k = 0; k < 5; k++)
        writer.take('slipway', at + 100 * (6 + frames + k), [row(id, 0.9)])
    }
  writer.closeAll(to())
  const pictures = new PictureWriter(join(t.folder, 'look-back'))
  for (const [i, ms] of PICTURED.entries())
    await pictures.add('slipway', { at: from + ms, jpeg: picture(i) })
  drawn = { schedules: [], ignore: [] }
  gate = {
    id: 'gate',
    name: 'Gate',
    kind: 'intrusion',
    enabled: true,
    zone: [
      [0.3, 0.3],
      [0.7, 0.3],
      [0.7, 0.9],
      [0.3, 0.9]
    ],
    dwellSeconds: 1,
    countFirstSeenInside: true,
    atLeast: 1,
    sensitivity: 50,
    classes: ['person'],
    confirmSeconds: 0,
    holdOffSeconds: 0
  }
  const { status } = await t.ask('POST', '/cameras/slipway/marks', {
    detection: 'gate',
    target: 99,
    at: from,
    mark: 'wanted'
  })
  expect(status).toBe(201)
  for (const { id: mark } of (await t.ask('GET', '/cameras/slipway/marks')).body)
    await t.ask('DELETE', `/cameras/slipway/marks/${mark}`)
}, 600_000)
afterAll(() => t.close())

const at = (n: number): number => from + Math.floor(n / 8) * DAY_MS + (n % 8) * 600_000 + 60_000

describe('looking back', () => {
  test('the strip tells targets, and when the camera was listened to', async () => {
    const { body, status } = await t.ask(
      'GET',
      `/cameras/slipway/look-back?from=${from}&to=${to()}`
    )
    expect(status).toBe(200)
    expect(body).toMatchObject({ left: false, days: 14 })
    expect(body.tens).toHaveLength(32)
    expect(body.tens[0]).toEqual({ at: from, counts: [0, 1, 0, 0, 0] })
    expect(body.heard[0][0]).toBe(from)
    // What began before is not in it, though it is of the same hour.
    const later = from + 1_800_000
    const part = await t.ask('GET', `/cameras/slipway/look-back?from=${later}&to=${to()}`)
    expect(part.body.tens[0].at).toBe(later)
  })

  test('the rows of a range come as tracks, from which the engine gives the same triggers', async () => {
    const response = await t.fetch(
      `/cameras/slipway/look-back/tracks?from=${from}&to=${from + DAY_MS}`
    )
    expect(response.status).toBe(200)
    const tracks = readTracks(new Uint8Array(await response.arrayBuffer()))
    expect(new Set(tracks.id).size).toBe(8)
    const triggers = evaluate(
      {
        plan: { schedules: [], timeZone: 'Europe/London' },
        camera: { ignore: [], detections: [gate] },
        fps: tracks.fps,
        start: from
      },
      tracks
    )
    const { body } = await t.ask('POST', '/cameras/slipway/look-back/counts', {
      ...drawn,
      from,
      to: from + DAY_MS,
      detections: [gate]
    })
    expect(triggers).toHaveLength(8)
    expect(body.counted[0]).toMatchObject({ detection: 'gate', count: 8 })
    expect(body.counted[0].hours.flat().reduce((a: number, b: number) => a + b)).toBe(8)
  })

  test('a range that ends before it begins, or is too long for a browser, is refused', async () => {
    const ask = (path: string) => t.ask('GET', `/cameras/slipway/look-back${path}`)
    expect((await ask(`?from=${to()}&to=${from}`)).status).toBe(422)
    expect((await ask(`/tracks?from=${from}&to=${to()}`)).status).toBe(422)
    expect((await ask(`?from=x&to=${to()}`)).status).toBe(422)
    expect((await t.ask('GET', `/cameras/none/look-back?from=${from}&to=${to()}`)).status).toBe(404)
  })

  describe('a stretch saved as a clip', () => {
    const save = (stretch: object) =>
      t.ask('POST', '/cameras/slipway/look-back/clips', { name: 'Passers', ...stretch })
    const ready = (clip: string) =>
      eventually(async () => {
        const now = (await t.ask('GET', `/clips/${clip}`)).body
        return now.state === 'ready' && now
      })
    let id: string

    test('has the targets that the camera reported, over the pictures that were kept', async () => {
      const { status, body } = await save({ from, to: from + 1_800_000 })
      expect(status).toBe(201)
      expect(body).toMatchObject({ name: 'Passers', start: from, fps: 10, reported: true })
      id = body.id
      const clip: any = await ready(id)
      expect(clip).toMatchObject({ frames: 18_000, targets: 3, width: 480, height: 270 })
      const reported = readTracks(
        new Uint8Array(
          await (
            await t.fetch(`/cameras/slipway/look-back/tracks?from=${from}&to=${from + 1_800_000}`)
          ).arrayBuffer()
        )
      )
      const rows = await (await t.fetch(`/clips/${id}/tracks`)).text()
      const kept = readMot(rows, 10, clip)
      expect(kept.length).toBe(reported.length)
      expect([...kept.frame]).toEqual([...reported.frame])
      expect([...kept.id]).toEqual([...reported.id])
      // MOTChallenge's rows are in pixels, with two decimals.
      kept.x.forEach((x, i) => expect(x).toBeCloseTo(reported.x[i]!, 4))
      // ffprobe is the reference for what a browser plays.
      const told = spawnSync(
        'ffprobe',
        [
          ...['-v', 'error', '-select_streams', 'v:0', '-count_packets', '-of', 'json'],
          ...['-show_entries', 'stream=width,height,nb_read_packets'],
          join(t.folder, 'clips', id, 'view.mp4')
        ],
        { encoding: 'utf8' }
      ).stdout
      const [stream] = (JSON.parse(told) as { streams: Record<string, unknown>[] }).streams
      expect(stream).toMatchObject({ width: clip.width, height: clip.height })
      expect(Number(stream!.nb_read_packets)).toBe(18_000)
    })

    test('shows what was recorded from its stream, and the kept pictures before and after it', async () => {
      const { body } = await save({ from: from + 590_000, to: from + 620_000 })
      const before: any = await ready(body.id)
      expect(before.width).toBe(480)
      // Five seconds, from ten on.
      const recorded = await t.app.clips.add(
        'slipway',
        'Recorded',
        from + 600_000,
        Readable.from(shortClip(5)),
        { recorded: true }
      )
      const { width, height } = (await ready(recorded.id)) as { width: number; height: number }
      expect(width).toBeGreaterThan(480)
      const { body: again } = await save({ from: from + 590_000, to: from + 620_000 })
      expect(await ready(again.id)).toMatchObject({ width, height, frames: 300 })
      // ffmpeg says how alike two pictures are.
      const file = (id: string): string => join(t.folder, 'clips', id, 'view.mp4')
      const alike = (at: number, other: string, second: number): number => {
        const { stderr } = spawnSync(
          'ffmpeg',
          [
            ...['-ss', String(at), '-i', file(again.id), '-ss', String(second), '-i', other],
            ...['-frames:v', '1', '-lavfi', `[1]scale=${width}:${height}[b];[0][b]ssim`],
            ...['-f', 'null', '-']
          ],
          { encoding: 'utf8' }
        )
        return Number(/All:([\d.]+)/.exec(stderr)![1])
      }
      expect(alike(12.5, file(recorded.id), 2.5)).toBeGreaterThan(0.9)
      for (const second of [1, 9, 16, 29])
        expect(alike(second, file(before.id), second)).toBeGreaterThan(0.9)
      expect(alike(12.5, file(before.id), 12.5)).toBeLessThan(0.9)
      for (const clip of [recorded.id, body.id, again.id])
        expect((await t.ask('DELETE', `/clips/${clip}`)).status).toBe(204)
    })

    test('is a check, judged on what was reported', async () => {
      const { body: saved } = await t.ask('PUT', '/cameras/slipway/detections/reported', {
        version: 0,
        position: 0,
        detection: { ...gate, id: 'reported' }
      })
      const check = {
        id: 'passer',
        detection: 'reported',
        name: 'The second one',
        about: 'passes',
        by: { how: 'clip', clip: id, from: 600, to: 700 },
        at: from,
        expect: { what: 'trigger', from: 0, to: 100, times: 1 }
      }
      expect(
        (await t.ask('PUT', '/cameras/slipway/checks/passer', { version: 0, check })).status
      ).toBe(200)
      const run = await t.ask('POST', '/proving/runs', {
        checks: [{ camera: 'slipway', check: 'passer' }]
      })
      expect(run.status).toBe(201)
      const ended: any = await eventually(async () => {
        const { body } = await t.ask('GET', `/proving/runs/${run.body.id}`)
        return body.state === 'finished' && body
      })
      expect(ended).toMatchObject({ passed: 1, failed: 0 })
      await t.ask('DELETE', `/cameras/slipway/detections/reported?version=${saved.version}`)
    })

    test('has no pictures of then: nothing is measured, and nothing analysed again', async () => {
      expect((await t.ask('GET', `/clips/${id}/measures`)).status).toBe(404)
      expect((await t.ask('POST', `/clips/${id}/analyse`)).status).toBe(409)
      expect((await t.ask('POST', `/clips/${id}/reference`, { at: [1] })).status).toBe(409)
      expect((await t.ask('GET', `/clips/${id}`)).body.state).toBe('ready')
      const { body: site } = await t.ask('GET', '/site')
      expect(site.cameras.find((c: any) => c.id === 'slipway').clip).toBeNull()
    })

    test('is made again from what is kept when a file of it is cut', async () => {
      const file = join(t.folder, 'clips', id, 'tracks.csv')
      const whole = readFileSync(file, 'utf8')
      writeFileSync(file, whole.slice(0, 100))
      expect((await t.ask('GET', `/clips/${id}/tracks`)).status).toBe(409)
      expect((await t.ask('POST', `/clips/${id}/analyse`)).status).toBe(200)
      await eventually(async () => (await t.ask('GET', `/clips/${id}`)).body.state === 'ready')
      expect(readFileSync(file, 'utf8')).toBe(whole)
    })

    test('of a time that nobody listened to, or of more than an hour, is refused', async () => {
      const away = from + 100 * DAY_MS
      expect((await save({ from: away, to: away + HOUR_MS })).body.said.code).toBe(
        'watch.nothingKept'
      )
      expect((await save({ from, to: from + HOUR_MS + 1 })).status).toBe(422)
      expect((await save({ from, to: from })).status).toBe(422)
      const operator = await t.as('operator')
      const body = { name: 'x', from, to: from + 1000 }
      expect((await t.ask('POST', '/cameras/slipway/look-back/clips', body, operator)).status).toBe(
        403
      )
    })
  })

  test('the pictures of a range, and each of them', async () => {
    const path = '/cameras/slipway/look-back/pictures'
    const times = PICTURED.map((ms) => from + ms)
    const { body } = await t.ask('GET', `${path}?from=${from}&to=${from + DAY_MS}`)
    expect(body).toEqual({ at: times })
    expect((await t.ask('GET', `${path}?from=${from}&to=${times[2]}`)).body.at).toHaveLength(2)
    for (const [i, time] of times.entries()) {
      const answer = await t.fetch(`${path}/${time}`)
      expect(answer.headers.get('content-type')).toBe('image/jpeg')
      expect(Buffer.from(await answer.arrayBuffer())).toEqual(picture(i))
    }
    expect((await t.ask('GET', `${path}/${from + 1}`)).status).toBe(404)
    expect((await t.ask('GET', `${path}/x`)).status).toBe(422)
    expect((await t.ask('GET', `${path}?from=${from}&to=${to()}`)).status).toBe(422)
    expect((await t.ask('GET', `/cameras/none/look-back/pictures/${times[0]}`)).status).toBe(404)
  })

  test('operators may look back, viewers may not', async () => {
    for (const path of [
      `/cameras/slipway/look-back?from=${from}&to=${to()}`,
      `/cameras/slipway/look-back/pictures/${from + PICTURED[0]!}`
    ]) {
      expect((await t.fetch(path, { headers: { cookie: await t.as('operator') } })).status).toBe(
        200
      )
      expect((await t.fetch(path, { headers: { cookie: await t.as('viewer') } })).status).toBe(403)
    }
  })
})

/** The lines of a recommendation for what is marked, the last one with what was found. */
async function recommended(): Promise<any[]> {
  const response = await t.fetch('/cameras/slipway/look-back/recommend', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...drawn, from, to: to(), detection: gate })
  })
  return (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line))
}

describe('marks and tuning', () => {
  test('with what is marked, settings are swept and recommended', async () => {
    for (let n = 0; n < 32; n++) {
      const { status } = await t.ask('POST', '/cameras/slipway/marks', {
        detection: 'gate',
        target: n + 1,
        at: at(n) + 1500,
        mark: n % 2 ? 'wanted' : 'nuisance',
        ...(n % 2 === 0 && { reason: 'passerBy' })
      })
      expect(status).toBe(201)
    }
    const { body: swept } = await t.ask('POST', '/cameras/slipway/look-back/sweep', {
      ...drawn,
      from,
      to: to(),
      detection: gate,
      setting: 'dwellSeconds'
    })
    const by = new Map(swept.swept.map((s: any) => [s.value, s]))
    expect(by.get(1)).toEqual({ value: 1, wanted: 16, nuisance: 16, unmarked: 0 })
    expect(by.get(10)).toEqual({ value: 10, wanted: 16, nuisance: 0, unmarked: 0 })
    expect(by.get(30)).toEqual({ value: 30, wanted: 0, nuisance: 0, unmarked: 0 })

    const lines = await recommended()
    expect(lines.at(-1).found).toMatchObject({
      settings: { dwellSeconds: 3.1 },
      kept: 16,
      gone: 16,
      leftOut: { days: 4, kept: 16, gone: 16 }
    })
    const shares = lines.slice(0, -1).map(({ share }) => share)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
  }, 600_000)

  test('marks on clips count as well, and those of a clip of the days themselves only once', async () => {
    const { body: clip } = await t.ask('POST', '/cameras/slipway/look-back/clips', {
      name: 'First hour',
      from,
      to: from + 1_800_000
    })
    await eventually(async () => (await t.ask('GET', `/clips/${clip.id}`)).body.state === 'ready')
    const { body: marks } = await t.ask('POST', '/cameras/slipway/marks', {
      detection: 'gate',
      clip: clip.id,
      target: 2,
      at: at(1) - from + 1500,
      mark: 'wanted'
    })
    const sweep = async (first: number): Promise<object> => {
      const { body } = await t.ask('POST', '/cameras/slipway/look-back/sweep', {
        ...drawn,
        from: first,
        to: to(),
        detection: gate,
        setting: 'dwellSeconds'
      })
      return body.swept.find(({ value }: any) => value === 1)
    }
    // It is marked in its day already.
    expect(await sweep(from)).toEqual({ value: 1, wanted: 16, nuisance: 16, unmarked: 0 })
    // Of the last day alone, with the clip: one of its three targets is marked on it.
    expect(await sweep(from + 3 * DAY_MS)).toEqual({
      value: 1,
      wanted: 4 + 1,
      nuisance: 4,
      unmarked: 2
    })
    const { id } = marks.find((mark: any) => mark.clip === clip.id)
    await t.ask('DELETE', `/cameras/slipway/marks/${id}`)
  }, 600_000)

  test('a recommendation keeps what checks have passed', async () => {
    const saved = await t.ask('PUT', '/cameras/slipway/detections/gate', {
      detection: gate,
      version: 0,
      position: 1
    })
    expect(saved.status).toBe(200)
    await t.ask('POST', '/proving/propose', {})
    const view = await eventually(async () => {
      const { body } = await t.ask('GET', '/proving')
      return body.proposing + body.unasked === 0 && body
    })
    const named = view.proposals
      .filter(({ check }: any) => check.detection === 'gate' && check.about === 'passes')
      .map(({ camera, check }: any) => ({ camera, check: check.id }))
    expect(named).not.toEqual([])
    await t.ask('POST', '/proving/take', { checks: named })
    const run = async () => {
      const { body } = await t.ask('POST', '/proving/runs', { checks: named })
      return eventually(async () => {
        const { body: now } = await t.ask('GET', `/proving/runs/${body.id}`)
        return now.state === 'finished' && now
      })
    }
    expect(await run()).toMatchObject({ failed: 0 })
    const { settings } = (await recommended()).at(-1).found
    // The longest stay of who only passes would be outlasted by 3.1 s; those of the checks are shorter.
    expect(settings.dwellSeconds ?? 1).toBeLessThan(3.1)
    await t.ask('PUT', '/cameras/slipway/detections/gate', {
      detection: { ...gate, ...settings },
      version: 1,
      position: 1
    })
    expect(await run()).toMatchObject({ failed: 0 })
    await t.ask('PUT', '/cameras/slipway/detections/gate', {
      detection: { ...gate, dwellSeconds: 3.1 },
      version: 2,
      position: 1
    })
    expect((await run()).failed).toBeGreaterThan(0)
    await t.ask('DELETE', '/cameras/slipway/detections/gate?version=3')
  }, 600_000)

  test('whoever leaves stops what is done for them, and the next one is answered', async () => {
    const ask = (signal?: AbortSignal) =>
      t.fetch('/cameras/slipway/look-back/counts', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...drawn, from, to: to(), detections: [gate] }),
        ...(signal && { signal })
      })
    const leave = new AbortController()
    const left = Array.from({ length: 6 }, () => ask(leave.signal).catch(() => null))
    leave.abort()
    expect(await Promise.all(left)).toEqual([null, null, null, null, null, null])
    const answer = await ask()
    expect(answer.status).toBe(200)
    expect(((await answer.json()) as any).counted[0].count).toBe(32)
  })

  test('what is said again of the same moment takes the place of what was said', async () => {
    const mark = { detection: 'gate', target: 1, at: at(0) + 1800, mark: 'wanted' }
    const before = (await t.ask('GET', '/cameras/slipway/marks')).body.length
    const { body } = await t.ask('POST', '/cameras/slipway/marks', mark)
    expect(body).toHaveLength(before)
    expect(body.find((m: any) => m.target === 1)).toMatchObject({ mark: 'wanted', reason: null })
    expect((await t.ask('POST', '/cameras/slipway/marks', { ...mark, clip: 'none' })).status).toBe(
      404
    )
    expect((await t.ask('POST', '/cameras/slipway/marks', { ...mark, mark: 'good' })).status).toBe(
      422
    )
  })

  test('an alarm is marked with all its triggers, by an operator too, and the site says what is worst', async () => {
    const { detection } = (await t.ask('GET', '/cameras/slipway')).body.detections[0]
    for (const key of ['a', 'b'])
      expect(
        (
          await t.ask('POST', '/triggers', {
            key,
            camera: 'slipway',
            detection: detection.id,
            target: 7
          })
        ).status
      ).toBe(201)
    const alarm = (await t.ask('GET', '/alarms')).body.alarms[0]
    const operator = await t.as('operator')
    const said = { mark: 'nuisance', reason: 'foliage' }
    expect(
      (await t.ask('POST', `/alarms/${alarm.id}/mark`, said, await t.as('viewer'))).status
    ).toBe(403)
    expect((await t.ask('POST', `/alarms/${alarm.id}/mark`, said, operator)).body.mark).toBe(
      'nuisance'
    )
    const { body } = await t.ask('GET', '/nuisances')
    expect(body.detections[0]).toMatchObject({
      camera: 'slipway',
      detection: detection.id,
      name: detection.name,
      wanted: 0
    })
    // Said anew, it counts once.
    await t.ask('POST', `/alarms/${alarm.id}/mark`, { mark: 'wanted' }, operator)
    expect((await t.ask('GET', '/nuisances')).body.detections).toEqual([])
    expect((await t.ask('GET', '/alarms')).body.alarms[0].mark).toBe('wanted')
  })
})

test('a camera that is left out is forgotten, and nothing is kept of it', async () => {
  const { body: settings } = await t.ask('GET', '/settings/look-back')
  expect(settings).toMatchObject({
    lookBack: { days: 14, gigabytes: 5, without: [] },
    version: 0
  })
  expect(settings.bytes).toBeGreaterThan(1000)
  expect(settings.since).toBeLessThanOrEqual(from)
  const lookBack = { days: 7, gigabytes: 2, without: ['slipway'] }
  const { body, status } = await t.ask('PUT', '/settings/look-back', { version: 0, lookBack })
  expect(status).toBe(200)
  expect(body).toMatchObject({ lookBack, version: 1, bytes: 0, since: null })
  expect(existsSync(join(t.folder, 'look-back', 'slipway'))).toBe(false)
  expect(
    (await t.ask('PUT', '/settings/look-back', { version: 1, lookBack: { ...lookBack, days: 0 } }))
      .status
  ).toBe(422)
  expect((await t.ask('PUT', '/settings/look-back', { version: 0, lookBack })).status).toBe(409)
  // Of another site's cameras nothing can be said here, and least of all deleted.
  const foreign = { ...lookBack, without: ['elsewhere'] }
  const answer = await t.ask('PUT', '/settings/look-back', { version: 1, lookBack: foreign })
  expect(answer.status).toBe(422)
  expect(answer.body.path).toBe('$.lookBack.without[0]')
})
