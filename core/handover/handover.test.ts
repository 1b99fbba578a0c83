import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { Ajv } from 'ajv'
import fc from 'fast-check'
import { XMLParser } from 'fast-xml-parser'
import { wordsOf } from '../messages/words.ts'
import { canonical } from '../history/states.ts'
import { changesSince } from './changes.ts'
import { bytesOf, digestOf, digestOfRecord } from './digest.ts'
import { endpointSettings } from './endpointSettings.ts'
import { junitOf } from './junit.ts'
import { MANIFEST, RECORD, SIGNATURES, manifestOf, verify } from './manifest.ts'
import { standingOf } from './obstacles.ts'
import { clopperPearson, shareOf } from './proportion.ts'
import type { Signature, SiteRecord } from './record.ts'
import { causesAndEffects, csvOf, stationList } from './tables.ts'
import { someRecord } from './testing/someRecord.ts'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)

describe('digests', () => {
  test('SHA-256 of “abc” (FIPS 180-4, example); of any bytes as Node’s own', () => {
    expect(digestOf(bytes('abc'))).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'
    )
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (data) => {
        expect(digestOf(data)).toBe(createHash('sha256').update(data).digest('hex'))
      })
    )
  })

  test('a record read back has the same digest, whatever the order of its keys', () => {
    const record = someRecord()
    const turned = JSON.parse(JSON.stringify(record), (_, value: unknown) =>
      value && typeof value === 'object' && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).reverse())
        : value
    ) as SiteRecord
    expect(digestOfRecord(turned)).toBe(digestOfRecord(record))
    expect(digestOfRecord(someRecord((r) => (r.note = 'Service twice a year.')))).not.toBe(
      digestOfRecord(record)
    )
  })

  test('record.json follows the published schema (a general validator)', () => {
    const schema = JSON.parse(
      readFileSync(new URL('../../docs/record.schema.json', import.meta.url), 'utf8')
    )
    const accepts = new Ajv({ strict: false, formats: { email: true } }).compile(schema)
    const record = JSON.parse(new TextDecoder().decode(bytesOf(someRecord())))
    expect([accepts(record), accepts.errors]).toEqual([true, null])
    expect(accepts({ ...record, number: 0 })).toBe(false)
  })
})

describe('an interval of a share (Clopper and Pearson)', () => {
  // Source: R's documentation of binom.test, its example of Conover (1971): 682 of 925.
  test('as R’s binom.test has it', () => {
    const [low, high] = clopperPearson(682, 925)
    expect(low).toBeCloseTo(0.7076683, 6)
    expect(high).toBeCloseTo(0.7654066, 6)
  })

  // Source: the closed form for none and all, 1 - (0.025)^(1/n).
  test('of none and of all', () => {
    for (const n of [1, 5, 10, 200]) {
      const edge = 1 - 0.025 ** (1 / n)
      expect(clopperPearson(0, n)[0]).toBe(0)
      expect(clopperPearson(0, n)[1]).toBeCloseTo(edge, 8)
      expect(clopperPearson(n, n)[0]).toBeCloseTo(1 - edge, 8)
      expect(clopperPearson(n, n)[1]).toBe(1)
    }
    expect(shareOf(0, 0)).toBeNull()
  })
})

