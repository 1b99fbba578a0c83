import { describe, expect, test } from '@jest/globals'
import { DEMO_CAMERAS, demoPlay, readDemo } from '../demo/scenes.ts'
import { Feed } from './feed.ts'
import { makeNodeCanvas } from './nodeCanvas.ts'
import { contextOf } from './paint/canvas.ts'
import { Painter } from './paint/painter.ts'
import { randomFrom } from './random.ts'
import { QUALITIES, reportedTargets } from './reported.ts'
import { ACTOR_KINDS, FAULT_KINDS, readScene, readScript, type Play } from './script.ts'
import { truth } from './truth.ts'
import { actorsOf, poseAt, viewAt } from './world.ts'

const slipway = demoPlay('slipway', 'morning')
const withScript = (change: object, play: Play = slipway): Play => ({
  scene: play.scene,
  script: readScript({ id: 'x', name: 'X', seconds: 30, seed: 3, ...change })
})
const [walker] = actorsOf(
  withScript({
    actors: [
      {
        kind: 'adult',
        from: 2,
        speed: 2,
        tall: 1.8,
        way: [
          [0, 10],
          [4, 10, 1],
          [4, 16]
        ]
      }
    ]
  }).script
)

const picture = (play: Play, time: number): Uint8ClampedArray => {
  const painter = new Painter(play, makeNodeCanvas)
  painter.paint(time)
  return contextOf(painter.canvas).getImageData(0, 0, play.scene.width, play.scene.height).data
}
/** Pixels that differ clearly, in a box and out of it. */
const differences = (
  a: Uint8ClampedArray,
  b: Uint8ClampedArray,
  { scene: { width, height } }: Play,
  box: { x: number; y: number; w: number; h: number },
  reach = 0.03
) => {
  let [inside, outside] = [0, 0]
  for (let i = 0; i < a.length; i += 4) {
    if (
      Math.abs(a[i]! - b[i]!) + Math.abs(a[i + 1]! - b[i + 1]!) + Math.abs(a[i + 2]! - b[i + 2]!) <
      30
    )
      continue
    const [x, y] = [((i / 4) % width) / width, Math.floor(i / 4 / width) / height]
    if (
      x >= box.x - reach &&
      x <= box.x + box.w + reach &&
      y >= box.y - reach &&
      y <= box.y + box.h + reach
    )
      inside++
    else outside++
  }
  return { inside, outside }
}
const lumaOf = (data: Uint8ClampedArray): number =>
  data.reduce((sum, v, i) => (i % 4 < 3 ? sum + v : sum), 0) / ((data.length / 4) * 3)

describe('actors', () => {
  test('walk their path at their speed, pause, and leave at its end', () => {
    expect(poseAt(walker!, 1.9)).toBeNull()
    expect(poseAt(walker!, 3)).toMatchObject({
      at: { x: 2, z: 10 },
      heading: [1, 0],
      moving: true,
      walked: 2
    })
    expect(poseAt(walker!, 4.5)).toMatchObject({ at: { x: 4, z: 10 }, moving: false, walked: 4 })
    expect(poseAt(walker!, 6)).toMatchObject({ at: { x: 4, z: 12 }, heading: [0, 1], moving: true })
    expect(poseAt(walker!, 8.1)).toBeNull()
  })

  test('the true box stands on the ground and shrinks with the distance', () => {
    const play = withScript({
      actors: [
        {
          kind: 'adult',
          way: [
            [0, 8],
            [0, 30]
          ],
          speed: 2
        }
      ]
    })
    const boxes = [0, 3, 6, 9].map((t) => truth(play, t)[0]!.box)
    for (let i = 1; i < boxes.length; i++) {
      expect(boxes[i]!.h).toBeLessThan(boxes[i - 1]!.h)
      expect(boxes[i]!.y + boxes[i]!.h).toBeLessThan(boxes[i - 1]!.y + boxes[i - 1]!.h)
    }
  })

  test('a group is separate people', () => {
    const play = withScript({
      actors: [
        {
          kind: 'group',
          members: 4,
          way: [
            [0, 10],
            [5, 10]
          ]
        }
      ]
    })
    expect(truth(play, 1).map((t) => [t.id, t.cls])).toEqual([
      [1, 'person'],
      [2, 'person'],
      [3, 'person'],
      [4, 'person']
    ])
  })

  test('shows the faces of those who approach, not of those who walk away', () => {
    const face = (way: number[][], mask = false) =>
      truth(withScript({ actors: [{ kind: 'adult', way, mask, name: 'Isla Brae' }] }), 1)[0]!.face
    expect(
      face([
        [0, 12],
        [0, 6]
      ])
    ).toMatchObject({ mask: false, name: 'Isla Brae' })
    expect(
      face(
        [
          [0, 12],
          [0, 6]
        ],
        true
      )
    ).toMatchObject({ mask: true })
    expect(
      face([
        [0, 6],
        [0, 12]
      ])
    ).toBeNull()
  })
})

