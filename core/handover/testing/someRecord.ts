import { parseWith } from '../../schema/parse.ts'
import { RecordSchema, type SiteRecord } from '../record.ts'

/** A small record, invented: a site with two cameras, one device, and checks of every outcome. */
export function someRecord(change: (record: Record<string, any>) => void = () => {}): SiteRecord {
  const record: Record<string, any> = {
    format: 'wardoptic-record/1',
    number: 3,
    kind: 'handover',
    madeAt: Date.UTC(2026, 10, 20, 9, 30),
    madeBy: 'Ada Flett',
    client: 'Harbour Trust',
    installer: 'Brae Security',
    note: 'Service once a year.',
    site: {
      format: 'wardoptic-site/1',
      madeAt: Date.UTC(2026, 10, 20, 9, 30),
      site: {
        name: 'North Pier',
        timeZone: 'Europe/London',
        position: { latitude: 59, longitude: -3 },
        surroundings: 'outdoors'
      },
      inputs: [{ id: 'door', name: 'Back door' }],
      schedules: [
        {
          id: 'nights',
          name: 'Nights',
          week: { mon: [['00:00', '06:30']], tue: [['18:00', '24:00']] },
          exceptions: [{ date: '2026-12-25', name: 'Christmas', spans: [] }]
        }
      ],
      endpoints: [
        {
          id: 'station',
          name: 'Northwatch',
          kind: 'station',
          host: 'station.example',
          port: 7700,
          account: '5a31',
          accepts: 'minor',
          heartbeatSeconds: 60
        },
        {
          id: 'duty',
          name: 'E-mail to duty',
          kind: 'email',
          recipients: ['duty@example.org'],
          people: ['ada']
        }
      ],
      people: { people: [{ id: 'ada', name: 'Ada Flett' }], groups: [] },
      mail: null,
      usual: null,
      voices: [],
      devices: [
        {
          id: 'cam',
          name: 'Pier camera',
          address: 'http://192.0.2.7',
          username: 'admin',
          channels: [{ token: 'main', name: 'Main', camera: 'pier', used: true }]
        }
      ],
      cameras: [
        {
          id: 'pier',
          name: 'Pier',
          surroundings: null,
          ignore: [],
          marks: null,
          detections: [
            {
              detection: {
                id: 'edge',
                name: 'Edge, “inner”',
                kind: 'line',
                line: [
                  [0.1, 0.5],
                  [0.9, 0.5]
                ],
                sides: { left: 'Water', right: 'Land' },
                direction: 'leftToRight',
                classes: ['person'],
                schedule: 'nights'
              },
              actions: { links: ['station', 'duty'], accepted: ['duty'] }
            },
            {
              detection: {
                id: 'shed',
                name: '=Shed',
                kind: 'intrusion',
                zone: [
                  [0.1, 0.1],
                  [0.4, 0.1],
                  [0.4, 0.4]
                ],
                dwellSeconds: 4
              },
              actions: { links: ['duty'] }
            }
          ],
          checks: []
        },
        {
          id: 'yard',
          name: 'Yard',
          surroundings: 'indoors',
          ignore: [],
          marks: null,
          detections: [],
          checks: []
        }
      ]
    },
    cameras: ['pier', 'yard'].map((id) => ({
      id,
      picture: null,
      night: null,
      missing: 'no device shows it, and it has no clip',
      pose: null,
      width: null,
      height: null
    })),
    devices: [
      {
        id: 'cam',
        name: 'Pier camera',
        address: 'http://192.0.2.7',
        state: 'online',
        trouble: null,
        readAt: Date.UTC(2026, 10, 20, 9, 29),
        manufacturer: 'Halden Optics',
        model: 'HO-40',
        firmware: '2.4.1',
        serial: 'HO40-1',
        clockAhead: 0.2,
        certificate: null,
        account: 'admin',
        accounts: ['admin'],
        storage: null,
        outputs: [],
        channels: [
          {
            token: 'main',
            name: 'Main',
            camera: 'pier',
            used: true,
            rules: [
              {
                name: 'edge',
                type: 'tt:LineDetector',
                simple: { Direction: 'Right' },
                points: [
                  [-0.8, 0],
                  [0.8, 0]
                ]
              }
            ],
            holdings: [
              { detection: 'edge', state: 'same', settings: [] },
              { detection: 'shed', state: 'missing', settings: [] }
            ]
          }
        ]
      }
    ],
    endpoints: [
      { id: 'station', testedAt: Date.UTC(2026, 10, 20, 9), error: null, missing: null },
      { id: 'duty', testedAt: null, error: null, missing: 'no mail server' }
    ],
    checks: (
      [
        ['crosses', 'From Water to Land', 'trigger', true, true],
        ['dog', 'A dog does not trigger', 'silence', false, true],
        ['stale', 'In snow <& "wind">', 'trigger', true, false],
        ['never', 'Walked at night', 'trigger', null, false]
      ] as const
    ).map(([id, name, expects, passed, current]) => ({
      camera: 'pier',
      id,
      detection: 'edge',
      name,
      by: id === 'never' ? 'person' : 'walk',
      expects,
      result:
        passed === null
          ? null
          : {
              passed,
              current,
              at: Date.UTC(2026, 10, 19),
              sentence: passed ? 'Triggered as expected.' : 'Triggered at 3.0 s, but must not.',
              hits: passed ? 1 : 0,
              misses: 0,
              false: passed ? 0 : 1,
              effects: [{ name: 'Northwatch', expected: true, acts: true, after: 1.2, wrong: null }]
            },
      picture: null,
      tracks: null
    })),
    recall: null,
    precision: null,
    open: [],
    accepted: [],
    notPossible: [],
    service: null
  }
  change(record)
  return parseWith(RecordSchema, record)
}
