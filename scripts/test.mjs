// npm test: types, lint, format, unit and server tests, interface tests. Installs what is missing;
// leaves nothing running.
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { coverageTable } from './coverage.mjs'
import { installDebian, installPackages, root } from './install.mjs'

const bin = (name) => join(root, 'node_modules', '.bin', name)
const folder = mkdtempSync(join(tmpdir(), 'wardoptic-run-'))
const total = { passed: 0, failed: 0 }

const count = (passed, failed) => {
  total.passed += passed
  total.failed += failed
}

/** @returns whether it ended well */
const run = (command, args, stdio, env = {}) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio, env: { ...process.env, ...env } })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => (said += part))
    child.on('error', (error) => (said += error.message))
    child.on('close', (status) => resolve({ ok: status === 0, said: said.trimEnd() }))
  })

/** Tests that say how they go on while they run. */
const step = async (name, command, args, env) => {
  console.log(`\n── ${name}`)
  const { ok, said } = await run(command, args, ['ignore', 'inherit', 'inherit'], env)
  if (said) console.error(said)
  return ok
}

/** One after another; what each said, in one piece. */
const readings = async (list) => {
  const told = []
  for (const [name, command, args] of list) {
    const { ok, said } = await run(bin(command), args, ['ignore', 'pipe', 'pipe'])
    told.push(`\n── ${name}${said ? `\n${said}` : ''}`)
    count(ok ? 1 : 0, ok ? 0 : 1)
  }
  return told.join('\n')
}

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
  installDebian([
    ...['mariadb-server', 'ffmpeg', 'chromium', 'opencv-doc', 'curl', 'unzip'],
    ...['gir1.2-gst-rtsp-server-1.0', 'python3-gi', 'gstreamer1.0-plugins-base'],
    ...['gstreamer1.0-plugins-good', 'gstreamer1.0-plugins-bad'],
    ...['poppler-utils', 'python3-openpyxl', 'python3-junitparser'],
    ...['libxml2-utils', 'python3-icalendar']
  ])
  await installPackages()
  // Before the tests that start the program, which would build it all at once.
  await step('The interface, built', process.execPath, [join(root, 'scripts/buildWeb.mjs')])

  // Beside the unit tests, of which much is waiting; what they said is printed after those.
  const read = readings([
    ...['core', 'web', '.', 'e2e'].map((world) => [
      `Types of ${world === '.' ? 'what runs in Node' : `${world}/`}`,
      'tsc',
      ['-p', join(world, 'tsconfig.json')]
    ]),
    ['Unused files, exports and packages', 'knip', []],
    ['Format', 'prettier', ['--check', '--log-level', 'warn', '.']],
    ['Lint', 'eslint', ['.', '--max-warnings', '0']]
  ])

  const unit = join(folder, 'unit.json')
  const unitOk = await step('Unit and server tests', process.execPath, [
    '--experimental-vm-modules',
    '--no-warnings',
    join(root, 'node_modules/jest/bin/jest.js'),
    '--json',
    `--outputFile=${unit}`,
    '--coverage',
    '--coverageProvider=v8',
    '--coverageReporters=json-summary',
    `--coverageDirectory=${folder}`
  ])
  report(unit, (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites], unitOk)
  console.log(await read)
  console.log('\n── Lines that unit and server tests run, by folder')
  try {
    console.log(coverageTable(join(folder, 'coverage-summary.json')))
  } catch (error) {
    console.log(`not known: ${error.message}`)
  }

  const face = join(folder, 'interface.json')
  const faceOk = await step('Interface tests', bin('playwright'), ['test'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: face,
    FORCE_COLOR: '0'
  })
  report(face, (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky], faceOk)
} catch (error) {
  console.error(`error: ${error.message}`)
  total.failed++
} finally {
  rmSync(folder, { recursive: true, force: true })
}
console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed || !total.passed ? 1 : 0
