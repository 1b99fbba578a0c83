import { accounts as msg } from '../../core/messages/en/codes/accounts.ts'
import { UsageError, runCommand } from '../../core/cli/options.ts'
import { readCall } from '../backup/commands.ts'
import { Database } from '../database.ts'
import { openKeys } from '../keys.ts'
import { openInstallation } from '../launch/installation.ts'
import { recoverInstaller } from './service.ts'

const usage = `usage: npm run recover -- USERNAME [--data FOLDER] [--database URL]
  Gives an account a new password and makes it an installer; makes one where there is none of that name. For who holds the machine.`

await runCommand(async (args) => {
  const call = readCall(args, usage)
  const [username] = call.positionals as [string]
  if (call.positionals.length !== 1 || !/^[a-z0-9._-]{2,40}$/.test(username ?? ''))
    throw new UsageError(null, usage)
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
