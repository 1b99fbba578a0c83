import type Konva from 'konva'
import { useMemo, useRef, useState, type ReactNode } from 'react'
import { Rect, Shape } from './konva.ts'
import { motionLevel } from '../../../core/detections/index.ts'
import type { ClassMotionDetection, MotionDetection } from '../../../core/formats/plan.ts'
import type { Measures } from '../../../core/measures/measures.ts'
import { painted, rectangle, type Brush, type Cell } from './cells.ts'

export interface CellsLayerProps {
  detection: MotionDetection | ClassMotionDetection
  measures: Measures | null
  frame: number
  width: number
  height: number
  brush: Brush
  /** The cell that the keyboard is at; null while the pointer paints. */
  cursor: Cell | null
  onShow: (cells: string[]) => void
  onSettle: () => void
}

const SAFFRON = '#D98E04'
const STAGE = '#11161C'

/**
 * The grid of a motion detection: cells that count are clear and ruled, the others veiled; cells in motion at this moment light up with a
 * cross-hatch. Painted on and off with the brush.
 */
export function CellsLayer({
  detection,
  measures,
  frame,
  width,
  height,
  brush,
  cursor,
  onShow,
  onSettle
}: CellsLayerProps): ReactNode {
  const rows = detection.cells.length
  const columns = detection.cells[0]!.length
  const [w, h] = [width / columns, height / rows]
  const from = useRef<{ cell: Cell; cells: string[] } | null>(null)
  const [frameOf, setFrameOf] = useState<{ a: Cell; b: Cell } | null>(null)
  const moving = useMemo(() => {
    if (
      !measures ||
      measures.columns !== columns ||
      measures.rows !== rows ||
      frame < 1 ||
      frame > measures.length
    )
      return []
    const level = motionLevel(detection.sensitivity)
    const at = (frame - 1) * columns * rows
    return Array.from({ length: columns * rows }, (_, i) => i).filter(
      (i) => measures.cells[at + i]! > level
    )
  }, [measures, frame, columns, rows, detection.sensitivity])

  const cellAt = (event: Konva.KonvaEventObject<PointerEvent>): Cell | null => {
    const at = event.target.getLayer()?.getRelativePointerPosition()
    return at
      ? {
          column: Math.min(columns - 1, Math.max(0, Math.floor(at.x / w))),
          row: Math.min(rows - 1, Math.max(0, Math.floor(at.y / h)))
        }
      : null
  }
  const down = (event: Konva.KonvaEventObject<PointerEvent>): void => {
    const cell = cellAt(event)
    if (!cell) return
    from.current = { cell, cells: detection.cells }
    move(event)
  }
  const move = (event: Konva.KonvaEventObject<PointerEvent>): void => {
    const start = from.current
    const cell = start && cellAt(event)
    if (!start || !cell) return
    if (brush.shape === 'rectangle') {
      setFrameOf({ a: start.cell, b: cell })
      onShow(rectangle(start.cells, start.cell, cell, brush.on))
    } else onShow(painted(detection.cells, start.cell, cell, brush.on))
    if (brush.shape === 'free') start.cell = cell
  }
  const up = (): void => {
    if (!from.current) return
    from.current = null
    setFrameOf(null)
    onSettle()
  }

  return (
    <>
      <Shape
        listening={false}
        sceneFunc={(g) => {
          const context = g._context
          context.fillStyle = 'rgba(17, 22, 28, 0.5)'
          detection.cells.forEach((row, j) =>
            [...row].forEach((c, i) => c === '0' && context.fillRect(i * w, j * h, w, h))
          )
          context.strokeStyle = 'rgba(255, 255, 255, 0.22)'
          context.lineWidth = 1
          context.beginPath()
          for (let i = 1; i < columns; i++) {
            context.moveTo(Math.round(i * w) + 0.5, 0)
            context.lineTo(Math.round(i * w) + 0.5, height)
          }
          for (let j = 1; j < rows; j++) {
            context.moveTo(0, Math.round(j * h) + 0.5)
            context.lineTo(width, Math.round(j * h) + 0.5)
          }
          context.stroke()
          for (const i of moving) {
            const [x, y] = [(i % columns) * w, Math.floor(i / columns) * h]
            const counts = detection.cells[Math.floor(i / columns)]![i % columns] === '1'
            context.fillStyle = counts ? 'rgba(217, 142, 4, 0.42)' : 'rgba(174, 183, 194, 0.25)'
            context.fillRect(x + 1, y + 1, w - 2, h - 2)
            context.strokeStyle = counts ? SAFFRON : '#AEB7C2'
            context.lineWidth = 1.5
            context.beginPath()
            context.moveTo(x + 3, y + h - 3)
            context.lineTo(x + w - 3, y + 3)
            context.stroke()
          }
        }}
      />
      {frameOf && (
        <Rect
          listening={false}
          x={Math.min(frameOf.a.column, frameOf.b.column) * w}
          y={Math.min(frameOf.a.row, frameOf.b.row) * h}
          width={(Math.abs(frameOf.a.column - frameOf.b.column) + 1) * w}
          height={(Math.abs(frameOf.a.row - frameOf.b.row) + 1) * h}
          stroke="#FFFFFF"
          strokeWidth={2}
          dash={[6, 4]}
        />
      )}
      {cursor && (
        <Rect
          listening={false}
          x={cursor.column * w}
          y={cursor.row * h}
          width={w}
          height={h}
          stroke="#FFFFFF"
          strokeWidth={2.5}
          shadowColor={STAGE}
          shadowBlur={4}
        />
      )}
      <Rect
        width={width}
        height={height}
        fill="transparent"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerLeave={up}
      />
    </>
  )
}
