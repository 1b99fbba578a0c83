import { execFileSync } from 'node:child_process'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { FIGURES, checkGrid, readMeasures, writeMeasures } from '../../core/measures/measures.ts'
import { MeasuringThread } from './inWorker.ts'
import { Measurer } from './measurer.ts'
import { MotionCells } from './motionCells.ts'
import { blockCorrelation, emptyLuma, grayOf, shrinkRgba } from './pictures.ts'
import { PhaseCorrelation, resized } from './phase.ts'
import { Reference } from './reference.ts'

interface Shift {
  x: number
  y: number
}
interface Compared {
  figures: Record<'own' | 'openCv', Record<'mean' | 'deviation' | 'sharpness', number>>[]
  shifts: { true: Shift; own: Shift & { response: number }; openCv: Shift }[]
}

describe('against OpenCV (its WebAssembly build, in a separate process)', () => {
  let compared: Compared
  beforeAll(() => {
    compared = JSON.parse(
      execFileSync(
        process.execPath,
        ['scripts/run.mjs', 'analysis/measures/testing/openCvFigures.mts'],
        { encoding: 'utf8' }
      )
    ) as Compared
  })

  test('mean luma, contrast, and variance of the Laplacian agree to 1 %', () => {
    expect(compared.figures).toHaveLength(3)
    for (const { own, openCv } of compared.figures)
      for (const key of ['mean', 'deviation', 'sharpness'] as const)
        expect(Math.abs(own[key] / openCv[key] - 1)).toBeLessThan(0.01)
  })

  // opencv.js does not export phaseCorrelate; it is put together from its dft and
  // createHanningWindow, which it does export.
  test('phase correlation from OpenCV’s own Fourier transform finds the same shifts to 1 %', () => {
    for (const { own, openCv } of compared.shifts) {
      expect(Math.abs(own.x - openCv.x)).toBeLessThan(0.01 * Math.max(1, Math.abs(openCv.x)))
      expect(Math.abs(own.y - openCv.y)).toBeLessThan(0.01 * Math.max(1, Math.abs(openCv.y)))
    }
  })

  // Computed once by cv2.phaseCorrelate of Debian's python3-opencv 4.6.0, with its Hanning window,
  // on the same pictures.
  test('phase correlation agrees to 1 % with what OpenCV’s phaseCorrelate itself gave', () => {
    const given = [
      [3.50273, 0.02212],
      [-7.00211, 3.97122],
      [11.79484, -6.31166],
      [0.47085, 19.25146],
      [14.02865, 10.56258]
    ]
    compared.shifts.forEach(({ own }, i) => {
      expect(Math.abs(own.x - given[i]![0]!)).toBeLessThan(
        0.01 * Math.max(1, Math.abs(given[i]![0]!))
      )
      expect(Math.abs(own.y - given[i]![1]!)).toBeLessThan(
        0.01 * Math.max(1, Math.abs(given[i]![1]!))
      )
    })
  })

  test('finds shifts of up to a sixth of the picture to a pixel', () => {
    for (const { true: is, own } of compared.shifts.slice(0, 4))
      expect(Math.hypot(own.x - is.x, own.y - is.y)).toBeLessThan(1)
  })
})

