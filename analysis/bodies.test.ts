import { beforeAll, describe, expect, it } from '@jest/globals'
import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

/** Of a mask: what OpenCV finds in the whole of it, and what is found in its parts; rows are x, y, w, h and area. */
let masks: {
  mask: string
  expected: number[][]
  found: number[][]
  own: number[]
  isClosed: boolean
}[]
beforeAll(async () => {
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['scripts/run.mjs', 'analysis/testing/bodies.mts'],
    { maxBuffer: 2 ** 28 }
  )
  masks = JSON.parse(stdout)
}, 600_000)

describe('bodies found in the parts of a mask', () => {
  // Checked against OpenCV: the same closing and labelling of the whole mask.
  it('are those of the whole, in the same order', () => {
    expect(masks.map(({ found }) => found)).toEqual(masks.map(({ expected }) => expected))
    expect(masks.flatMap(({ found }) => found).length).toBeGreaterThan(2000)
    expect(masks.some(({ found }) => found.length > 5)).toBe(true)
  })

  it('leave the whole mask closed', () => {
    expect(masks.filter(({ isClosed }) => !isClosed).map(({ mask }) => mask)).toEqual([])
  })

  it('know their own pixels', () => {
    for (const { found, own } of masks) expect(own).toEqual(found.map(([, , , , area]) => area))
  })
})
