import { said } from '../messages/said.ts'
import { InputError } from '../errors.ts'
import { faceKey, type Face, type Faces } from '../targets/faces.ts'
import { eachLine } from './lines.ts'
import type { PictureSize } from './mot.ts'

/**
 * Faces (docs/detections.md, *Files*): one row per face, `frame,id,left,top,width,height,mask,name` in pixels; `mask` is
 * `with`, `without` or empty (not told), `name` empty where nobody is known. The id is that of the target.
 *
 * @throws InputError naming the line, and what would be right
 */
export function readFaces(text: string, size: PictureSize): Faces {
  const faces = new Map<string, Face>()
  eachLine(text, (line, place) => {
    const cells = line.split(',').map((cell) => cell.trim())
    if (cells.length < 6 || cells.length > 8)
      throw new InputError(place, said('formats.hasColumnsAFaceIs', cells.length))
    const [frame, id, left, top, width, height] = cells.slice(0, 6).map((cell, i) => {
      const value = cell === '' ? NaN : Number(cell)
      if (!Number.isFinite(value))
        throw new InputError(
          `${place}, column ${i + 1}`,
          said('formats.isMustBe4', cell.slice(0, 20))
        )
      return value
    }) as [number, number, number, number, number, number]
    const mask = cells[6] ?? ''
    if (!['with', 'without', ''].includes(mask))
      throw new InputError(`${place}, mask`, said('formats.isMustBe5', mask.slice(0, 20)))
    faces.set(faceKey(frame, id), {
      x: left / size.width,
      y: top / size.height,
      w: width / size.width,
      h: height / size.height,
      mask: mask === '' ? null : mask === 'with',
      name: cells[7] || null
    })
  })
  return faces
}

export function writeFaces(faces: Faces, size: PictureSize): string {
  const fixed = (value: number): string => String(Math.round(value * 100) / 100)
  return [...faces]
    .map(
      ([key, { x, y, w, h, mask, name }]) =>
        [
          ...key.split(' '),
          fixed(x * size.width),
          fixed(y * size.height),
          fixed(w * size.width),
          fixed(h * size.height),
          mask === null ? '' : mask ? 'with' : 'without',
          name ?? ''
        ].join(',') + '\n'
    )
    .join('')
}
