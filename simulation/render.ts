import { encode } from './encode.ts'
import { Feed } from './feed.ts'
import { makeNodeCanvas } from './nodeCanvas.ts'
import type { Play } from './script.ts'
import { pictureAt } from './faults/faults.ts'

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
export async function render(
  play: Play,
  file: string,
  { preset = 'medium', onProgress, signal }: RenderOptions = {}
): Promise<void> {
  const { width, height, fps } = play.scene
  const feed = new Feed(play, makeNodeCanvas)
  // Whether a frame is missing is known from the script; what is written in its place is dropped again.
  const missing = missingFrames(play)
  const filters = missing.length
    ? ['-vf', `select='not(${dropped(missing)})'`, '-fps_mode', 'vfr']
    : []
  const blank = new Uint8ClampedArray(width * height * 4)
  async function* frames(): AsyncGenerator<Uint8Array> {
    for (let n = 1; n <= feed.frames; n++) {
      signal?.throwIfAborted()
      const { buffer, byteOffset, byteLength } = feed.frame(n) ?? blank
      yield new Uint8Array(buffer, byteOffset, byteLength)
      if (n % 20) continue
      onProgress?.(n, feed.frames)
      await new Promise((resolve) => setImmediate(resolve))
    }
  }
  await encode(
    [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      `${width}x${height}`,
      '-r',
      String(fps),
      '-i',
      'pipe:0',
      ...filters,
      '-c:v',
      'libx264',
      '-preset',
      preset,
      '-crf',
      '25',
      '-g',
      String(2 * fps),
      '-pix_fmt',
      'yuv420p',
      '-movflags',
      '+faststart',
      '-fflags',
      '+bitexact',
      '-flags:v',
      '+bitexact',
      file
    ],
    frames()
  )
}

/** Indices from 0 of the frames that a script's camera does not give. */
function missingFrames({ scene: { fps }, script }: Play): number[] {
  return Array.from({ length: Math.round(script.seconds * fps) }, (_, n) => n).filter(
    (n) => pictureAt(script, 'none', n / fps) !== null
  )
}
