import { readFileSync, readdirSync } from 'node:fs'
import { expect, test } from '@jest/globals'

/**
 * Words that the product does not use on screen, because another word has their meaning (CONTRIBUTING.md, Words). Our
 * own choice, no source.
 */
const NOT_SAID =
  /\b(body share|gate|ladder|seen for|hold-off|size frame|sets? off|usual action|mend|drift(ed)?|take over|put back|one minute a day|run as live|stand-in|silence|not as expected|signal lost|picture lost|hand(ed)? to|unwanted|given up|held back|fires|goes off)\b/i

const folder = new URL('./en/', import.meta.url)
const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) =>
  name.endsWith('.ts')
)

/** Texts in the source of a file, what is put into them left out. */
const textsOf = (source: string): string[] =>
  [...source.matchAll(/'((?:[^'\\\n]|\\.)*)'|`((?:[^`\\]|\\.)*)`/g)].map((m) =>
    (m[1] ?? m[2]!).replace(/\$\{[^}]*\}/g, ' ')
  )

test('finds texts', () => {
  expect(textsOf("a: 'Keep it', b: (n) => `${n} given up`")).toEqual(['Keep it', '  given up'])
  expect(files.length).toBeGreaterThan(50)
})

test.each(files)('%s uses the product’s words', (name) => {
  const texts = textsOf(readFileSync(new URL(name, folder), 'utf8'))
  expect(texts.filter((text) => NOT_SAID.test(text))).toEqual([])
})
