import { rename, rm, writeFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { InputError } from '../core/errors.ts'
import { said } from '../core/messages/said.ts'
import { output } from './ffmpeg.ts'
import { MAX_VIEW_WIDTH } from './pictures.ts'

/** Where there is no picture at all. */
const BLANK = { width: 1280, height: 720, color: '0x3c4650' }
/** Pictures that are encoded, of all stills together: enough for each to be repeated in seconds, few enough to be quick. */
const ENCODED = 2000
const LONGEST_PIECE_SECONDS = 10

/** A picture, JPEG or PNG, and from which second on it is shown. */
export interface Still {
  from: number
  picture: Buffer
}

/** From a second of the encoded stills to another. */
interface Piece {
  from: number
  to: number
}

/**
 * The pieces of the encoded stills, each of which is there for so many seconds, that fill a clip one after the other.
 *
 * @param from from which second on each still is shown, in order, whole; the first from 0
 */
export function piecesOf(from: readonly number[], seconds: number, each: number): Piece[] {
  const pieces: Piece[] = []
  from.forEach((begin, n) => {
    const end = Math.min(seconds, from[n + 1] ?? seconds)
    for (let at = begin; at < end; at += each)
      pieces.push({ from: n * each, to: n * each + Math.min(each, end - at) })
  })
  return pieces
}

/** One still a second at most, the first of them from the beginning on. */
function secondBySecond(stills: readonly Still[], seconds: number): Still[] {
  const shown = new Map<number, Still>()
  for (const still of [...stills].sort((a, b) => a.from - b.from)) {
    const from = Math.max(0, Math.round(still.from))
    if (from < seconds) shown.set(from, { ...still, from })
  }
  const list = [...shown.values()]
  if (list[0]) list[0].from = 0
  return list
}

/**
 * Makes a clip that browsers play, of pictures that each stay until the next.
 *
 * @param stills of none an even grey is made
 * @param fps whole
 * @throws InputError when a picture cannot be read
 */
export async function makeStill(
  stills: readonly Still[],
  { seconds, fps }: { seconds: number; fps: number },
  out: string,
  signal?: AbortSignal
): Promise<void> {
  const shown = secondBySecond(stills, seconds)
  const each = Math.max(
    1,
    Math.min(LONGEST_PIECE_SECONDS, Math.floor(ENCODED / fps / Math.max(1, shown.length)))
  )
  const begin = `${out}.begin.mp4`
  const made: string[] = [begin]
  const write = async (path: string, content: string | Buffer): Promise<string> => {
    made.push(path)
    await writeFile(path, content)
    return path
  }
  try {
    // Every second of a still is the same: some are encoded, and said again and again. An hour takes seconds then.
    const files: string[] = []
    for (const [n, { picture }] of shown.entries())
      files.push(await write(`${out}.part.still${n}`, picture))
    await run(
      [
        ...(await sourceOf(files, each, fps, (text) => write(`${out}.stills.txt`, text))),
        ...['-c:v', 'libx264', '-preset', 'veryfast', '-tune', 'stillimage', '-crf', '20'],
        // Each still begins with a whole picture, so that a piece can.
        ...['-bf', '0', '-g', String(fps * each), '-keyint_min', String(fps * each)],
        ...['-sc_threshold', '0'],
        ...['-frames:v', String(Math.max(1, files.length) * each * fps), begin]
      ],
      signal
    )
    const from = shown.length ? shown.map((still) => still.from) : [0]
    const pieces = await write(
      `${out}.pieces.txt`,
      piecesOf(from, Math.ceil(seconds), each)
        .map((piece) => `file '${basename(begin)}'\ninpoint ${piece.from}\noutpoint ${piece.to}\n`)
        .join('')
    )
    const part = `${out}.part.mp4`
    made.push(part)
    await run(
      [
        ...['-f', 'concat', '-safe', '0', '-i', pieces, '-c', 'copy'],
        ...['-frames:v', String(Math.round(seconds * fps)), '-movflags', '+faststart', part]
      ],
      signal
    )
    await rename(part, out)
  } finally {
    for (const path of made) await rm(path, { force: true })
  }
}

/** The input of ffmpeg: each picture for so long, as large as the first. */
async function sourceOf(
  files: readonly string[],
  each: number,
  fps: number,
  list: (text: string) => Promise<string>
): Promise<string[]> {
  if (!files.length)
    return ['-f', 'lavfi', '-i', `color=c=${BLANK.color}:s=${BLANK.width}x${BLANK.height}:r=${fps}`]
  const { out } = await output('ffprobe', [
    ...['-v', 'error', '-protocol_whitelist', 'file,pipe', '-select_streams', 'v:0'],
    ...['-show_entries', 'stream=width,height', '-of', 'csv=p=0', files[0]!]
  ])
  const [width, height] = out.toString().trim().split(',').map(Number)
  if (!width || !height) throw new InputError('', said('clips.theClipCouldNotBe', ''))
  const scale = Math.min(1, MAX_VIEW_WIDTH / width)
  const [w, h] = [width, height].map((side) => Math.max(2, Math.round((side * scale) / 2) * 2))
  // The last is named twice, as its length is not read otherwise.
  const text = [...files, files.at(-1)!]
    .map((file) => `file '${basename(file)}'\nduration ${each}\n`)
    .join('')
  return [
    // One of another size would begin the filters anew, which lose what they hold back then; scaling takes any size.
    ...['-reinit_filter', '0', '-f', 'concat', '-safe', '0', '-i', await list(text), '-an'],
    ...['-vf', `scale=${w}:${h},setsar=1,format=yuv420p,fps=${fps}`]
  ]
}

async function run(args: string[], signal: AbortSignal | undefined): Promise<void> {
  const usual = ['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe']
  const { code, errors } = await output('ffmpeg', [...usual, ...args], signal)
  if (code !== 0)
    throw new InputError('', said('clips.theClipCouldNotBe', errors.split('\n')[0]!.slice(0, 200)))
}
