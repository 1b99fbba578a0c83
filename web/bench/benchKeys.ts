import type { RefObject } from 'react'
import type { ClassMotionDetection, LineDetection, MotionDetection } from '../../core/formats/plan.ts'
import type { Point } from '../../core/geometry/shapes.ts'
import type { BenchDocument } from './document.ts'
import { useKeys, type KeyAction } from './keys.ts'
import { isEmpty, toggled, type Cell } from './picture/cells.ts'
import { moved, pointOf } from './picture/geometry.ts'
import type { Drawing } from './picture/Picture.tsx'
import type { Playhead } from './playhead.ts'

export interface BenchKeysProps {
  document: BenchDocument
  line: LineDetection | null
  /** The motion detection whose cells the keyboard paints, and the cell it is at. */
  moving: MotionDetection | ClassMotionDetection | null
  cell: Cell | null
  setCell: (cell: Cell | null) => void
  vertex: number | null
  setVertex: (index: number | null) => void
  drawing: Drawing | null
  setDrawing: (drawing: Drawing | null) => void
  onDrawn: (points: Point[]) => void
  startDrawing: () => void
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
  const { document, line, moving, cell, vertex, drawing } = p

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
      if (!line || !onPicture) return false
      const step: [number, number] = [dx * NUDGE * far, dy * NUDGE * far]
      const points = vertex === null ? moved(line.line, ...step) : line.line.map((v, i) => (i === vertex ? pointOf(v[0] + step[0], v[1] + step[1]) : v))
      if (points.some((v, i) => i > 0 && v[0] === points[i - 1][0] && v[1] === points[i - 1][1])) return
      document.edit({ ...line, line: points }, vertex === null ? `Move ${line.name}` : `Move a vertex of ${line.name}`)
    }

  const erase: KeyAction = () => {
    if (drawing) return p.setDrawing({ ...drawing, points: drawing.points.slice(0, -1) })
    if (!line) return p.remove()
    if (vertex === null) return p.remove()
    // A line of one vertex is none; the whole of it is deleted on purpose, not by way of a vertex.
    if (line.line.length <= 2) return
    document.edit({ ...line, line: line.line.filter((_, i) => i !== vertex) }, `Delete a vertex of ${line.name}`)
    p.setVertex(null)
  }

  useKeys({
    l: () => p.startDrawing(),
    Enter: () => {
      if (!drawing && moving && cell) {
        const cells = toggled(moving.cells, cell)
        if (!isEmpty(cells)) document.edit({ ...moving, cells }, `Paint cells of ${moving.name}`)
        return
      }
      if (!drawing) return false
      if (drawing.points.length >= 2) p.onDrawn(drawing.points)
    },
    ' ': () => {
      if (!drawing) return p.playhead.toggle()
      const last = drawing.points[drawing.points.length - 1]
      if (last && last[0] === drawing.cursor[0] && last[1] === drawing.cursor[1]) return
      const points = [...drawing.points, drawing.cursor]
      if (points.length >= 10) p.onDrawn(points)
      else p.setDrawing({ ...drawing, points })
    },
    Escape: () => {
      if (drawing) p.setDrawing(null)
      else if (cell) p.setCell(null)
      else if (vertex !== null) p.setVertex(null)
      else p.leave()
    },
    Tab: ({ shiftKey }) => {
      // Within the picture, over the line's vertices; past the last one the focus goes on as usual.
      if (drawing || !line || window.document.activeElement !== p.stage.current) return false
      const next = (vertex ?? (shiftKey ? line.line.length : -1)) + (shiftKey ? -1 : 1)
      const there = next >= 0 && next < line.line.length
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
