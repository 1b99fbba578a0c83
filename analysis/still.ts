import { said } from '../core/messages/said.ts'
import { rename, rm, writeFile } from 'node:fs/promises'
import { InputError } from '../core/errors.ts'
import { MAX_VIEW_WIDTH } from './pictures.ts'
import { output } from './ffmpeg.ts'

/** Where there is no picture at all. */
const BLANK = { width: 1280, height: 720, color: '0x3c4650' }
/** Pictures that are encoded. */
const ENCODED = 100
const isPng = (picture: Buffer): boolean => picture.subarray(1, 4).toString() === 'PNG'

/**
 * Makes a clip that browsers play, of one picture from beginning to end.
 *
 * @param still JPEG or PNG; null: none, and an even grey stands for it
 * @throws InputError when the picture cannot be read
 */
export async function makeStill(
  still: Buffer | null,
  { seconds, fps }: { seconds: number; fps: number },
  out: string,
  signal?: AbortSignal
): Promise<void> {
  const part = `${out}.part.mp4`
  const begin = `${out}.begin.mp4`
  const picture = `${out}.part.still`
  const run = async (args: string[]): Promise<void> => {
    const usual = ['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe']
    const { code, errors } = await output('ffmpeg', [...usual, ...args], signal)
    if (code !== 0)
      throw new InputError(
        '',
        said('clips.theClipCouldNotBe', errors.split('\n')[0]!.slice(0, 200))
      )
  }
  try {
    if (still) await writeFile(picture, still)
    const source = still
      ? [
          ...['-f', 'image2', '-pattern_type', 'none', '-loop', '1', '-framerate', String(fps)],
          ...['-c:v', isPng(still) ? 'png' : 'mjpeg', '-i', picture]
        ]
      : [
          ...['-f', 'lavfi', '-i'],
          `color=c=${BLANK.color}:s=${BLANK.width}x${BLANK.height}:r=${fps}`
        ]
    // Every picture is the same: a few are encoded, and said again and again. An hour takes seconds then, not minutes.
    await run([
      ...source,
      ...['-frames:v', String(ENCODED), '-an'],
      ...['-vf', `scale=trunc(min(${MAX_VIEW_WIDTH}\\,iw)/2)*2:-2,format=yuv420p`],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-tune', 'stillimage', '-crf', '20'],
      ...['-bf', '0', '-g', String(ENCODED / 2), begin]
    ])
    await run([
      ...['-stream_loop', '-1', '-f', 'mp4', '-i', begin, '-c', 'copy'],
      ...['-frames:v', String(Math.round(seconds * fps)), '-movflags', '+faststart', part]
    ])
    await rename(part, out)
  } finally {
    await rm(part, { force: true })
    await rm(begin, { force: true })
    await rm(picture, { force: true })
  }
}
