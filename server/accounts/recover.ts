import { usage as usages } from '../../core/messages/en/usage.ts'
import { accounts as msg } from '../../core/messages/en/codes/accounts.ts'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { readCall } from '../backup/commands.ts'
import { Database } from '../database.ts'
import { openKeys } from '../keys.ts'
import { openInstallation } from '../launch/installation.ts'
import { recoverInstaller } from './service.ts'

await runCommand(async (args) => {
  const call = readCall(args, usages.recover)
  const [username] = call.positionals as [string]
  if (call.positionals.length !== 1 || !/^[a-z0-9._-]{2,40}$/.test(username ?? ''))
    throw new UsageError(null, usages.recover)
  const installation = await openInstallation(call.data, call.database)
  try {
    const database = await Database.open(installation.address, installation.name)
    const { accounts } = await openKeys(database, call.data, false)
    const password = await recoverInstaller(database, accounts.secret, username, Date.now())
    await database.close()
    process.stdout.write(msg.isAnInstallerThe(username, password))
  } finally {
    await installation.stop()
  }
})
