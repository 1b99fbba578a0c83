import { readdirSync, readFileSync } from 'node:fs'
import { TestDevices } from '../../simulators/testing/testDevices.ts'
import { DeviceLink } from '../../server/devices/link/link.ts'
import { rtspPictures } from '../../server/devices/link/rtsp.ts'
import { RtspCamera } from '../../server/testing/rtspCamera.ts'
import { median, say } from '../say.ts'

const STREAMS = 6
const SECONDS = 30
/** Clock ticks a second in /proc. Source: proc(5); 100 on Linux. */
const TICKS = 100

/** Seconds of a processor that ffmpeg has had, of those that this process has started. */
const ofFfmpeg = (): number =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid))
    .reduce((sum, pid) => {
      try {
        const [, name, rest] = /^\d+ \((.*)\) (.*)$/s.exec(
          readFileSync(`/proc/${pid}/stat`, 'utf8')
        )!
        const fields = rest!.split(' ')
        return name === 'ffmpeg' && Number(fields[1]) === process.pid
          ? sum + (Number(fields[11]) + Number(fields[12])) / TICKS
          : sum
      } catch {
        // It has just ended.
        return sum
      }
    }, 0)

/** How soon a live picture over RTSP is there, from the look at it, the device's answers included. */
async function firstPicture(): Promise<void> {
  const devices = new TestDevices()
  try {
    const camera = await devices.start('cam-waiting')
    const { username, password } = camera.model.account!
    const times: number[] = []
    for (let n = 0; n < 7; n++) {
      // The encoder of the camera has ended, as nobody has looked for a while.
      await new Promise((resolve) => setTimeout(resolve, 7000))
      const began = performance.now()
      const link = new DeviceLink(camera.address, { username, password })
      const uri = await link.media.withAccount(await link.media.streamUri('main-analytics'))
      const ended = new AbortController()
      await rtspPictures(uri, ended.signal).next()
      times.push(performance.now() - began)
      ended.abort()
    }
    say(
      'first picture of a camera over RTSP, nobody looking before',
      `median ${(median(times) / 1000).toFixed(2)} s, worst ${(Math.max(...times) / 1000).toFixed(2)} s`,
      'within 2 s'
    )
  } finally {
    await devices.close()
  }
}

async function sixPictures(encoding: 'h264' | 'h265'): Promise<void> {
  const cameras = await Promise.all(
    Array.from({ length: STREAMS }, () => RtspCamera.start(encoding))
  )
  const ended = new AbortController()
  const counts = cameras.map(() => 0)
  const streams = cameras.map(async ({ uri }, i) => {
    for await (const _ of rtspPictures(uri, ended.signal)) {
      void _
      counts[i]!++
    }
  })
  await new Promise((resolve) => setTimeout(resolve, 5000))
  counts.fill(0)
  const [own, ffmpeg, began] = [process.cpuUsage(), ofFfmpeg(), performance.now()]
  await new Promise((resolve) => setTimeout(resolve, SECONDS * 1000))
  const seconds = (performance.now() - began) / 1000
  const { user, system } = process.cpuUsage(own)
  const cores = ((user + system) / 1e6 + ofFfmpeg() - ffmpeg) / seconds
  ended.abort()
  await Promise.allSettled(streams)
  await Promise.all(cameras.map((camera) => camera.stop()))
  say(
    `six pictures of 640 × 360 over RTSP, ${encoding === 'h264' ? 'H.264' : 'H.265'}, read for the screen`,
    `${cores.toFixed(2)} cores, ${(Math.min(...counts) / seconds).toFixed(1)} frames/s each`,
    'under one core, 8 frames/s'
  )
}

/** Live pictures of cameras that give them over RTSP. npm run bench -- --rtsp */
export async function benchRtsp(): Promise<void> {
  for (const encoding of ['h264', 'h265'] as const) await sixPictures(encoding)
  await firstPicture()
}
