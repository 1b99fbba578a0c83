import { usage as usages } from '../../core/messages/en/usage.ts'
import { backup as msg } from '../../core/messages/en/codes/backup.ts'
import { resolve } from 'node:path'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { openInstallation } from '../launch/installation.ts'
import { backUp } from './backup.ts'
import { passphraseOf, readCall } from './commands.ts'

await runCommand(async (args) => {
  const call = readCall(args, usages.backup)
  const [file] = call.positionals as [string]
  if (call.positionals.length !== 1) throw new UsageError(null, usages.backup)
  const passphrase = await passphraseOf(call, true)
  const { address, name, stop } = await openInstallation(call.data, call.database)
  try {
    const { bytes, files } = await backUp(resolve(file), {
      address,
      name,
      folder: call.data,
      passphrase
    })
    process.stdout.write(msg.theDatabaseAnd(resolve(file), files, (bytes / 2 ** 20).toFixed(1)))
  } finally {
    await stop()
  }
})
