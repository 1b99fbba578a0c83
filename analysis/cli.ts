import { usage as usages } from '../core/messages/en/usage.ts'
import { clips as msg } from '../core/messages/en/codes/clips.ts'
import { said } from '../core/messages/said.ts'
import { wordsOf } from '../core/messages/words.ts'
import { writeFileSync } from 'node:fs'
import { UsageError, readOptions, runCommand } from '../core/cli/options.ts'
import { writeFaces } from '../core/formats/faces.ts'
import { USUAL_GRID, writeMeasures, type Grid } from '../core/measures/measures.ts'
import { writeMot } from '../core/formats/mot.ts'
import { spansOf } from '../core/targets/tracks.ts'
import { analyseInWorker } from './inWorker.ts'
import { Pace } from './pace.ts'

/** What takes longer than so many seconds is told before. */
const LONG_SECONDS = 60

const readGrid = (text: string): Grid => {
  const m = /^(\d{1,3})x(\d{1,3})$/.exec(text)
  if (!m) throw new UsageError(said('clips.gridIsMust', text))
  return { columns: +m[1]!, rows: +m[2]! }
}

await runCommand(async (args) => {
  const { values, positionals } = readOptions(
    args,
    {
      out: { type: 'string' },
      faces: { type: 'string' },
      measures: { type: 'string' },
      grid: { type: 'string' },
      detector: { type: 'string' },
      silent: { type: 'boolean' },
      help: { type: 'boolean' }
    },
    usages.analyse
  )
  if (values.help) {
    process.stdout.write(`${usages.analyse}\n`)
    return
  }
  if (positionals.length !== 1)
    throw new UsageError(said('clips.giveOneClipNotN', positionals.length, usages.analyse))
  if (typeof values.out !== 'string')
    throw new UsageError(said('clips.outIsMissingN', usages.analyse))
  const grid = typeof values.grid === 'string' ? readGrid(values.grid) : USUAL_GRID
  const detector = values.detector ?? 'on'
  if (detector !== 'on' && detector !== 'off')
    throw new UsageError(said('clips.detectorIsOnOrOff', String(detector)))
  const stop = new AbortController()
  process.once('SIGINT', () => stop.abort(new Error('stopped')))
  const pace = new Pace()
  let told = false
  const bar = process.stderr.isTTY && !values.silent
  const { footage, frames, tracks, measures, withoutDetector } = await analyseInWorker(
    positionals[0]!,
    {
      signal: stop.signal,
      grid,
      detector: detector === 'on',
      onProgress: (done, expected) => {
        const left = pace.left(done, expected)
        if (bar) process.stderr.write(msg.ofFrames(done, expected ?? '?', left))
        // Said once: whoever must wait for long can stop it, and take a shorter clip or a faster machine.
        if (told || left === null) return
        told = true
        if (left >= LONG_SECONDS && !values.silent) process.stderr.write(msg.willTake(left))
      }
    }
  )
  writeFileSync(values.out, writeMot(tracks, footage))
  if (typeof values.faces === 'string')
    writeFileSync(values.faces, writeFaces(tracks.faces ?? new Map(), footage))
  if (typeof values.measures === 'string') writeFileSync(values.measures, writeMeasures(measures))
  if (bar) process.stderr.write('\r')
  if (withoutDetector !== null) process.stderr.write(`${wordsOf(withoutDetector)}\n`)
  if (!values.silent)
    process.stderr.write(
      msg.analysed(
        spansOf(tracks).length,
        tracks.length,
        frames,
        `--fps ${footage.fps} --size ${footage.width}x${footage.height}`
      )
    )
})
