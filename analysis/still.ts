import { rename, rm, writeFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { InputError } from '../core/errors.ts'
import { said } from '../core/messages/said.ts'
import { output } from './ffmpeg.ts'
import { MAX_VIEW_WIDTH } from './pictures.ts'

/** Where there is no picture at all. */
const BLANK = { width: 1280, height: 720 }
const GREY = '0x3c4650'
/** Pictures that are encoded, of all stills together: enough for each to be repeated in seconds, few enough to be quick. */
const ENCODED = 2000
const LONGEST_PIECE_SECONDS = 10
/** All pieces are encoded alike, so that they can follow each other. */
const ENCODER = [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-tune', 'stillimage', '-crf', '20', '-bf', '0']
]

/** A picture, JPEG or PNG, and from which second on it is shown. */
export interface Still {
  from: number
  picture: Buffer
}

/** A film, and at which second of the clip it begins; before 0: some of it was before the clip. */
export interface Film {
  from: number
  seconds: number
  path: string
}

/** From a second of something encoded to another. */
interface Piece {
  from: number
  to: number
}

/**
 * The pieces of the encoded stills, each of which is there for so many seconds, that fill a part of a clip one after the
 * other.
 *
 * @param from from which second on each still is shown, in order, whole; the first from 0
 */
export function piecesOf(
  from: readonly number[],
  each: number,
  { from: begin, to: end }: Piece
): Piece[] {
  const pieces: Piece[] = []
  from.forEach((shown, n) => {
    const until = Math.min(end, from[n + 1] ?? end)
    for (let at = Math.max(begin, shown); at < until; at += each)
      pieces.push({ from: n * each, to: n * each + Math.min(each, until - at) })
  })
  return pieces
}

/** When each film is shown, in frames of the clip: the first that begins goes before one that begins while it lasts. */
export function shownFrames(
  films: readonly Film[],
  { seconds, fps }: { seconds: number; fps: number }
): { film: Film; from: number; to: number }[] {
  let end = 0
  return [...films]
    .sort((a, b) => a.from - b.from)
    .flatMap((film) => {
      const from = Math.max(end, Math.round(film.from * fps))
      const to = Math.min(Math.round(seconds * fps), Math.round((film.from + film.seconds) * fps))
      if (to <= from) return []
      end = to
      return [{ film, from, to }]
    })
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
 * Makes a clip that browsers play, of pictures that each stay until the next, and of films where there are such.
 *
 * @param stills of none an even grey is made
 * @param films go before the stills; one that cannot be read is left out
 * @param fps whole
 * @throws InputError when a picture cannot be read
 */
export async function makeFilm(
  stills: readonly Still[],
  films: readonly Film[],
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
    const known = await sizeFor([...films.map(({ path }) => path), ...files])
    if (!known && files.length) throw new InputError('', said('clips.theClipCouldNotBe', ''))
    const size = known ?? BLANK
    await run(
      [
        ...(await sourceOf(files, each, fps, size, (text) => write(`${out}.stills.txt`, text))),
        ...ENCODER,
        // Each still begins with a whole picture, so that a piece can.
        ...['-g', String(fps * each), '-keyint_min', String(fps * each), '-sc_threshold', '0'],
        ...['-frames:v', String(Math.max(1, files.length) * each * fps), begin]
      ],
      signal
    )
    const from = shown.length ? shown.map((still) => still.from) : [0]
    const lines: string[] = []
    const say = (path: string, pieces: readonly Piece[]): void => {
      for (const piece of pieces)
        lines.push(`file '${basename(path)}'\ninpoint ${piece.from}\noutpoint ${piece.to}\n`)
    }
    let at = 0
    for (const part of shownFrames(films, { seconds, fps })) {
      const path = `${out}.film${part.from}.mp4`
      made.push(path)
      const encoded = await encode(part, { fps, size }, path, signal)
      if (!encoded) continue
      say(begin, piecesOf(from, each, { from: at, to: part.from / fps }))
      say(path, [{ from: 0, to: (part.to - part.from) / fps }])
      at = part.to / fps
    }
    say(begin, piecesOf(from, each, { from: at, to: Math.ceil(seconds) }))
    const part = `${out}.part.mp4`
    made.push(part)
    await run(
      [
        ...['-f', 'concat', '-safe', '0', '-i', await write(`${out}.pieces.txt`, lines.join(''))],
        ...['-c', 'copy', '-frames:v', String(Math.round(seconds * fps))],
        ...['-movflags', '+faststart', part]
      ],
      signal
    )
    await rename(part, out)
  } finally {
    for (const path of made) await rm(path, { force: true })
  }
}

/** So much of a film as is shown, as large and as often as the stills. @returns whether it could be read */
async function encode(
  { film, from, to }: { film: Film; from: number; to: number },
  { fps, size }: { fps: number; size: Size },
  out: string,
  signal: AbortSignal | undefined
): Promise<boolean> {
  try {
    await run(
      [
        ...['-ss', String(Math.max(0, from / fps - film.from)), '-i', film.path, '-an'],
        // A film that is shorter than it says stays with its last picture.
        ...['-vf', `${scaled(size)},fps=${fps},tpad=stop=-1:stop_mode=clone`],
        ...[...ENCODER, '-g', String(fps * LONGEST_PIECE_SECONDS)],
        ...['-frames:v', String(to - from), out]
      ],
      signal
    )
    return true
  } catch (error) {
    if (signal?.aborted || !(error instanceof InputError)) throw error
    return false
  }
}

interface Size {
  width: number
  height: number
}

const scaled = ({ width, height }: Size): string =>
  `scale=${width}:${height},setsar=1,format=yuv420p`

/** As large as the first picture or film that can be read, though no larger than what is looked at; null: none can. */
async function sizeFor(files: readonly string[]): Promise<Size | null> {
  for (const file of files) {
    const { out } = await output('ffprobe', [
      ...['-v', 'error', '-protocol_whitelist', 'file,pipe', '-select_streams', 'v:0'],
      ...['-show_entries', 'stream=width,height', '-of', 'csv=p=0', file]
    ])
    const [width, height] = out.toString().trim().split(',').map(Number)
    if (!width || !height) continue
    const scale = Math.min(1, MAX_VIEW_WIDTH / width)
    const even = (side: number): number => Math.max(2, Math.round((side * scale) / 2) * 2)
    return { width: even(width), height: even(height) }
  }
  return null
}

/** The input of ffmpeg: each picture for so long. */
async function sourceOf(
  files: readonly string[],
  each: number,
  fps: number,
  size: Size,
  list: (text: string) => Promise<string>
): Promise<string[]> {
  if (!files.length)
    return [
      ...['-f', 'lavfi', '-i', `color=c=${GREY}:s=${size.width}x${size.height}:r=${fps}`],
      ...['-vf', 'format=yuv420p']
    ]
  // The last is named twice, as its length is not read otherwise.
  const text = [...files, files.at(-1)!]
    .map((file) => `file '${basename(file)}'\nduration ${each}\n`)
    .join('')
  return [
    // One of another size would begin the filters anew, which lose what they hold back then; scaling takes any size.
    ...['-reinit_filter', '0', '-f', 'concat', '-safe', '0', '-i', await list(text), '-an'],
    ...['-vf', `${scaled(size)},fps=${fps}`]
  ]
}

async function run(args: string[], signal: AbortSignal | undefined): Promise<void> {
  const usual = ['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe']
  const { code, errors } = await output('ffmpeg', [...usual, ...args], signal)
  if (code !== 0)
    throw new InputError('', said('clips.theClipCouldNotBe', errors.split('\n')[0]!.slice(0, 200)))
}
