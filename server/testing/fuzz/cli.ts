import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { UsageError, readOptions, runCommand } from '../../../core/cli/options.ts'
import { startMariaDb } from '../../launch/mariadb.ts'
import { startTestApp } from '../testApp.ts'
import { fuzz } from './fuzz.ts'

const usage = `usage: npm run fuzz -- [--count N] [--seed N]
  Asks every route and every importer for what nobody would; a server error, a crash or an answer that does not come is a problem.`

await runCommand(async (args) => {
  const { values } = readOptions(
    args,
    { count: { type: 'string' }, seed: { type: 'string' } },
    usage
  )
  const number = (name: string, otherwise: number): number => {
    const value = values[name] === undefined ? otherwise : Number(values[name])
    if (!Number.isInteger(value) || value < 0)
      throw new UsageError(`--${name} must be a whole number\n${usage}`)
    return value
  }
  const [count, seed] = [number('count', 100_000), number('seed', 1)]
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-fuzz-'))
  const mariadb = await startMariaDb(folder)
  process.env.WARDOPTIC_TEST_DATABASE = JSON.stringify(mariadb.address)
  const began = performance.now()
  const t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })
  try {
    const { inputs, statuses, problems } = await fuzz(t, count, seed, (words) =>
      process.stderr.write(`${words}\n`)
    )
    for (const { what, problem } of problems) process.stdout.write(`${problem}\n  ${what}\n`)
    process.stdout.write(
      `${inputs} inputs in ${((performance.now() - began) / 1000).toFixed(0)} s, seed ${seed}; answers ${JSON.stringify(statuses)}; ${problems.length} problems\n`
    )
    if (problems.length) process.exitCode = 1
  } finally {
    await t.close()
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  }
})
