import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import { writeActiveCells } from '../../core/formats/onvif/activeCells.ts'
import { PARKED_HOURS, writeHours } from '../../core/formats/onvif/hours.ts'
import { demoPlay, readDemo } from '../../demo/scenes.ts'
import { readScript, type Play } from '../../simulation/script.ts'
import { measurerOf } from '../measuring.ts'
import { LiveScene } from './scene.ts'
import { allCells } from '../../core/kinds/parts.ts'
import type { Rule } from '../../core/formats/onvif/rule.ts'

const able = (...types: string[]) =>
  types.map((type) => ({
    type,
    most: null,
    parameters: [],
    ranges: { Sensitivity: { min: 1, max: 100 } }
  }))
const everywhere: [number, number][] = [
  [-1, 1],
  [1, 1],
  [1, -1],
  [-1, -1]
]
const rule = (type: string, simple: Record<string, string> = {}, name = 'r'): Rule => ({
  name,
  type,
  simple,
  points: type === 'tt:FieldDetector' ? everywhere : []
})

/** What a scene triggers in one round, from an instant on the device's clock. */
function fired(play: Play, rules: Rule[], began = 0, scene = new LiveScene(play)) {
  scene.setRules(rules, able(...rules.map(({ type }) => type)))
  return Array.from({ length: play.script.seconds * 10 }, (_, n) =>
    scene.step(n / 10, began)
  ).flat()
}

describe('a schedule sent to a device', () => {
  const play = demoPlay('slipway', 'morning')
  /** A Tuesday, 08:12 in London, which keeps UTC in winter. */
  const tuesday = Date.UTC(2026, 10, 24, 8, 12)
  const always = fired(play, [rule('tt:FieldDetector')], tuesday).length

  test('triggers within it and not outside', () => {
    expect(always).toBeGreaterThan(3)
    expect(
      fired(play, [rule('tt:FieldDetector', { Hours: 'tue=08:00-09:00' })], tuesday)
    ).toHaveLength(always)
    expect(
      fired(play, [rule('tt:FieldDetector', { Hours: 'mon=00:00-24:00;tue=09:00-24:00' })], tuesday)
    ).toEqual([])
  })

  test('follows the site’s wall clock, an hour ahead of UTC in summer', () => {
    const summer = Date.UTC(2026, 6, 21, 7, 12)
    expect(
      fired(play, [rule('tt:FieldDetector', { Hours: 'tue=08:00-09:00' })], summer)
    ).toHaveLength(always)
    expect(fired(play, [rule('tt:FieldDetector', { Hours: 'tue=07:00-08:00' })], summer)).toEqual(
      []
    )
  })

  test('a parked rule does not trigger', () => {
    expect(
      fired(play, [rule('tt:FieldDetector', { Hours: writeHours(PARKED_HOURS)! })], tuesday)
    ).toEqual([])
  })
})

