import { describe, expect, test } from '@jest/globals'
import { DetectionSchema } from '../formats/plan.ts'
import { emailOf, pathOf } from './email.ts'
import { parseWith } from '../schema/parse.ts'

const detection = parseWith(DetectionSchema, {
  id: 'e',
  name: 'Quay edge',
  kind: 'line',
  line: [
    [0, 0.5],
    [1, 0.5]
  ],
  sides: { left: 'Water', right: 'Land' }
})

describe('the mail of a trigger', () => {
  test('names camera, line, direction by the sides’ names, and the site’s time', () => {
    const { subject, text } = emailOf({
      site: { name: 'Skerrow Landing', timeZone: 'Europe/London' },
      camera: 'Slipway',
      detection,
      trigger: { target: 5, time: 39.1, direction: 'rightToLeft' },
      cls: 'person',
      instant: Date.parse('2026-07-03T21:04:05Z'),
      pictures: 1,
      missing: null
    })
    expect(subject).toBe('Slipway: Person crossed Quay edge, Land → Water')
    expect(text.split('\n')).toEqual(
      expect.arrayContaining([
        'Site: Skerrow Landing',
        'Camera: Slipway',
        'Line: Quay edge',
        'Direction: Land → Water',
        'Time at the site: 3 Jul 2026, 22:04:05 (Europe/London)',
        'Target: person 5',
        'Time in the clip: 39.1 s'
      ])
    )
  })

  test('calls unnamed sides left and right, and an unclassified target a target', () => {
    const plain = parseWith(DetectionSchema, {
      id: 'e',
      name: 'E',
      kind: 'line',
      line: [
        [0, 0.5],
        [1, 0.5]
      ]
    })
    expect(pathOf(plain, 'leftToRight')).toEqual('left → right')
    expect(pathOf(plain, undefined)).toBeNull()
    expect(
      emailOf({
        site: { name: 'S', timeZone: 'UTC' },
        camera: 'C',
        detection: plain,
        trigger: { target: 1, time: 0, direction: 'leftToRight' },
        cls: 'unknown',
        instant: 0,
        pictures: 0,
        missing: 'the camera is silent'
      }).subject
    ).toBe('C: Target crossed E, left → right')
  })

  test.each<[object, Parameters<typeof emailOf>[0]['trigger'] | object, string, string[]]>([
    [
      { kind: 'tamper', severity: 'critical' },
      { cause: 'outOfFocus', severity: 'critical' },
      'C: X: camera out of focus',
      ['Severity: critical']
    ],
    [{ kind: 'signalLoss' }, {}, 'C: X: video loss', []],
    [{ kind: 'contact', input: 'door' }, {}, 'C: X: contact active', []],
    [{ kind: 'motion' }, {}, 'C: X: motion', []],
    [{ kind: 'classMotion' }, { target: 4 }, 'C: X: person', ['Target: person 4']],
    [{ kind: 'face' }, { target: 2 }, 'C: X: person', ['Target: person 2']]
  ])(
    '%j: says what happened, and names a target only where there is one',
    (kind, trigger, subject, lines) => {
      const mail = emailOf({
        site: { name: 'S', timeZone: 'UTC' },
        camera: 'C',
        detection: parseWith(DetectionSchema, { id: 'x', name: 'X', ...kind }),
        trigger: { time: 3, ...trigger },
        cls: 'person',
        instant: 0,
        pictures: 3,
        missing: null
      })
      expect(mail.subject).toBe(subject)
      const said = mail.text.split('\n')
      expect(said).toEqual(expect.arrayContaining(lines))
      expect(said.some((line) => line.startsWith('Target:'))).toBe('target' in trigger)
    }
  )
})
