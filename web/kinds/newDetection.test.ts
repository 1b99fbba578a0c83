import { describe, expect, test } from '@jest/globals'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { UNDRAWN_KINDS, newDetection } from './newDetection.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { railWords } from '../../core/kinds/names.ts'

const inputs = [{ id: 'door', name: 'Waiting room door' }]

describe('a new detection of a kind without a shape', () => {
  test.each(UNDRAWN_KINDS)('%s: is valid and has a free name', (kind) => {
    const first = newDetection(kind, [], inputs)
    expect(parseWith(DetectionSchema, first)).toEqual(first)
    const second = newDetection(kind, [{ detection: first }], inputs)
    expect(second.name).toBe(`${first.name} 2`)
    expect(second.id).not.toBe(first.id)
  })
})

describe('describes every kind in a short sentence', () => {
  const zone = [
    [0, 0],
    [1, 0],
    [1, 1]
  ]
  const schedules = [
    {
      id: 'n',
      name: 'Nights',
      week: { mon: [], tue: [], wed: [], thu: [], fri: [], sat: [], sun: [] },
      exceptions: []
    }
  ]
  test.each([
    [
      {
        kind: 'line',
        line: [
          [0, 0],
          [1, 1]
        ],
        sides: { left: 'Water', right: 'Land' },
        direction: 'leftToRight',
        classes: ['person']
      },
      'A person crosses X, Water → Land, half the body'
    ],
    [
      { kind: 'intrusion', zone, dwellSeconds: 6, classes: ['person', 'vehicle'], schedule: 'n' },
      'A person or vehicle is in X for 6 s, half the body, Nights'
    ],
    [
      { kind: 'loitering', zone, dwellSeconds: 30 },
      'Any target lingers in X for 30 s, half the body'
    ],
    [{ kind: 'entry', zone }, 'Any target enters X, half the body'],
    [{ kind: 'exit', zone, sensitivity: 90 }, 'Any target leaves X, a tenth of the body'],
    [{ kind: 'motion', cells: ['01', '11'] }, 'Motion, X: 2% of 3 of 4 cells'],
    [
      { kind: 'classMotion', classes: ['person'], threshold: 1.5 },
      'A person in motion, X: 1.5% of the whole picture'
    ],
    [{ kind: 'tamper', causes: ['dark', 'moved'] }, 'Tamper, X: dark or moved for 3 s'],
    [{ kind: 'signalLoss' }, 'Video loss, X: for 5 s'],
    [{ kind: 'contact', input: 'door', normally: 'closed' }, 'Waiting room door opens, X'],
    [{ kind: 'face', mask: 'without' }, 'Face at X, without a mask']
  ])('%j', (detection, sentence) => {
    const [before, after] = railWords(
      parseWith(DetectionSchema, { id: 'x', name: 'X', ...detection }),
      schedules,
      inputs
    )
    expect(`${before}X${after}`.replace(/\u00a0/g, ' ')).toBe(sentence)
  })
})
