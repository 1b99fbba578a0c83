import { usage as usages } from '../../core/messages/en/usage.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { isIP, isIPv4 } from 'node:net'
import { resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { UsageError } from '../../core/cli/options.ts'
import { readDatabaseUrl, type DatabaseChoice } from './databaseUrl.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))

export interface LaunchOptions {
  port: number | null
  data: string
  demo: boolean
  /** Whether the demo site gets a past. */
  past: boolean
  simulators: boolean
  clipMegabytes: number
  findOn: string | null
  /** Null: on loopback, without TLS. */
  listen: { address: string; cert: { cert: string; key: string } | null } | null
  hosts: string[]
  /** Null: the one that is started here. */
  database: DatabaseChoice | null
  newKeys: boolean
}

const text = { type: 'string' } as const
const flag = { type: 'boolean' } as const

/** @returns null where only the usage is asked for @throws UsageError that names the option and what would be right */
export function launchOptions(
  args: string[],
  env: NodeJS.ProcessEnv = process.env
): LaunchOptions | null {
  const values = read(args)
  if (values.help) return null
  const number = (name: 'port' | 'clip-limit', max: number): number | null => {
    if (values[name] === undefined) return null
    const value = Number(values[name])
    if (!Number.isInteger(value) || value < 1 || value > max)
      throw wrong(said('start.wholeNumber', name, String(values[name]), max))
    return value
  }
  const findOn = values['find-on'] ?? null
  if (findOn !== null && !isIPv4(findOn))
    throw wrong(said('start.ownAddress', 'find-on', findOn, false))
  const { listen, cert, key } = values
  if (listen !== undefined && !isIP(listen))
    throw wrong(said('start.ownAddress', 'listen', listen, true))
  if ((cert === undefined) !== (key === undefined)) throw wrong(said('start.certAndKey'))
  if (cert !== undefined && listen === undefined) throw wrong(said('start.certForListen'))
  const hosts = (values.host ?? []).map((name) => {
    if (!/^([a-z0-9.-]+|\[[0-9a-f:]+\])(:\d{1,5})?$/i.test(name))
      throw wrong(said('start.hostName', name))
    return name.toLowerCase()
  })
  const url = values.database ?? env.WARDOPTIC_DATABASE
  return {
    port: number('port', 65535),
    data: resolve(root, values.data ?? '.data'),
    demo: !values['no-demo'],
    past: !values['no-past'],
    simulators: !values['no-simulators'],
    clipMegabytes: number('clip-limit', 1_000_000) ?? 1024,
    findOn,
    listen:
      listen === undefined
        ? null
        : {
            address: listen,
            cert:
              cert === undefined ? null : { cert: resolve(root, cert), key: resolve(root, key!) }
          },
    hosts,
    database: url === undefined ? null : readDatabaseUrl(url),
    newKeys: values['new-key'] ?? false
  }
}

const wrong = (why: Said | string): UsageError => new UsageError(why, usages.start)

function read(args: string[]) {
  try {
    return parseArgs({
      args,
      options: {
        port: text,
        data: text,
        'no-demo': flag,
        'no-past': flag,
        'no-simulators': flag,
        'clip-limit': text,
        'find-on': text,
        listen: text,
        host: { type: 'string', multiple: true },
        cert: text,
        key: text,
        database: text,
        'new-key': flag,
        help: flag
      }
    }).values
  } catch (error) {
    throw wrong((error as Error).message)
  }
}
