import type { ReactNode } from 'react'
import { Group, Line, Shape } from './konva.ts'
import { toPixels } from './geometry.ts'
import { Handle, LetterTag, RUST, SLATE, STAGE, WHITE, type EditProps } from './shapeParts.tsx'
import { crossingEdges } from './shape.ts'

/** An ignore area on the picture: hatched, as what stands in it does not count. */
export function AreaShape({ passive, ...props }: EditProps & { passive: boolean }): ReactNode {
  const { shape, width, height, selected, onSelect } = props
  const pixels = toPixels(shape.points, width, height)
  const [top] = [...pixels].sort((a, b) => a[1] - b[1] || a[0] - b[0]) as [[number, number]]
  const xs = pixels.map(([x]) => x)
  const ys = pixels.map(([, y]) => y)
  const [left, right, upper, lower] = [
    Math.min(...xs),
    Math.max(...xs),
    Math.min(...ys),
    Math.max(...ys)
  ]
  return (
    <Group listening={!passive}>
      <Shape
        listening={false}
        sceneFunc={(g) => {
          const context = g._context
          context.save()
          context.beginPath()
          pixels.forEach(([x, y], i) => (i ? context.lineTo(x, y) : context.moveTo(x, y)))
          context.closePath()
          context.clip()
          context.fillStyle = 'rgba(17, 22, 28, 0.35)'
          context.fillRect(left, upper, right - left, lower - upper)
          context.strokeStyle = SLATE
          context.globalAlpha = 0.75
          context.lineWidth = 1.5
          context.beginPath()
          for (let x = left - (lower - upper); x < right; x += 12) {
            context.moveTo(x, lower)
            context.lineTo(x + (lower - upper), upper)
          }
          context.stroke()
          context.restore()
        }}
      />
      <Line
        points={pixels.flat()}
        closed
        stroke={STAGE}
        opacity={0.75}
        strokeWidth={selected ? 6 : 4.5}
        lineJoin="round"
        listening={false}
      />
      <Line
        points={pixels.flat()}
        closed
        stroke={selected ? WHITE : SLATE}
        strokeWidth={selected ? 2.5 : 1.6}
        dash={[3, 5]}
        lineCap="round"
        lineJoin="round"
        listening={false}
      />
      {crossingEdges(shape.points)?.map((edge, i) => (
        <Line
          key={i}
          points={toPixels(edge, width, height).flat()}
          stroke={RUST}
          strokeWidth={4}
          dash={[4, 7]}
          lineCap="round"
          listening={false}
        />
      ))}
      <Handle {...props} />
      <LetterTag
        x={top[0]}
        y={top[1]}
        letter={null}
        enabled
        triggered={false}
        timed={null}
        onSelect={onSelect}
      />
    </Group>
  )
}
