import { describe, expect, test } from '@jest/globals'
import { readFileSync } from 'node:fs'
import { Ajv } from 'ajv'
import { jsonSchemas } from './testing/jsonSchemas.ts'
import { readPlan } from './plan.ts'

/** The example of docs/detections.md, *Files*, whole. */
const example = () => ({
  format: 'wardoptic-plan/1',
  timeZone: 'Europe/London',
  position: { latitude: 59.0, longitude: -3.0 },
  schedules: [
    {
      id: 'nights',
      name: 'Nights',
      week: {
        mon: [
          ['18:30', '24:00'],
          ['00:00', '06:30']
        ],
        tue: [],
        wed: [],
        thu: [],
        fri: [],
        sat: [['00:00', '24:00']],
        sun: [['00:00', '24:00']]
      },
      exceptions: [{ date: '2026-12-25', spans: [['00:00', '24:00']] }]
    }
  ],
  cameras: [
    {
      id: 'slipway',
      name: 'Slipway',
      ignore: [
        [
          [0, 0],
          [0.2, 0],
          [0.2, 0.1]
        ]
      ],
      detections: [
        {
          id: 'edge',
          name: 'Quay edge',
          kind: 'line',
          enabled: true,
          line: [
            [0.1, 0.5],
            [0.9, 0.5]
          ],
          direction: 'leftToRight',
          sides: { left: 'Water', right: 'Land' },
          sensitivity: 50,
          classes: ['person'],
          confirmSeconds: 0.5,
          holdOffSeconds: 0,
          size: { min: { w: 0.01, h: 0.03 }, max: { w: 0.2, h: 0.5 } },
          schedule: 'nights'
        },
        {
          id: 'pontoon',
          name: 'Pontoon',
          kind: 'intrusion',
          enabled: true,
          zone: [
            [0.2, 0.6],
            [0.8, 0.6],
            [0.8, 0.95],
            [0.2, 0.95]
          ],
          sensitivity: 50,
          classes: ['person', 'vehicle'],
          dwellSeconds: 5,
          countFirstSeenInside: true,
          atLeast: 1,
          confirmSeconds: 0,
          holdOffSeconds: 0 // the two that the example leaves to their defaults
        }
      ]
    }
  ]
})

const withDetection = (change: object) => {
  const plan: any = example()
  Object.assign(plan.cameras[0].detections[0], change)
  return JSON.stringify(plan)
}