describe('painting', () => {
  test.each(DEMO_CAMERAS)(
    '%s: four or more readable scripts, and the same picture for the same moment',
    (camera) => {
      const { scene, scripts } = readDemo(camera)
      expect(scripts.map((s) => s.id)).toEqual(
        expect.arrayContaining(['morning', 'night', 'storm', 'fault'])
      )
      for (const script of scripts)
        expect(
          Buffer.compare(
            Buffer.from(picture({ scene, script }, 12)),
            Buffer.from(picture({ scene, script }, 12))
          )
        ).toBe(0)
    }
  )

  test.each(ACTOR_KINDS.filter((kind) => kind !== 'group'))(
    '%s: painted where the truth says, and nowhere else',
    (kind) => {
      const play = withScript({
        actors: [
          {
            kind,
            way: [
              [-3, 12],
              [3, 12.5]
            ],
            speed: 1
          }
        ]
      })
      const empty = withScript({})
      const [target] = truth(play, 3)
      const { inside, outside } = differences(
        picture(play, 3),
        picture(empty, 3),
        play,
        target!.box,
        kind === 'gull' ? 0.06 : 0.03
      )
      expect(inside).toBeGreaterThan(
        0.12 * target!.box.w * target!.box.h * play.scene.width * play.scene.height
      )
      expect(outside).toBe(0)
    }
  )

  test('dusk is darker than day, night darker than dusk; infrared has no colour', () => {
    const [day, dusk, night, infrared] = ['day', 'dusk', 'night', 'infrared'].map((light) =>
      picture(withScript({ light }), 5)
    ) as [
      Uint8ClampedArray<ArrayBufferLike>,
      Uint8ClampedArray<ArrayBufferLike>,
      Uint8ClampedArray<ArrayBufferLike>,
      Uint8ClampedArray<ArrayBufferLike>
    ]
    expect(lumaOf(dusk)).toBeLessThan(lumaOf(day))
    expect(lumaOf(night)).toBeLessThan(lumaOf(dusk))
    for (let i = 0; i < infrared.length; i += 4 * 997)
      expect(
        Math.max(infrared[i]!, infrared[i + 1]!, infrared[i + 2]!) -
          Math.min(infrared[i]!, infrared[i + 1]!, infrared[i + 2]!)
      ).toBeLessThan(4)
  })

  test.each(['rain', 'snow', 'fog', 'clouds'])(
    '%s changes the picture; wind moves only plants',
    (kind) => {
      const path = demoPlay('quay-path', 'morning')
      const calm = withScript({}, path)
      const whole = { x: 0, y: 0, w: 1, h: 1 }
      expect(
        differences(
          picture(withScript({ weather: { [kind]: 1 } }, path), 7),
          picture(calm, 7),
          path,
          whole
        ).inside
      ).toBeGreaterThan(1000)
      const [a, b] = [
        picture(withScript({ weather: { wind: 1 } }, path), 7),
        picture(withScript({ weather: { wind: 1 } }, path), 7.6)
      ]
      expect(differences(a, b, path, whole).inside).toBeGreaterThan(300)
    }
  )

  test('a knocked camera looks elsewhere, and so does the truth', () => {
    const play = withScript({
      actors: [
        {
          kind: 'adult',
          way: [
            [0, 12],
            [0.5, 12]
          ],
          speed: 0.1
        }
      ],
      faults: [{ kind: 'knocked', from: 1 }]
    })
    expect(viewAt(play, 0.5).pan).toBe(0)
    expect(truth(play, 2)[0]!.box.x).toBeLessThan(truth(play, 0.5)[0]!.box.x - 0.1)
  })
})

