import { said } from '../messages/said.ts'
import { InputError } from '../errors.ts'
import { CLASSES, type TargetClass } from '../targets/classes.ts'
import { tracksFromRows, type TargetRow, type Tracks } from '../targets/tracks.ts'
import { eachLine } from './lines.ts'

/**
 * MOTChallenge text (docs/detections.md, *Files*): one row per target and frame,
 * `frame,id,left,top,width,height,confidence,class,visibility` in pixels.
 * Source of the class numbers: Milan et al., "MOT16: A Benchmark for Multi-Object Tracking", table 3 (from memory).
 */
const numberToClass: Record<number, TargetClass> = {
  1: 'person',
  2: 'person',
  7: 'person',
  3: 'vehicle',
  5: 'vehicle',
  4: 'cycle',
  6: 'cycle'
}
const classToText: Record<TargetClass, string> = {
  person: '1',
  vehicle: '3',
  cycle: '4',
  animal: 'animal',
  unknown: '-1'
}

const MAX_FRAMES = 100_000_000

export interface PictureSize {
  width: number
  height: number
}

/**
 * Reads track text into normalised columns.
 *
 * @param fps frames per second of the clip
 * @param size picture size in pixels, to which the rows' coordinates refer
 * @throws InputError naming the line and the column, and what would be right
 */
export function readMot(text: string, fps: number, size: PictureSize): Tracks {
  const rows: TargetRow[] = []
  const seen = new Set<string>()
  eachLine(text, (line, place) => {
    const cells = line.split(',').map((cell) => cell.trim())
    if (cells.length < 6 || cells.length > 10)
      throw new InputError(place, said('formats.hasColumnsARowIs', cells.length))
    const number = (column: number, name: string): number => {
      const value = cells[column] === '' ? NaN : Number(cells[column])
      if (!Number.isFinite(value))
        throw new InputError(
          `${place}, ${name}`,
          said('formats.isMustBe2', cells[column]!.slice(0, 20))
        )
      return value
    }
    const whole = (column: number, name: string, min: number, max: number): number => {
      const value = number(column, name)
      if (!Number.isInteger(value) || value < min || value > max)
        throw new InputError(
          `${place}, ${name}`,
          said('formats.isMustBeA', cells[column]!.slice(0, 20), min, max)
        )
      return value
    }
    const frame = whole(0, 'frame', 1, MAX_FRAMES)
    const id = whole(1, 'id', 0, 2 ** 31 - 1)
    const left = number(2, 'left')
    const top = number(3, 'top')
    const width = number(4, 'width')
    const height = number(5, 'height')
    if (!(width > 0)) throw new InputError(`${place}, width`, said('formats.isMustBeAbove', width))
    if (!(height > 0))
      throw new InputError(`${place}, height`, said('formats.isMustBeAbove2', height))
    const key = `${frame} ${id}`
    if (seen.has(key))
      throw new InputError(place, said('formats.targetStandsTwiceInFrame', id, frame))
    seen.add(key)
    rows.push({
      frame,
      id,
      x: left / size.width,
      y: top / size.height,
      w: width / size.width,
      h: height / size.height,
      confidence: cells.length > 6 && cells[6] !== '' ? number(6, 'confidence') : 1,
      cls: cells.length > 7 ? readClass(cells[7]!, place) : 'unknown'
    })
  })
  return tracksFromRows(rows, fps)
}

function readClass(text: string, place: string): TargetClass {
  if ((CLASSES as readonly string[]).includes(text)) return text as TargetClass
  const value = text === '' ? NaN : Number(text)
  if (!Number.isFinite(value))
    throw new InputError(
      `${place}, class`,
      said('formats.isMustBe3', text.slice(0, 20), CLASSES.join(', '))
    )
  return numberToClass[value] ?? 'unknown'
}

const fixed = (value: number): string => String(Math.round(value * 100) / 100)

/** Writes columns as MOTChallenge text, pixels to a hundredth; the classes as MOT16 numbers where there is one. */
export function writeMot(tracks: Tracks, size: PictureSize): string {
  const lines: string[] = []
  for (let i = 0; i < tracks.length; i++)
    lines.push(
      [
        tracks.frame[i],
        tracks.id[i],
        fixed(tracks.x[i]! * size.width),
        fixed(tracks.y[i]! * size.height),
        fixed(tracks.w[i]! * size.width),
        fixed(tracks.h[i]! * size.height),
        fixed(tracks.confidence[i]!),
        classToText[CLASSES[tracks.cls[i]!]!],
        1
      ].join(',')
    )
  return lines.length ? lines.join('\n') + '\n' : ''
}
