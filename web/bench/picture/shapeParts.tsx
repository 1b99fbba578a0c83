import { type Said, said } from '../../../core/messages/said.ts'
import type Konva from 'konva'
import type { ReactNode } from 'react'
import { Arc, Circle, Group, Line, Path, Ring, Shape, Text } from './konva.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { moved, pointOf, snapped, toPixels } from './geometry.ts'
import { isClosed, withVertexAt, type PictureShape } from './shape.ts'
import type { ShapeDetection } from '../../../core/kinds/schemas.ts'

/** What lines and zones on the picture have in common. */
export const STAGE = '#11161C'
export const WHITE = '#FFFFFF'
export const SLATE = '#AEB7C2'
export const PLUM = '#E06BAF'
export const SAFFRON = '#F2B33D'
export const RUST = '#F08A5B'
const PINE = '#1F6F5C'
export const FONT = "'Atkinson Hyperlegible Next Variable', sans-serif"
/** On the tag of what is not in use. */
const CRESCENT = 'M3.5 -6 A6.5 6.5 0 1 0 6 3 A5.2 5.2 0 0 1 3.5 -6 Z'
/** On the tag of an ignore area. */
const STRUCK = 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0M-3.5 -3.5L3.5 3.5'

/** What can be done with a shape by the pointer. */
export interface EditProps {
  shape: PictureShape
  width: number
  height: number
  selected: boolean
  /** Only looked at: it cannot be changed by the pointer. */
  locked: boolean
  vertex: number | null
  onSelect: (event: Konva.KonvaEventObject<MouseEvent>) => void
  onVertex: (index: number | null) => void
  onShow: (points: Point[]) => void
  onSettle: (label: Said) => void
  onEdit: (points: Point[], label: Said) => void
}

/** How a detection's shape is shown. */
export interface ShapeProps<D extends ShapeDetection = ShapeDetection> extends EditProps {
  detection: D
  letter: string
  /** A trigger is on show at this moment. */
  triggered: boolean
  /** Share of the dwell that a target has done at this moment; null: none is being timed. */
  timed: number | null
  /** While a new shape is drawn, the others let clicks through. */
  passive: boolean
}

export const strokeOf = ({
  detection,
  triggered
}: Pick<ShapeProps, 'detection' | 'triggered'>): string =>
  triggered ? PLUM : detection.enabled ? WHITE : SLATE

/** The outline: a halo that stands out from any picture, and the stroke that says its state. */
export function Outline({
  points,
  closed = false,
  colour,
  selected,
  triggered,
  dashed
}: {
  points: number[]
  closed?: boolean
  colour: string
  selected: boolean
  triggered: boolean
  dashed: boolean
}): ReactNode {
  return (
    <>
      <Line
        points={points}
        closed={closed}
        stroke={STAGE}
        opacity={0.75}
        strokeWidth={selected ? 7 : 5.5}
        lineCap="round"
        lineJoin="round"
        listening={false}
      />
      <Line
        points={points}
        closed={closed}
        stroke={colour}
        strokeWidth={triggered ? 5 : selected ? 3 : 2}
        dash={dashed ? [14, 8] : undefined}
        lineCap="round"
        lineJoin="round"
        listening={false}
      />
      {triggered && (
        <Line
          points={points}
          closed={closed}
          stroke={STAGE}
          strokeWidth={1.6}
          lineJoin="round"
          listening={false}
        />
      )}
    </>
  )
}

/** A place of the pointer on the picture, whatever part of it is on show. */
export function pointerPlace(
  event: Konva.KonvaEventObject<Event>,
  width: number,
  height: number
): Point | null {
  const at = event.target.getStage()?.getLayers()[0]?.getRelativePointerPosition()
  return at ? pointOf(at.x / width, at.y / height) : null
}

/**
 * Two clicks on one place. The canvas library takes any two quick clicks for one; whoever draws
 * quickly means two vertices.
 */
export const isDouble = ({ evt }: Konva.KonvaEventObject<MouseEvent>): boolean => evt.detail > 1