describe('pictures', () => {
  const picture = (
    width: number,
    height: number,
    at: (x: number, y: number) => number
  ): Uint8Array =>
    Uint8Array.from({ length: width * height * 3 }, (_, i) =>
      at(Math.floor(i / 3) % width, Math.floor(i / 3 / width))
    )

  test('a picture correlates with itself and not with a random one', () => {
    const a = grayOf(20, 20)
    a.data.forEach((_, i) => (a.data[i] = (i * 7919) % 251))
    const b = grayOf(20, 20)
    b.data.forEach((_, i) => (b.data[i] = (i * 104729 + 17) % 241))
    expect(blockCorrelation(a, a, 2, 2)).toBeCloseTo(1, 9)
    expect(Math.abs(blockCorrelation(a, b, 2, 2))).toBeLessThan(0.2)
    expect(blockCorrelation(a, grayOf(20, 20), 2, 2)).toBe(0)
    // With one block it is Pearson's correlation: 1 for any picture that is brighter and steeper by a factor.
    const c = grayOf(20, 20)
    c.data.forEach((_, i) => (c.data[i] = 3 * a.data[i]! + 7))
    expect(blockCorrelation(a, c, 1, 1)).toBeCloseTo(1, 6)
    // Something in front of a quarter costs a quarter, however bright it is.
    const d = grayOf(20, 20)
    d.data.forEach((_, i) => (d.data[i] = i % 20 < 10 && i < 200 ? 20 * b.data[i]! : a.data[i]!))
    expect(blockCorrelation(d, a, 2, 2)).toBeGreaterThan(0.65)
  })

  test('an empty picture has no shift', () => {
    const phase = new PhaseCorrelation(32, 16)
    phase.setReference(grayOf(32, 16))
    expect(phase.shiftOf(grayOf(32, 16)).response).toBeLessThan(0.1)
    expect(resized(grayOf(10, 10), 32, 16).data).toHaveLength(512)
  })

  test('turns RGBA into blue, green, red at half the size', () => {
    const rgba = Uint8ClampedArray.from([
      10, 20, 30, 255, 20, 30, 40, 255, 30, 40, 50, 255, 40, 50, 60, 255
    ])
    const bgr = new Uint8Array(3)
    shrinkRgba(rgba, 2, 2, bgr)
    expect([...bgr]).toEqual([45, 35, 25])
  })

  test('a cell’s motion level is what a fifth of its pixels exceed', () => {
    const cells = new MotionCells({ columns: 2, rows: 1 }, 10, 5, 10)
    const levels = new Uint8Array(2)
    const still = emptyLuma(10, 5)
    for (let n = 0; n < 200; n++) cells.next(still, levels)
    const changed = emptyLuma(10, 5)
    // Five of the 25 pixels of the left cell: exactly a fifth. Four of the right one: less.
    for (let y = 0; y < 5; y++) changed.data[y * 10] = 90
    for (let y = 0; y < 4; y++) changed.data[y * 10 + 9] = 90
    cells.next(changed, levels)
    expect([...levels]).toEqual([90, 0])
  })

  test('what stays becomes background', () => {
    const cells = new MotionCells({ columns: 1, rows: 1 }, 4, 4, 10)
    const level = new Uint8Array(1)
    const [dark, light] = [emptyLuma(4, 4), emptyLuma(4, 4)]
    light.data.fill(100)
    for (let n = 0; n < 100; n++) cells.next(dark, level)
    cells.next(light, level)
    expect(level[0]).toBeGreaterThan(80)
    for (let n = 0; n < 1000; n++) cells.next(light, level)
    expect(level[0]).toBeLessThan(4)
  })

  test('a repeated or missing frame is not new', () => {
    const measurer = new Measurer({ columns: 4, rows: 3 }, 32, 18, 10)
    const [a, b] = [
      picture(32, 18, (x, y) => (x * 9 + y * 5) % 200),
      picture(32, 18, (x, y) => (x * 9 + y * 5 + 3) % 200)
    ]
    for (const p of [a, b, b, null, a]) measurer.next(p)
    expect([...measurer.finish().fresh]).toEqual([1, 1, 0, 0, 1])
  })

  test('measures survive writing and reading; truncated files and other formats are refused', () => {
    const measurer = new Measurer({ columns: 4, rows: 3 }, 32, 18, 10)
    for (let n = 0; n < 300; n++)
      measurer.next(picture(32, 18, (x, y) => (x * 9 + y * 5 + n) % 200))
    const measures = measurer.finish()
    const file = writeMeasures(measures)
    const read = readMeasures(file)
    expect({ ...read, figures: null, cells: [...read.cells], fresh: [...read.fresh] }).toEqual({
      ...measures,
      figures: null,
      cells: [...measures.cells],
      fresh: [...measures.fresh]
    })
    for (const f of FIGURES) expect([...read.figures[f]]).toEqual([...measures.figures[f]])
    const asNodeReadsIt = readMeasures(Buffer.concat([Buffer.alloc(3), file]).subarray(3))
    expect([...asNodeReadsIt.figures.luma]).toEqual([...measures.figures.luma])
    expect(() => readMeasures(file.subarray(0, file.length - 5))).toThrowWords(
      'measures: are cut off'
    )
    expect(() => readMeasures(new TextEncoder().encode('frame,id,left'))).toThrowWords(
      'measures: are not in the format wardoptic-measures/1'
    )
  })

  test('refuses a reference of another size', () => {
    const reference = new Reference(64, 36, 10)
    const whole = { luma: 100, contrast: 40 }
    reference.next(emptyLuma(64, 36), whole)
    expect(() => reference.next(emptyLuma(32, 18), whole)).toThrowWords(
      'reference: is 64 × 36 pixels, but the picture is 32 × 18; choose a new reference'
    )
  })

  test('the reference follows slow changes of light, not sudden darkness', () => {
    const [width, height] = [64, 36]
    const scene = (light: number, noise: number) =>
      Uint8Array.from(
        { length: width * height * 3 },
        (_, i) =>
          noise +
          light * (40 + (((Math.floor(i / 3) % width) * 7 + Math.floor(i / 3 / width) * 11) % 120))
      )
    const measure = (lights: number[]) => {
      const measurer = new Measurer({ columns: 4, rows: 3 }, width, height, 10)
      lights.forEach((light, n) => measurer.next(scene(light, n % 2)))
      const { figures } = measurer.finish()
      return figures.luma[lights.length - 1]! / figures.lumaBefore[lights.length - 1]!
    }
    expect(measure(Array.from({ length: 1500 }, (_, n) => 1 - n / 3000))).toBeGreaterThan(0.8)
    expect(
      measure([...new Array<number>(300).fill(1), ...new Array<number>(300).fill(0.2)])
    ).toBeLessThan(0.3)
  })

  test('refuses a grid finer than the picture', () => {
    expect(() => checkGrid({ columns: 40, rows: 18 }, 32, 18)).toThrowWords(
      'grid: of 40 × 18 cells is finer than the measured picture of 32 × 18 pixels'
    )
    expect(() => new Measurer({ columns: 0, rows: 2 }, 32, 18, 10)).toThrowWords('grid: is 0 × 2')
  })
})

