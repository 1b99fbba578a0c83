import { type Said, said } from '../../../core/messages/said.ts'
import { framesLayer as msg } from '../../../core/messages/en/bench/picture.ts'
import type Konva from 'konva'
import type { ReactNode } from 'react'
import { Circle, Group, Line, Rect, Text } from './konva.ts'
import type { TargetGated } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { framePlaces } from './framePlaces.ts'
import { FONT, STAGE, WHITE } from './shapeParts.tsx'

/** What a frame starts from when it is drawn first. */
const USUAL_FRAMES = { min: { w: 0.02, h: 0.06 }, max: { w: 0.25, h: 0.6 } } as const

const round = (v: number): number => Math.round(Math.min(1, Math.max(0.005, v)) * 1000) / 1000

/**
 * The smallest and the largest frame that count, standing where they matter: the smallest at the far edge of the shape,
 * the largest at the near one. Their upper right corners are dragged.
 */
export function FramesLayer({
  detection,
  width,
  height,
  onShow,
  onSettle
}: {
  detection: TargetGated
  width: number
  height: number
  onShow: (d: TargetGated) => void
  onSettle: (label: Said) => void
}): ReactNode {
  const places = framePlaces(detection)
  return (['max', 'min'] as const).map((which) => {
    const set = detection.size?.[which]
    const { w, h } = set ?? USUAL_FRAMES[which]
    const [x, y]: Point = places[which]
    const [px, py] = [x * width, y * height]
    const [left, top] = [px - (w * width) / 2, py - h * height]
    const drag = (event: Konva.KonvaEventObject<DragEvent>): void => {
      const next = {
        w: round((2 * (event.target.x() - px)) / width),
        h: round((py - event.target.y()) / height)
      }
      event.target.position({ x: px + (next.w * width) / 2, y: py - next.h * height })
      onShow({ ...detection, size: { ...detection.size, [which]: next } })
    }
    const name = which === 'min' ? msg.smallest : msg.largest
    return (
      <Group key={which} opacity={set ? 1 : 0.75}>
        <Rect
          x={left}
          y={top}
          width={w * width}
          height={h * height}
          stroke={STAGE}
          strokeWidth={4.5}
          opacity={0.6}
          listening={false}
        />
        <Rect
          x={left}
          y={top}
          width={w * width}
          height={h * height}
          stroke={WHITE}
          strokeWidth={2}
          dash={set ? undefined : [5, 5]}
          listening={false}
        />
        <Line points={[px, py, px, py - 7]} stroke={WHITE} strokeWidth={2} listening={false} />
        <Text
          text={set ? name : msg.noYet(name)}
          x={left}
          y={top - 16}
          fontSize={12}
          fontFamily={FONT}
          fill={WHITE}
          shadowColor={STAGE}
          shadowBlur={3}
          shadowOpacity={1}
          listening={false}
        />
        <Circle
          x={left + w * width}
          y={top}
          radius={6.5}
          hitStrokeWidth={16}
          fill="#1F6F5C"
          stroke={WHITE}
          strokeWidth={2}
          name={`frame-${which}`}
          draggable
          onDragMove={drag}
          onDragEnd={() => onSettle(said('edits.drawTheFrameOf', name, detection.name))}
        />
      </Group>
    )
  })
}
