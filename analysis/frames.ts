import type { Readable } from 'node:stream'
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
  return evenSize(width, height, Math.min(1, ANALYSED_WIDTH / Math.max(width, height * 0.75)))
}

function evenSize(width: number, height: number, scale: number): FrameSize {
  const even = (n: number): number => Math.max(2, 2 * Math.round((n * scale) / 2))
  return { width: even(width), height: even(height) }
}

/** Larger pictures, for the detector: wide enough for what is small, at most this. */
const LARGE_WIDTH = 1024
/** Seconds between two of them. */
const LARGE_EVERY = 0.2

/** How larger pictures of a clip are given beside those that are analysed. */
export interface LargePictures {
  size: FrameSize
  /** Every so many frames, from the first on. */
  every: number
}

/** The size of larger pictures; never larger than the clip. */
export const largeSize = ({ width, height }: FrameSize): FrameSize =>
  evenSize(width, height, Math.min(1, LARGE_WIDTH / Math.max(width, height)))

export function largePictures({ width, height, fps }: Footage): LargePictures {
  return {
    size: largeSize({ width, height }),
    every: Math.max(1, Math.round(LARGE_EVERY * fps))
  }
}

/** Its pictures are good until the next frame is asked for: their memory is used again. */
export interface DecodedFrame {
  picture: Uint8Array
  /** The same frame, larger; null: not of this one. */
  large: Uint8Array | null
}

export interface DecodedFrames extends AsyncIterable<DecodedFrame> {
  /** What ffmpeg said and how it ended; to be asked once the frames have been read. */
  ending(): Promise<{ code: number; errors: string }>
  stop(): void
}

/**
 * Decodes a clip to frames of three bytes a pixel (blue, green, red), at the analysed rate and size. A frame of the
 * clip's time n / fps is the last picture at or before it, so that a variable frame rate keeps its times.
 */
export function decodeFrames(
  file: string,
  footage: Footage,
  size: FrameSize,
  large: LargePictures | null = null
): DecodedFrames {
  const scale = ({ width, height }: FrameSize): string => `scale=${width}:${height}:flags=area`
  const rate = constantRate(footage.fps)
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'bgr24']
  const { child, second, errors, ended } = start('ffmpeg', [
    '-v',
    'error',
    '-nostdin',
    ...inputArguments(file),
    '-an',
    '-sn',
    '-dn',
    ...(large
      ? [
          '-filter_complex',
          `[0:v:0]${rate},split[a][b];[a]${scale(size)}[small];` +
            `[b]select='not(mod(n,${large.every}))',${scale(large.size)}[large]`,
          '-map',
          '[small]',
          ...raw,
          'pipe:1',
          '-map',
          '[large]',
          '-fps_mode',
          'passthrough',
          ...raw,
          'pipe:3'
        ]
      : ['-map', '0:v:0', '-vf', `${rate},${scale(size)}`, ...raw, 'pipe:1'])
  ])
  return {
    async *[Symbol.asyncIterator]() {
      const pictures = new WholeFrames(child.stdout, size)
      const larger = large && new WholeFrames(second, large.size)
      for (let at = 0; ; at++) {
        const picture = await pictures.next()
        if (!picture) return
        yield {
          picture,
          large: large && at % large.every === 0 ? ((await larger?.next()) ?? null) : null
        }
      }
    },
    ending: async () => ({ code: await ended, errors: errors() }),
    stop: () => void child.kill('SIGKILL')
  }
}

/** Frames that are read ahead of whoever wants them. */
const AHEAD = 24

/**
 * The whole frames of a stream of pixels; one cut off at the end is left out. They are read ahead: ffmpeg writes two
 * streams by turns, and would wait for ever for somebody who reads the one while it writes the other.
 */
class WholeFrames {
  private readonly read: Uint8Array<ArrayBuffer>[] = []
  /** Memory of pictures that nobody looks at any more. */
  private readonly free: Uint8Array<ArrayBuffer>[] = []
  private given: Uint8Array<ArrayBuffer> | null = null
  private readonly stream: Readable
  private ended = false
  private wake: (() => void) | undefined

  constructor(stream: Readable, { width, height }: FrameSize) {
    this.stream = stream
    let frame = new Uint8Array(width * height * 3)
    let filled = 0
    stream.on('data', (chunk: Buffer) => {
      let at = 0
      while (at < chunk.length) {
        const take = Math.min(frame.length - filled, chunk.length - at)
        frame.set(chunk.subarray(at, at + take), filled)
        filled += take
        at += take
        if (filled < frame.length) continue
        this.read.push(frame)
        frame = this.free.pop() ?? new Uint8Array(frame.length)
        filled = 0
        this.wake?.()
      }
      if (this.read.length >= AHEAD) stream.pause()
    })
    const end = (): void => {
      this.ended = true
      this.wake?.()
    }
    // What went wrong is told by how ffmpeg ends.
    for (const event of ['end', 'close', 'error']) stream.on(event, end)
  }

  /** The next one, until the one after it is asked for; null: there are no more. */
  async next(): Promise<Uint8Array | null> {
    if (this.given) this.free.push(this.given)
    this.given = null
    while (!this.read.length && !this.ended)
      await new Promise<void>((resolve) => (this.wake = resolve))
    this.given = this.read.shift() ?? null
    if (this.read.length < AHEAD) this.stream.resume()
    return this.given
  }
}
