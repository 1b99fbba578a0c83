import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { beforeAll, describe, expect, test } from '@jest/globals'
import type { LiveRow } from './live.ts'

/** OpenCV's sample (Debian's opencv-doc): real people on a real campus, 10 frames/s. */
const VTEST = '/usr/share/doc/opencv-doc/examples/data/vtest.avi'
/** Before this picture the targets of the last stream are ended. */
const CUT = 150

type Row = Omit<LiveRow, 'likelihood'>
const alone = ({ frame, x, y, w, h, class: cls }: Row) => ({ frame, x, y, w, h, cls })
let told: {
  /** What the analysis of the clip finds, without the detector. */
  clip: Row[]
  /** What is found in the same pictures as a stream. */
  streams: LiveRow[][]
  square: { rows: LiveRow[]; inSight: { id: number }[] }
}
beforeAll(async () => {
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['scripts/run.mjs', 'analysis/testing/streams.mts', VTEST, '30', '1', '20', '77', `20:${CUT}`],
    { maxBuffer: 2 ** 28 }
  )
  told = JSON.parse(stdout)
}, 600_000)

const targetsOf = <R extends Row>(rows: readonly R[]): R[][] => {
  const targets = new Map<number, R[]>()
  for (const row of rows) {
    const list = targets.get(row.id)
    if (list) list.push(row)
    else targets.set(row.id, [row])
  }
  return [...targets.values()]
}

describe('a stream', () => {
  test.each([0, 1, 2])(
    'has the targets of the clip, each row once, however often it is taken',
    (n) => {
      const targets = targetsOf(told.streams[n]!)
      const expected = targetsOf(told.clip)
      expect(expected.length).toBeGreaterThan(5)
      expect(targets).toHaveLength(expected.length)
      for (const rows of expected) {
        const [first] = rows
        const same = targets.find(
          ([row]) => row!.frame === first!.frame && Math.abs(row!.x - first!.x) < 1e-9
        )!
        expect(same.map(alone)).toEqual(rows.map(alone))
      }
    }
  )

  test('after a pause all targets are others', () => {
    const crossing = targetsOf(told.clip).filter(
      (rows) => rows[0]!.frame < CUT - 10 && rows.at(-1)!.frame > CUT + 10
    )
    expect(crossing.length).toBeGreaterThan(0)
    for (const rows of targetsOf(told.streams[3]!)) {
      const frames = rows.map(({ frame }) => frame)
      expect(Math.max(...frames) <= CUT || Math.min(...frames) > CUT).toBe(true)
    }
  })

  test('who stays for minutes goes on being given, row by row', () => {
    const { rows, inSight } = told.square
    expect(inSight).toHaveLength(1)
    const frames = rows.filter(({ id }) => id === inSight[0]!.id).map(({ frame }) => frame)
    expect(frames.length).toBeGreaterThan(1500)
    expect(frames).toEqual(frames.map((_, i) => frames[0]! + i))
  })
})
