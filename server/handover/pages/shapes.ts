import type { Detection } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { sideNames } from '../../../core/kinds/line/words.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { shapeOf } from '../../../core/kinds/schemas.ts'
import { COLOURS, type Sheet } from './sheet.ts'

/** What is drawn over a camera's picture: shapes with their letters, names of sides, size limits, ignore areas. */

type Place = [number, number]
interface Frame {
  x: number
  y: number
  width: number
  height: number
}

const placed = (points: readonly Point[], { x, y, width, height }: Frame): Place[] =>
  points.map(([px, py]) => [x + px * width, y + py * height])

/** White over dark, so that it is seen on any picture. */
function outlined(sheet: Sheet, trace: () => void, dashed = false): void {
  const { doc } = sheet
  for (const [colour, width] of [
    ['#11161c', 3],
    ['#ffffff', 1.4]
  ] as const) {
    doc
      .save()
      .lineWidth(width)
      .lineJoin('round')
      .lineCap('round')
      .strokeOpacity(colour === '#ffffff' ? 1 : 0.7)
    if (dashed) doc.dash(4, { space: 3 })
    trace()
    doc.stroke(colour).restore()
  }
}

function path(sheet: Sheet, points: readonly Place[], close: boolean): void {
  points.forEach(([x, y], i) => (i ? sheet.doc.lineTo(x, y) : sheet.doc.moveTo(x, y)))
  if (close) sheet.doc.closePath()
}

/** A word on a dark plate, its middle at a place, kept within the picture. */
function plate(sheet: Sheet, text: string, [x, y]: Place, frame: Frame, bold = false): void {
  const size = 7.5
  const runs = sheet.fonts.runs(text, bold ? 'bold' : 'regular')
  const width = sheet.fonts.widthOf(runs, size) + 6
  const height = size + 5
  const left = Math.min(Math.max(x - width / 2, frame.x + 1), frame.x + frame.width - width - 1)
  const top = Math.min(Math.max(y - height / 2, frame.y + 1), frame.y + frame.height - height - 1)
  sheet.doc
    .save()
    .fillOpacity(0.78)
    .roundedRect(left, top, width, height, 2)
    .fill('#11161c')
    .restore()
  sheet.at(text, left + 3, top + 1.8, width, {
    size,
    weight: bold ? 'bold' : 'regular',
    colour: '#ffffff'
  })
}

const EVERY = 26

/** Barbs along a line, to the side to which a crossing counts. */
function barbs(sheet: Sheet, line: readonly Place[], sign: 1 | -1): void {
  outlined(sheet, () => {
    for (let i = 0; i + 1 < line.length; i++) {
      const [[ax, ay], [bx, by]] = [line[i]!, line[i + 1]!]
      const length = Math.hypot(bx - ax, by - ay)
      if (length < 1) continue
      const count = Math.max(1, Math.floor(length / EVERY))
      const [ux, uy] = [(-sign * (by - ay)) / length, (sign * (bx - ax)) / length]
      for (let k = 0; k < count; k++) {
        const t = (k + 0.5) / count
        const [x, y] = [ax + (bx - ax) * t, ay + (by - ay) * t]
        sheet.doc.moveTo(x, y).lineTo(x + ux * 6, y + uy * 6)
      }
    }
  })
}

/** Where the name of a side stands: off the middle of the line. */
function besideLine(line: readonly Place[], sign: 1 | -1): Place {
  const i = Math.floor((line.length - 1) / 2)
  const [[ax, ay], [bx, by]] = [line[i]!, line[i + 1]!]
  const length = Math.hypot(bx - ax, by - ay) || 1
  const away = 16 * sign
  return [
    ax + (bx - ax) * 0.7 - ((by - ay) / length) * away,
    ay + (by - ay) * 0.7 + ((bx - ax) / length) * away
  ]
}

function drawDetection(sheet: Sheet, d: Detection, letter: string, frame: Frame): void {
  const shape = shapeOf(d)
  if (!shape) return
  const points = placed(shape, frame)
  const isZone = 'zone' in d
  if (isZone) {
    sheet.doc.save().fillOpacity(0.14)
    path(sheet, points, true)
    sheet.doc.fill('#ffffff').restore()
  }
  outlined(sheet, () => path(sheet, points, isZone), !d.enabled)
  if (!isZone && 'direction' in d) {
    if (d.direction !== 'rightToLeft') barbs(sheet, points, 1)
    if (d.direction !== 'leftToRight') barbs(sheet, points, -1)
    if (d.sides) {
      const { left, right } = sideNames(d)
      plate(sheet, right, besideLine(points, 1), frame)
      plate(sheet, left, besideLine(points, -1), frame)
    }
  }
  const middle: Place = isZone
    ? [
        points.reduce((sum, [x]) => sum + x, 0) / points.length,
        points.reduce((sum, [, y]) => sum + y, 0) / points.length
      ]
    : points[0]!
  plate(sheet, letter, middle, frame, true)
}

/** The smallest and the largest frame of a target, side by side at the lower edge. */
function sizeFrames(sheet: Sheet, detections: readonly Detection[], frame: Frame): void {
  let x = frame.x + 6
  detections.forEach((d, i) => {
    if (!('size' in d) || !d.size) return
    for (const limit of [d.size.min, d.size.max]) {
      if (!limit) continue
      const [w, h] = [limit.w * frame.width, limit.h * frame.height]
      if (x + w > frame.x + frame.width - 4) return
      const top = frame.y + frame.height - h - 4
      outlined(sheet, () => sheet.doc.rect(x, top, w, h), true)
      plate(sheet, letterOf(i), [x + w / 2, top], frame)
      x += w + 12
    }
  })
}

/** @param detections in the order of the rail, which gives them their letters */
export function drawShapes(
  sheet: Sheet,
  detections: readonly Detection[],
  ignore: readonly (readonly Point[])[],
  frame: Frame
): void {
  const { doc } = sheet
  for (const area of ignore) {
    const points = placed(area, frame)
    doc.save()
    path(sheet, points, true)
    doc.clip()
    doc.lineWidth(1).strokeOpacity(0.75)
    for (let x = frame.x - frame.height; x < frame.x + frame.width; x += 7)
      doc.moveTo(x, frame.y + frame.height).lineTo(x + frame.height, frame.y)
    doc.stroke(COLOURS.hairline).restore()
    outlined(sheet, () => path(sheet, points, true), true)
  }
  detections.forEach((d, i) => drawDetection(sheet, d, letterOf(i), frame))
  sizeFrames(sheet, detections, frame)
}
