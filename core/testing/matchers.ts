/**
 * What tests expect of errors. An error holds a code and its values; people read the words made of them, so that is what
 * tests compare.
 */
import { expect } from '@jest/globals'
import { errorWords } from '../messages/errorWords.ts'
import type { Said } from '../messages/said.ts'
import { wordsOf } from '../messages/words.ts'

declare module 'expect' {
  interface Matchers<R extends void | Promise<void>> {
    /** Throws an error, or is one (of `rejects`), whose words hold this text or match this pattern. */
    toThrowWords(expected: string | RegExp): R
    /** Something said whose words hold this text or match this pattern. */
    toSay(expected: string | RegExp): R
  }
  interface AsymmetricMatchers {
    /** Something said (or a text) whose words hold this text or match this pattern. */
    saying(expected: string | RegExp): void
  }
}

const isSaid = (value: unknown): value is Said =>
  typeof value === 'object' && value !== null && typeof (value as Said).code === 'string'
const holds = (words: string, expected: string | RegExp): boolean =>
  typeof expected === 'string' ? words.includes(expected) : expected.test(words)

// In `toEqual` and `toMatchObject`, a text stands for something said in these words.
expect.addEqualityTesters([
  (a: unknown, b: unknown) => {
    if (isSaid(a) && typeof b === 'string') return wordsOf(a) === b
    if (isSaid(b) && typeof a === 'string') return wordsOf(b) === a
    return undefined
  }
])

function thrownBy(received: unknown): unknown {
  if (typeof received !== 'function') return received
  try {
    ;(received as () => void)()
  } catch (error) {
    return error
  }
  return undefined
}

function saysWhat(received: unknown, expected: string | RegExp) {
  const words = isSaid(received) ? wordsOf(received) : String(received)
  return {
    pass: holds(words, expected),
    message: () => `expected ${String(expected)}, got ${words}`
  }
}

expect.extend({
  toThrowWords(received: unknown, expected: string | RegExp) {
    const error = thrownBy(received)
    const words = error === undefined ? null : errorWords(error)
    const pass = words !== null && holds(words, expected)
    return {
      pass,
      message: () =>
        `expected an error with ${String(expected)}, got ${words === null ? 'none' : words}`
    }
  },
  saying: saysWhat,
  toSay: saysWhat
})
