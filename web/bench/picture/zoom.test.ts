import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Zoom } from './zoom.ts'

const share = fc.double({ min: 0, max: 1, noNaN: true })

test('zooming stays on the picture and keeps the point under the pointer', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          factor: fc.double({ min: 0.3, max: 3, noNaN: true }),
          x: share,
          y: share,
          dx: fc.double({ min: -1, max: 1, noNaN: true })
        }),
        { maxLength: 12 }
      ),
      (moves) => {
        const zoom = new Zoom()
        for (const { factor, x, y, dx } of moves) {
          const before = zoom.get()
          const at: [number, number] = [before.left + x / before.zoom, before.top + y / before.zoom]
          zoom.by(factor, at)
          const { zoom: near, left, top } = zoom.get()
          expect(near >= 1 && near <= 8).toBe(true)
          expect(
            left >= 0 && left <= 1 - 1 / near + 1e-12 && top >= 0 && top <= 1 - 1 / near + 1e-12
          ).toBe(true)
          if (factor > 1) expect((at[0] - left) * near).toBeCloseTo(x, 6)
          zoom.pan(dx, 0)
          expect(zoom.get().left >= 0 && zoom.get().left <= 1 - 1 / near + 1e-12).toBe(true)
        }
        zoom.whole()
        expect(zoom.get()).toEqual({ zoom: 1, left: 0, top: 0 })
      }
    )
  )
})
