import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createReadStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { RecordingView } from '../../core/api.ts'
import { Failure, saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { LivePictures, ShownChannel } from '../devices/pictures.ts'
import { conflict, notFound } from '../errors.ts'
import type { Clips } from './service.ts'

/** Fewer pictures are no clip. */
const LEAST = 5
/** What came of a recording is told for so long. */
const TOLD_MS = 60_000

/** As they come, each at the moment at which it came: cameras do not keep an even pace. */
const ENCODER = [
  ...['-hide_banner', '-nostats', '-loglevel', 'error'],
  ...['-use_wallclock_as_timestamps', '1', '-f', 'image2pipe', '-c:v', 'mjpeg', '-i', 'pipe:0'],
  ...['-fps_mode', 'vfr', '-vf', 'scale=trunc(iw/2)*2:trunc(ih/2)*2,format=yuv420p'],
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-movflags', '+faststart', '-y']
]

interface Recording {
  view: RecordingView
  ended: AbortController
  done: Promise<void>
}

/** Clips recorded from live pictures, one at a time for each camera. */
export class ClipRecorder {
  private readonly pictures: LivePictures
  private readonly clips: Clips
  private readonly log: (error: unknown) => void
  private readonly running = new Map<string, Recording>()

  constructor(pictures: LivePictures, clips: Clips, log: (error: unknown) => void) {
    this.pictures = pictures
    this.clips = clips
    this.log = log
  }

  /** The recording of a camera, or what came of the last; null: there is none. */
  of(camera: string): RecordingView | null {
    return this.running.get(camera)?.view ?? null
  }

  /** @throws ApiError while one is running */
  start(camera: string, name: string, seconds: number, shown: ShownChannel): RecordingView {
    if (this.of(camera)?.state === 'recording') throw conflict(said('clips.recordingRuns'))
    const recording: Recording = {
      view: {
        state: 'recording',
        seconds,
        beganAt: null,
        recorded: 0,
        pictures: 0,
        clip: null,
        error: null
      },
      ended: new AbortController(),
      done: Promise.resolve()
    }
    recording.done = this.record(camera, name, shown, recording)
      .catch((error: unknown) => {
        recording.view = { ...recording.view, state: 'failed', error: saidOfError(error) }
        if (!(error instanceof Failure)) this.log(error)
      })
      .finally(() => {
        setTimeout(() => {
          if (this.running.get(camera) === recording) this.running.delete(camera)
        }, TOLD_MS).unref()
      })
    this.running.set(camera, recording)
    return recording.view
  }

  /** Ends one early; what has come so far becomes the clip. @throws ApiError when none is running */
  async stop(camera: string): Promise<RecordingView> {
    const recording = this.running.get(camera)
    if (recording?.view.state !== 'recording') throw notFound(said('things.recording'))
    recording.ended.abort()
    await recording.done
    return recording.view
  }

  async close(): Promise<void> {
    for (const { ended } of this.running.values()) ended.abort()
    await Promise.all([...this.running.values()].map(({ done }) => done))
  }

  private async record(
    camera: string,
    name: string,
    shown: ShownChannel,
    recording: Recording
  ): Promise<void> {
    const folder = await mkdtemp(join(tmpdir(), 'wardoptic-recording-'))
    const file = join(folder, 'clip.mp4')
    try {
      const start = await this.write(file, shown, recording)
      if (recording.view.pictures < LEAST) throw new Failure(said('clips.recordedTooFew'))
      const clip = await this.clips.add(camera, name, start, createReadStream(file), {
        recorded: true
      })
      recording.view = { ...recording.view, state: 'done', clip: clip.id }
    } finally {
      await rm(folder, { recursive: true, force: true })
    }
  }

  /** @returns the instant of its first picture */
  private async write(file: string, shown: ShownChannel, recording: Recording): Promise<number> {
    const { ended } = recording
    const child = spawn('ffmpeg', [...ENCODER, file], { stdio: ['pipe', 'ignore', 'pipe'] })
    let heard = ''
    child.stderr.on('data', (bytes: Buffer) => (heard = (heard + bytes.toString()).slice(-1000)))
    child.stdin.on('error', () => {})
    const exited = once(child, 'exit') as Promise<[number | null]>
    let start = 0
    let timer: NodeJS.Timeout | undefined
    try {
      for await (const picture of this.pictures.frames(shown, ended.signal)) {
        if (recording.view.beganAt === null) {
          start = Date.now()
          timer = setTimeout(() => ended.abort(), recording.view.seconds * 1000)
        }
        recording.view = {
          ...recording.view,
          beganAt: start,
          recorded: Math.min(recording.view.seconds, (Date.now() - start) / 1000),
          pictures: recording.view.pictures + 1
        }
        if (!child.stdin.write(picture)) await once(child.stdin, 'drain')
      }
    } catch (error) {
      // A stream that is cut leaves what has come; of too little nothing is made.
      if (recording.view.pictures < LEAST) {
        child.kill('SIGKILL')
        throw error
      }
    } finally {
      clearTimeout(timer)
      child.stdin.end()
    }
    const [code] = await exited
    if (code !== 0) throw new Failure(said('clips.recordingNotWritten', heard.trim().slice(-160)))
    return start
  }
}
