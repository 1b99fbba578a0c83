import type Konva from 'konva'
import type { ReactNode } from 'react'
import { Circle, Group, Label, Line, Tag, Text } from '../picture/konva.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { Cross } from '../picture/DrawnSoFar.tsx'
import { pointOf, toPixels } from '../picture/geometry.ts'
import { FONT, RUST, STAGE, WHITE } from '../picture/shapeParts.tsx'
import type { DraftPerson } from './draft.ts'

/** Marks that are being set, and what clicks do with them. */
export interface Measuring {
  people: readonly DraftPerson[]
  /** Corners of the rectangle on the ground, as far as they are set. */
  corners: readonly Point[]
  /** The foot of the next person, when its head is still missing. */
  foot: Point | null
  cursor: Point
  /** How far off each person is, in metres, where there is a fit. */
  off: readonly (number | null)[]
  onPoint: (at: Point) => void
  onCursor: (at: Point) => void
  onMovePerson: (index: number, part: 'foot' | 'head', at: Point) => void
  onMoveCorner: (index: number, at: Point) => void
}

/** More than this is likely a slip of the hand. */
export const FAR_OFF = 0.15

export function MeasuringLayer({
  measuring: m,
  width,
  height
}: {
  measuring: Measuring
  width: number
  height: number
}): ReactNode {
  const corners = toPixels(m.corners, width, height)
  const [cx, cy] = [m.cursor[0] * width, m.cursor[1] * height]
  return (
    <>
      {m.people.map((person, i) => {
        const [[fx, fy], [hx, hy]] = toPixels([person.foot, person.head], width, height) as [
          [number, number],
          [number, number]
        ]
        const off = m.off[i]
        const colour = off != null && Math.abs(off) > FAR_OFF ? RUST : WHITE
        return (
          <Group key={i}>
            <Line
              points={[fx, fy, hx, hy]}
              stroke={STAGE}
              opacity={0.7}
              strokeWidth={6}
              listening={false}
            />
            <Line points={[fx, fy, hx, hy]} stroke={colour} strokeWidth={2} listening={false} />
            <Line
              points={[fx - 9, fy, fx + 9, fy]}
              stroke={colour}
              strokeWidth={3}
              listening={false}
            />
            <Dot
              x={fx}
              y={fy}
              width={width}
              height={height}
              onMove={(at) => m.onMovePerson(i, 'foot', at)}
            />
            <Dot
              x={hx}
              y={hy}
              width={width}
              height={height}
              onMove={(at) => m.onMovePerson(i, 'head', at)}
            />
            <Label x={hx + 8} y={hy - 10} listening={false}>
              <Tag fill={STAGE} opacity={0.8} cornerRadius={3} />
              <Text
                text={String(i + 1)}
                fill={colour}
                fontSize={12}
                fontFamily={FONT}
                padding={3}
              />
            </Label>
          </Group>
        )
      })}
      {corners.length > 0 && (
        <>
          <Line
            points={[...corners.flat(), ...(corners.length < 4 ? [cx, cy] : [])]}
            closed={corners.length === 4}
            stroke={STAGE}
            opacity={0.7}
            strokeWidth={6}
            listening={false}
          />
          <Line
            points={[...corners.flat(), ...(corners.length < 4 ? [cx, cy] : [])]}
            closed={corners.length === 4}
            stroke={WHITE}
            strokeWidth={2}
            dash={[7, 5]}
            listening={false}
          />
          {corners.map(([x, y], i) => (
            <Dot
              key={i}
              x={x}
              y={y}
              width={width}
              height={height}
              onMove={(at) => m.onMoveCorner(i, at)}
            />
          ))}
        </>
      )}
      {m.foot && (
        <Line
          points={[m.foot[0] * width, m.foot[1] * height, cx, cy]}
          stroke={WHITE}
          strokeWidth={2}
          dash={[6, 5]}
          listening={false}
        />
      )}
      <Cross x={cx} y={cy} />
    </>
  )
}

function Dot({
  x,
  y,
  width,
  height,
  onMove
}: {
  x: number
  y: number
  width: number
  height: number
  onMove: (at: Point) => void
}): ReactNode {
  const drag = (event: Konva.KonvaEventObject<DragEvent>): void => {
    const at = pointOf(event.target.x() / width, event.target.y() / height)
    event.target.position({ x: at[0] * width, y: at[1] * height })
    onMove(at)
  }
  // A click on a mark is meant for the mark, not for a new one.
  return (
    <Circle
      x={x}
      y={y}
      radius={5}
      hitStrokeWidth={12}
      fill="#1F6F5C"
      stroke={WHITE}
      strokeWidth={1.8}
      draggable
      onDragMove={drag}
      onClick={(event) => (event.cancelBubble = true)}
    />
  )
}
