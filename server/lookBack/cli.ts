import { existsSync, readdirSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { readFps, readInstant, readSize } from '../../core/cli/inputs.ts'
import { UsageError, readOptions, runCommand, textOf } from '../../core/cli/options.ts'
import { InputError } from '../../core/errors.ts'
import { writeMot } from '../../core/formats/mot.ts'
import { lengthOf, tracksOf } from '../../core/lookBack/rows.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { readRange } from './hours.ts'

/** Gaps shorter than this are not worth saying, ms. */
const GAP_MS = 1000

await runCommand(async (args) => {
  const text = { type: 'string' } as const
  const { values, positionals } = readOptions(
    args,
    {
      camera: text,
      from: text,
      to: text,
      out: text,
      data: text,
      fps: text,
      size: text,
      silent: { type: 'boolean' },
      help: { type: 'boolean' }
    },
    usages.lookBack
  )
  if (values.help) {
    process.stdout.write(`${usages.lookBack}\n`)
    return
  }
  if (positionals.length) throw new UsageError(null, usages.lookBack)
  const may = (name: string): string | undefined => textOf(values, name)
  const need = (name: string): string => {
    const value = may(name)
    if (value === undefined) throw new UsageError(said('cli.isMissingN', name, usages.lookBack))
    return value
  }
  const [camera, out] = [need('camera'), need('out')]
  const [from, to] = [readInstant('from', need('from')), readInstant('to', need('to'))]
  if (to <= from) throw new UsageError(said('cli.toIsNotLater'))
  const [fps, asked] = [readFps(may('fps') ?? '10'), may('size') ?? '1920x1080']
  const size = readSize(asked)
  const folder = join(resolve(may('data') ?? '.data'), 'look-back')
  // A name with a path in it would lead out of the folder.
  if (!/^[\w-]+$/.test(camera) || !existsSync(join(folder, camera)))
    throw new InputError(
      '--camera',
      said('cli.nothingOfCamera', camera, folder, existsSync(folder) ? readdirSync(folder) : [])
    )
  const { rows, heard } = await readRange(folder, camera, from, to)
  const tracks = tracksOf(rows, from, fps)
  writeFileSync(out, writeMot(tracks, size))
  if (values.silent) return
  process.stderr.write(wordsOf(said('cli.wroteRows', tracks.length, out, fps, asked)))
  const away = to - from - lengthOf(heard)
  if (away >= GAP_MS) process.stderr.write(wordsOf(said('cli.notHeard', away / 1000)))
})
