import { backup as msg } from '../../core/messages/en/codes/backup.ts'
import { said } from '../../core/messages/said.ts'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { createInterface } from 'node:readline'
import { UsageError, readOptions, textOf, type OptionValue } from '../../core/cli/options.ts'
import { MIN_PASSWORD } from '../../core/accounts/accounts.ts'
import { readDatabaseUrl, type DatabaseChoice } from '../launch/databaseUrl.ts'

/** What commands beside the application are called with: which data, which database, which passphrase. */
export interface CommandCall {
  values: Record<string, OptionValue>
  positionals: string[]
  data: string
  database: DatabaseChoice | null
}

const text = { type: 'string' } as const

/** @param more options of the command itself, all with a text */
export function readCall(args: string[], usage: string, more: readonly string[] = []): CommandCall {
  const { values, positionals } = readOptions(
    args,
    {
      data: text,
      database: text,
      'passphrase-file': text,
      ...Object.fromEntries(more.map((name) => [name, text])),
      help: { type: 'boolean' }
    },
    usage
  )
  if (values.help) throw new UsageError(null, usage)
  const url = textOf(values, 'database') ?? process.env.WARDOPTIC_DATABASE
  return {
    values,
    positionals,
    data: resolve(textOf(values, 'data') ?? '.data'),
    database: url === undefined ? null : readDatabaseUrl(url)
  }
}

/**
 * The passphrase of a backup: of a file, of WARDOPTIC_PASSPHRASE, or asked for. It never stands in the command, which
 * others on the machine can see.
 *
 * @param isNew it seals something: it must be long enough
 */
export async function passphraseOf({ values }: CommandCall, isNew: boolean): Promise<string> {
  const file = values['passphrase-file']
  const passphrase =
    typeof file === 'string'
      ? readFileSync(file, 'utf8').replace(/\r?\n$/, '')
      : (process.env.WARDOPTIC_PASSPHRASE ?? (await asked()))
  if (isNew && passphrase.length < MIN_PASSWORD)
    throw new UsageError(
      said('backup.thePassphraseHasCharactersIt', passphrase.length, MIN_PASSWORD)
    )
  return passphrase
}

async function asked(): Promise<string> {
  if (!process.stdin.isTTY) throw new UsageError(said('backup.sayThePassphraseWithPassphraseFi'))
  const lines = createInterface({ input: process.stdin, output: process.stderr, terminal: true })
  process.stderr.write(msg.passphraseOfTheBackup)
  // What is typed is not shown.
  Object.assign(lines, { _writeToOutput: () => {} })
  return new Promise((answer) =>
    lines.question('', (said) => {
      lines.close()
      process.stderr.write('\n')
      answer(said)
    })
  )
}
