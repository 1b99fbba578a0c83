import { said } from '../../messages/said.ts'
import { secondsIn } from './durations.ts'
import { createHash } from 'node:crypto'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { DetectionSchema, ScheduleSchema } from '../plan.ts'
import { readActiveCells, writeActiveCells } from './activeCells.ts'
import { fromStandard, toStandard } from './coordinates.ts'
import { packBits, unpackBits } from './packBits.ts'
import { fromScale, toScale, type RuleAbility } from './rule.ts'
import { differencesOf } from './differences.ts'
import { readRule, ruleXml } from './ruleXml.ts'
import { takeOver } from './takeOver.ts'
import { toRule } from './toRule.ts'
import { envelope, faultBody, faultOf, makeToken, passwordDigest, readMessage } from './soap.ts'
import { MAX_XML, content, readXml, xml, xmlText } from './xml.ts'
import { allCells } from '../../kinds/parts.ts'
import { parseWith } from '../../schema/parse.ts'

const hex = (text: string): Uint8Array =>
  Uint8Array.from(text.split(' '), (byte) => parseInt(byte, 16))

describe('PackBits', () => {
  // Source: Apple TN1023 / TIFF 6.0 (from memory).
  test('the example of the technical note', () => {
    const packed = hex('FE AA 02 80 00 2A FD AA 03 80 00 2A 22 F7 AA')
    const plain = hex('AA AA AA 80 00 2A AA AA AA AA 80 00 2A 22 AA AA AA AA AA AA AA AA AA AA')
    expect(unpackBits(packed, 24)).toEqual(plain)
    expect(packBits(plain)).toEqual(packed)
  })

  test('unpacks any bytes it packs', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 600 }), (bytes) =>
        expect(unpackBits(packBits(bytes), 600)).toEqual(bytes)
      )
    )
    const runs = fc.array(
      fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 1, max: 200 })),
      { maxLength: 20 }
    )
    fc.assert(
      fc.property(runs, (list) => {
        const bytes = Uint8Array.from(list.flatMap(([v, n]) => new Array<number>(n).fill(v)))
        expect(unpackBits(packBits(bytes), 4000)).toEqual(bytes)
      })
    )
  })

  test('refuses truncated data, or more than there are cells', () => {
    expect(() => unpackBits(hex('05 01 02'), 10)).toThrowWords(
      'packed cells: are cut off in the middle'
    )
    expect(() => unpackBits(hex('FE'), 10)).toThrowWords(
      'packed cells: are cut off before the byte'
    )
    expect(() => unpackBits(hex('81 FF'), 50)).toThrowWords('packed cells: hold more than 50 bytes')
  })
})

describe('active cells', () => {
  // Source: ONVIF Analytics Service Specification (from memory); 396 cells are 50 bytes, the last one half used.
  test('no cell and every cell of 22 × 18, as the standard writes them', () => {
    expect(writeActiveCells(new Array<string>(18).fill('0'.repeat(22)))).toBe('zwA=')
    expect(readActiveCells('zwA=', { columns: 22, rows: 18 }).join('')).toBe('0'.repeat(396))
    expect(readActiveCells('0P8A8A==', { columns: 22, rows: 18 })).toEqual(allCells())
    expect(writeActiveCells(allCells())).toBe('0P8A8A==')
  })

  test('reads back any pattern', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 20 }),
        fc.infiniteStream(fc.boolean()),
        (columns, rows, bits) => {
          const cells = Array.from({ length: rows }, () =>
            Array.from({ length: columns }, () => (bits.next().value ? '1' : '0')).join('')
          )
          expect(readActiveCells(writeActiveCells(cells), { columns, rows })).toEqual(cells)
        }
      )
    )
  })

  test('refuses another grid, or text that is not base64', () => {
    expect(() => readActiveCells('zwA=', { columns: 10, rows: 10 })).toThrowWords(
      'more than 13 bytes'
    )
    expect(() => readActiveCells('*', { columns: 10, rows: 10 })).toThrowWords('must be base64')
  })
})

test('converts corners and centre, and back', () => {
  expect(
    [
      [0, 0],
      [1, 1],
      [0.5, 0.5],
      [0.25, 0.75]
    ].map(([x, y]) => toStandard([x!, y!]))
  ).toEqual([
    [-1, 1],
    [1, -1],
    [0, 0],
    [-0.5, -0.5]
  ])
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e4 }), fc.integer({ min: 0, max: 1e4 }), (x, y) =>
      expect(fromStandard(toStandard([x / 1e4, y / 1e4]))).toEqual([x / 1e4, y / 1e4])
    )
  )
})

