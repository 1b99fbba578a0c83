import '../bench.css'
import type { ReactNode } from 'react'
import { Circle, Line } from './konva.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { toPixels } from './geometry.ts'
import type { Template } from '../rail/templates.ts'
import { crossingEdges, isClosed, type DrawnKind } from './shape.ts'
import { RUST } from './shapeParts.tsx'

/** A shape that is being drawn: its vertices so far, and where the next one would be. */
export interface Drawing {
  kind: DrawnKind
  /** What is to be made of it; left out: a detection of the kind. */
  template?: Template
  points: Point[]
  cursor: Point
}

export function DrawnSoFar({
  drawing: { kind, points, cursor },
  width,
  height
}: {
  drawing: Drawing
  width: number
  height: number
}): ReactNode {
  const flat = toPixels([...points, cursor], width, height).flat()
  const closed = isClosed(kind) && points.length > 1
  const crossing = isClosed(kind) ? crossingEdges([...points, cursor]) : null
  const [cx, cy] = [cursor[0] * width, cursor[1] * height]
  return (
    <>
      <Line
        points={flat}
        stroke="#11161C"
        opacity={0.7}
        strokeWidth={6}
        lineJoin="round"
        listening={false}
      />
      {closed && (
        <Line
          points={flat}
          closed
          fill={kind === 'ignore' ? '#11161C' : '#FFFFFF'}
          opacity={kind === 'ignore' ? 0.3 : 0.14}
          listening={false}
        />
      )}
      <Line
        points={flat}
        closed={closed}
        stroke="#FFFFFF"
        strokeWidth={2}
        dash={[6, 5]}
        lineJoin="round"
        listening={false}
      />
      {crossing?.map((edge, i) => (
        <Line
          key={`crossing ${i}`}
          points={toPixels(edge, width, height).flat()}
          stroke={RUST}
          strokeWidth={4}
          dash={[4, 7]}
          listening={false}
        />
      ))}
      {points.map(([x, y], i) => (
        <Circle
          key={i}
          x={x * width}
          y={y * height}
          radius={5.5}
          fill="#1F6F5C"
          stroke="#FFFFFF"
          strokeWidth={2}
          listening={false}
        />
      ))}
      <Cross x={cx} y={cy} />
    </>
  )
}

/** Where the next point would be. */
export function Cross({ x, y }: { x: number; y: number }): ReactNode {
  const arms = [
    [x - 12, y, x - 4, y],
    [x + 4, y, x + 12, y],
    [x, y - 12, x, y - 4],
    [x, y + 4, x, y + 12]
  ]
  return arms.map((arm, i) => (
    <Line
      key={i}
      points={arm}
      stroke="#FFFFFF"
      strokeWidth={2}
      shadowColor="#11161C"
      shadowBlur={2}
      listening={false}
    />
  ))
}
