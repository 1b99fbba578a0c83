import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'
import type { LiveFrame } from '../../devices/views.ts'
import { CLASSES } from '../../targets/classes.ts'
import { classNames } from './parameters.ts'
import { NAMESPACES } from './soap.ts'
import { child, children, content, down, readXml, xml } from './xml.ts'

/**
 * Targets of a moment as the standard's metadata frame has them: boxes in coordinates from −1 to 1, y upwards.
 * Source: ONVIF Analytics Service Specification, scene description (from memory).
 */
export function metadataXml({ at, targets }: LiveFrame): string {
  const round = (n: number): number => Math.round(n * 1e5) / 1e5
  const objects = targets.map(({ id, class: name, x, y, w, h, likelihood = 0.9 }) =>
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
                  { Likelihood: likelihood },
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

type Target = LiveFrame['targets'][number]

const boxOf = (
  box: Readonly<Record<string, string>> | undefined
): Pick<Target, 'x' | 'y' | 'w' | 'h'> | null => {
  const [left, right, top, bottom] = ['left', 'right', 'top', 'bottom'].map((side) =>
    Number(box?.[side])
  ) as [number, number, number, number]
  if (![left, right, top, bottom].every(Number.isFinite)) return null
  return { x: (left + 1) / 2, y: (1 - top) / 2, w: (right - left) / 2, h: (top - bottom) / 2 }
}

const targetOf = (
  id: string | undefined,
  type: string | undefined,
  likelihood: number,
  box: Pick<Target, 'x' | 'y' | 'w' | 'h'>
): Target => ({
  id: Number(id),
  class: CLASSES.find((c) => c !== 'unknown' && classNames[c] === type) ?? 'unknown',
  ...box,
  ...(likelihood >= 0 && likelihood <= 1 && { likelihood })
})

/** Of a camera that sees nobody, ten of which come each second: its time can be told without reading all of it. */
const OBJECT = /<(?:[\w.-]+:)?Object[\s/>]/
const FRAME_TIME = /<(?:[\w.-]+:)?Frame\s(?:[^<>]*\s)?UtcTime\s*=\s*["']([^"'&<]+)["']/
function emptyFrame(text: string): LiveFrame | null {
  if (text.includes('<!') || OBJECT.test(text)) return null
  const at = Date.parse(FRAME_TIME.exec(text)?.[1] ?? '')
  return Number.isFinite(at) ? { at, targets: [] } : null
}

/** What only a reader of all of XML can tell: declarations, entities, other parts with objects or classes of their own. */
const UNUSUAL = /<!|<\?(?!xml )|&|ClassCandidate|Event|Transformation/
const WHOLE_OBJECT = /<(?:[\w.-]+:)?Object\s([^<>]*[^<>/])>([^]*?)<\/(?:[\w.-]+:)?Object\s*>/g
const OBJECTS = /<(?:[\w.-]+:)?Object[\s/>]/g
const FRAMES = /<(?:[\w.-]+:)?Frame[\s/>]/g
/** One of each, in this order; the class may be missing. */
const PARTS =
  /^\s*<(?:[\w.-]+:)?Appearance\s*>\s*<(?:[\w.-]+:)?Shape\s*>\s*<(?:[\w.-]+:)?BoundingBox\s([^<>]*?)\/?>(?:\s*<\/(?:[\w.-]+:)?BoundingBox\s*>)?(?:\s*<(?:[\w.-]+:)?CenterOfGravity\s[^<>]*\/>)?\s*<\/(?:[\w.-]+:)?Shape\s*>(?:\s*<(?:[\w.-]+:)?Class\s*>\s*<(?:[\w.-]+:)?Type(\s[^<>]*)?>([^<>]*)<\/(?:[\w.-]+:)?Type\s*>\s*<\/(?:[\w.-]+:)?Class\s*>)?\s*<\/(?:[\w.-]+:)?Appearance\s*>\s*$/

function attributesOf(text: string): Record<string, string> {
  const found: Record<string, string> = {}
  for (const [, name, , value] of text.matchAll(/([\w.:-]+)\s*=\s*(["'])([^"'<>]*)\2/g))
    found[name!] = value!
  return found
}

/**
 * A frame as most cameras write it, read without making a tree of it: of 200 cameras they come by the thousand each
 * second. Null where anything is otherwise than usual; then all of it is read as XML.
 */
function usualFrame(text: string): LiveFrame | null {
  if (UNUSUAL.test(text) || text.match(FRAMES)?.length !== 1) return null
  const at = Date.parse(FRAME_TIME.exec(text)?.[1] ?? '')
  if (!Number.isFinite(at)) return null
  const targets: LiveFrame['targets'] = []
  let objects = 0
  for (const [, own, inside] of text.matchAll(WHOLE_OBJECT)) {
    objects++
    const parts = PARTS.exec(inside!)
    if (!parts) return null
    const box = boxOf(attributesOf(parts[1]!))
    if (!box) continue
    const likelihood = Number(attributesOf(parts[2] ?? '').Likelihood)
    targets.push(targetOf(attributesOf(own!).ObjectId, parts[3]?.trim(), likelihood, box))
  }
  return text.match(OBJECTS)?.length === objects ? { at, targets } : null
}

/** @throws InputError when it is no metadata frame */
export function readMetadata(text: string): LiveFrame {
  const quick = emptyFrame(text) ?? usualFrame(text)
  if (quick) return quick
  return readWholeMetadata(text)
}

/** The same by a reader of all of XML. @throws InputError when it is no metadata frame */
export function readWholeMetadata(text: string): LiveFrame {
  const root = readXml(text, coded('places.metadata'))
  const frame = down(root, 'VideoAnalytics', 'Frame')
  const at = Date.parse(frame?.attributes.UtcTime ?? '')
  if (!frame || !Number.isFinite(at))
    throw new InputError(coded('places.metadata'), said('formats.hasNoFrameWithA'))
  return {
    at,
    targets: children(frame, 'Object').flatMap((object) => {
      const appearance = child(object, 'Appearance')
      const box = boxOf(down(appearance, 'Shape', 'BoundingBox')?.attributes)
      const type = down(appearance, 'Class', 'Type')
      return box
        ? [
            targetOf(
              object.attributes.ObjectId,
              type?.text,
              Number(type?.attributes.Likelihood),
              box
            )
          ]
        : []
    })
  }
}
