import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { circlesIn, importsOf } from './importCircles.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))

/**
 * Lints texts as if each were the given file, in one process: ESLint takes longer to load than to look. Without rules
 * that need types: the files are not there.
 */
const lint = (texts: [file: string, text: string][]): string[] => {
  const program =
    "const { ESLint } = await import('eslint'); const ts = await import('typescript-eslint'); const e = new ESLint({ overrideConfig: [ts.configs.disableTypeChecked] }); const out = []; for (const [filePath, text] of JSON.parse(process.argv[1])) { const [r] = await e.lintText(text, { filePath }); out.push(r.messages.map((m) => m.ruleId).join()) } console.log(JSON.stringify(out))"
  return JSON.parse(
    execFileSync(process.execPath, ['--input-type=module', '-e', program, JSON.stringify(texts)], {
      encoding: 'utf8'
    })
  ) as string[]
}

const arrows: [file: string, text: string, barred: boolean][] = [
  ['core/detections/x.ts', "import '../../server/app.ts'", true],
  ['core/detections/x.ts', "import 'node:fs'", true],
  ['core/detections/x.ts', "import '../geometry/shapes.ts'", false],
  ['web/bench/x.ts', "import '../../server/app.ts'", true],
  ['web/bench/x.ts', "import '../../core/api.ts'", false],
  ['server/x.ts', "import '../simulators/mailbox.ts'", true],
  ['server/x.ts', "import '../analysis/probe.ts'", false],
  ['analysis/x.ts', "import '../web/app.tsx'", true],
  ['simulation/x.ts', "import '../analysis/probe.ts'", true],
  ['simulators/x.ts', "import '../simulation/world.ts'", false]
]

describe('allowed imports between folders', () => {
  let said: string[]
  beforeAll(() => void (said = lint(arrows.map(([file, text]) => [file, text]))))
  test.each(arrows.map(([file, text, barred], i) => [file, text, barred, i] as const))(
    '%s with %s',
    (_, __, barred, i) => {
      expect(said[i]).toBe(barred ? 'no-restricted-imports' : '')
    }
  )
})

describe('import circles, in values or in types', () => {
  test('are found between two files and three', () => {
    const edges = new Map([
      ['a', ['b']],
      ['b', ['a', 'c']],
      ['c', ['d']],
      ['d', ['e']],
      ['e', ['c']],
      ['f', ['a', 'f']]
    ])
    expect(circlesIn(edges)).toEqual([
      ['c', 'd', 'e'],
      ['a', 'b']
    ])
  })
  test('do not exist', () => {
    const imports = importsOf(root)
    expect(imports.size).toBeGreaterThan(600)
    expect(circlesIn(imports)).toEqual([])
  })
})