describe('rules that look at pictures', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-measures-'))
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  const play: Play = {
    scene: readDemo('workshop-yard').scene,
    script: readScript({
      id: 'x',
      name: 'X',
      seconds: 14,
      seed: 8,
      faults: [{ kind: 'covered', from: 6 }],
      actors: [
        {
          kind: 'adult',
          from: 1,
          way: [
            [-3, 9],
            [3, 9]
          ]
        }
      ]
    })
  }
  const rules = [
    rule('tt:TamperDetector', { DelayTime: 'PT3S' }, 'care'),
    rule(
      'tt:CellMotionDetector',
      { ActiveCells: writeActiveCells(allCells()), MinCount: '4' },
      'motion'
    )
  ]

  test('trigger on the painted pictures, once measured', async () => {
    const measures = await measurerOf(folder, new AbortController().signal)(play)
    const scene = new LiveScene(play, () => Promise.resolve(measures))
    scene.setRules(rules, able(...rules.map(({ type }) => type)))
    await Promise.resolve()
    const triggers = fired(play, rules, 0, scene)
    expect(triggers.find(({ detection }) => detection === 'care')).toMatchObject({
      kind: 'tamper',
      cause: 'covered'
    })
    expect(triggers.find(({ detection }) => detection === 'care')!.time).toBeGreaterThanOrEqual(9)
    expect(triggers.find(({ detection }) => detection === 'motion')!.time).toBeLessThan(6)
  })

  test('do not trigger before that, or without a measurer', () => {
    expect(fired(play, rules)).toEqual([])
    expect(fired(play, rules, 0, new LiveScene(play, () => new Promise(() => {})))).toEqual([])
  })

  test('measure a scene once, across restarts', async () => {
    const before = readdirSync(folder)
    await expect(measurerOf(folder, new AbortController().signal)(play)).resolves.toMatchObject({
      fps: play.scene.fps
    })
    expect(readdirSync(folder)).toEqual(before)
  })

  test('begin at once with what somebody waits for: a walk', async () => {
    const ended = new AbortController()
    const measuresOf = measurerOf(folder, ended.signal)
    const asked: { seed: number; isAwaited: boolean | undefined }[] = []
    const scene = new LiveScene(
      { ...play, script: { ...play.script, seed: 10 } },
      (of, isAwaited) => {
        asked.push({ seed: of.script.seed, isAwaited })
        return measuresOf(of, isAwaited)
      }
    )
    scene.setRules(rules, able(...rules.map(({ type }) => type)))
    const walk = scene.prepareWalk({ ...play.script, seed: 11 }, 0)
    expect(asked).toEqual([
      { seed: 10, isAwaited: undefined },
      { seed: 11, isAwaited: true }
    ])
    // The other one waits for its turn, this one does not.
    expect(readdirSync(folder).filter((name) => name.endsWith('.awaited.json'))).toHaveLength(1)
    setTimeout(() => ended.abort(), 300)
    await expect(walk).rejects.toThrow()
  })

  test('an ended measuring leaves nothing half done', async () => {
    const ended = new AbortController()
    const other = { ...play, script: { ...play.script, seed: 9 } }
    const measuring = measurerOf(folder, ended.signal)(other)
    setTimeout(() => ended.abort(), 300)
    await expect(measuring).rejects.toThrow()
    expect(readdirSync(folder).filter((name) => name.endsWith('.bin'))).toHaveLength(1)
  })
})

describe('the live picture of a fault', () => {
  const shown = (kind: 'covered' | 'defocused' | 'frozen' | 'cableCut' | 'lightsOut') =>
    new LiveScene({
      scene: readDemo('workshop-yard').scene,
      script: readScript({
        id: 'x',
        name: 'X',
        seconds: 20,
        seed: 8,
        weather: { wind: 0.8 },
        faults: [{ kind, from: 6, to: 12 }],
        actors: [
          {
            kind: 'adult',
            from: 1,
            way: [
              [-6, 9],
              [9, 9]
            ]
          }
        ]
      })
    })
  /** Its luma, by another library's decoder: 64 × 36 pixels of what ffmpeg makes of the JPEG. */
  const luma = (jpeg: Buffer | null): number[] => [
    ...spawnSync(
      'ffmpeg',
      [
        '-v',
        'error',
        '-i',
        'pipe:0',
        '-vf',
        'scale=64:36',
        '-pix_fmt',
        'gray',
        '-f',
        'rawvideo',
        'pipe:1'
      ],
      { input: jpeg! }
    ).stdout
  ]
  const mean = (list: number[]): number => list.reduce((a, b) => a + b, 0) / list.length
  const differs = (a: number[], b: number[]): number => mean(a.map((v, i) => Math.abs(v - b[i]!)))

  test('is covered or dark during the fault, and the scene again after it', () => {
    for (const kind of ['covered', 'lightsOut'] as const) {
      const scene = shown(kind)
      const [before, within, after] = [4, 9, 14].map((second) => luma(scene.snapshot(second))) as [
        number[],
        number[],
        number[]
      ]
      expect(mean(within)).toBeLessThan(0.6 * mean(before))
      expect(Math.abs(mean(after) - mean(before))).toBeLessThan(3)
    }
  })

  test('has lost fine detail out of focus', () => {
    const scene = shown('defocused')
    // What is fine is what a JPEG of the same quality is long for.
    expect(scene.snapshot(9)!.length).toBeLessThan(0.7 * scene.snapshot(4)!.length)
  })

  test('stands still when frozen; stops with the cable cut', () => {
    const frozen = shown('frozen')
    expect(differs(luma(frozen.snapshot(7)), luma(frozen.snapshot(11)))).toBe(0)
    expect(differs(luma(frozen.snapshot(4)), luma(frozen.snapshot(5)))).toBeGreaterThan(0)
    const cut = shown('cableCut')
    expect(
      [cut.snapshot(5.9), cut.snapshot(6), cut.snapshot(11.9), cut.snapshot(12)].map(
        (picture) => picture === null
      )
    ).toEqual([false, true, true, false])
  })
})