describe('SOAP', () => {
  // Source: ONVIF Application Programmer's Guide, WS-UsernameToken (from memory).
  test('the digest of the programmer’s guide', () => {
    expect(passwordDigest('LKqI6G/AikKCQrN0zqZFlg==', '2010-09-16T07:50:45Z', 'userpassword')).toBe(
      'tuOSpGlFlIXsozq4HFNeeGeFLEI='
    )
  })

  // Source: OASIS UsernameToken Profile 1.0: Base64(SHA-1(nonce + created + password)), here by Node's own SHA-1.
  test('the digest is that of the published formula, by another SHA-1', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 1, maxLength: 32 }),
        fc.string({ unit: 'grapheme', maxLength: 20 }),
        (nonce, password) => {
          const token = makeToken('admin', password, nonce, 1790000000000)
          const expected = createHash('sha1')
            .update(Buffer.from(nonce))
            .update(token.created)
            .update(password)
            .digest('base64')
          expect(token.digest).toBe(expected)
        }
      )
    )
  })

  test('reads back a message with its token, whatever the content', () => {
    fc.assert(
      fc.property(
        fc
          .string({ unit: 'grapheme', maxLength: 30 })
          .filter((s) => s.trim() === s && [...s].every((c) => c >= ' ' && c < '\ufffe')),
        (name) => {
          const token = makeToken('ad<min>&', 'x', Uint8Array.of(1, 2, 3), 1790000000000)
          const { action, token: read } = readMessage(
            envelope(xml('tds:SetHostname', { a: name }, xml('tds:Name', {}, content(name))), {
              token
            })
          )
          expect(read).toEqual(token)
          expect(action).toMatchObject({ name: 'SetHostname', attributes: { a: name } })
          expect(action.children[0]!.text).toBe(name)
        }
      )
    )
  })

  test('a fault has its codes and reason', () => {
    const fault = faultOf(
      readMessage(envelope(faultBody('Sender', 'ter:NotAuthorized', 'wrong password')))
    )!
    expect([fault.codes, fault.message]).toEqual([
      ['s:Sender', 'ter:NotAuthorized'],
      'wrong password'
    ])
    expect(faultOf(readMessage(envelope(xml('tds:GetUsersResponse'))))).toBeNull()
  })

  // Bytes by Node's own encoders; how each is recognised: XML 1.0, appendix F (from memory).
  test.each([
    ['UTF-8', Buffer.from('<?xml version="1.0"?><a>Höhe €</a>', 'utf8')],
    ['UTF-8 with its mark', Buffer.from('\ufeff<?xml version="1.0"?><a>Höhe €</a>', 'utf8')],
    ['UTF-16 with its mark', Buffer.from('\ufeff<?xml version="1.0"?><a>Höhe €</a>', 'utf16le')],
    [
      'ISO 8859-1, declared',
      Buffer.from(`<?xml version="1.0" encoding='ISO-8859-1'?><a>Höhe</a>`, 'latin1')
    ],
    [
      'an encoding of a name that nobody knows',
      Buffer.from('<?xml version="1.0" encoding="x-own"?><a>Höhe €</a>', 'utf8')
    ]
  ])('reads %s', (_, bytes) => {
    expect(readXml(xmlText(bytes)).text).toMatch(/^Höhe( €)?$/)
  })

  test('reads numeric and named character references', () => {
    expect(readXml('<a b="&quot;&#233;">&lt;&#xe9;&amp;</a>')).toMatchObject({
      attributes: { b: '"é' },
      text: '<é&'
    })
  })

  test.each([
    ['<a><b></a>', 'is not well-formed XML'],
    ['<s:Envelope xmlns:s="x"><s:Body><a>', 'is not well-formed XML'],
    [
      '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><x>&b;</x>',
      'declares a document type'
    ],
    ['<!DOCTYPE x SYSTEM "file:///etc/passwd"><x/>', 'declares a document type'],
    ['Not Found', 'is not well-formed XML'],
    ['<html/>', 'is no SOAP envelope; its root is html'],
    [`<a>${'x'.repeat(MAX_XML)}</a>`, 'is larger than 2 MB']
  ])('text %# is refused', (text, message) => expect(() => readMessage(text)).toThrowWords(message))
})

const able = (type: string, more: Partial<RuleAbility> = {}): RuleAbility => ({
  type,
  most: 4,
  parameters: [
    'Sensitivity',
    'ClassFilter',
    'TimeThreshold',
    'ConfirmTime',
    'MinCount',
    'AlarmOnDelay',
    'AlarmOffDelay',
    'DelayTime'
  ],
  ranges: { Sensitivity: { min: 1, max: 100 } },
  ...more
})
const make = (d: object) => parseWith(DetectionSchema, { id: 'edge', name: 'Edge', ...d })
const line = make({
  kind: 'line',
  line: [
    [0.1, 0.5],
    [0.9, 0.25]
  ],
  direction: 'leftToRight',
  classes: ['person', 'cycle'],
  sensitivity: 60
})

