import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'
import type { LiveFrame } from '../../devices/views.ts'
import { CLASSES } from '../../targets/classes.ts'
import { classNames } from './parameters.ts'
import { NAMESPACES } from './soap.ts'
import { child, children, content, down, readXml, xml, type Element } from './xml.ts'

/**
 * Targets of a moment as the standard's metadata frame has them: boxes in coordinates from −1 to 1, y upwards.
 * Source: ONVIF Analytics Service Specification, scene description (from memory).
 */
export function metadataXml({ at, targets }: LiveFrame): string {
  const round = (n: number): number => Math.round(n * 1e5) / 1e5
  const objects = targets.map(({ id, class: name, x, y, w, h }) =>
    xml(
      'tt:Object',
      { ObjectId: id },
      xml(
        'tt:Appearance',
        {},
        xml(
          'tt:Shape',
          {},
          xml('tt:BoundingBox', {
            left: round(2 * x - 1),
            right: round(2 * (x + w) - 1),
            top: round(1 - 2 * y),
            bottom: round(1 - 2 * (y + h))
          })
        ),
        ...(name in classNames
          ? [
              xml(
                'tt:Class',
                {},
                xml(
                  'tt:Type',
                  { Likelihood: 0.9 },
                  content(classNames[name as keyof typeof classNames])
                )
              )
            ]
          : [])
      )
    )
  )
  return xml(
    'tt:MetadataStream',
    { 'xmlns:tt': NAMESPACES.tt },
    xml(
      'tt:VideoAnalytics',
      {},
      xml('tt:Frame', { UtcTime: new Date(at).toISOString() }, ...objects)
    )
  )
}

const boxOf = (
  box: Element | undefined
): Pick<LiveFrame['targets'][number], 'x' | 'y' | 'w' | 'h'> | null => {
  const [left, right, top, bottom] = ['left', 'right', 'top', 'bottom'].map((side) =>
    Number(box?.attributes[side])
  ) as [number, number, number, number]
  if (![left, right, top, bottom].every(Number.isFinite)) return null
  return { x: (left + 1) / 2, y: (1 - top) / 2, w: (right - left) / 2, h: (top - bottom) / 2 }
}

/** Of a camera that sees nobody, ten of which come each second: its time can be told without reading all of it. */
const OBJECT = /<(?:[\w.-]+:)?Object[\s/>]/
const FRAME_TIME = /<(?:[\w.-]+:)?Frame\s(?:[^<>]*\s)?UtcTime\s*=\s*["']([^"'&<]+)["']/
function emptyFrame(text: string): LiveFrame | null {
  if (text.includes('<!') || OBJECT.test(text)) return null
  const at = Date.parse(FRAME_TIME.exec(text)?.[1] ?? '')
  return Number.isFinite(at) ? { at, targets: [] } : null
}

/** @throws InputError when it is no metadata frame */
export function readMetadata(text: string): LiveFrame {
  const empty = emptyFrame(text)
  if (empty) return empty
  const root = readXml(text, coded('places.metadata'))
  const frame = down(root, 'VideoAnalytics', 'Frame')
  const at = Date.parse(frame?.attributes.UtcTime ?? '')
  if (!frame || !Number.isFinite(at))
    throw new InputError(coded('places.metadata'), said('formats.hasNoFrameWithA'))
  return {
    at,
    targets: children(frame, 'Object').flatMap((object) => {
      const appearance = child(object, 'Appearance')
      const box = boxOf(down(appearance, 'Shape', 'BoundingBox'))
      const said = down(appearance, 'Class', 'Type')?.text
      return box
        ? {
            id: Number(object.attributes.ObjectId),
            class: CLASSES.find((c) => c !== 'unknown' && classNames[c] === said) ?? 'unknown',
            ...box
          }
        : []
    })
  }
}
