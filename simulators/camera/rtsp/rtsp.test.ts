import { execFile } from 'node:child_process'
import { once } from 'node:events'
import { createRequire } from 'node:module'
import { connect } from 'node:net'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { readMetadata } from '../../../core/formats/onvif/metadata.ts'
import { TestDevices } from '../../testing/testDevices.ts'
import type { Device } from '../device.ts'
import { PictureEncoder } from './pictures.ts'

const devices = new TestDevices()
let camera: Device
beforeAll(async () => {
  camera = await devices.start('cam-slipway', { rtsp: true, media2: true })
})
afterAll(() => devices.close())

const uri = (): string => `${camera.streams}/analytics`
const CLIENT = fileURLToPath(new URL('../../testing/rtspClient.py', import.meta.url))

type Heard = { text?: string; last?: boolean; width?: number; height?: number; error?: string }

/** What GStreamer's RTSP client hears first of a stream. */
async function heard(
  password: string,
  part: 'video' | 'application',
  count = 12
): Promise<Heard[]> {
  const { stdout } = await promisify(execFile)(
    '/usr/bin/python3',
    [CLIENT, uri(), 'admin', password, part, String(count)],
    { maxBuffer: 1 << 26 }
  )
  return stdout
    .trim()
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Heard)
}

describe('a camera over RTSP, by GStreamer’s client', () => {
  test('gives its pictures as H.264 in their size', async () => {
    const pictures = await heard('skerrow-1', 'video')
    expect(pictures).toHaveLength(12)
    const { width, height } = camera.channels[0]!.scene.play.scene
    for (const picture of pictures) expect(picture).toMatchObject({ width, height })
  })

  test('gives what it sees as metadata, each document whole at its marker', async () => {
    const packets = await heard('skerrow-1', 'application')
    const ends = packets.flatMap(({ last }, i) => (last ? [i] : []))
    expect(ends.length).toBeGreaterThan(2)
    const times = ends.slice(1).map((end, i) => {
      const text = packets
        .slice(ends[i]! + 1, end + 1)
        .map((p) => p.text)
        .join('')
      return readMetadata(text).at
    })
    expect(times).toEqual([...times].sort((a, b) => a - b))
    expect(Math.abs(times.at(-1)! - camera.now())).toBeLessThan(60_000)
  })

  test('asks for an account', async () => {
    expect(await heard('wrong', 'video')).toEqual([{ error: 'Unauthorized' }])
  })

  test('without analytics in its metadata, names no target', async () => {
    const silent = await devices.start('cam-slipway', { rtsp: true })
    silent.state.silent = ['analytics']
    expect(readMetadata(silent.documentOf(silent.channels[0]!)).targets).toEqual([])
  })
})

test('a camera that gives no picture can be closed while somebody waits for one', async () => {
  const encoder = new PictureEncoder(() => null)
  const asked = encoder.media().then(
    () => 'a picture',
    () => 'none'
  )
  await encoder.close()
  expect(await asked).toBe('none')
})

test('ffprobe finds H.264 at six pictures a second', async () => {
  const { stdout } = await promisify(execFile)('ffprobe', [
    ...['-v', 'error', '-rtsp_transport', 'tcp', '-select_streams', 'v', '-of', 'json'],
    ...['-show_entries', 'stream=codec_name,avg_frame_rate'],
    uri().replace('rtsp://', 'rtsp://admin:skerrow-1@')
  ])
  expect((JSON.parse(stdout) as { streams: object[] }).streams).toMatchObject([
    { codec_name: 'h264', avg_frame_rate: '25/4' }
  ])
})