describe('detections as device rules', () => {
  test('a line: its polyline in the standard’s coordinates, direction, classes', () => {
    const { rule, losses } = toRule(line, [able('tt:LineDetector')])!
    expect(losses).toEqual([])
    expect(rule).toEqual({
      name: 'edge',
      type: 'tt:LineDetector',
      points: [
        [-0.8, 0],
        [0.8, 0.5]
      ],
      simple: { Sensitivity: '60', ClassFilter: 'Human Bicycle', Direction: 'Right' }
    })
    expect(
      readRule(readXml(ruleXml(rule).replace('<tan:Rule', '<tan:Rule xmlns:tan="a" xmlns:tt="b"')))
    ).toEqual(rule)
  })

  test('of what is frozen each is translated once; other abilities or hours are others', () => {
    const d = Object.freeze({ ...line, schedule: 'nights' })
    const abilities = Object.freeze([able('tt:LineDetector', { parameters: ['Hours'] })])
    const hours = (from: string) => [
      Object.freeze(
        parseWith(ScheduleSchema, {
          id: 'nights',
          name: 'Nights',
          week: { mon: [[from, '24:00']] }
        })
      )
    ]
    const early = hours('18:00')
    const once = toRule(d, abilities, early)
    expect(toRule(d, abilities, early)).toBe(once)
    for (const schedules of [early, hours('20:00'), []])
      for (const other of [abilities, Object.freeze([able('tt:LineDetector')]), Object.freeze([])])
        expect(toRule(d, other, schedules)).toEqual(toRule({ ...d }, [...other], schedules))
    expect(toRule(d, abilities, hours('20:00'))).not.toEqual(once)
    // What can change is translated each time.
    const changing = { ...line }
    expect(toRule(changing, abilities)!.rule.name).toBe('edge')
    changing.id = 'gate'
    expect(toRule(changing, abilities)!.rule.name).toBe('gate')
  })

  // Sensitivity scales of 1 to 100 and of 1 to 4 are both common. Common practice, no source.
  test('maps to a scale of 1 to 4, and reports the nearest value as a loss', () => {
    const range = { min: 1, max: 4 }
    expect([1, 17, 18, 50, 67, 100].map((s) => toScale(s, range))).toEqual([1, 1, 2, 2, 3, 4])
    for (const step of [1, 2, 3, 4]) expect(toScale(fromScale(step, range), range)).toBe(step)
    const { rule, losses } = toRule(line, [
      able('tt:LineDetector', { ranges: { Sensitivity: range } })
    ])!
    expect(rule.simple.Sensitivity).toBe('3')
    expect(losses).toEqual([
      { setting: 'sensitivity', wanted: '60', nearest: '67 (step 3 of 1 to 4)' }
    ])
  })

  test('reports a dwell above the limit, unknown classes and several together', () => {
    const zone = make({
      kind: 'intrusion',
      zone: [
        [0, 0],
        [1, 0],
        [1, 1]
      ],
      dwellSeconds: 12,
      classes: ['person'],
      atLeast: 2
    })
    const { rule, losses } = toRule(zone, [
      able('tt:FieldDetector', {
        parameters: ['TimeThreshold'],
        ranges: { TimeThreshold: { min: 0, max: 10 } }
      })
    ])!
    expect(losses).toEqual([
      { setting: 'classes', wanted: 'person', nearest: 'every class' },
      { setting: 'dwell', wanted: '12 s', nearest: '10 s' },
      { setting: 'together', wanted: '2', nearest: '1' }
    ])
    expect(rule.simple).toEqual({ TimeThreshold: 'PT10S' })
  })

  test('translates motion and tamper, and refuses a kind the device lacks', () => {
    const motion = toRule(make({ kind: 'motion', cells: allCells(), threshold: 2 }), [
      able('tt:CellMotionDetector')
    ])!
    expect(motion.rule.simple).toEqual({
      Sensitivity: '50',
      MinCount: '8',
      AlarmOnDelay: '200',
      AlarmOffDelay: '1000',
      ActiveCells: '0P8A8A=='
    })
    expect(toRule(make({ kind: 'tamper' }), [able('tt:TamperDetector')])!.rule.simple).toEqual({
      Sensitivity: '50',
      DelayTime: 'PT3S'
    })
    expect(toRule(line, [able('tt:FieldDetector')])).toBeNull()
    expect(toRule(make({ kind: 'face' }), [able('tt:LineDetector')])).toBeNull()
  })

  test('lists differences by setting, and none for other spellings', () => {
    const { rule } = toRule(line, [able('tt:LineDetector')])!
    expect(differencesOf(rule, rule)).toEqual([])
    expect(
      differencesOf(
        { ...rule, simple: { DwellTime: 'PT5S' } },
        { ...rule, simple: { DwellTime: 'PT5.0S' } }
      )
    ).toEqual([])
    const held = {
      ...rule,
      simple: { ...rule.simple, Sensitivity: '80', ClassFilter: 'Human' },
      points: [
        [-0.8, 0],
        [0.8, 0.6]
      ] as [number, number][]
    }
    expect(differencesOf(rule, held)).toEqual([
      { setting: 'sensitivity', plan: '60', device: '80' },
      { setting: 'classes', plan: 'Human Bicycle', device: 'Human' },
      { setting: 'shape', plan: '2 vertices', device: 'as many, in other places' }
    ])
  })

  test('leaves no difference after importing from the device', () => {
    const kinds = [
      line,
      make({
        kind: 'intrusion',
        zone: [
          [0.1, 0.1],
          [0.9, 0.1],
          [0.5, 0.9]
        ],
        dwellSeconds: 4
      }),
      make({
        kind: 'loitering',
        zone: [
          [0.1, 0.1],
          [0.9, 0.1],
          [0.5, 0.9]
        ],
        dwellSeconds: 30
      }),
      make({ kind: 'motion' }),
      make({ kind: 'tamper' })
    ]
    const types = [
      'tt:LineDetector',
      'tt:FieldDetector',
      'tt:LoiteringDetector',
      'tt:CellMotionDetector',
      'tt:TamperDetector'
    ]
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds.map((d, i) => [d, types[i]] as const)),
        fc.integer({ min: 1, max: 4 }),
        fc.constantFrom(4, 100),
        ([d, type], step, max) => {
          const abilities = [able(type!, { ranges: { Sensitivity: { min: 1, max } } })]
          const { rule } = toRule(d, abilities)!
          const held = {
            ...rule,
            simple: {
              ...rule.simple,
              Sensitivity: String(step),
              ...(rule.simple.TimeThreshold && { TimeThreshold: 'PT9S' }),
              ...(rule.simple.DelayTime && { DelayTime: 'PT7S' })
            },
            points: rule.points.map(([x, y]) => [x * 0.9, y * 0.9] as [number, number])
          }
          const taken = parseWith(DetectionSchema, takeOver(d, held, abilities))
          expect(differencesOf(toRule(taken, abilities)!.rule, held)).toEqual([])
        }
      )
    )
  })

  test('refuses rules without a name or with an invalid vertex', () => {
    expect(() => readRule(readXml('<Rule Name="x"/>'))).toThrowWords('has no name or no type')
    expect(() =>
      readRule(
        readXml(
          '<Rule Name="x" Type="tt:LineDetector"><Parameters><ElementItem Name="Segments"><Polyline><Point x="a" y="0"/></Polyline></ElementItem></Parameters></Rule>'
        )
      )
    ).toThrowWords('rule x: has a vertex at a, 0')
  })
})

describe('durations', () => {
  // Source: W3C XML Schema 1.1, part 2, duration (from memory).
  test.each([
    ['PT5S', 5],
    ['PT0.5S', 0.5],
    ['PT1M30S', 90],
    ['PT1H', 3600],
    ['PT1H2M3.5S', 3723.5],
    [' PT5S ', 5]
  ])('%s is %d seconds', (text, seconds) => expect(secondsIn(text)).toBe(seconds))
  test('a plain number is taken for seconds', () => expect(secondsIn('12')).toBe(12))
  test.each(['', 'PT', 'P1D', 'PT-1S', 'PTS', 'PT1S1M', '5 s', 'soon'])('“%s” is none', (text) =>
    expect(secondsIn(text)).toBeNull()
  )
  test('a device may write minutes where seconds were sent', () => {
    const rule = { name: 'a', type: 'tt:LoiteringDetector', points: [] }
    const held = (TimeThreshold: string) => ({ ...rule, simple: { TimeThreshold } })
    expect(differencesOf(held('PT90S'), held('PT1M30S'))).toEqual([])
    expect(differencesOf(held('PT90S'), held('PT1M'))).toMatchObject([
      { plan: said('values.seconds', 90), device: said('values.seconds', 60) }
    ])
  })
})
