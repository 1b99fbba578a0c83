import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import * as v from 'valibot'
import { InputError } from '../errors.ts'
import { errorWords } from '../messages/errorWords.ts'
import { said } from '../messages/said.ts'
import { readExpected } from './evidence.ts'
import { eachLine, readJsonLines } from './lines.ts'
import { PlanSchema } from './plan.ts'
import { parseWith } from '../schema/parse.ts'

describe('texts of lines', () => {
  test('give every line that holds something, whatever ends it, by its number', () => {
    const line = fc.oneof(
      fc.constantFrom('', ' ', '\t'),
      fc.string().filter((s) => !/[\r\n]/.test(s))
    )
    const end = fc.constantFrom('\n', '\r\n', '\r')
    fc.assert(
      fc.property(fc.array(line), end, fc.boolean(), (lines, between, marked) => {
        const read: [string, string][] = []
        eachLine((marked ? '\uFEFF' : '') + lines.join(between), (text, place) =>
          read.push([text, place])
        )
        expect(read).toEqual(
          lines.flatMap((text, i) => (text.trim() ? [[text, `line ${i + 1}`]] : []))
        )
      })
    )
  })

  test.each([
    ['{"n":1}\n\n{"n":', 'line 3', 'JSON'],
    ['{"n":1}\r\n{"n":"two"}', 'line 2, $.n', 'number'],
    ['{"n":1}\r{"n":9}', 'line 2, $.n', 'detections']
  ])('of JSON name the line and the path in it: %j', (text, place, what) => {
    const schema = v.strictObject({ n: v.number('must be a number') })
    const read = (): unknown =>
      readJsonLines(text, schema, ({ n }) => {
        if (n > 8) throw new InputError('$.n', said('formats.isNotIn', String(n), 'detections'))
      })
    let words = ''
    try {
      read()
    } catch (error) {
      words = errorWords(error)
    }
    expect(words).toMatch(new RegExp(`^${place.replace('$', '\\$')}.*${what}`))
  })

  test('expected triggers are read with a byte order mark and bare carriage returns, as marks are', () => {
    const plan = parseWith(PlanSchema, {
      format: 'wardoptic-plan/1',
      timeZone: 'UTC',
      cameras: [
        {
          id: 'c',
          name: 'C',
          detections: [
            {
              id: 'l',
              name: 'L',
              kind: 'line',
              line: [
                [0.1, 0.5],
                [0.9, 0.5]
              ]
            }
          ]
        }
      ]
    })
    const text = '\uFEFF{"detection":"l","time":1}\r{"detection":"l","time":2}\r'
    expect(readExpected(text, plan, 'c').map(({ time }) => time)).toEqual([1, 2])
  })
})
