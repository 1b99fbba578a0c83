import { backup as msg } from '../../core/messages/en/codes/backup.ts'
import { resolve } from 'node:path'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { openInstallation } from '../launch/installation.ts'
import { backUp } from './backup.ts'
import { passphraseOf, readCall } from './commands.ts'

const usage = `usage: npm run backup -- FILE [--data FOLDER] [--database URL] [--passphrase-file FILE]
  One consistent state of database and files, sealed with a passphrase; the application may be running meanwhile.`

await runCommand(async (args) => {
  const call = readCall(args, usage)
  const [file] = call.positionals as [string]
  if (call.positionals.length !== 1) throw new UsageError(null, usage)
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
