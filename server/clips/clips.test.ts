import { execFileSync } from 'node:child_process'
import { readdirSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { analyseInWorker } from '../../analysis/inWorker.ts'
import { readMot } from '../../core/formats/mot.ts'
import { demoClip, shortClip, eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(
  async () => (t = await startTestApp({ mostClipBytes: 3 * 2 ** 20, analyse: analyseInWorker }))
)
afterAll(() => t.close())

/** What is kept of clips, in the database and on disk. */
const kept = async () => ({
  rows: await t.database.rows('SELECT id FROM clip'),
  files: readdirSync(join(t.folder, 'clips'))
})
const ended = (id: string) =>
  eventually(async () => {
    const { body } = await t.ask('GET', `/clips/${id}`)
    return body.state !== 'analysing' && body
  })
const nothing = { rows: [], files: [] }

describe('clips that cannot be used leave nothing behind', () => {
  test.each([
    ['empty.mp4', Buffer.alloc(0), 'empty.mp4: is empty; choose a video file'],
    [
      'letter.mp4',
      Buffer.from('Dear sir, this is no video. '.repeat(500)),
      'letter.mp4: is not a video that can be read'
    ],
    [
      'list.m3u8',
      Buffer.from('#EXTM3U\n#EXTINF:10,\nfile:///etc/passwd\n#EXT-X-ENDLIST\n'),
      'list.m3u8: is not a video that can be read'
    ]
  ])('%s', async (name, content, message) => {
    const answer = await t.upload('camera-1', name, content)
    expect(answer).toMatchObject({
      status: 422,
      body: { code: 'bad-input', message: expect.saying(message) }
    })
    expect(await kept()).toEqual(nothing)
  })

  test('larger than the limit', async () => {
    const answer = await t.upload('camera-1', 'large.mp4', Buffer.alloc(3 * 2 ** 20 + 1, 7))
    expect(answer).toMatchObject({
      status: 413,
      body: { code: 'too-large', message: expect.saying('larger than 3 MB') }
    })
    expect(await kept()).toEqual(nothing)
  })

  test('a still picture', async () => {
    const png = execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=320x240',
      '-frames:v',
      '1',
      '-f',
      'image2pipe',
      '-c:v',
      'png',
      '-'
    ])
    expect(await t.upload('camera-1', 'still.png', png)).toMatchObject({ status: 422 })
    expect(await kept()).toEqual(nothing)
  })

  test('sound only', async () => {
    const sound = execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'sine=duration=2',
      '-f',
      'matroska',
      '-'
    ])
    expect(await t.upload('camera-1', 'sound.mkv', sound)).toMatchObject({
      status: 422,
      body: { message: expect.saying('sound.mkv: has no video in it; choose a video file') }
    })
    expect(await kept()).toEqual(nothing)
  })

  test('truncated in its pictures: the analysis says how far they go', async () => {
    const whole = demoClip()
    const answer = await t.upload(
      'camera-1',
      'half.mp4',
      whole.subarray(0, Math.floor(whole.length / 2))
    )
    expect(answer.status).toBe(201)
    const clip = await ended(answer.body.id)
    expect(clip).toMatchObject({
      state: 'refused',
      error: expect.saying(/is cut off: it should last 64\.0 s, but ends after \d\d\.\d s/)
    })
    expect(await kept()).toEqual(nothing)
  })

  test('truncated before its index', async () => {
    const late = execFileSync('bash', [
      '-c',
      'f=$(mktemp --suffix=.mp4); ffmpeg -v error -y -f lavfi -i testsrc=duration=3:size=320x240:rate=10 -c:v libx264 "$f" && head -c $(( $(stat -c %s "$f") / 2 )) "$f"; rm "$f"'
    ])
    expect(await t.upload('camera-1', 'late.mp4', late)).toMatchObject({
      status: 422,
      body: { message: expect.saying('is cut off: its index is missing') }
    })
    expect(await kept()).toEqual(nothing)
  })

  test('the sender disconnects half-way', async () => {
    const { port } = t.app.http.server.address() as { port: number }
    const sending = request({
      port,
      host: '127.0.0.1',
      method: 'POST',
      path: t.addressOf('/cameras/camera-1/clips?name=gone.mp4'),
      headers: {
        'content-type': 'application/octet-stream',
        'content-length': 900_000,
        cookie: t.cookie
      }
    })
    sending.on('error', () => {})
    sending.write(demoClip().subarray(0, 200_000))
    await eventually(async () => (await kept()).files.length === 1)
    sending.destroy()
    await eventually(async () => (await kept()).files.length === 0)
    expect(await kept()).toEqual(nothing)
  })
})

