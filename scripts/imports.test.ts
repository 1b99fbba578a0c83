import { expect, test } from '@jest/globals'
import { spawnSync } from 'node:child_process'

/** Lints a text as if it were the given file. */
const lint = (file: string, text: string): string => {
  const { stdout } = spawnSync('node_modules/.bin/eslint', ['--stdin', '--stdin-filename', file, '--format', 'json'], { input: text, encoding: 'utf8' })
  return (JSON.parse(stdout) as { messages: { ruleId: string }[] }[])[0].messages.map((m) => m.ruleId).join()
}

test.each([
  ['core/detections/x.ts', "import '../../server/app.ts'", true],
  ['core/detections/x.ts', "import 'node:fs'", true],
  ['core/detections/x.ts', "import '../geometry/shapes.ts'", false],
  ['web/bench/x.ts', "import '../../server/app.ts'", true],
  ['web/bench/x.ts', "import '../../core/api.ts'", false],
  ['server/x.ts', "import '../standins/mailbox.ts'", true],
  ['server/x.ts', "import '../analysis/probe.ts'", false],
  ['analysis/x.ts', "import '../web/app.tsx'", true],
  ['simulation/x.ts', "import '../analysis/probe.ts'", true],
  ['standins/x.ts', "import '../simulation/world.ts'", false]
])('the arrows of the folders: %s with %s', (file, text, barred) => {
  expect(lint(file, text)).toBe(barred ? 'no-restricted-imports' : '')
})
