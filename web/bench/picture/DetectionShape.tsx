import type { Said } from '../../../core/messages/said.ts'
import '../bench.css'
import type Konva from 'konva'
import { memo, type ReactNode } from 'react'
import type { Point } from '../../../core/geometry/shapes.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { LineShape } from './LineShape.tsx'
import { isZone, shapeOf } from './shape.ts'
import type { ShapeProps } from './shapeParts.tsx'
import { ZoneShape } from './ZoneShape.tsx'
import type { ShapeDetection } from '../../../core/kinds/schemas.ts'

/** What the pointer does to shapes; always the same object. */
export interface ShapeHandlers {
  select: (id: string, event: Konva.KonvaEventObject<MouseEvent>) => void
  vertex: (index: number | null) => void
  show: (d: ShapeDetection, points: Point[]) => void
  settle: (label: Said) => void
  edit: (d: ShapeDetection, points: Point[], label: Said) => void
}

export interface DetectionShapeProps extends Pick<
  ShapeProps,
  'width' | 'height' | 'selected' | 'locked' | 'triggered' | 'timed' | 'vertex' | 'passive'
> {
  detection: ShapeDetection
  index: number
  act: ShapeHandlers
}

/** The same for what draws and edits it. */
export const propsOf = ({ detection, index, act, ...rest }: DetectionShapeProps): ShapeProps => ({
  ...rest,
  detection,
  shape: shapeOf(detection),
  letter: letterOf(index),
  onSelect: (event) => act.select(detection.id, event),
  onVertex: act.vertex,
  onShow: (points) => act.show(detection, points),
  onSettle: act.settle,
  onEdit: (points, label) => act.edit(detection, points, label)
})

/** A detection's shape; drawn again only when something of it has changed, as there may be a hundred of them. */
export const DetectionShape = memo(function DetectionShape(p: DetectionShapeProps): ReactNode {
  const { detection, ...props } = propsOf(p)
  return isZone(detection) ? (
    <ZoneShape {...props} detection={detection} />
  ) : (
    <LineShape {...props} detection={detection} />
  )
})