describe('a clip', () => {
  let id: string

  test('is stored, analysed with progress, and saved with its targets', async () => {
    const answer = await t.upload('camera-1', 'morning.mp4', shortClip(20))
    expect(answer).toMatchObject({
      status: 201,
      body: { state: 'analysing', width: 640, height: 360, fps: 10 }
    })
    id = answer.body.id
    const shares = new Set<number>()
    await eventually(async () => {
      const { body } = await t.ask('GET', `/clips/${id}`)
      if (body.progress?.share) shares.add(body.progress.share)
      return body.state === 'ready'
    })
    expect(shares.size).toBeGreaterThan(1)
    const { body: clip } = await t.ask('GET', `/clips/${id}`)
    expect(clip).toMatchObject({ state: 'ready', progress: null })
    // Cut where its packets allow it.
    expect(Math.abs(clip.frames - 200)).toBeLessThanOrEqual(2)
    const tracks = readMot((await t.ask('GET', `/clips/${id}/tracks`)).body, clip.fps, clip)
    expect(tracks.length).toBe(clip.rows)
    expect(new Set(tracks.id).size).toBe(clip.targets)
  })

  test('is served in ranges', async () => {
    const { port } = t.app.http.server.address() as { port: number }
    const ask = (range: string) =>
      fetch(`http://127.0.0.1:${port}/api/sites/site/clips/${id}/video`, {
        headers: { range, cookie: t.cookie }
      })
    const part = await ask('bytes=100-199')
    expect([
      part.status,
      part.headers.get('content-length'),
      part.headers.get('content-type')
    ]).toEqual([206, '100', 'video/mp4'])
    expect((await ask('bytes=-10')).status).toBe(206)
    expect((await ask('bytes=99999999-')).status).toBe(416)
  })

  test('gives the frame of a moment as its picture', async () => {
    const { port } = t.app.http.server.address() as { port: number }
    const at = async (s: string) =>
      (
        await t.fetch(`http://127.0.0.1:${port}/api/sites/site/clips/${id}/picture?at=${s}`)
      ).headers.get('content-type')
    expect(await at('9')).toBe('image/png')
    expect(await at('5000')).toBe('application/json; charset=utf-8')
  })

  test('changes its name and start; refuses invalid ones', async () => {
    expect(
      await t.ask('PATCH', `/clips/${id}`, { name: 'Early', start: 1764000000000 })
    ).toMatchObject({ status: 200, body: { name: 'Early', start: 1764000000000 } })
    expect(await t.ask('PATCH', `/clips/${id}`, { start: -5 })).toMatchObject({
      status: 422,
      body: { message: '$.start: must be after 1970' }
    })
    expect(await t.ask('PATCH', `/clips/${id}`, { name: 'x'.repeat(10_000) })).toMatchObject({
      status: 422
    })
  })

  test('stops and resumes its analysis', async () => {
    const { body } = await t.upload('camera-1', 'again.mp4', shortClip(30))
    await eventually(async () => (await t.ask('GET', `/clips/${body.id}`)).body.progress?.share > 0)
    expect(await t.ask('POST', `/clips/${body.id}/stop`)).toMatchObject({
      status: 200,
      body: { state: 'stopped' }
    })
    expect(await t.ask('GET', `/clips/${body.id}/tracks`)).toMatchObject({
      status: 409,
      body: { code: 'busy' }
    })
    expect(await t.ask('POST', `/clips/${body.id}/runs`, { speed: 1000 })).toMatchObject({
      status: 409
    })
    expect(await t.ask('POST', `/clips/${body.id}/analyse`)).toMatchObject({
      status: 200,
      body: { state: 'analysing' }
    })
    expect(await ended(body.id)).toMatchObject({ state: 'ready' })
    expect((await t.ask('DELETE', `/clips/${body.id}`)).status).toBe(204)
    expect((await kept()).files).toEqual([id])
  })

  test('is stopped and removed at once while it waits for its turn; the next one has its own', async () => {
    const goOn = t.app.clips.hold()
    const [stopped, removed, next] = await Promise.all(
      ['a', 'b', 'c'].map(
        async (name) => (await t.upload('camera-1', `${name}.mp4`, shortClip(5))).body.id
      )
    )
    expect(await t.ask('POST', `/clips/${stopped}/stop`)).toMatchObject({
      status: 200,
      body: { state: 'stopped' }
    })
    expect((await t.ask('DELETE', `/clips/${removed}`)).status).toBe(204)
    expect((await t.ask('GET', `/clips/${next}`)).body).toMatchObject({
      state: 'analysing',
      progress: { share: null }
    })
    goOn()
    expect(await ended(next)).toMatchObject({ state: 'ready' })
    expect((await t.ask('GET', `/clips/${stopped}`)).body).toMatchObject({ state: 'stopped' })
    for (const one of [stopped, next])
      expect((await t.ask('DELETE', `/clips/${one}`)).status).toBe(204)
    expect((await kept()).files).toEqual([id])
  })
})
