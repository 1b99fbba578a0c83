import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'

/**
 * Of this run: the demo site as it is prepared once, and a copy of it for each file of tests. Set
 * by the configuration.
 */
export const runFolder = (): string => process.env.WARDOPTIC_E2E!
export const preparedFolder = (): string => join(runFolder(), 'prepared')
/** The installer's cookie, for the browser and for requests of tests. */
export const signedInFile = (): string => join(runFolder(), 'signed-in.json')

const { accounts } = JSON.parse(
  readFileSync(new URL('../demo/plan.json', import.meta.url), 'utf8')
) as { accounts: { username: string; password: string; role: string }[] }

/** With what somebody of a role signs in. */
export function demoAccount(role: string): { username: string; password: string } {
  const { username, password } = accounts.find((account) => account.role === role)!
  return { username, password }
}

const program = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url))

/** The last line of a start: with what to sign in, or the code of the first account. */
const isLast = (line: string): boolean =>
  /ruth|^ {2}[A-Z0-9-]{20,}$/.test(line) || line.includes('Sign in with your account')

/** What `npm start` starts, over a folder of its own. */
export class RunningSite {
  readonly address: string
  /** What it said when it started. */
  readonly said: readonly string[]
  private readonly child: ChildProcess

  private constructor(child: ChildProcess, address: string, said: readonly string[]) {
    this.child = child
    this.address = address
    this.said = said
  }

  /** @throws Error with what was said, where it does not start */
  static async start(data: string, more: readonly string[] = []): Promise<RunningSite> {
    const child = spawn(
      process.execPath,
      [program, '--data', data, '--clip-limit', '3', '--no-past', ...more],
      {
        stdio: ['ignore', 'pipe', 'inherit']
      }
    )
    const said: string[] = []
    let address: string | undefined
    for await (const line of createInterface(child.stdout)) {
      said.push(line)
      address ??= /Wardoptic is at (\S+)/.exec(line)?.[1]
      if (address !== undefined && isLast(line)) break
    }
    if (address === undefined) throw new Error(`no start over ${data}:\n${said.join('\n')}`)
    child.stdout.resume()
    return new RunningSite(child, address, said)
  }

  async stop(): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const ended = once(this.child, 'exit')
    this.child.kill('SIGTERM')
    await ended
  }
}

/** The demo site as it was prepared, again for each file of tests: none sees what another one did. */
export class SiteOfFile {
  private file: string | null = null
  private site: RunningSite | null = null
  private data: string | null = null

  /** @returns its address */
  async of(file: string): Promise<string> {
    if (this.site && this.file === file) return this.site.address
    await this.close()
    this.data = mkdtempSync(join(runFolder(), 'site-'))
    cpSync(preparedFolder(), this.data, { recursive: true })
    this.site = await RunningSite.start(this.data)
    this.file = file
    return this.site.address
  }

  /** Its data, while it runs. */
  get folder(): string {
    if (this.data === null) throw new Error('no site runs')
    return this.data
  }

  async close(): Promise<void> {
    await this.site?.stop()
    this.site = null
    if (this.data !== null) rmSync(this.data, { recursive: true, force: true })
    this.data = null
  }
}
