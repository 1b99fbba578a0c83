import { writeFileSync } from 'node:fs'
import { UsageError, readOptions, runCommand } from '../core/cli/options.ts'
import { writeMot } from '../core/formats/mot.ts'
import { spansOf } from '../core/targets/tracks.ts'
import { analyseInWorker } from './inWorker.ts'

const usage = 'usage: npm run analyse -- CLIP --out tracks.csv [--silent]'

await runCommand(async (args) => {
  const { values, positionals } = readOptions(args, { out: { type: 'string' }, silent: { type: 'boolean' }, help: { type: 'boolean' } }, usage)
  if (values.help) {
    process.stdout.write(`${usage}\n`)
    return
  }
  if (positionals.length !== 1) throw new UsageError(`give one clip, not ${positionals.length}\n${usage}`)
  if (typeof values.out !== 'string') throw new UsageError(`--out is missing\n${usage}`)
  const stop = new AbortController()
  process.once('SIGINT', () => stop.abort(new Error('stopped')))
  const bar = process.stderr.isTTY && !values.silent
  const { footage, frames, tracks } = await analyseInWorker(positionals[0], {
    signal: stop.signal,
    onProgress: (done, expected) => {
      if (bar) process.stderr.write(`\r${done} of ${expected ?? '?'} frames`)
    }
  })
  writeFileSync(values.out, writeMot(tracks, footage))
  if (bar) process.stderr.write('\r')
  if (!values.silent)
    process.stderr.write(
      `${spansOf(tracks).length} targets, ${tracks.length} rows, ${frames} frames; to evaluate: --fps ${footage.fps} --size ${footage.width}x${footage.height}\n`
    )
})
