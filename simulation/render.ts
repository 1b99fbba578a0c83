import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { Feed } from './feed.ts'
import { makeNodeCanvas } from './nodeCanvas.ts'
import type { Play } from './script.ts'
import { faultAt } from './world.ts'

export interface RenderOptions {
  /** x264's; quicker ones make larger files. */
  preset?: 'veryfast' | 'medium' | 'veryslow'
  onProgress?: (done: number, frames: number) => void
  signal?: AbortSignal
}

/** Stretches of frames, from 0, that the camera does not give; as an expression for ffmpeg's `select`. */
const dropped = (missing: readonly number[]): string => {
  const spans: [number, number][] = []
  for (const n of missing) {
    const last = spans[spans.length - 1]
    if (last && n === last[1] + 1) last[1] = n
    else spans.push([n, n])
  }
  return spans.map(([a, b]) => `between(n,${a},${b})`).join('+')
}

/**
 * Paints a script frame by frame and has ffmpeg encode it (H.264 in MP4). Frames that the camera does not give are
 * left out of the file, so that it has a real gap there.
 *
 * @throws the signal's reason when stopped; Error when ffmpeg fails
 */
export async function render(play: Play, file: string, { preset = 'medium', onProgress, signal }: RenderOptions = {}): Promise<void> {
  const { width, height, fps } = play.scene
  const feed = new Feed(play, makeNodeCanvas)
  // Whether a frame is missing is known from the script; what is written in its place is dropped again.
  const missing = missingFrames(play)
  const filters = missing.length ? ['-vf', `select='not(${dropped(missing)})'`, '-fps_mode', 'vfr'] : []
  const encoder = spawn(
    'ffmpeg',
    ['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`, '-r', String(fps), '-i', 'pipe:0', ...filters, '-c:v', 'libx264', '-preset', preset, '-crf', '25', '-g', String(2 * fps), '-pix_fmt', 'yuv420p', '-movflags', '+faststart', '-fflags', '+bitexact', '-flags:v', '+bitexact', file],
    { stdio: ['pipe', 'ignore', 'pipe'] }
  )
  let errors = ''
  encoder.stderr.on('data', (part: Buffer) => (errors += part.toString('utf8').slice(0, 2000)))
  encoder.stdin.on('error', () => {}) // its end says more
  const closed = once(encoder, 'close')
  const blank = new Uint8ClampedArray(width * height * 4)
  try {
    for (let n = 1; n <= feed.frames; n++) {
      signal?.throwIfAborted()
      if (!encoder.stdin.write(feed.frame(n) ?? blank)) await Promise.race([once(encoder.stdin, 'drain'), closed])
      if (encoder.exitCode !== null) break
      if (n % 20 === 0) {
        onProgress?.(n, feed.frames)
        await new Promise((resolve) => setImmediate(resolve))
      }
    }
    encoder.stdin.end()
  } catch (error) {
    encoder.kill('SIGKILL')
    throw error
  }
  const [code] = (await closed) as [number]
  if (code !== 0) throw new Error(`ffmpeg ended with code ${code}: ${errors.trim().split('\n')[0]}`)
}

/** Indices from 0 of the frames that a script's camera does not give. */
function missingFrames({ scene: { fps }, script }: Play): number[] {
  return Array.from({ length: Math.round(script.seconds * fps) }, (_, n) => n).filter((n) => faultAt(script, 'cableCut', n / fps) !== null)
}
