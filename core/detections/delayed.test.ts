import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Delayed, OncePerEpisode } from './frames.ts'

const run = (pattern: boolean[], onDelay: number, offDelay: number): boolean[] => {
  const delayed = new Delayed(onDelay, offDelay)
  return pattern.map((holds, n) => {
    delayed.step(holds, n / 10)
    return delayed.on
  })
}
const bits = fc.array(fc.boolean(), { minLength: 1, maxLength: 60 })
const delay = fc.integer({ min: 0, max: 10 }).map((n) => n / 10)

describe('on-delay and off-delay', () => {
  test('worked by hand', () => {
    const of = (text: string) => [...text].map((c) => c === '1')
    expect(run(of('0111100011'), 0.2, 0.2)).toEqual(of('0001111000'))
    expect(run(of('0101'), 0, 0)).toEqual(of('0101'))
  })

  test('agrees with a second implementation of on-delay and off-delay', () => {
    fc.assert(
      fc.property(bits, delay, delay, (pattern, onDelay, offDelay) => {
        let on = false
        const expected = pattern.map((holds, n) => {
          // How long the present stretch of equal values has lasted, counted from its first frame.
          let from = n
          while (from > 0 && pattern[from - 1] === holds) from--
          const lasted = (n - from) / 10
          if (holds ? lasted >= onDelay - 1e-9 : false) on = true
          else if (!holds && lasted >= offDelay - 1e-9) on = false
          return on
        })
        expect(run(pattern, onDelay, offDelay)).toEqual(expected)
      }),
      { numRuns: 500 }
    )
  })

  test('a longer on-delay never switches on more often', () => {
    fc.assert(
      fc.property(bits, delay, delay, delay, (pattern, a, b, offDelay) => {
        const count = (onDelay: number) => run(pattern, onDelay, offDelay).filter(Boolean).length
        expect(count(Math.max(a, b))).toBeLessThanOrEqual(count(Math.min(a, b)))
      })
    )
  })
})

test('triggers once per on-period, as soon as the gates pass', () => {
  fc.assert(
    fc.property(bits, bits, (on, gate) => {
      const once = new OncePerEpisode()
      const fired = on.map((is, n) => once.step(is, () => gate[n % gate.length]!))
      on.forEach((is, n) => {
        if (fired[n]) expect(is && gate[n % gate.length]).toBe(true)
      })
      // In each stretch of on: exactly one where the gate opened in it, none otherwise.
      for (let n = 0; n < on.length;) {
        let end = n
        while (end < on.length && on[end]) end++
        const opened = Array.from(
          { length: end - n },
          (_, k) => gate[(n + k) % gate.length]
        ).includes(true)
        expect(fired.slice(n, end).filter(Boolean).length).toBe(opened ? 1 : 0)
        n = end + 1
      }
    })
  )
})
