import type { ReactNode } from 'react'
import { Group, Line } from './konva.ts'
import { signedArea } from '../../../core/geometry/shapes.ts'
import { barbsAlong, toPixels } from './geometry.ts'
import {
  BarbShape,
  Handle,
  LetterTag,
  Outline,
  PLUM,
  RUST,
  WHITE,
  strokeOf,
  type ShapeProps
} from './shapeParts.tsx'
import { crossingEdges } from './shape.ts'
import type { ZoneDetection } from '../../../core/kinds/schemas.ts'

/**
 * A zone on the picture. Entry and exit carry barbs on their outline, inwards and outwards, as a line does on the side
 * that counts; where somebody must stay there are none. Edges that cross each other are shown broken. Its vertices are
 * drawn apart, over the targets.
 */
export function ZoneShape(props: ShapeProps<ZoneDetection>): ReactNode {
  const {
    detection: zone,
    letter,
    width,
    height,
    selected,
    triggered,
    timed,
    passive,
    onSelect
  } = props
  const pixels = toPixels(zone.zone, width, height)
  const colour = strokeOf(props)
  const crossing = crossingEdges(zone.zone)
  // Barbs point to the right of the way along the outline; that is inwards where it runs clockwise on the picture.
  const inwards = signedArea(zone.zone) > 0 ? 1 : -1
  const sign = zone.kind === 'entry' ? inwards : zone.kind === 'exit' ? -inwards : 0
  const [top] = [...pixels].sort((a, b) => a[1] - b[1] || a[0] - b[0]) as [[number, number]]
  return (
    <Group listening={!passive}>
      <Line
        points={pixels.flat()}
        closed
        fill={triggered ? PLUM : WHITE}
        opacity={triggered ? 0.22 : selected ? 0.16 : 0.08}
        listening={false}
      />
      <Outline
        points={pixels.flat()}
        closed
        colour={colour}
        selected={selected}
        triggered={triggered}
        dashed={!zone.enabled}
      />
      {sign !== 0 &&
        barbsAlong([...pixels, pixels[0]!], 46).map(({ at: [x, y], towards: [ux, uy] }, i) => (
          <BarbShape key={i} x={x} y={y} ux={sign * ux} uy={sign * uy} colour={colour} />
        ))}
      {crossing?.map((edge, i) => (
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
        letter={letter}
        enabled={zone.enabled}
        triggered={triggered}
        timed={timed}
        onSelect={onSelect}
      />
    </Group>
  )
}
