import { constantRate, inputArguments, start } from './ffmpeg.ts'
import type { Footage } from './probe.ts'

/** Pictures are analysed at this width; enough for a person of a thirtieth of the picture's height. */
const ANALYSED_WIDTH = 320

export interface FrameSize {
  width: number
  height: number
}

/** The size at which a clip is analysed; even numbers, never larger than the clip. */
export function analysedSize({ width, height }: FrameSize): FrameSize {
  const even = (n: number): number => Math.max(2, 2 * Math.round(n / 2))
  const scale = Math.min(1, ANALYSED_WIDTH / Math.max(width, height * 0.75))
  return { width: even(width * scale), height: even(height * scale) }
}

export interface DecodedFrames extends AsyncIterable<Uint8Array> {
  /** What ffmpeg said and how it ended; to be asked once the frames have been read. */
  ending(): Promise<{ code: number; errors: string }>
  stop(): void
}

/**
 * Decodes a clip to frames of three bytes a pixel (blue, green, red), at the analysed rate and size. A frame of the
 * clip's time n / fps is the last picture at or before it, so that a variable frame rate keeps its times. The same
 * buffer serves every second frame: use a frame before asking for the next.
 */
export function decodeFrames(file: string, footage: Footage, size: FrameSize): DecodedFrames {
  const filter = `${constantRate(footage.fps)},scale=${size.width}:${size.height}:flags=area`
  const { child, errors, ended } = start('ffmpeg', [
    '-v',
    'error',
    '-nostdin',
    ...inputArguments(file),
    '-map',
    '0:v:0',
    '-an',
    '-sn',
    '-dn',
    '-vf',
    filter,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'bgr24',
    'pipe:1'
  ])
  const bytes = size.width * size.height * 3
  return {
    async *[Symbol.asyncIterator]() {
      const frame = new Uint8Array(bytes)
      let filled = 0
      for await (const chunk of child.stdout as AsyncIterable<Buffer>) {
        let at = 0
        while (at < chunk.length) {
          const take = Math.min(bytes - filled, chunk.length - at)
          frame.set(chunk.subarray(at, at + take), filled)
          filled += take
          at += take
          if (filled === bytes) {
            filled = 0
            yield frame
          }
        }
      }
    },
    ending: async () => ({ code: await ended, errors: errors() }),
    stop: () => void child.kill('SIGKILL')
  }
}
