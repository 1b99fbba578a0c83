// npm run check: types, lint, format, unused exports, and the unit tests of what was changed since the last commit. For
// use while working: what has been looked at already is remembered. npm test looks at everything.
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './install.mjs'

const cache = join(root, 'node_modules/.cache/wardoptic')
mkdirSync(cache, { recursive: true })
const bin = (name) => join(root, 'node_modules', '.bin', name)

const run = (name, command, args) =>
  new Promise((resolve) => {
    const begun = Date.now()
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part))
    child.on('close', (status) => {
      console.log(
        `${status === 0 ? '✓' : '✗'} ${name} (${((Date.now() - begun) / 1000).toFixed(0)} s)`
      )
      if (status !== 0) console.log(said.trimEnd())
      resolve(status === 0)
    })
  })

const types = async () => {
  const ok = []
  for (const world of ['core', 'web', '.', 'e2e'])
    ok.push(
      await run(`types of ${world === '.' ? 'what runs in Node' : world}`, bin('tsc'), [
        '-p',
        join(world, 'tsconfig.json'),
        '--incremental',
        '--tsBuildInfoFile',
        join(cache, `${world === '.' ? 'node' : world}.tsbuildinfo`)
      ])
    )
  return ok.every(Boolean)
}
const rest = async () => {
  const ok = [
    await run('format', bin('prettier'), ['--check', '--log-level', 'warn', '--cache', '.']),
    await run('lint', bin('eslint'), [
      '.',
      '--max-warnings',
      '0',
      '--cache',
      '--cache-location',
      join(cache, 'eslint')
    ]),
    await run('unused files, exports and packages', bin('knip'), []),
    await run('tests of what was changed', process.execPath, [
      '--experimental-vm-modules',
      '--no-warnings',
      join(root, 'node_modules/jest/bin/jest.js'),
      '--onlyChanged'
    ])
  ]
  return ok.every(Boolean)
}
const ok = await Promise.all([types(), rest()])
process.exitCode = ok.every(Boolean) ? 0 : 1
