import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from '@jest/globals'
import postcss, { type AtRule } from 'postcss'

/**
 * A stylesheet belongs to the folder that it stands in: what holds everywhere is in `web/styles.css`. Each of its selectors
 * names a class that the folder itself uses, so that nothing there is changed from elsewhere unseen; no class is styled by
 * itself in two of them; and none is styled that nothing has.
 */
const root = fileURLToPath(new URL('..', import.meta.url))
const SHARED = 'web/styles.css'
/** Of the library of controls. */
const FOREIGN = /^(ant|anticon|rc|recharts)(-|$)/

interface Rule {
  file: string
  selector: string
}
interface Code {
  file: string
  text: string
}

function rulesOf(file: string, css: string): Rule[] {
  const rules: Rule[] = []
  postcss.parse(css).walkRules((rule) => {
    // Steps of an animation are no selectors.
    if ((rule.parent as AtRule | undefined)?.name?.endsWith('keyframes')) return
    for (const selector of rule.selectors) rules.push({ file, selector })
  })
  return rules
}

const classesOf = ({ selector }: Rule): string[] =>
  [...selector.matchAll(/\.(-?[_a-z][\w-]*)/gi)].flatMap(([, name]) =>
    FOREIGN.test(name!) ? [] : [name!]
  )

/** The words of a text's string literals, and how those begin that a value follows: `step-${n}`. */
function wordsOf({ text }: Code): { words: Set<string>; beginnings: string[] } {
  const words = new Set<string>()
  const beginnings: string[] = []
  for (const [, a, b, template] of text.matchAll(/'([^'\n]*)'|"([^"\n]*)"|`([^`]*)`/g)) {
    const literal = a ?? b ?? template!
    for (const word of literal.replace(/[^\w\s-]/g, ' ').split(/\s+/)) words.add(word)
    for (const [, begins] of (template ?? '').matchAll(/(?:^|\s)([\w-]+-)\$\{/g))
      beginnings.push(begins!)
  }
  return { words, beginnings }
}

/** What is wrong with stylesheets. @param code of the whole interface and of what it shows */
function faultsOf(rules: readonly Rule[], code: readonly Code[]): string[] {
  const read = code.map((one) => ({ file: one.file, ...wordsOf(one) }))
  const usersOf = (name: string): string[] =>
    read
      .filter(
        ({ words, beginnings }) => words.has(name) || beginnings.some((b) => name.startsWith(b))
      )
      .map(({ file }) => file)
  const faults: string[] = []
  const alone = new Map<string, string>()
  for (const rule of rules) {
    const { file, selector } = rule
    const classes = classesOf(rule)
    for (const name of classes)
      if (!usersOf(name).length) faults.push(`${file}: nothing has the class ${name}`)
    if (file === SHARED) continue
    const own = `${dirname(file)}/`
    if (!classes.some((name) => usersOf(name).some((user) => user.startsWith(own))))
      faults.push(`${file}: ${selector} names no class of its folder`)
    if (selector !== `.${classes[0]}`) continue
    const before = alone.get(selector)
    if (before !== undefined && before !== file)
      faults.push(`${file}: ${selector} is styled in ${before} as well`)
    alone.set(selector, file)
  }
  return [...new Set(faults)]
}

describe('what is found', () => {
  const code = [
    { file: 'web/a/A.tsx', text: '<p className="name is-open"><i className={`step-${n}`}/></p>' },
    { file: 'web/b/B.tsx', text: "const of = on ? 'mark on' : 'mark'" }
  ]
  test.each([
    ['web/a/a.css', '.name.is-open > b, .step-4 { top: 0 }', []],
    ['web/a/a.css', '.gone { top: 0 }', [/class gone/, /no class of its folder/]],
    ['web/a/a.css', '.mark.on { top: 0 }', [/\.mark\.on names no class/]],
    // Of another folder's part within one's own.
    ['web/a/a.css', '.name .mark { top: 0 }', []],
    ['web/a/a.css', 'p { top: 0 }', [/^web\/a\/a.css: p names no class/]],
    ['web/a/a.css', '@keyframes turn { from { top: 0 } 50% { top: 1px } }', []],
    ['web/a/a.css', '.name .ant-btn:hover { top: 0 }', []],
    ['web/a/a.css', '@media print { .other { top: 0 } }', [/class other/, /no class of its/]],
    [SHARED, 'p, .mark { top: 0 }', []]
  ])('%s with %s', (file, css, expected) => {
    const faults = faultsOf(rulesOf(file, css), code)
    expect(faults).toHaveLength(expected.length)
    for (const [i, fault] of expected.entries()) expect(faults[i]).toMatch(fault)
  })

  test('a class that two stylesheets style by itself', () => {
    const both = [{ file: 'web/b/C.tsx', text: "'name'" }, ...code]
    const rules = [
      ...rulesOf('web/a/a.css', '.name { top: 0 } .name { left: 0 }'),
      ...rulesOf('web/b/b.css', '.name { top: 0 } .mark .name { top: 0 }')
    ]
    expect(faultsOf(rules, both)).toEqual(['web/b/b.css: .name is styled in web/a/a.css as well'])
  })
})

test('stylesheets keep to their folders', () => {
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'web', 'core'], {
    cwd: root,
    encoding: 'utf8'
  })
    .split('\n')
    .filter((file) => !/\.test\.tsx?$/.test(file))
  const read = (file: string): Code => ({ file, text: readFileSync(`${root}/${file}`, 'utf8') })
  const sheets = files.filter((file) => file.endsWith('.css'))
  expect(sheets.length).toBeGreaterThan(20)
  expect(
    faultsOf(
      sheets.flatMap((file) => rulesOf(file, read(file).text)),
      files.filter((file) => /\.tsx?$/.test(file)).map(read)
    )
  ).toEqual([])
})