// Source of the status codes: RFC 2326, 7.1.1 (from memory).
describe('requests that cannot be', () => {
  const status = async (...lines: string[]): Promise<number> => {
    const socket = connect(Number(new URL(camera.streams!).port), '127.0.0.1')
    socket.write([...lines, 'CSeq: 1', '', ''].join('\r\n'))
    const [bytes] = (await once(socket, 'data')) as [Buffer]
    socket.destroy()
    return Number(bytes.toString().slice(9, 12))
  }
  const authorized = async (method: string, url: string, ...more: string[]): Promise<number> => {
    const { authorization, readChallenge } =
      await import('../../../core/formats/onvif/httpDigest.ts')
    const socket = connect(Number(new URL(camera.streams!).port), '127.0.0.1')
    socket.write(`DESCRIBE ${url} RTSP/1.0\r\nCSeq: 1\r\n\r\n`)
    const [bytes] = (await once(socket, 'data')) as [Buffer]
    socket.destroy()
    const question = /WWW-Authenticate: (.*)\r/.exec(bytes.toString())![1]!
    const account = { username: 'admin', password: 'skerrow-1', cnonce: 'x', count: 1 }
    return status(
      `${method} ${url} RTSP/1.0`,
      `Authorization: ${authorization(readChallenge(question)!, { method, uri: url, ...account })}`,
      ...more
    )
  }
  test('without an account', async () =>
    expect(await status(`DESCRIBE ${uri()} RTSP/1.0`)).toBe(401))
  test('a stream that is not there', async () =>
    expect(await authorized('DESCRIBE', `${camera.streams}/elsewhere`)).toBe(404))
  test('packets over UDP', async () =>
    expect(
      await authorized('SETUP', `${uri()}/track0`, 'Transport: RTP/AVP;unicast;client_port=5000-1')
    ).toBe(461))
  test('playing before anything was set up', async () =>
    expect(await authorized('PLAY', uri())).toBe(455))
  test('a session of somebody else', async () =>
    expect(await authorized('PLAY', uri(), 'Session: 12')).toBe(454))
  test('a method of another protocol', async () =>
    expect(await status(`GET ${uri()} RTSP/1.0`)).toBe(501))
  test('what is no request at all ends the connection', async () => {
    const socket = connect(Number(new URL(camera.streams!).port), '127.0.0.1')
    socket.on('error', () => {})
    socket.write('x'.repeat(20_000))
    await once(socket, 'close')
  })
})

// The packages `onvif` and `node-onvif` of the registry: general-purpose clients of the standard.
describe('general clients of the standard', () => {
  const require = createRequire(import.meta.url)

  test('the first reads profiles, streams, scopes and configurations, of Media 1 and Media 2', async () => {
    const { Cam } = require('onvif') as {
      Cam: new (options: object, done: (error: Error | null) => void) => any
    }
    const { hostname, port } = new URL(camera.address)
    const cam = await new Promise<any>((resolve, reject) => {
      const made = new Cam(
        { hostname, port: Number(port), username: 'admin', password: 'skerrow-1' },
        (error) => (error ? reject(error) : resolve(made))
      )
    })
    const ask = (method: string, ...args: unknown[]): Promise<any> =>
      new Promise((resolve, reject) =>
        cam[method](...args, (error: Error | null, answer: unknown) =>
          error ? reject(error) : resolve(answer)
        )
      )
    expect((await ask('getStreamUri', { protocol: 'RTSP' })).uri).toBe(uri())
    expect((await ask('getSnapshotUri', {})).uri).toBe(`${camera.address}/snapshot/analytics`)
    const [encoder] = await ask('getVideoEncoderConfigurations')
    expect(encoder).toMatchObject({ encoding: 'H264', resolution: { width: 640, height: 360 } })
    expect(JSON.stringify(await ask('getScopes'))).toContain('hardware/HO-40')
    expect(Object.keys(cam.media2Support ? cam.uri.media2 : {})).not.toHaveLength(0)
  })

  test('the second one finds its profile, stream and snapshot', async () => {
    const { OnvifDevice } = require('node-onvif') as { OnvifDevice: new (options: object) => any }
    const device = new OnvifDevice({
      xaddr: `${camera.address}/onvif/device_service`,
      user: 'admin',
      pass: 'skerrow-1'
    })
    expect(await device.init()).toMatchObject({ Manufacturer: 'Halden Optics', Model: 'HO-40' })
    expect(device.getCurrentProfile()).toMatchObject({
      token: 'main-analytics',
      stream: { rtsp: uri() },
      video: { encoder: { encoding: 'H264' } }
    })
    const { body } = await device.fetchSnapshot()
    expect([...body.subarray(0, 2)]).toEqual([0xff, 0xd8])
  })
})
