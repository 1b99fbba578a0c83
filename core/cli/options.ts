import { parseArgs, type ParseArgsConfig } from 'node:util'
import { InputError } from '../errors.ts'
import { errorWords } from '../messages/errorWords.ts'
import { said, type Said } from '../messages/said.ts'
import { wordsOf } from '../messages/words.ts'

/** The command was called wrongly: exit code 2. Whoever called it reads it, so that its message is in words. */
export class UsageError extends Error {
  /** @param usage how it is called, where that helps */
  constructor(why: Said | string | null, usage?: string, cause?: unknown) {
    super([why && wordsOf(why), usage].filter(Boolean).join('\n'), { cause })
  }
}

type Options = NonNullable<ParseArgsConfig['options']>

/** What an option may be; one that may be given several times is a list. */
export type OptionValue = string | boolean | string[] | undefined

/** Reads options and positional arguments; anything unknown is a usage error. */
export function readOptions(
  args: string[],
  options: Options,
  usage: string
): { values: Record<string, OptionValue>; positionals: string[] } {
  try {
    const { values, positionals } = parseArgs({ args, options, allowPositionals: true })
    return { values: values as Record<string, OptionValue>, positionals }
  } catch (error) {
    throw new UsageError((error as Error).message, usage)
  }
}

/** The text of an option; undefined: it was not given. */
export const textOf = (
  values: Readonly<Record<string, OptionValue>>,
  name: string
): string | undefined => {
  const value = values[name]
  return typeof value === 'string' ? value : undefined
}

/**
 * Runs a command: its errors go to standard error, with exit code 2 for wrong usage and 1 for anything else. A
 * fault of the program itself keeps its stack, so that it can be reported.
 */
export async function runCommand(main: (args: string[]) => Promise<void> | void): Promise<void> {
  // A reader such as `head` may close the pipe early; that is no error of ours.
  process.stdout.on('error', (error: NodeJS.ErrnoException) =>
    process.exit(error.code === 'EPIPE' ? 0 : 1)
  )
  try {
    await main(process.argv.slice(2))
  } catch (error) {
    const known =
      error instanceof InputError ||
      error instanceof UsageError ||
      (error as NodeJS.ErrnoException).code === 'ENOENT'
    process.stderr.write(
      `${known ? wordsOf(said('cli.error', errorWords(error))) : ((error as Error).stack ?? String(error))}\n`
    )
    process.exitCode = error instanceof UsageError ? 2 : 1
  }
}
