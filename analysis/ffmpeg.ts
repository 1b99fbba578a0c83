import { clips as msg } from '../core/messages/en/codes/clips.ts'
import { said } from '../core/messages/said.ts'
import { spawn, type ChildProcessByStdio } from 'node:child_process'
import type { Readable } from 'node:stream'
import { InputError } from '../core/errors.ts'
import { Limiter } from '../core/limiter.ts'

/**
 * Only containers of footage are opened, and only from the file itself: a playlist or a still picture given the
 * name of a clip must not make ffmpeg fetch addresses or read other files.
 */
const containers =
  'avi,mov,matroska,mpegts,mpeg,mpegvideo,asf,flv,ogg,h264,hevc,m4v,mjpeg,gif,dv,mxf,ivf'
export const inputArguments = (file: string): string[] => [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  containers,
  '-i',
  file
]

/**
 * A filter that brings footage to a constant rate: frame n (from 1) is the last picture at or before (n − 1) / fps.
 * Some containers keep times to a millisecond only, so a picture may be said to come a little later than it did: 1.5 ms
 * (135 of 90,000) are taken off, in a time base fine enough to hold them.
 */
export const constantRate = (fps: number): string =>
  `settb=1/90000,setpts=PTS-135,fps=fps=${fps}:round=up:start_time=0`

const installHint = msg.installItWithAptGetInstall

/**
 * Starts ffmpeg or ffprobe with nothing on its input; its errors are collected in `errors()`. What it writes to `pipe:3`
 * is `second`.
 */
export function start(
  program: 'ffmpeg' | 'ffprobe',
  args: string[]
): {
  child: ChildProcessByStdio<null, Readable, Readable>
  second: Readable
  errors: () => string
  ended: Promise<number>
} {
  const child = spawn(program, args, {
    stdio: ['ignore', 'pipe', 'pipe', 'pipe']
  }) as ChildProcessByStdio<null, Readable, Readable>
  const second = child.stdio[3] as Readable
  let text = ''
  child.stderr.on('data', (chunk: Buffer) => {
    if (text.length < 20_000) text += chunk.toString('utf8')
  })
  const ended = new Promise<number>((resolve, reject) => {
    child.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'ENOENT'
          ? new InputError('', said('clips.isNotInstalled', program, installHint))
          : error
      )
    )
    child.on('close', (code) => resolve(code ?? 255))
  })
  // A failed start reaches the reader of the frames through `ended`; until then it must not count as unhandled.
  ended.catch(() => {})
  return { child, second, errors: () => text.trim(), ended }
}

/** At most this many run at a time; the others wait their turn. */
const AT_ONCE = 4
const MAX_WAITING = 200
const turns = new Limiter(
  AT_ONCE,
  MAX_WAITING,
  () => new InputError('', said('clips.tooManyPicturesAreAsked'))
)

/** Runs a program to its end and gives its output; few at a time. */
export function output(
  program: 'ffmpeg' | 'ffprobe',
  args: string[],
  signal?: AbortSignal
): Promise<{ code: number; out: Buffer; errors: string }> {
  return turns.take(() => run(program, args, signal))
}

async function run(
  program: 'ffmpeg' | 'ffprobe',
  args: string[],
  signal?: AbortSignal
): Promise<{ code: number; out: Buffer; errors: string }> {
  signal?.throwIfAborted()
  const { child, errors, ended } = start(program, args)
  const stop = (): void => void child.kill('SIGKILL')
  signal?.addEventListener('abort', stop)
  const parts: Buffer[] = []
  child.stdout.on('data', (part: Buffer) => parts.push(part))
  try {
    const code = await ended
    signal?.throwIfAborted()
    return { code, out: Buffer.concat(parts), errors: errors() }
  } finally {
    signal?.removeEventListener('abort', stop)
  }
}