describe('a camera’s stream', () => {
  const small: Play = { ...slipway, scene: { ...slipway.scene, width: 160, height: 90 } }
  const feedOf = (kind: (typeof FAULT_KINDS)[number]) =>
    new Feed(
      withScript({ seconds: 2, faults: [{ kind, from: 1, to: 1.5 }] }, small),
      makeNodeCanvas
    )

  test('a cut cable gives no picture, a frozen camera repeats the last', () => {
    const cut = feedOf('cableCut')
    expect(Array.from({ length: 20 }, (_, i) => cut.frame(i + 1) !== null)).toEqual(
      Array.from({ length: 20 }, (_, i) => i < 10 || i >= 15)
    )
    const frozen = feedOf('frozen')
    const frames = Array.from({ length: 20 }, (_, i) => Buffer.from(frozen.frame(i + 1)!))
    expect(frames[12]!.equals(frames[9]!)).toBe(true)
    expect(frames[9]!.equals(frames[8]!)).toBe(false) // the sensor's noise alone makes two pictures differ
    expect(frames[15]!.equals(frames[14]!)).toBe(false)
  })

  test.each([
    ['covered', 40, 90],
    ['lightsOut', 0, 20],
    ['washedOut', 200, 255]
  ] as const)('%s has the right brightness', (kind, least, most) => {
    const feed = feedOf(kind)
    for (let n = 1; n < 15; n++) feed.frame(n)
    const luma = lumaOf(feed.frame(15)!)
    expect(luma).toBeGreaterThanOrEqual(least)
    expect(luma).toBeLessThanOrEqual(most)
  })
})

describe('targets as a camera reports them', () => {
  const play = withScript({
    actors: [
      {
        kind: 'adult',
        speed: 0.6,
        way: [
          [-8, 9],
          [8, 9]
        ]
      },
      {
        kind: 'dog',
        speed: 0.6,
        way: [
          [8, 10],
          [-8, 10]
        ]
      }
    ]
  })
  const rows = (quality: keyof typeof QUALITIES) => reportedTargets(play, QUALITIES[quality])

  test('true: exact in every frame; good: nearly; poor: missing, lost and mistaken', () => {
    const [exact, good, poor] = [rows('true'), rows('good'), rows('poor')]
    expect(new Set(exact.map((r) => `${r.id} ${r.cls}`))).toEqual(new Set(['1 person', '2 animal']))
    expect(good.length).toBeGreaterThan(0.95 * exact.length)
    expect(poor.length).toBeLessThan(good.length)
    expect(new Set(poor.map((r) => r.id)).size).toBeGreaterThan(2)
    expect(poor.filter((r) => r.id === 1 && r.cls !== 'person').length).toBeGreaterThan(0)
    for (const r of poor)
      expect(
        r.x >= 0 && r.y >= 0 && r.x + r.w <= 1 + 1e-9 && r.y + r.h <= 1 + 1e-9 && r.w > 0 && r.h > 0
      ).toBe(true)
  })

  test('repeats for the same seed', () => expect(rows('poor')).toEqual(rows('poor')))

  test('a covered lens sees no target', () => {
    expect(
      reportedTargets(
        withScript({
          actors: [
            {
              kind: 'adult',
              way: [
                [-8, 9],
                [8, 9]
              ]
            }
          ],
          faults: [{ kind: 'covered', from: 0 }]
        }),
        QUALITIES.good
      )
    ).toEqual([])
  })
})

describe('refuses wrong scripts with the place', () => {
  const refused = (change: object) => () =>
    readScript({ id: 'x', name: 'X', seconds: 30, ...change })
  test.each([
    [
      {
        actors: [
          {
            kind: 'unicorn',
            way: [
              [0, 1],
              [1, 1]
            ]
          }
        ]
      },
      '$.actors[0].kind: is "unicorn"; must be one of adult, child, crouching, group, dog, gull, car, van, bicycle'
    ],
    [
      { actors: [{ kind: 'adult', way: [[0, 1]] }] },
      '$.actors[0].way: needs at least 2 way-points'
    ],
    [
      { faults: [{ kind: 'covered', from: 5, to: 4 }] },
      '$.faults[0].to: is 4 s; must be after its start, 5 s'
    ],
    [{ weather: { hail: 1 } }, '$.weather.hail: is not known here'],
    [{ seconds: 0 }, '$.seconds: must be a number from 1 to 7200 s']
  ])('%j', (change, message) => expect(refused(change)).toThrowWords(message))

  test('a scene with an unknown thing', () => {
    expect(() =>
      readScene({
        id: 's',
        name: 'S',
        camera: { height: 4, tilt: 10, fieldOfView: 40 },
        things: [{ kind: 'castle' }]
      })
    ).toThrowWords(
      '$.things[0].kind: must be one of face, wall, block, posts, water, tree, reeds, lamp'
    )
  })
})

test('random numbers repeat for a seed, spread over 0 to 1, and differ for another', () => {
  const take = (seed: number) => Array.from({ length: 2000 }, randomFrom(seed))
  expect(take(7)).toEqual(take(7))
  expect(take(8)).not.toEqual(take(7))
  const values = take(7)
  expect(Math.abs(values.reduce((a, b) => a + b) / values.length - 0.5)).toBeLessThan(0.03)
})
