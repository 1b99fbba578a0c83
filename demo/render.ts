import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createCanvas } from '@napi-rs/canvas'
import { UsageError, readOptions, runCommand } from '../core/cli/options.ts'
import type { Painter2D } from '../simulation/figures.ts'
import { paint } from '../simulation/painter.ts'
import { randomFrom } from '../simulation/random.ts'
import { slipwayMorning } from './slipway.ts'

const usage = 'usage: npm run render -- --out FILE.mp4'

/** Standard deviation, in levels of 255, of the noise that a real sensor would add. */
const NOISE = 2.2

/** Paints a script frame by frame and has ffmpeg encode it. */
await runCommand(async (args) => {
  const { values } = readOptions(args, { out: { type: 'string' } }, usage)
  if (typeof values.out !== 'string') throw new UsageError(`--out is missing\n${usage}`)
  const script = slipwayMorning
  const { width, height, fps } = script
  const canvas = createCanvas(width, height)
  const g = canvas.getContext('2d')
  const encoder = spawn(
    'ffmpeg',
    ['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`, '-r', String(fps), '-i', 'pipe:0', '-c:v', 'libx264', '-preset', 'veryslow', '-crf', '25', '-g', '20', '-pix_fmt', 'yuv420p', '-movflags', '+faststart', '-fflags', '+bitexact', '-flags:v', '+bitexact', values.out],
    { stdio: ['pipe', 'inherit', 'inherit'] }
  )
  const closed = once(encoder, 'close')
  const random = randomFrom(script.seed + 2)
  for (let n = 0; n < script.seconds * fps; n++) {
    paint(g as unknown as Painter2D, script, n / fps)
    const { data } = g.getImageData(0, 0, width, height)
    for (let i = 0; i < data.length; i += 4) {
      const grain = (random() + random() + random() - 1.5) * 2 * NOISE
      for (let c = 0; c < 3; c++) data[i + c] += grain
    }
    if (!encoder.stdin.write(data)) await once(encoder.stdin, 'drain')
  }
  encoder.stdin.end()
  const [code] = (await closed) as [number]
  if (code !== 0) throw new Error(`ffmpeg ended with code ${code}`)
})
