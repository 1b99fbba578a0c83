import { backup as msg } from '../../core/messages/en/codes/backup.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { resolve } from 'node:path'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { passphraseOf, readCall } from './commands.ts'
import { restore } from './restore.ts'

await runCommand(async (args) => {
  const call = readCall(args, usages.restore)
  const [file] = call.positionals as [string]
  if (call.positionals.length !== 1 || typeof call.values.data !== 'string')
    throw new UsageError(null, usages.restore)
  const { madeAt } = await restore(
    resolve(file),
    call.data,
    () => passphraseOf(call, false),
    call.database
  )
  process.stdout.write(msg.restored(call.data, new Date(madeAt).toISOString()))
})
