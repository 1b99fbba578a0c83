import { Fragment, type ReactNode } from 'react'
import { Group, Label, Tag, Text } from './konva.ts'
import type { LineDetection } from '../../../core/formats/plan.ts'
import { barbsAlong, sideLabelAt, toPixels } from './geometry.ts'
import {
  BarbShape,
  FONT,
  Handle,
  LetterTag,
  Outline,
  STAGE,
  Vertices,
  WHITE,
  strokeOf,
  type ShapeProps
} from './shapeParts.tsx'
import { sideNames } from '../../../core/kinds/line/words.ts'

/** A line on the picture: barbs on the side to which a crossing counts, names of the sides, vertices to drag. */
export function LineShape(props: ShapeProps<LineDetection>): ReactNode {
  const { detection: line, letter, width, height, selected, triggered, passive, onSelect } = props
  const pixels = toPixels(line.line, width, height)
  const colour = strokeOf(props)
  const sides = sideNames(line)
  return (
    <Group listening={!passive}>
      <Outline
        points={pixels.flat()}
        colour={colour}
        selected={selected}
        triggered={triggered}
        dashed={!line.enabled}
      />
      {barbsAlong(pixels, 46).map(({ at: [x, y], towards: [ux, uy] }, i) => (
        <Fragment key={i}>
          {line.direction !== 'rightToLeft' && (
            <BarbShape x={x} y={y} ux={ux} uy={uy} colour={colour} />
          )}
          {line.direction !== 'leftToRight' && (
            <BarbShape x={x} y={y} ux={-ux} uy={-uy} colour={colour} />
          )}
        </Fragment>
      ))}
      <Handle {...props} />
      {selected && (
        <>
          <SideName at={sideLabelAt(pixels, -1, 24)} text={sides.left} />
          <SideName at={sideLabelAt(pixels, 1, 24)} text={sides.right} />
          <Vertices {...props} />
        </>
      )}
      <LetterTag
        x={pixels[0]![0]}
        y={pixels[0]![1]}
        letter={letter}
        enabled={line.enabled}
        triggered={triggered}
        timed={null}
        onSelect={onSelect}
      />
    </Group>
  )
}

function SideName({ at: [x, y], text }: { at: [number, number]; text: string }): ReactNode {
  return (
    <Label x={x} y={y - 9} offsetX={text.length * 3.3 + 4} listening={false}>
      <Tag fill={STAGE} opacity={0.78} cornerRadius={3} />
      <Text text={text} fill={WHITE} fontSize={12} fontFamily={FONT} padding={4} />
    </Label>
  )
}
