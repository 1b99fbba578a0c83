import { readFileSync } from 'node:fs'
import { UsageError, readOptions, runCommand } from '../../core/cli/options.ts'
import { InputError } from '../../core/errors.ts'
import { verify } from '../../core/handover/manifest.ts'
import { recordCommand as msg } from '../../core/messages/en/handover.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { unzipped } from './files.ts'

/** npm run verify: checks the digests and the schema of a record. It needs nothing but the file. */

await runCommand((args) => {
  const { values, positionals } = readOptions(
    args,
    { silent: { type: 'boolean' }, help: { type: 'boolean' } },
    usages.verify
  )
  if (values.help) {
    process.stdout.write(`${usages.verify}\n`)
    return
  }
  const [file] = positionals
  if (file === undefined || positionals.length !== 1) throw new UsageError(null, usages.verify)
  let files: Map<string, Uint8Array>
  try {
    files = unzipped(new Uint8Array(readFileSync(file)))
  } catch (error) {
    throw error instanceof InputError ? new InputError(file, error.said) : error
  }
  const { number, digest, files: count, wrong } = verify(files)
  if (wrong.length) {
    for (const one of wrong) process.stderr.write(`${wordsOf(one)}\n`)
    process.exitCode = 1
    return
  }
  process.stdout.write(msg.holds(number!, digest!, count))
})
