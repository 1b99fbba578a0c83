import { spawn } from 'node:child_process'
import { once } from 'node:events'

/**
 * Has ffmpeg encode frames, written to its input one after the other.
 *
 * @param args of ffmpeg; its input is `pipe:0`
 * @throws what the frames threw; Error when ffmpeg fails
 */
export async function encode(
  args: readonly string[],
  frames: AsyncIterable<Uint8Array>
): Promise<void> {
  const encoder = spawn('ffmpeg', ['-v', 'error', '-y', ...args], {
    stdio: ['pipe', 'ignore', 'pipe']
  })
  let errors = ''
  encoder.stderr.on('data', (part: Buffer) => (errors += part.toString('utf8').slice(0, 2000)))
  encoder.stdin.on('error', () => {}) // its end says more
  const closed = once(encoder, 'close')
  try {
    for await (const frame of frames) {
      if (!encoder.stdin.write(frame)) await Promise.race([once(encoder.stdin, 'drain'), closed])
      if (encoder.exitCode !== null) break
    }
    encoder.stdin.end()
  } catch (error) {
    encoder.kill('SIGKILL')
    throw error
  }
  const [code] = (await closed) as [number]
  if (code !== 0) throw new Error(`ffmpeg ended with code ${code}: ${errors.trim().split('\n')[0]}`)
}
