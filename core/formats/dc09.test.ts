import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { crc16, eventData, plain, readEvent, readFrame, writeFrame, type Frame } from './dc09.ts'
import { SEVERITIES } from '../kinds/parts.ts'

const frame = fc.record<Frame>({
  id: fc.constantFrom(
    'SIA-DCS' as const,
    'NULL' as const,
    'ACK' as const,
    'NAK' as const,
    'DUH' as const
  ),
  sequence: fc.integer({ min: 0, max: 9999 }),
  account: fc.stringMatching(/^[0-9A-F]{3,16}$/),
  data: fc.constantFrom('', 'Nri1/BA01^major: Slipway: person crossed Quay edge, Water → Land^'),
  at: fc.option(fc.integer({ min: 0, max: 4_000_000_000 }).map((s) => s * 1000))
})

describe('frames to a monitoring station', () => {
  // The check value of CRC-16/ARC, "123456789" → 0xBB3D, as in the catalogue of parametrised CRC
  // algorithms (from memory).
  test('the CRC has its published check value', () => expect(crc16('123456789')).toBe(0xbb3d))

  test('reads back what it writes, whatever the content', () => {
    fc.assert(fc.property(frame, (f) => expect(readFrame(writeFrame(f))).toEqual(f)))
  })

  test('begins with LF, CRC and length in hexadecimal, and ends with CR', () => {
    const text = writeFrame({
      id: 'NULL',
      sequence: 1,
      account: '5A31',
      data: '',
      at: Date.UTC(2026, 10, 24, 8, 12, 31)
    })
    expect(text).toMatch(/^\n[0-9A-F]{4}[0-9A-F]{4}"NULL"0001L0#5A31\[\]_08:12:31,11-24-2026\r$/)
    expect(parseInt(text.slice(5, 9), 16)).toBe(Buffer.byteLength(text.slice(9, -1)))
  })

  test('notices any single damaged character', () => {
    fc.assert(
      fc.property(frame, fc.nat(), fc.integer({ min: 0x21, max: 0x7e }), (f, where, code) => {
        const text = writeFrame(f)
        // Its letters are hexadecimal in either case; the first LF and the last CR are no part of what is checked.
        const at = 1 + (where % (text.length - 2))
        const other = String.fromCharCode(code)
        fc.pre(text[at]!.toUpperCase() !== other.toUpperCase())
        expect(() => readFrame(text.slice(0, at) + other + text.slice(at + 1))).toThrowWords(
          /the frame/
        )
      })
    )
  })

  test.each(['', 'hello', '\nFFFF0003"A"\r', '\n00000000\r'])('refuses the frame %j', (text) =>
    expect(() => readFrame(text)).toThrowWords(/the frame/)
  )
})

describe('events', () => {
  test.each(SEVERITIES)('%s: reads back code, zone, severity and text', (severity) => {
    expect(
      readEvent(
        eventData({ kind: 'line', zone: 3, severity, words: 'Slipway: [crossed] | "Quay edge"' })
      )
    ).toEqual({ code: 'BA', zone: 3, severity, words: plain('Slipway: [crossed] | "Quay edge"') })
  })
  test('tamper and video loss have their own codes', () =>
    expect([
      eventData({ kind: 'tamper', zone: 1, severity: 'major', words: 'x' }),
      eventData({ kind: 'signalLoss', zone: 12, severity: 'minor', words: 'x' })
    ]).toEqual(['Nri1/TA01^major: x^', 'Nri1/UT12^minor: x^']))
  test('refuses other text and says what is right', () =>
    expect(() => readEvent('intruder!')).toThrowWords('must be such as Nri1/BA01^major: text^'))
})