describe('what has changed since a record', () => {
  test('nothing: nothing', () => {
    expect(changesSince(someRecord(), someRecord())).toEqual([])
  })

  const changed = (change: Parameters<typeof someRecord>[0]): string[] =>
    changesSince(someRecord(), someRecord(change)).map(
      (c) =>
        `${c.area}|${c.where ?? ''}|${c.name ?? ''}|${c.change}|${c.settings
          .map((s) => `${s.setting}: ${s.before} > ${s.after}`)
          .join('; ')}`
    )

  const pier = (r: Record<string, any>) => r.site.cameras[0]

  test.each<[string, Parameters<typeof someRecord>[0], string[]]>([
    [
      'a setting of a detection',
      (r) => (pier(r).detections[0].detection.direction = 'both'),
      ['camera|Pier|Edge, “inner”|changed|direction: from left to right > either direction']
    ],
    [
      'a shape that has as many vertices',
      (r) => (pier(r).detections[0].detection.line[1] = [0.9, 0.6]),
      ['camera|Pier|Edge, “inner”|changed|shape: 2 vertices > changed']
    ],
    ['a detection that is gone', (r) => pier(r).detections.pop(), ['camera|Pier|=Shed|deleted|']],
    [
      'a camera that was added',
      (r) => r.site.cameras.push({ ...r.site.cameras[1], id: 'new', name: 'New' }),
      ['camera|New||added|']
    ],
    [
      'hours',
      (r) => (r.site.schedules[0].week.mon = [['01:00', '06:30']]),
      ['schedule||Nights|changed|week: set > changed']
    ],
    [
      'an action, whose test counts no more',
      (r) => {
        r.site.endpoints[0].port = 7701
        r.endpoints[0].testedAt = null
      },
      ['action||Northwatch|changed|Port: 7700 > 7701']
    ],
    [
      'a test that failed',
      (r) => (r.endpoints[0].error = 'no answer'),
      ['action||Northwatch|changed|test: passed > failed']
    ],
    [
      'a person’s address',
      (r) => (r.site.people.people[0].email = 'ada@example.org'),
      ['people||Ada Flett|changed|e-mail: none > ada@example.org']
    ],
    [
      'firmware',
      (r) => (r.devices[0].firmware = '2.5'),
      ['device|Pier camera||changed|firmware: 2.4.1 > 2.5']
    ],
    [
      'an account that somebody added on the device',
      (r) => r.devices[0].accounts.push('guest'),
      ['device|Pier camera||changed|accounts: admin > admin and guest']
    ],
    [
      'a device that did not say its accounts: no change',
      (r) => (r.devices[0].accounts = null),
      []
    ],
    [
      'a rule that somebody changed on the device',
      (r) => {
        r.devices[0].channels[0].rules[0].simple.Direction = 'Any'
        r.devices[0].channels[0].holdings[0].state = 'drifted'
      },
      ['device|Pier camera|Edge, “inner”, on the device|changed|Direction: Right > Any']
    ],
    [
      'a detection that was sent: the plan tells it, the device no second time',
      (r) => {
        pier(r).detections[1].detection.dwellSeconds = 6
        r.devices[0].channels[0].rules.push({
          name: 'shed',
          type: 'tt:FieldDetector',
          simple: {},
          points: []
        })
        r.devices[0].channels[0].holdings[1].state = 'same'
      },
      ['camera|Pier|=Shed|changed|dwell: 4 s > 6 s']
    ],
    [
      'a check that fails now',
      (r) => (r.checks[0].result.passed = false),
      ['check|Pier|From Water to Land|changed|result: passed > failed']
    ],
    [
      'an address',
      (r) => (r.devices[0].address = 'http://192.0.2.8'),
      ['device|Pier camera||changed|address: http://192.0.2.7 > http://192.0.2.8']
    ]
  ])('%s', (_, change, expected) => {
    expect(changed(change)).toEqual(expected)
  })

  test('a simulator’s other port is no change', () => {
    const at = (port: number) =>
      someRecord((r) => (r.devices[0].address = `http://127.0.0.1:${port}`))
    expect(changesSince(at(40001), at(40002))).toEqual([])
  })
})

describe('tables', () => {
  test('causes and effects: a cross where a detection runs an action', () => {
    expect(causesAndEffects(someRecord().site)).toEqual({
      columns: ['camera', 'detection', 'Northwatch', 'E-mail to duty'],
      rows: [
        ['Pier', 'Edge, “inner”', 'x', 'x'],
        ['Pier', '=Shed', '', 'x']
      ]
    })
  })

  test('the station learns codes, zones and meanings as events name them', () => {
    const { rows } = stationList(someRecord().site)
    // BA: burglary alarm (SIA DC-03, from memory); the zone is the camera’s number.
    expect(rows).toHaveLength(1)
    expect(rows[0]!.slice(0, 8)).toEqual([
      '5A31',
      '01',
      'BA',
      'Pier',
      'Edge, “inner”',
      'Line crossing',
      'major',
      'Nights'
    ])
    expect(rows[0]![8]).toContain('A person crosses Edge')
  })

  test('CSV: quotes, and no formula for a spreadsheet', () => {
    const csv = csvOf({ columns: ['a', 'b'], rows: [['=1+1', 'x, "y"']] })
    expect(csv).toBe('\uFEFFa,b\r\n\'=1+1,"x, ""y"""\r\n')
  })

  test('settings of actions are said in words', () => {
    const { site } = someRecord()
    expect(
      endpointSettings(site.endpoints[0]!, site).map((s) => `${s.setting}: ${s.value}`)
    ).toEqual([
      'Server: station.example',
      'Port: 7700',
      'Account: 5A31',
      'Lowest severity accepted: minor',
      'Heartbeat: 60 s'
    ])
    expect(endpointSettings(site.endpoints[1]!, site)).toContainEqual({
      setting: 'People',
      value: 'Ada Flett'
    })
  })
})

test('JUnit: cases, failures and what was not run; any text (a general XML parser)', () => {
  const parsed = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '',
    isArray: (name) => name === 'testcase' || name === 'testsuite'
  }).parse(junitOf(someRecord()))
  const [pier, yard] = parsed.testsuites.testsuite
  expect(pier).toMatchObject({ name: 'Pier', tests: '4', failures: '1', skipped: '2', errors: '0' })
  expect(yard).toMatchObject({ name: 'Yard', tests: '0' })
  expect(pier.testcase.map((c: any) => [c.name, 'failure' in c, 'skipped' in c])).toEqual([
    ['From Water to Land', false, false],
    ['A dog does not trigger', true, false],
    ['In snow <& "wind">', false, true],
    ['Walked at night', false, true]
  ])
})

