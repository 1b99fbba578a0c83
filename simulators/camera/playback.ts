import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { encode } from '../../simulation/encode.ts'

const FPS = 8

/**
 * A stretch of a device's scenes as MP4.
 *
 * @param from, to seconds of the device's scenes
 * @param picture of a second, as JPEG; where none comes the last one stands
 * @throws Error when ffmpeg fails
 */
export async function playback(
  from: number,
  to: number,
  picture: (seconds: number) => Buffer | null
): Promise<Buffer> {
  // Its length stands at its beginning, which is written last: it has to lie in a file.
  const folder = await mkdtemp(join(tmpdir(), 'wardoptic-recording-'))
  try {
    const file = join(folder, 'recording.mp4')
    await encode(
      [
        '-f',
        'image2pipe',
        '-c:v',
        'mjpeg',
        '-framerate',
        String(FPS),
        '-i',
        'pipe:0',
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
        '-crf',
        '26',
        '-g',
        String(FPS),
        '-pix_fmt',
        'yuv420p',
        '-movflags',
        '+faststart',
        file
      ],
      pictures(from, to, picture)
    )
    return await readFile(file)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

async function* pictures(
  from: number,
  to: number,
  picture: (seconds: number) => Buffer | null
): AsyncGenerator<Uint8Array> {
  let last: Buffer | null = null
  for (let n = 0; n < Math.max(1, Math.round((to - from) * FPS)); n++) {
    last = picture(from + n / FPS) ?? last
    if (last) yield last
    // Others ask the same device for something in between.
    await new Promise((resolve) => setImmediate(resolve))
  }
}
