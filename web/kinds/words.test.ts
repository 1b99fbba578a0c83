import { clipTime } from '../../core/messages/format.ts'
import { describe, expect, test } from '@jest/globals'
import { DetectionSchema, type LineDetection } from '../../core/formats/plan.ts'
import { barbsAlong, moved, pointOf } from '../bench/picture/geometry.ts'
import { readSpans, spansText } from '../../core/arming/spansText.ts'
import { bodyWords, letterOf } from '../../core/kinds/words.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { directionWords } from '../../core/kinds/line/words.ts'

const line = (change: object = {}): LineDetection =>
  parseWith(DetectionSchema, {
    id: 'a',
    name: 'A',
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ],
    ...change
  }) as LineDetection

describe('texts', () => {
  test('overlap, directions, letters, moments', () => {
    expect([50, 75, 90, 100, 60, 1].map(bodyWords)).toEqual([
      'half the body',
      'a quarter of the body',
      'a tenth of the body',
      '1% of the body',
      '40% of the body',
      'the whole body'
    ])
    const named = line({ sides: { left: 'Water', right: 'Land' }, direction: 'rightToLeft' })
    expect(directionWords(named)).toBe('Land → Water')
    expect([0, 25, 26, 27].map(letterOf)).toEqual(['A', 'Z', 'AA', 'AB'])
    expect([0, 12.4, 75.96, 0.3].map(clipTime)).toEqual([
      '00:00.0',
      '00:12.4',
      '01:16.0',
      '00:00.3'
    ])
  })

  test('spans as people type them', () => {
    expect(readSpans('6:30 to 18:00, 20:00–24:00; 18:30-19:00')).toEqual([
      ['06:30', '18:00'],
      ['20:00', '24:00'],
      ['18:30', '19:00']
    ])
    expect(readSpans('sunset-00:30 to 24:00')).toEqual([['sunset-00:30', '24:00']])
    expect(readSpans('')).toEqual([])
    expect(readSpans('evening')).toMatch('“evening” is not a time span')
    expect(readSpans('18:30 to 25:00')).toMatch('“25:00” is not a time')
    const spans = [
      ['00:00', '06:30'],
      ['sunset', '24:00']
    ] as [string, string][]
    expect(readSpans(spansText(spans))).toEqual(spans)
  })
})

describe('shapes on the picture', () => {
  test('barbs point to the right of the line: down for one drawn left to right', () => {
    const barbs = barbsAlong(
      [
        [0, 50],
        [100, 50]
      ],
      40
    )
    expect(barbs.map((b) => b.towards)).toEqual([
      [-0, 1],
      [-0, 1]
    ])
    expect(barbs.map((b) => b.at)).toEqual([
      [25, 50],
      [75, 50]
    ])
  })

  test('a shape moved against the edge keeps its form', () => {
    expect(
      moved(
        [
          [0.1, 0.5],
          [0.9, 0.6]
        ],
        0.5,
        -1
      )
    ).toEqual([
      [0.2, 0],
      [1, 0.1]
    ])
    expect(pointOf(-0.2, 1.7)).toEqual([0, 1])
  })
})
