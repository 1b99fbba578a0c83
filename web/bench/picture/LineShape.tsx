import type Konva from 'konva'
import { Fragment, type ReactNode } from 'react'
import { Circle, Group, Label, Line, Ring, Shape, Tag, Text } from 'react-konva'
import type { LineDetection } from '../../../core/formats/plan.ts'
import { sideNames } from '../words.ts'
import { barbsAlong, moved, nearestSegment, pointOf, sideLabelAt, toPixels } from './geometry.ts'

const STAGE = '#11161C'
const WHITE = '#FFFFFF'
const SLATE = '#AEB7C2'
const PLUM = '#E06BAF'
const PINE = '#1F6F5C'
const FONT = "'Atkinson Hyperlegible Next Variable', sans-serif"

export interface LineShapeProps {
  line: LineDetection
  letter: string
  width: number
  height: number
  selected: boolean
  /** A trigger is on show at this moment. */
  triggered: boolean
  vertex: number | null
  /** While a new shape is drawn, the others let clicks through. */
  passive: boolean
  onSelect: () => void
  onVertex: (index: number | null) => void
  onShow: (line: LineDetection) => void
  onSettle: (label: string) => void
  onEdit: (line: LineDetection, label: string) => void
}

/** A line on the picture: barbs on the side to which a crossing counts, names of the sides, vertices to drag. */
export function LineShape(props: LineShapeProps): ReactNode {
  const { line, letter, width, height, selected, triggered, vertex, passive, onSelect, onVertex, onShow, onSettle, onEdit } = props
  const pixels = toPixels(line.line, width, height)
  const colour = triggered ? PLUM : line.enabled ? WHITE : SLATE
  const barbs = barbsAlong(pixels, 46)
  const sides = sideNames(line)
  const flat = pixels.flat()
  const dash = line.enabled ? undefined : [14, 8]

  const dragVertex = (index: number) => (event: Konva.KonvaEventObject<DragEvent>) => {
    const at = pointOf(event.target.x() / width, event.target.y() / height)
    event.target.position({ x: at[0] * width, y: at[1] * height })
    const points = line.line.map((p, i) => (i === index ? at : p))
    // Two vertices on one place would make a segment without length.
    if (!points.some((p, i) => i > 0 && p[0] === points[i - 1][0] && p[1] === points[i - 1][1])) onShow({ ...line, line: points })
  }
  const dragLine = (event: Konva.KonvaEventObject<DragEvent>): void => {
    const points = moved(line.line, event.target.x() / width, event.target.y() / height)
    event.target.position({ x: 0, y: 0 })
    onShow({ ...line, line: points })
  }
  const addVertex = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    const at = event.target.getStage()?.getPointerPosition()
    if (!at || line.line.length >= 10) return
    const point = pointOf(at.x / width, at.y / height)
    const after = nearestSegment(line.line, point)
    onEdit({ ...line, line: [...line.line.slice(0, after + 1), point, ...line.line.slice(after + 1)] }, `Add a vertex to ${line.name}`)
  }

  return (
    <Group listening={!passive}>
      <Line points={flat} stroke={STAGE} opacity={0.75} strokeWidth={selected ? 7 : 5.5} lineCap="round" lineJoin="round" listening={false} />
      <Line points={flat} stroke={colour} strokeWidth={triggered ? 5 : selected ? 3 : 2} dash={dash} lineCap="round" lineJoin="round" listening={false} />
      {triggered && <Line points={flat} stroke={STAGE} strokeWidth={1.6} lineJoin="round" listening={false} />}
      {barbs.map(({ at: [x, y], towards: [ux, uy] }, i) => (
        <Fragment key={i}>
          {line.direction !== 'rightToLeft' && <BarbShape x={x} y={y} ux={ux} uy={uy} colour={colour} />}
          {line.direction !== 'leftToRight' && <BarbShape x={x} y={y} ux={-ux} uy={-uy} colour={colour} />}
        </Fragment>
      ))}
      <Line points={flat} stroke="transparent" hitStrokeWidth={18} draggable={selected} onDragMove={dragLine} onDragEnd={() => onSettle(`Move ${line.name}`)} onMouseDown={onSelect} onTap={onSelect} onDblClick={addVertex} />
      {selected && (
        <>
          <SideName at={sideLabelAt(pixels, -1, 24)} text={sides.left} />
          <SideName at={sideLabelAt(pixels, 1, 24)} text={sides.right} />
          {pixels.map(([x, y], i) => (
            <Group key={i}>
              {vertex === i && <Ring x={x} y={y} innerRadius={9} outerRadius={11} fill={WHITE} stroke={STAGE} strokeWidth={0.5} listening={false} />}
              <Circle
                x={x}
                y={y}
                radius={6.5}
                hitStrokeWidth={16}
                fill={PINE}
                stroke={WHITE}
                strokeWidth={2}
                name={`vertex-${i}`}
                draggable
                onMouseDown={() => onVertex(i)}
                onDragMove={dragVertex(i)}
                onDragEnd={() => onSettle(`Move a vertex of ${line.name}`)}
              />
            </Group>
          ))}
        </>
      )}
      <LetterTag x={pixels[0][0]} y={pixels[0][1]} letter={letter} enabled={line.enabled} triggered={triggered} onSelect={onSelect} />
    </Group>
  )
}

function BarbShape({ x, y, ux, uy, colour }: { x: number; y: number; ux: number; uy: number; colour: string }): ReactNode {
  return (
    <Shape
      listening={false}
      fill={colour}
      stroke={STAGE}
      strokeWidth={0.8}
      sceneFunc={(g, shape) => {
        g.beginPath()
        g.moveTo(x - uy * 5 + ux * 1.5, y + ux * 5 + uy * 1.5)
        g.lineTo(x + ux * 11, y + uy * 11)
        g.lineTo(x + uy * 5 + ux * 1.5, y - ux * 5 + uy * 1.5)
        g.closePath()
        g.fillStrokeShape(shape)
      }}
    />
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

/** The letter of the detection; a crescent when it is switched off, a flag when it has just triggered. */
function LetterTag({ x, y, letter, enabled, triggered, onSelect }: { x: number; y: number; letter: string; enabled: boolean; triggered: boolean; onSelect: () => void }): ReactNode {
  const cx = x < 34 ? x + 22 : x - 22
  return (
    <Group x={cx} y={y} onMouseDown={onSelect}>
      <Circle radius={11} fill={triggered ? '#A1246B' : WHITE} stroke={STAGE} strokeWidth={2} />
      <Text text={enabled ? letter : '☾'} x={-11} y={-6} width={22} align="center" fontSize={12} fontStyle="bold" fontFamily={FONT} fill={triggered ? WHITE : '#1B2430'} listening={false} />
      {triggered && <Line points={[8, -10, 8, -26, 20, -21, 8, -16]} stroke={WHITE} fill="#A1246B" strokeWidth={1.5} closed listening={false} />}
    </Group>
  )
}