describe('plan', () => {
  test('reads the specification’s example', () => {
    expect(readPlan(JSON.stringify(example()))).toEqual(example())
  })

  test('fills in defaults', () => {
    const plan = readPlan(
      JSON.stringify({
        format: 'wardoptic-plan/1',
        timeZone: 'UTC',
        cameras: [
          {
            id: 'c',
            name: 'C',
            detections: [
              {
                id: 'a',
                name: 'A',
                kind: 'line',
                line: [
                  [0, 0],
                  [1, 1]
                ]
              }
            ]
          }
        ]
      })
    )
    expect(plan.cameras[0]!.detections[0]).toEqual({
      id: 'a',
      name: 'A',
      kind: 'line',
      line: [
        [0, 0],
        [1, 1]
      ],
      enabled: true,
      sensitivity: 50,
      classes: [],
      confirmSeconds: 0,
      holdOffSeconds: 0,
      direction: 'both'
    })
  })

  test.each([
    [{ line: [[0.1, 0.5]] }, '$.cameras[0].detections[0].line: has 1 vertex; a line needs 2 to 10'],
    [{ line: Array.from({ length: 11 }, (_, i) => [i / 20, 0.5]) }, '.line: has 11 vertices'],
    [
      {
        line: [
          [0.1, 0.5],
          [0.1, 0.5]
        ]
      },
      '.line: has no length between vertices 1 and 2'
    ],
    [
      {
        line: [
          [0.1, 0.5],
          [1.2, 0.5]
        ]
      },
      '$.cameras[0].detections[0].line[1][0]: must be a number from 0 to 1'
    ],
    [{ line: [[0.1, 0.5], [0.2]] }, '$.cameras[0].detections[0].line[1]'],
    [{ name: 'x'.repeat(10000) }, '.name: is 10000 characters long; at most 80 are allowed'],
    [{ name: '  ' }, '.name: must be a text of 1 to 80 characters'],
    [{ sensitivity: 0 }, '.sensitivity: must be a number from 1 to 100'],
    [{ classes: ['ghost'] }, '.classes[0]: must be one of unknown, person'],
    [{ kind: 'teleport' }, '$.cameras[0].detections[0].kind: must be one of line'],
    [{ direction: 'up' }, '.direction: must be one of leftToRight, rightToLeft, both'],
    [{ colour: 'red' }, '$.cameras[0].detections[0].colour: is not known here'],
    [{ schedule: 'days' }, '.schedule: names "days", and the plan has no such schedule'],
    [{ id: 'pontoon' }, '$.cameras[0].detections[1].id: "pontoon" is used twice']
  ])('refuses %j with the path', (change, message) => {
    expect(() => readPlan(withDetection(change))).toThrowWords(message)
  })

  test('refuses broken JSON, a wrong format, a self-crossing zone, invalid spans', () => {
    expect(() => readPlan('{"format": ')).toThrowWords('$: is not JSON')
    expect(() => readPlan('{}')).toThrowWords('$.format')
    const plan: any = example()
    plan.cameras[0].ignore[0] = [
      [0, 0],
      [1, 1],
      [1, 0],
      [0, 1]
    ]
    expect(() => readPlan(JSON.stringify(plan))).toThrowWords(
      '$.cameras[0].ignore[0]: crosses itself (edge 1 meets edge 3)'
    )
    const hours = (spans: unknown) => {
      const p: any = example()
      p.schedules[0].week.mon = spans
      return () => readPlan(JSON.stringify(p))
    }
    expect(hours([['18:30', '06:30']])).toThrowWords(
      '$.schedules[0].week.mon[0]: runs from 18:30 to 06:30; its start must come before its end'
    )
    expect(hours([['25:00', '26:00']])).toThrowWords('$.schedules[0].week.mon[0][0]: is "25:00"')
    expect(hours([['sunset-00:30', '24:00']])).not.toThrow()
    const nowhere: any = example()
    nowhere.schedules[0].week.mon = [['00:00', 'sunrise']]
    delete nowhere.position
    expect(() => readPlan(JSON.stringify(nowhere))).toThrowWords(
      '$.position: is missing; times by the sun need it'
    )
    const zone: any = example()
    zone.timeZone = 'Mars/Olympus'
    expect(() => readPlan(JSON.stringify(zone))).toThrowWords('$.timeZone: must be a time zone')
  })
})

describe('the JSON Schema in docs/', () => {
  const text = readFileSync(new URL('../../docs/plan.schema.json', import.meta.url), 'utf8')
  const schema = JSON.parse(text)
  const accepts = new Ajv({ strict: false }).compile(schema)

  test.each(Object.keys(jsonSchemas()))('%s is what the schemas give (npm run schema)', (file) => {
    const kept = readFileSync(new URL(`../../docs/${file}`, import.meta.url), 'utf8')
    expect(kept).toBe(jsonSchemas()[file])
  })

  // Ajv: general JSON Schema validator.
  test('accepts the example, and refuses what the reader refuses', () => {
    expect(accepts(example())).toBe(true)
    for (const change of [
      { line: [[0.1, 0.5]] },
      {
        line: [
          [0.1, 0.5],
          [1.2, 0.5]
        ]
      },
      { sensitivity: 0 },
      { kind: 'teleport' },
      { colour: 'red' },
      { direction: 'up' },
      { id: 'a b' }
    ]) {
      const bad = JSON.parse(withDetection(change))
      expect(accepts(bad)).toBe(false)
      expect(() => readPlan(JSON.stringify(bad))).toThrow()
    }
  })
})

describe('calibrated scenes and arm inputs', () => {
  test('sizes in metres need a calibrated scene', () => {
    expect(() => readPlan(withDetection({ size: { minMetres: 0.9 } }))).toThrowWords(
      '$.cameras[0].detections[0].size: is in metres, but the camera is not calibrated; give $.cameras[].scene, or use min and max'
    )
    const plan: any = JSON.parse(
      withDetection({ size: { minMetres: 0.9, maxMetres: 2.2 }, armInput: { input: 'panel' } })
    )
    plan.cameras[0].scene = { height: 4.2, tilt: 13, fieldOfView: 36, aspect: 1.7778 }
    expect(readPlan(JSON.stringify(plan)).cameras[0]!.detections[0]!.armInput).toEqual({
      input: 'panel',
      inverted: false
    })
    plan.cameras[0].scene.tilt = 100
    expect(() => readPlan(JSON.stringify(plan))).toThrowWords(
      '$.cameras[0].scene.tilt: must be a number from -30 to 90°'
    )
  })
})