describe('measured in a thread', () => {
  const [size, fps] = [{ width: 64, height: 48 }, 10]
  const grid = { columns: 8, rows: 6 }
  const picture = new Uint8Array(size.width * size.height * 3)
  /** Paints the picture of a frame over the last one, as decoded pictures come. */
  const paint = (frame: number): Uint8Array => {
    for (let i = 0; i < picture.length; i++)
      picture[i] = 100 + ((i * 7919 + frame * 104729) % 40) + (i % 192 < 3 * (frame % 64) ? 50 : 0)
    return picture
  }

  test('pictures give the same figures, also when their memory is used again at once', async () => {
    const here = new Measurer(grid, size.width, size.height, fps)
    const thread = new MeasuringThread(grid, size, fps)
    try {
      for (let frame = 1; frame <= 150; frame++) {
        if (frame === 90) {
          here.learnAnew()
          thread.learnAnew()
        }
        here.next(paint(frame))
        await thread.next(picture)
        picture.fill(0)
      }
      const measured = await thread.finish()
      expect(measured).toEqual(here.finish())
      expect(measured.length).toBe(150)
    } finally {
      await thread.close()
    }
  })
  test('a thread that ends tells whoever gives it more, and whoever waits for the end', async () => {
    const thread = new MeasuringThread(grid, size, fps)
    await thread.next(paint(1))
    await thread.close()
    await expect(thread.next(picture)).rejects.toThrow('the measuring thread ended')
    await expect(thread.finish()).rejects.toThrow('the measuring thread ended')
  })
  test('refuses a grid finer than the picture before it starts', () => {
    expect(() => new MeasuringThread({ columns: 65, rows: 6 }, size, fps)).toThrow()
  })
})