/** What is taken hold of: the whole shape is dragged, a double click on its outline adds a vertex. */
export function Handle({
  shape,
  width,
  height,
  selected,
  locked,
  onSelect,
  onShow,
  onSettle,
  onEdit
}: EditProps): ReactNode {
  const { points, name } = shape
  const closed = isClosed(shape.kind)
  const drag = (event: Konva.KonvaEventObject<DragEvent>): void => {
    const to = moved(points, event.target.x() / width, event.target.y() / height)
    event.target.position({ x: 0, y: 0 })
    onShow(to)
  }
  const addVertex = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    const at = pointerPlace(event, width, height)
    const more = at && !locked && isDouble(event) && withVertexAt(shape, at)
    if (more) onEdit(more, said('edits.addAVertexTo', name))
  }
  return (
    <Line
      points={toPixels(points, width, height).flat()}
      closed={closed}
      stroke="transparent"
      fill={closed && selected ? 'transparent' : undefined}
      hitStrokeWidth={18}
      draggable={selected && !locked}
      onDragMove={drag}
      onDragEnd={() => onSettle(said('edits.move', name))}
      onMouseDown={onSelect}
      onDblClick={addVertex}
    />
  )
}

/** The vertices of the selected shape, to drag; with Shift in steps of 45° from the vertex before. */
export function Vertices({
  shape,
  width,
  height,
  vertex,
  locked,
  onVertex,
  onShow,
  onSettle
}: EditProps): ReactNode {
  const { points } = shape
  if (locked) return null
  const drag = (index: number) => (event: Konva.KonvaEventObject<DragEvent>) => {
    const free = pointOf(event.target.x() / width, event.target.y() / height)
    const before = points[index > 0 ? index - 1 : isClosed(shape.kind) ? points.length - 1 : 1]!
    const at = event.evt.shiftKey ? snapped(before, free, width / height) : free
    event.target.position({ x: at[0] * width, y: at[1] * height })
    const to = points.map((p, i) => (i === index ? at : p))
    // Two vertices on one place would make an edge without length.
    if (!to.some((p, i) => i !== index && p[0] === at[0] && p[1] === at[1])) onShow(to)
  }
  return points.map(([px, py], i) => {
    const [x, y] = [px * width, py * height]
    return (
      <Group key={i}>
        {vertex === i && (
          <Ring
            x={x}
            y={y}
            innerRadius={9}
            outerRadius={11}
            fill={WHITE}
            stroke={STAGE}
            strokeWidth={0.5}
            listening={false}
          />
        )}
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
          onDragMove={drag(i)}
          onDragEnd={() => onSettle(said('edits.moveAVertexOf', shape.name))}
        />
      </Group>
    )
  })
}

/** A small triangle that says which way counts. */
export function BarbShape({
  x,
  y,
  ux,
  uy,
  colour
}: {
  x: number
  y: number
  ux: number
  uy: number
  colour: string
}): ReactNode {
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

/**
 * The letter of the detection; a crescent when it is switched off, a ring that fills with the
 * dwell, a flag when it has just triggered.
 */
export function LetterTag({
  x,
  y,
  letter,
  enabled,
  triggered,
  timed,
  onSelect
}: {
  x: number
  y: number
  /** null: of an ignore area, which has none. */
  letter: string | null
  enabled: boolean
  triggered: boolean
  timed: number | null
  onSelect: EditProps['onSelect']
}): ReactNode {
  const cx = x < 34 ? x + 22 : x - 22
  return (
    <Group x={cx} y={y} onMouseDown={onSelect}>
      <Circle radius={11} fill={triggered ? '#A1246B' : WHITE} stroke={STAGE} strokeWidth={2} />
      {timed !== null && !triggered && (
        <>
          <Ring innerRadius={12} outerRadius={16} fill={STAGE} opacity={0.75} listening={false} />
          <Arc
            innerRadius={12.5}
            outerRadius={15.5}
            angle={360 * Math.min(1, timed)}
            rotation={-90}
            fill={SAFFRON}
            listening={false}
          />
        </>
      )}
      {!enabled && <Path data={CRESCENT} fill={triggered ? WHITE : '#1B2430'} listening={false} />}
      {letter === null && (
        <Path data={STRUCK} stroke="#1B2430" strokeWidth={1.8} listening={false} />
      )}
      <Text
        text={enabled ? (letter ?? '') : ''}
        x={-11}
        y={-6}
        width={22}
        align="center"
        fontSize={12}
        fontStyle="bold"
        fontFamily={FONT}
        fill={triggered ? WHITE : '#1B2430'}
        listening={false}
      />
      {triggered && (
        <Line
          points={[8, -10, 8, -26, 20, -21, 8, -16]}
          stroke={WHITE}
          fill="#A1246B"
          strokeWidth={1.5}
          closed
          listening={false}
        />
      )}
    </Group>
  )
}
