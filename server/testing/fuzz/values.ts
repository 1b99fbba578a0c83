import type * as v from 'valibot'
import type { Chance } from './chance.ts'

/** Values as a schema wants them, and values as nobody wants them. */

const NASTY_TEXTS = [
  '',
  ' ',
  '\u0000',
  '\ud800',
  'a\udc00b',
  '..',
  '../../etc/passwd',
  '%00',
  '%',
  '%zz',
  "'; DROP TABLE site; --",
  '"',
  '\\',
  '<script>',
  '💡',
  'é',
  'e\u0301',
  '\u202e',
  'x'.repeat(5000),
  '{{7*7}}',
  '__proto__',
  'constructor',
  'null',
  '-1',
  '1e999',
  '9'.repeat(40),
  '١٢٣',
  'slipway ',
  'Slipway',
  '\r\nX: y',
  '﻿'
]
const NASTY_NUMBERS = [
  0,
  -0,
  -1,
  1,
  0.5,
  1e9,
  2 ** 31,
  2 ** 32,
  2 ** 53,
  -(2 ** 53),
  1e308,
  -1e308,
  5e-324
]
const deep = (n: number): unknown => {
  let value: unknown = 1
  for (let i = 0; i < n; i++) value = i % 2 ? [value] : { a: value }
  return value
}

export function nasty(c: Chance): unknown {
  switch (c.below(9)) {
    case 0:
      return null
    case 1:
      return c.is(0.5)
    case 2:
      return c.of(NASTY_NUMBERS)
    case 3:
      return []
    case 4:
      return {}
    case 5:
      return c.is(0.1) ? deep(2000) : [nasty(c), nasty(c)]
    case 6:
      return { [c.of(NASTY_TEXTS)]: c.of(NASTY_TEXTS) }
    default:
      return c.of(NASTY_TEXTS)
  }
}

export const nastyText = (c: Chance): string => c.of(NASTY_TEXTS)

interface Shape {
  type: string
  entries?: Record<string, Shape>
  item?: Shape
  items?: Shape[]
  options?: unknown
  wrapped?: Shape
  literal?: unknown
  pipe?: Shape[]
  key?: Shape
  value?: Shape
  requirement?: unknown
}

/**
 * A value of about the form that a schema asks for; with `wild`, now and then something else in any place of it.
 *
 * @param known texts that name something that is there
 */
export function like(
  schema: v.GenericSchema,
  c: Chance,
  known: readonly string[],
  wild: number,
  depth = 0
): unknown {
  if (c.is(wild) || depth > 12) return nasty(c)
  const s = schema as unknown as Shape
  const inner = (shape: Shape): unknown => like(shape as never, c, known, wild, depth + 1)
  switch (s.type) {
    case 'strict_object':
    case 'loose_object':
    case 'object': {
      const made: Record<string, unknown> = {}
      for (const [key, entry] of Object.entries(s.entries ?? {}))
        if (!(/optional|nullish/.test(entry.type) && c.is(0.4)) && !c.is(wild / 2))
          made[key] = inner(entry)
      if (c.is(wild)) made[nastyText(c)] = nasty(c)
      return made
    }
    case 'array':
      return Array.from({ length: c.is(0.02) ? 600 : c.below(5) }, () => inner(s.item!))
    case 'tuple':
    case 'strict_tuple':
      return (s.items ?? []).map(inner)
    case 'record':
      return Object.fromEntries(
        Array.from({ length: c.below(4) }, () => [String(c.of(known)), inner(s.value!)])
      )
    case 'optional':
    case 'nullable':
    case 'nullish':
      return c.is(0.2) && s.type !== 'optional' ? null : inner(s.wrapped!)
    case 'union':
    case 'variant':
      return inner(c.of(s.options as Shape[]))
    case 'picklist':
    case 'enum':
      return c.of(s.options as unknown[])
    case 'literal':
      return s.literal
    case 'boolean':
      return c.is(0.5)
    case 'number': {
      const limits = (s.pipe ?? [])
        .filter((p) => typeof p.requirement === 'number')
        .map((p) => p.requirement as number)
      return c.is(0.3)
        ? c.of([...limits, ...NASTY_NUMBERS])
        : limits.length === 2 && c.is(0.7)
          ? Math.round(limits[0]! + c.next() * (limits[1]! - limits[0]!))
          : c.is(0.5)
            ? c.next()
            : c.below(100)
    }
    case 'string': {
      const pattern = (s.pipe ?? []).find((p) => p.requirement instanceof RegExp)?.requirement as
        RegExp | undefined
      if (c.is(0.5)) return c.of(known)
      if (pattern && /\\d/.test(pattern.source))
        return c.of(['07:00', '2026-12-24', String(c.below(1e6)), 'sunset+00:30', '24:00'])
      return c.of([
        'Gate',
        'night-2',
        'person',
        'x@y.example',
        'http://127.0.0.1:9/',
        'Water',
        '#fff',
        String(c.below(1000))
      ])
    }
    default:
      return nasty(c)
  }
}

/** The same text with a few of its letters changed, doubled, taken away or put in. */
export function mangled(text: string, c: Chance): string {
  let made = text
  for (let n = 1 + c.below(6); n > 0; n--) {
    const at = c.below(made.length + 1)
    const length = c.below(c.is(0.1) ? 200 : 12)
    const piece = made.slice(at, at + length)
    const put = c.of([
      () => '',
      () => piece + piece,
      () => nastyText(c).slice(0, 60),
      () => String.fromCharCode(c.below(128)),
      () => String(c.of(NASTY_NUMBERS)),
      () => '9'.repeat(1 + c.below(14))
    ])()
    made = made.slice(0, at) + put + made.slice(at + (c.is(0.5) ? length : 0))
  }
  return made
}
