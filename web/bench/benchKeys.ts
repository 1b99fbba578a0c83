import type { RefObject } from 'react'
import type { ClassMotionDetection, MotionDetection } from '../../core/formats/plan.ts'
import type { Point } from '../../core/geometry/shapes.ts'
import type { BenchDocument } from './document.ts'
import { useKeys, type KeyAction } from './keys.ts'
import { isEmpty, toggled, type Cell } from './picture/cells.ts'
import { moved, pointOf } from './picture/geometry.ts'
import type { Drawing } from './picture/Picture.tsx'
import { limitsOf, pointsOf, shapeFault, withPoints, withoutVertex, type DrawnDetection, type DrawnKind } from './picture/shape.ts'
import type { Playhead } from './playhead.ts'

export interface BenchKeysProps {
  document: BenchDocument
  /** The selected detection, if it is drawn. */
  drawn: DrawnDetection | null
  /** The motion detection whose cells the keyboard paints, and the cell it is at. */
  moving: MotionDetection | ClassMotionDetection | null
  cell: Cell | null
  setCell: (cell: Cell | null) => void
  vertex: number | null
  setVertex: (index: number | null) => void
  drawing: Drawing | null
  setDrawing: (drawing: Drawing | null) => void
  onDrawn: (points: Point[]) => void
  startDrawing: (kind: DrawnKind) => void
  /** Says why a shape cannot be. */
  refuse: (kind: DrawnKind, why: string) => void
  remove: () => void
  playhead: Playhead
  nextNearMiss: () => void
  showHelp: () => void
  /** Takes back the next smaller part of the selection. */
  leave: () => void
  stage: RefObject<HTMLDivElement | null>
}

const NUDGE = 0.002
const CROSS = 0.01

/** All that the keyboard does on the Bench. */
export function useBenchKeys(p: BenchKeysProps): void {
  const { document, drawn, moving, cell, vertex, drawing } = p

  const arrow =
    (dx: number, dy: number): KeyAction =>
    ({ shiftKey }) => {
      const far = shiftKey ? 10 : 1
      if (drawing) {
        const [x, y] = drawing.cursor
        return p.setDrawing({ ...drawing, cursor: pointOf(x + dx * CROSS * far, y + dy * CROSS * far) })
      }
      const onPicture = p.stage.current?.contains(window.document.activeElement)
      if (moving && onPicture) {
        const { column, row } = cell ?? { column: moving.cells[0].length >> 1, row: moving.cells.length >> 1 }
        const within = (v: number, n: number): number => Math.min(n - 1, Math.max(0, v))
        return p.setCell(cell ? { column: within(column + dx, moving.cells[0].length), row: within(row + dy, moving.cells.length) } : { column, row })
      }
      if (!drawn || !onPicture) return false
      const step: [number, number] = [dx * NUDGE * far, dy * NUDGE * far]
      const points = vertex === null ? moved(pointsOf(drawn), ...step) : pointsOf(drawn).map((v, i) => (i === vertex ? pointOf(v[0] + step[0], v[1] + step[1]) : v))
      const fault = shapeFault(drawn.kind, points)
      if (fault) return p.refuse(drawn.kind, fault)
      document.edit(withPoints(drawn, points), vertex === null ? `Move ${drawn.name}` : `Move a vertex of ${drawn.name}`)
    }

  const erase: KeyAction = () => {
    if (drawing) return p.setDrawing({ ...drawing, points: drawing.points.slice(0, -1) })
    if (!drawn || vertex === null) return p.remove()
    // A line of one vertex is none; the whole of it is deleted on purpose, not by way of a vertex.
    const less = withoutVertex(drawn, vertex)
    if (!less) return
    document.edit(less, `Delete a vertex of ${drawn.name}`)
    p.setVertex(null)
  }

  useKeys({
    l: () => p.startDrawing('line'),
    z: () => p.startDrawing('intrusion'),
    Enter: () => {
      if (!drawing && moving && cell) {
        const cells = toggled(moving.cells, cell)
        if (!isEmpty(cells)) document.edit({ ...moving, cells }, `Paint cells of ${moving.name}`)
        return
      }
      if (!drawing) return false
      p.onDrawn(drawing.points)
    },
    ' ': () => {
      if (!drawing) return p.playhead.toggle()
      const last = drawing.points[drawing.points.length - 1]
      if (last && last[0] === drawing.cursor[0] && last[1] === drawing.cursor[1]) return
      const points = [...drawing.points, drawing.cursor]
      if (points.length >= limitsOf(drawing.kind).most) p.onDrawn(points)
      else p.setDrawing({ ...drawing, points })
    },
    Escape: () => {
      if (drawing) p.setDrawing(null)
      else if (cell) p.setCell(null)
      else if (vertex !== null) p.setVertex(null)
      else p.leave()
    },
    Tab: ({ shiftKey }) => {
      // Within the picture, over the shape's vertices; past the last one the focus goes on as usual.
      if (drawing || !drawn || window.document.activeElement !== p.stage.current) return false
      const { length } = pointsOf(drawn)
      const next = (vertex ?? (shiftKey ? length : -1)) + (shiftKey ? -1 : 1)
      const there = next >= 0 && next < length
      p.setVertex(there ? next : null)
      return there
    },
    ArrowLeft: arrow(-1, 0),
    ArrowRight: arrow(1, 0),
    ArrowUp: arrow(0, -1),
    ArrowDown: arrow(0, 1),
    Backspace: erase,
    Delete: erase,
    ',': () => p.playhead.step(-1),
    '.': () => p.playhead.step(1),
    n: () => p.nextNearMiss(),
    '?': () => p.showHelp(),
    'ctrl+z': () => document.undo(),
    'ctrl+shift+z': () => document.redo()
  })
}
