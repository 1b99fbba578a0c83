import { describe, expect, test } from '@jest/globals'
import { makeToken } from '../../core/formats/onvif/soap.ts'
import { writeActiveCells } from '../../core/formats/onvif/activeCells.ts'
import { demoPlay } from '../../demo/scenes.ts'
import { PullPoints, type Notification } from './events.ts'
import { detectionOf } from '../../core/formats/onvif/takeOver.ts'
import { LiveScene } from './scene.ts'
import { Security } from './security.ts'
import { allCells } from '../../core/kinds/parts.ts'

const happened = (n: number): Notification => ({
  topic: `tns1:T${n}`,
  operation: 'Changed',
  at: n,
  source: {},
  data: {}
})

describe('pull points', () => {
  test('give what has happened since, in order, and nothing twice', async () => {
    const points = new PullPoints()
    const id = points.create(0, 60)
    for (let n = 1; n <= 5; n++) points.put(happened(n))
    expect((await points.pull(id, 1, 10, 3))?.map((e) => e.at)).toEqual([1, 2, 3])
    expect((await points.pull(id, 1, 10, 3))?.map((e) => e.at)).toEqual([4, 5])
    expect(await points.pull(id, 1, 10, 3)).toEqual([])
  })

  test('wake those who wait', async () => {
    const points = new PullPoints()
    const id = points.create(0, 60)
    const began = Date.now()
    const waiting = points.pull(id, 1, 5000, 10)
    setTimeout(() => points.put(happened(7)), 30)
    expect((await waiting)?.map((e) => e.at)).toEqual([7])
    expect(Date.now() - began).toBeLessThan(4000)
  })

  test('each has its own queue, and expires unless renewed', async () => {
    const points = new PullPoints()
    const [a, b] = [points.create(0, 10), points.create(0, 10)]
    points.put(happened(1))
    expect(await points.pull(a, 1, 1, 9)).toHaveLength(1)
    expect(await points.pull(b, 1, 1, 9)).toHaveLength(1)
    expect(points.renew(a, 9_000, 60)).toBe(true)
    expect(await points.pull(a, 20_000, 1, 9)).toEqual([])
    expect(await points.pull(b, 20_000, 1, 9)).toBeNull()
    expect([points.renew(b, 20_000, 60), points.end(a), points.end(a)]).toEqual([
      false,
      true,
      false
    ])
  })

  test('drop the oldest unread events', async () => {
    const points = new PullPoints()
    const id = points.create(0, 60)
    for (let n = 1; n <= 1200; n++) points.put(happened(n))
    const left = await points.pull(id, 1, 1, 5000)
    expect([left?.length, left?.[0]?.at]).toEqual([1000, 201])
  })
})

describe('tokens', () => {
  const accounts = [{ username: 'admin', password: 'secret-1' }]
  const token = (change: { user?: string; password?: string; at?: number; nonce?: number } = {}) =>
    makeToken(
      change.user ?? 'admin',
      change.password ?? 'secret-1',
      Uint8Array.of(change.nonce ?? 1, 2),
      change.at ?? 1e12
    )

  test('accepts the right one, once', () => {
    const security = new Security()
    expect(security.refusal(token(), accounts, 1e12)).toBeNull()
    expect(security.refusal(token(), accounts, 1e12)).toContain('used before')
    expect(security.refusal(token({ nonce: 9 }), accounts, 1e12)).toBeNull()
  })

  test.each([
    [token({ password: 'secret-2' }), 'wrong user name or password'],
    [token({ user: 'root' }), 'wrong user name or password'],
    [token({ at: 1e12 - 11_000 }), 'made on another clock'],
    [token({ at: 1e12 + 11_000 }), 'made on another clock'],
    [{ ...token(), nonce: '***' }, 'the nonce is not base64'],
    [{ ...token(), created: 'yesterday' }, 'wrong user name or password'],
    [null, 'no token']
  ])('refused: %#', (wrong, why) =>
    expect(new Security().refusal(wrong, accounts, 1e12)).toContain(why)
  )
})

describe('the device’s own engine', () => {
  const able = (type: string) => [
    { type, most: null, parameters: [], ranges: { Sensitivity: { min: 1, max: 4 } } }
  ]

  test('computes what the reference engine computes', () => {
    expect(
      detectionOf(
        {
          name: 'edge 1',
          type: 'tt:LineDetector',
          simple: { Direction: 'Left', Sensitivity: '3', ClassFilter: 'Human' },
          points: [
            [-1, 0],
            [1, 0]
          ]
        },
        able('tt:LineDetector')
      )
    ).toMatchObject({
      id: 'edge-1',
      kind: 'line',
      direction: 'rightToLeft',
      sensitivity: 67,
      classes: ['person'],
      line: [
        [0, 0.5],
        [1, 0.5]
      ]
    })
    expect(
      detectionOf(
        {
          name: 'm',
          type: 'tt:CellMotionDetector',
          simple: { ActiveCells: writeActiveCells(allCells()), AlarmOnDelay: '400' },
          points: []
        },
        able('tt:CellMotionDetector')
      )
    ).toMatchObject({ kind: 'motion', onDelaySeconds: 0.4, cells: allCells() })
    expect(detectionOf({ name: 'x', type: 'tt:Nothing', simple: {}, points: [] }, [])).toBeNull()
  })

  test('its scene loops, and triggers at the same moments each time', () => {
    const play = demoPlay('slipway', 'morning')
    const rules = [
      {
        name: 'all',
        type: 'tt:FieldDetector',
        simple: {},
        points: [
          [-1, 1],
          [1, 1],
          [1, -1],
          [-1, -1]
        ] as [number, number][]
      }
    ]
    const rounds = [0, 1].map((round) => {
      const scene = new LiveScene(play)
      scene.setRules(rules, able('tt:FieldDetector'))
      const times: number[] = []
      for (let s = 0; s < play.script.seconds; s += 0.1)
        for (const trigger of scene.step(round * play.script.seconds + s)) times.push(trigger.frame)
      return times
    })
    expect(rounds[0]!.length).toBeGreaterThan(3)
    expect(rounds[1]).toEqual(rounds[0])
  })
})