// Source: Extensible Markup Language (XML) 1.0, 2.2, production Char.
test('JUnit: what XML cannot hold at all becomes a space, and what it can stays', () => {
  const isChar = (c: number): boolean =>
    [0x9, 0xa, 0xd].includes(c) ||
    (c >= 0x20 && c <= 0xd7ff) ||
    (c >= 0xe000 && c <= 0xfffd) ||
    c >= 0x10000
  const nameOf = (text: string): string =>
    /<testcase [^>]* name="([^"]*)"/.exec(
      junitOf(someRecord((record) => (record.checks[0].name = text)))
    )![1]!
  for (const c of [
    0, 8, 9, 0xa, 0xb, 0xd, 0x1f, 0x7f, 0xd7ff, 0xd800, 0xdfff, 0xe000, 0xfffe, 0x1f98a
  ]) {
    const [char, kept] = [String.fromCodePoint(c), c === 0xa ? '&#10;' : String.fromCodePoint(c)]
    expect([c, nameOf(`A${char}B`)]).toEqual([c, isChar(c) ? `A${kept}B` : 'A B'])
  }
})

describe('issues', () => {
  const finding = (code: string, severity: 'blocking' | 'hint') =>
    ({
      code,
      severity,
      step: 'sent',
      camera: 'pier',
      device: null,
      detection: null,
      sentence: { code: 'values.none' },
      fix: null
    }) as any

  test('hints stand in nobody’s way; what is accepted does not either', () => {
    const [a, b, c] = [finding('a', 'blocking'), finding('b', 'blocking'), finding('c', 'hint')]
    const accepted = { key: 'b|pier||||', sentence: 'B', reason: 'Agreed', by: 'Ada', at: 1 }
    const found = standingOf([a, b, c], [accepted])
    expect([found.open, found.accepted.map((x) => x.finding), found.hints]).toEqual([[a], [b], [c]])
  })
})

describe('a record’s files', () => {
  const signature = (digest: string): Signature => ({
    name: 'Ina Marwick',
    role: 'client',
    at: 1,
    digest,
    strokes: [[[0.1, 0.5], [0.9, 0.5]]] // prettier-ignore
  })

  function filesOf(signed: string | null = null): Map<string, Uint8Array> {
    const picture = bytes('a picture')
    const record = someRecord((r) => {
      r.cameras[0].picture = { file: 'pictures/pier.jpg', sha256: digestOf(picture), at: null }
    })
    const files = new Map([
      [RECORD, bytesOf(record)],
      ['pictures/pier.jpg', picture],
      ['station.csv', bytes('account,zone\r\n')]
    ])
    if (signed !== null)
      files.set(
        SIGNATURES,
        bytes(canonical([signature(signed === 'own' ? digestOfRecord(record) : signed)]))
      )
    return files.set(MANIFEST, manifestOf(record, files))
  }
  const wrongs = (files: Map<string, Uint8Array>): string[] => verify(files).wrong.map(wordsOf)

  test('hold as they are, signed or not', () => {
    expect(verify(filesOf())).toMatchObject({ number: 3, wrong: [], files: 4 })
    expect(wrongs(filesOf('own'))).toEqual([])
  })

  test('one changed byte in any file is found', () => {
    const names = [...filesOf('own').keys()]
    fc.assert(
      fc.property(
        fc.constantFrom(...names),
        fc.nat(),
        fc.integer({ min: 1, max: 255 }),
        (name, place, flip) => {
          const files = filesOf('own')
          const data = new Uint8Array(files.get(name)!)
          data[place % data.length]! ^= flip
          files.set(name, data)
          expect(wrongs(files)).not.toEqual([])
        }
      ),
      { numRuns: 300 }
    )
  })

  test('a blank in the manifest, a missing file, one that was added', () => {
    const blank = filesOf()
    blank.set(MANIFEST, bytes(` ${new TextDecoder().decode(blank.get(MANIFEST))}`))
    expect(wrongs(blank)).toEqual(['manifest.json was changed: its own digest differs'])
    const missing = filesOf()
    missing.delete('station.csv')
    expect(wrongs(missing)).toEqual(['station.csv is missing'])
    const more = filesOf().set('more.txt', bytes('x'))
    expect(wrongs(more)).toEqual(['more.txt is not in the manifest'])
    expect(wrongs(new Map())).toEqual(['manifest.json is missing'])
    expect(wrongs(new Map([[MANIFEST, bytes('{')]]))[0]).toMatch(/^manifest.json cannot be read/)
  })

  test('somebody who makes a new manifest is found by the record, its pictures and its signatures', () => {
    const anew = (files: Map<string, Uint8Array>, record: SiteRecord): string[] => {
      files.delete(MANIFEST)
      return wrongs(files.set(MANIFEST, manifestOf(record, files)))
    }
    const record = JSON.parse(new TextDecoder().decode(filesOf().get(RECORD))) as SiteRecord
    expect(anew(filesOf().set('pictures/pier.jpg', bytes('another')), record)).toEqual([
      'pictures/pier.jpg is not the file that record.json names'
    ])
    const other = { ...record, client: 'Somebody else' }
    expect(anew(filesOf('own').set(RECORD, bytesOf(other)), other)).toEqual([
      'The signature of Ina Marwick is under another digest'
    ])
    const none = filesOf()
    none.delete(RECORD)
    expect(anew(none, record)).toContain('record.json is missing')
  })
})
