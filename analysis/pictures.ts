import { said } from '../core/messages/said.ts'
import { rename, rm } from 'node:fs/promises'
import { InputError } from '../core/errors.ts'
import { constantRate, inputArguments, output } from './ffmpeg.ts'
import type { Footage } from './probe.ts'

export const MAX_VIEW_WIDTH = 1280

/**
 * Makes the copy of a clip that browsers play: H.264, a key picture every half second so that stepping is quick, the
 * same clock as the analysed frames.
 */
export async function makeView(
  file: string,
  footage: Footage,
  out: string,
  signal?: AbortSignal
): Promise<void> {
  const fps = Math.min(footage.sourceFps, 30)
  const part = `${out}.part.mp4`
  const filter = `${constantRate(fps)},scale='min(${MAX_VIEW_WIDTH},iw)':-2`
  try {
    const { code, errors } = await output(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        '-y',
        ...inputArguments(file),
        '-map',
        '0:v:0',
        '-an',
        '-sn',
        '-dn',
        '-vf',
        filter,
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
        '-crf',
        '23',
        '-g',
        String(Math.max(1, Math.round(fps / 2))),
        '-pix_fmt',
        'yuv420p',
        '-movflags',
        '+faststart',
        part
      ],
      signal
    )
    if (code !== 0)
      throw new InputError(
        '',
        said('clips.theClipCouldNotBe', errors.split('\n')[0]!.slice(0, 200))
      )
    await rename(part, out)
  } finally {
    await rm(part, { force: true })
  }
}

/** The picture of a playable clip at a moment, as PNG; the last one for a moment after the end. */
export async function pictureAt(
  view: string,
  seconds: number,
  signal?: AbortSignal
): Promise<Buffer> {
  // A hair before the moment, as a picture's own time is rounded; seeking then lands on the picture on show.
  const seek = async (at: number): Promise<Buffer> =>
    (
      await output(
        'ffmpeg',
        [
          '-v',
          'error',
          '-nostdin',
          '-ss',
          Math.max(0, at).toFixed(3),
          ...inputArguments(view),
          '-frames:v',
          '1',
          '-f',
          'image2pipe',
          '-c:v',
          'png',
          'pipe:1'
        ],
        signal
      )
    ).out
  const picture = await seek(seconds - 0.005)
  if (picture.length) return picture
  const before = await seek(seconds - 0.6)
  if (!before.length)
    throw new InputError('', said('clips.theClipHasNoPicture', seconds.toFixed(1)))
  return before
}

/**
 * Cuts a stretch out of a playable clip, as far as the clip goes, to the picture.
 *
 * @param from, to seconds @returns seconds of what was cut out
 */
export async function cutOut(
  view: string,
  from: number,
  to: number,
  out: string,
  signal?: AbortSignal
): Promise<number> {
  const begin = Math.max(0, from)
  const part = `${out}.part.mp4`
  try {
    const { code, errors } = await output(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        '-y',
        '-ss',
        begin.toFixed(3),
        ...inputArguments(view),
        '-t',
        (to - begin).toFixed(3),
        '-map',
        '0:v:0',
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
        '-crf',
        '23',
        '-pix_fmt',
        'yuv420p',
        '-movflags',
        '+faststart',
        part
      ],
      signal
    )
    if (code !== 0)
      throw new InputError(
        '',
        said('clips.theStretchCouldNotBe', errors.split('\n')[0]!.slice(0, 200))
      )
    await rename(part, out)
  } finally {
    await rm(part, { force: true })
  }
  const { out: bytes } = await output(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', out],
    signal
  )
  return Number(bytes.toString('utf8'))
}
