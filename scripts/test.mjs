// npm test: types, lint, unit and server tests, interface tests. Installs what is missing; leaves nothing running.
import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { installDebian, installPackages, root } from './install.mjs'

const bin = (name) => join(root, 'node_modules', '.bin', name)
const folder = mkdtempSync(join(tmpdir(), 'wardoptic-run-'))
const total = { passed: 0, failed: 0 }

const step = (name, command, args, env = {}) => {
  console.log(`\n── ${name}`)
  const { status, error } = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env }
  })
  if (error) console.error(error.message)
  return status === 0
}
const count = (passed, failed) => {
  total.passed += passed
  total.failed += failed
}
/** Several at the same time, each one's output in one piece. */
const together = (list) =>
  Promise.all(
    list.map(
      ([name, command, args]) =>
        new Promise((resolve) => {
          const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
          let said = ''
          for (const stream of [child.stdout, child.stderr])
            stream.on('data', (part) => (said += part))
          child.on('error', (error) => (said += error.message))
          child.on('close', (status) => {
            console.log(`\n── ${name}${said ? `\n${said.trimEnd()}` : ''}`)
            count(status === 0 ? 1 : 0, status === 0 ? 0 : 1)
            resolve()
          })
        })
    )
  )

const freePort = () =>
  new Promise((resolve, reject) => {
    const server = createServer().once('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => resolve(port))
    })
  })

/** The counts of a report; a runner that ended badly without one has failed. */
const report = (file, read, ok) => {
  try {
    const [passed, failed] = read(JSON.parse(readFileSync(file, 'utf8')))
    count(passed, !ok && failed === 0 ? 1 : failed)
  } catch {
    count(0, 1)
  }
}

try {
  installDebian(['mariadb-server', 'ffmpeg', 'chromium', 'opencv-doc', 'curl'])
  await installPackages()

  // Beside the unit tests, of which much is waiting; what they said is printed after those.
  const read = together([
    ['Types', bin('tsc'), ['-p', 'tsconfig.json']],
    ['Lint', bin('eslint'), ['.', '--max-warnings', '0']]
  ])

  const unit = join(folder, 'unit.json')
  const unitOk = step('Unit and server tests', process.execPath, [
    '--experimental-vm-modules',
    '--no-warnings',
    join(root, 'node_modules/jest/bin/jest.js'),
    '--json',
    `--outputFile=${unit}`
  ])
  report(unit, (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites], unitOk)
  await read

  const face = join(folder, 'interface.json')
  const faceOk = step('Interface tests', bin('playwright'), ['test'], {
    E2E_PORT: String(await freePort()),
    E2E_DATA: join(folder, 'data'),
    PLAYWRIGHT_JSON_OUTPUT_NAME: face,
    FORCE_COLOR: '0'
  })
  report(face, (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected], faceOk)
} catch (error) {
  console.error(`error: ${error.message}`)
  total.failed++
} finally {
  rmSync(folder, { recursive: true, force: true })
}
console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed || !total.passed ? 1 : 0
