import { resolve } from 'node:path'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { passphraseOf, readCall } from './commands.ts'
import { restore } from './restore.ts'

const usage = `usage: npm run restore -- FILE --data FOLDER [--database URL] [--passphrase-file FILE]
  Makes a data folder of a backup; FOLDER must not be there yet, and a database of your own must be empty.`

await runCommand(async (args) => {
  const call = readCall(args, usage)
  const [file] = call.positionals as [string]
  if (call.positionals.length !== 1 || typeof call.values.data !== 'string')
    throw new UsageError(null, usage)
  const { madeAt } = await restore(
    resolve(file),
    call.data,
    () => passphraseOf(call, false),
    call.database
  )
  process.stdout.write(
    `${call.data} is as it was on ${new Date(madeAt).toISOString()}. Start it with: npm start -- --data ${call.data}\n`
  )
})
