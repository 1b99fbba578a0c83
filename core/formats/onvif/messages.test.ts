import { describe, expect, test } from '@jest/globals'
import { XMLParser } from 'fast-xml-parser'
import fc from 'fast-check'
import { WEEKDAYS } from '../plan.ts'
import { probe, probeId, probeMatches, readProbeMatches } from './discovery.ts'
import { authorization, digestOf, readChallenge, whoAnswers, type Challenge } from './httpDigest.ts'
import { isAlways, readHours, writeHours, type Hours } from './hours.ts'
import { metadataXml, readMetadata, readWholeMetadata } from './metadata.ts'

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  removeNSPrefix: true
})
const frame = {
  at: Date.UTC(2026, 2, 3, 6, 12, 0, 400),
  targets: [
    { id: 7, class: 'person', x: 0.25, y: 0.5, w: 0.1, h: 0.25 },
    { id: 8, class: 'unknown', x: 0, y: 0, w: 1, h: 1 }
  ]
}

describe('metadata frames', () => {
  // Source of the coordinates: ONVIF Analytics Service Specification, −1 to 1 with y upwards (from
  // memory); read here by a general parser.
  test('reads boxes as the standard writes them', () => {
    const {
      MetadataStream: {
        VideoAnalytics: { Frame }
      }
    } = parser.parse(metadataXml(frame))
    expect(Frame.UtcTime).toBe('2026-03-03T06:12:00.400Z')
    expect(Frame.Object.map((o: any) => [o.ObjectId, o.Appearance.Shape.BoundingBox])).toEqual([
      ['7', { left: '-0.5', right: '-0.3', top: '0', bottom: '-0.5' }],
      ['8', { left: '-1', right: '1', top: '1', bottom: '-1' }]
    ])
    expect(Frame.Object[0].Appearance.Class.Type).toMatchObject({ '#text': 'Human' })
  })

  test('reads back what it writes', () => {
    const back = readMetadata(metadataXml(frame))
    expect(back).toMatchObject({
      at: frame.at,
      targets: [
        { id: 7, class: 'person' },
        { id: 8, class: 'unknown' }
      ]
    })
    back.targets.forEach(({ x, y, w, h }, i) =>
      [x, y, w, h].forEach((value, k) =>
        expect(value).toBeCloseTo(
          [frame.targets[i]!.x, frame.targets[i]!.y, frame.targets[i]!.w, frame.targets[i]!.h][k]!,
          4
        )
      )
    )
  })

  test.each([
    `<a:MetadataStream xmlns:a="u"><a:VideoAnalytics><a:Frame Source='1' UtcTime='2026-03-03T06:12:00Z'/></a:VideoAnalytics></a:MetadataStream>`,
    '<MetadataStream><VideoAnalytics><Frame\n UtcTime = "2026-03-03T06:12:00Z" Source="1">\n</Frame></VideoAnalytics></MetadataStream>',
    '<MetadataStream><!-- <Object/> --><VideoAnalytics><Frame UtcTime="2026-03-03T06:12:00Z"/></VideoAnalytics></MetadataStream>',
    '<MetadataStream><VideoAnalytics><Frame UtcTime="2026-03-03T06:12:00&#90;"/></VideoAnalytics></MetadataStream>',
    '<MetadataStream><VideoAnalytics><Frame UtcTime="2026-03-03T06:12:00Z"><Object ObjectId="1"/><ObjectTree/></Frame></VideoAnalytics></MetadataStream>'
  ])('reads a frame without targets, however it is written (%#)', (text) => {
    expect(readMetadata(text)).toEqual({ at: Date.UTC(2026, 2, 3, 6, 12), targets: [] })
  })

  test('however it is spelled, it reads as a reader of all of XML does', () => {
    const share = fc.integer({ min: 0, max: 1000 }).map((n) => n / 1000)
    const targets = fc.array(
      fc.record({
        id: fc.integer({ min: 0, max: 99999 }),
        class: fc.constantFrom('person', 'vehicle', 'cycle', 'animal', 'unknown'),
        x: share,
        y: share,
        w: share,
        h: share,
        likelihood: share
      }),
      { maxLength: 4 }
    )
    const spelling = fc.record({
      prefix: fc.constantFrom('tt:', '', 'n1:'),
      quote: fc.constantFrom('"', "'"),
      gap: fc.constantFrom('', '\n  ', ' '),
      space: fc.constantFrom(' ', '\n', '  '),
      also: fc.constantFrom(
        '',
        '<!-- <tt:Object ObjectId="9"/> -->',
        '<tt:Transformation><tt:Scale x="2" y="2"/></tt:Transformation>',
        '<tt:Object ObjectId="5"/>',
        '<tt:ObjectTree><tt:Delete ObjectId="3"/></tt:ObjectTree>',
        '<tt:Object ObjectId="6"><tt:Behaviour><tt:Idle/></tt:Behaviour></tt:Object>',
        '<tt:Object ObjectId="7"><tt:Appearance><tt:Class><tt:ClassCandidate><tt:Type>Human</tt:Type></tt:ClassCandidate></tt:Class></tt:Appearance></tt:Object>',
        '<tt:Object ObjectId="8"><tt:Appearance><tt:Shape><tt:BoundingBox left="-0.5" right="0.5" top="0.5" bottom="0"/><tt:CenterOfGravity x="0" y="0"/></tt:Shape><tt:Class><tt:Type>Vehicle</tt:Type></tt:Class></tt:Appearance></tt:Object>',
        '<tt:Object ObjectId="4"><tt:Appearance><tt:Shape><tt:BoundingBox left="a" right="0.5" top="0.5" bottom="0"/></tt:Shape></tt:Appearance></tt:Object>'
      ),
      extra: fc.constantFrom('', ' Parent="1"', ' a:b="c"')
    })
    fc.assert(
      fc.property(targets, spelling, (of, { prefix, quote, gap, space, also, extra }) => {
        const text = metadataXml({ at: frame.at, targets: of })
          .replace('</tt:Frame>', `${also}</tt:Frame>`)
          .replaceAll('ObjectId=', `ObjectId${space}=`)
          .replaceAll('<tt:Object ', `<tt:Object${extra}${space}`)
          .replaceAll('><', `>${gap}<`)
          .replaceAll('tt:', prefix)
          .replaceAll('"', quote)
          .replace(
            `xmlns:${prefix.slice(0, -1)}`,
            prefix ? `xmlns:${prefix.slice(0, -1)}` : 'xmlns'
          )
        let whole
        try {
          whole = readWholeMetadata(text)
        } catch {
          return
        }
        expect(readMetadata(text)).toEqual(whole)
      }),
      { numRuns: 600 }
    )
  })

  test('refuses a missing frame or time, and a box without a side', () => {
    expect(() => readMetadata('<a/>')).toThrowWords('the metadata: has no frame with a time')
    expect(() =>
      readMetadata(metadataXml(frame).replace(/UtcTime="[^"]*"/, 'UtcTime="soon"'))
    ).toThrowWords('has no frame with a time')
    expect(readMetadata(metadataXml(frame).replace('left="-0.5"', '')).targets).toHaveLength(1)
  })
})

describe('finding devices', () => {
  const match = { address: 'http://192.168.1.20:8080', name: 'Gate & yard', hardware: 'HO 40' }

  // Source: WS-Discovery 2005/04 (from memory); read here by a general parser.
  test('a probe names what it looks for, and the answer refers to it', () => {
    const asked = parser.parse(probe('11111111-2222-4333-8444-555555555555')).Envelope
    expect(asked.Header).toMatchObject({
      Action: 'http://schemas.xmlsoap.org/ws/2005/04/discovery/Probe',
      MessageID: 'urn:uuid:11111111-2222-4333-8444-555555555555'
    })
    expect(asked.Body.Probe.Types).toMatch(/:NetworkVideoTransmitter$/)
    const answer = probeMatches(match, 'a', probeId(probe('b'))!)
    expect(parser.parse(answer).Envelope).toMatchObject({
      Header: { RelatesTo: 'urn:uuid:b' },
      Body: {
        ProbeMatches: {
          ProbeMatch: {
            XAddrs: 'http://192.168.1.20:8080/onvif/device_service',
            Scopes: expect.saying('onvif://www.onvif.org/name/Gate%20%26%20yard')
          }
        }
      }
    })
    expect(readProbeMatches(answer)).toEqual([match])
  })

  test('ignores other messages', () => {
    for (const odd of [
      '',
      '<a',
      '<a/>',
      'M-SEARCH * HTTP/1.1',
      probe('x').replace('NetworkVideoTransmitter', 'Printer')
    ])
      expect(probeId(odd)).toBeNull()
    for (const odd of [
      '',
      '<a',
      '<a/>',
      probe('x'),
      probeMatches({ ...match, address: 'ftp://192.168.1.20' }, 'a', 'b')
    ])
      expect(readProbeMatches(odd)).toEqual([])
    expect(
      readProbeMatches(probeMatches(match, 'a', 'b').replace('Gate%20', 'Gate%'))
    ).toMatchObject([{ address: match.address }])
  })
})

describe('a schedule as one item', () => {
  const minutes = (n: number): string =>
    `${String(Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}`
  const day = fc
    .uniqueArray(fc.integer({ min: 0, max: 1440 }), { maxLength: 6 })
    .map((ends) => ends.sort((a, b) => a - b))
    .map((ends) =>
      Array.from(
        { length: Math.floor(ends.length / 2) },
        (_, i) => [minutes(ends[2 * i]!), minutes(ends[2 * i + 1]!)] as const
      )
    )
  const week = fc
    .tuple(day, day, day, day, day, day, day)
    .map(
      (days) => Object.fromEntries(WEEKDAYS.map((name, i) => [name, days[i]])) as unknown as Hours
    )

  test('reads back any week', () => {
    fc.assert(fc.property(week, (hours) => expect(readHours(writeHours(hours)!)).toEqual(hours)))
  })

  test('refuses to write ends that follow the sun, and to read other text', () => {
    const empty = readHours('')
    expect(writeHours({ ...empty, mon: [['sunset', '24:00']] } as unknown as Hours)).toBeNull()
    for (const odd of ['mon', 'xyz=00:00-01:00', 'mon=0:00-1:00', 'mon=00:00'])
      expect(() => readHours(odd)).toThrowWords('must be such as mon=18:30-24:00')
    expect(
      isAlways({
        id: 'a',
        name: 'A',
        exceptions: [],
        week: Object.fromEntries(WEEKDAYS.map((d) => [d, [['00:00', '24:00']]])) as never
      })
    ).toBe(true)
  })
})

describe('HTTP digest', () => {
  // Source: the worked examples of RFC 2617 (3.5) and RFC 7616 (3.9.1), from memory.
  test.each([
    [
      'RFC 2617',
      'Digest realm="testrealm@host.com", qop="auth,auth-int", nonce="dcd98b7102dd2f0e8b11d0f600bfb0c093", opaque="5ccc069c403ebaf9f0171e9517f40e41"',
      { password: 'Circle Of Life', cnonce: '0a4f113b' },
      '6629fae49393a05397450978507c4ef1'
    ],
    [
      'RFC 7616, MD5',
      'Digest realm="http-auth@example.org", qop="auth, auth-int", algorithm=MD5, nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", opaque="FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS"',
      { password: 'Circle of Life', cnonce: 'f2/wE4q74E6zIJEtWaHKaf5wv/H5QzzpXusqGemxURZJ' },
      '8ca523f5e9506fed4657c9700eebdbec'
    ],
    [
      'RFC 7616, SHA-256',
      'Digest realm="http-auth@example.org", qop="auth, auth-int", algorithm=SHA-256, nonce="7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v", opaque="x"',
      { password: 'Circle of Life', cnonce: 'f2/wE4q74E6zIJEtWaHKaf5wv/H5QzzpXusqGemxURZJ' },
      '753927fa0e85d155564e2e272a28d1802ca10daf4496794697cf8db5856cb6c1'
    ]
  ])('the example of %s', (_, header, more, response) => {
    const challenge = readChallenge(header)!
    const request = { method: 'GET', uri: '/dir/index.html', username: 'Mufasa', count: 1, ...more }
    expect(digestOf(challenge, request)).toBe(response)
    expect(authorization(challenge, request)).toContain(
      `response="${response}", qop=auth, nc=00000001`
    )
  })

  test('takes the strongest challenge it can answer', () => {
    expect(readChallenge('Basic realm="a"')).toBeNull()
    expect(readChallenge('Digest realm="a", nonce="n", algorithm=SHA-512-256')).toBeNull()
    expect(readChallenge('Digest realm="a", nonce="n", qop="auth-int"')).toBeNull()
    expect(readChallenge('Basic realm="a", Digest realm="b, c", nonce="n"')).toEqual({
      realm: 'b, c',
      nonce: 'n',
      algorithm: 'MD5',
      qop: false,
      opaque: null
    })
    expect(
      readChallenge(
        'Digest realm="a", nonce="n", algorithm=MD5, Digest realm="a", nonce="m", algorithm=SHA-256'
      )
    ).toMatchObject({ nonce: 'm', algorithm: 'SHA-256' })
  })

  test('accepts its own answer, and refuses a wrong password, another nonce or none', () => {
    const challenge: Challenge = {
      realm: 'The "camera"',
      nonce: 'n',
      algorithm: 'MD5',
      qop: true,
      opaque: null
    }
    const request = {
      method: 'GET',
      uri: '/snapshot/a?b=c',
      username: 'ad"min',
      password: 'geheim-ä',
      cnonce: 'c',
      count: 1
    }
    const who = (header: string | undefined, now = challenge) =>
      whoAnswers(now, 'GET', header, (name) => (name === 'ad"min' ? 'geheim-ä' : undefined))
    expect(who(authorization(challenge, request))).toBe('ad"min')
    expect(who(authorization(challenge, { ...request, password: 'other' }))).toBeNull()
    expect(who(authorization(challenge, { ...request, username: 'root' }))).toBeNull()
    expect(who(authorization(challenge, request), { ...challenge, nonce: 'later' })).toBeNull()
    expect([who(undefined), who('Basic abc')]).toEqual([null, null])
  })
})
