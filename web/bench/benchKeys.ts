import { said } from '../../core/messages/said.ts'
import type { RefObject } from 'react'
import type { ClassMotionDetection, MotionDetection } from '../../core/formats/plan.ts'
import type { BenchDocument } from './document.ts'
import { useKeys, type KeyAction } from './keys.ts'
import { isEmpty, toggled, type Cell } from './picture/cells.ts'
import type { SceneOnBench } from './measuring/useMeasuring.ts'
import { moved, pointOf } from './picture/geometry.ts'
import { limitsOf, shapeFault, withVertexAfter, withoutVertex } from './picture/shape.ts'
import type { Zoom } from './picture/zoom.ts'
import type { Playhead } from './playhead.ts'
import type { Shapes } from './shapes/useShapes.ts'

export interface BenchKeysProps {
  document: BenchDocument
  shapes: Shapes
  scene: SceneOnBench
  zoom: Zoom
  /** The motion detection whose cells the keyboard paints, and the cell it is at. */
  moving: MotionDetection | ClassMotionDetection | null
  cell: Cell | null
  setCell: (cell: Cell | null) => void
  playhead: Playhead
  /** To the next trigger, or with -1 the one before; near misses in the same way. */
  toTrigger: (by: -1 | 1) => void
  toNearMiss: (by: -1 | 1) => void
  /** The detection before or after in the rail. */
  chooseNext: (by: -1 | 1) => void
  toggleSizing: () => void
  /** The picture takes the width of the window, or gives it back. */
  toggleFills: () => void
  hideOrLock: (what: 'hidden' | 'locked') => void
  showHelp: () => void
  /** Takes back the next smaller part of the selection. */
  leave: () => void
  stage: RefObject<HTMLDivElement | null>
}

const NUDGE = 0.002
const CROSS = 0.01

/** All that the keyboard does on the Bench. */
export function useBenchKeys(p: BenchKeysProps): void {
  const { document, shapes, scene, zoom, moving, cell } = p
  const { edited, drawing, vertex } = shapes

  const arrow =
    (dx: number, dy: number): KeyAction =>
    ({ shiftKey }) => {
      const far = shiftKey ? 10 : 1
      if (scene.measuring) {
        const [x, y] = scene.measuring.cursor
        return scene.moveCursor(pointOf(x + dx * CROSS * far, y + dy * CROSS * far))
      }
      if (drawing) {
        const [x, y] = drawing.cursor
        return shapes.setDrawing({
          ...drawing,
          cursor: pointOf(x + dx * CROSS * far, y + dy * CROSS * far)
        })
      }
      const onPicture = p.stage.current?.contains(window.document.activeElement)
      if (moving && onPicture) {
        const { column, row } = cell ?? {
          column: moving.cells[0]!.length >> 1,
          row: moving.cells.length >> 1
        }
        const within = (v: number, n: number): number => Math.min(n - 1, Math.max(0, v))
        return p.setCell(
          cell
            ? {
                column: within(column + dx, moving.cells[0]!.length),
                row: within(row + dy, moving.cells.length)
              }
            : { column, row }
        )
      }
      if (!edited || edited.locked || !onPicture) return false
      const { kind, name, points: now } = edited.shape
      const step: [number, number] = [dx * NUDGE * far, dy * NUDGE * far]
      const points =
        vertex === null
          ? moved(now, ...step)
          : now.map((v, i) => (i === vertex ? pointOf(v[0] + step[0], v[1] + step[1]) : v))
      const fault = shapeFault(kind, points)
      if (fault) return shapes.refuse(kind, fault)
      edited.edit(
        points,
        vertex === null ? said('edits.move', name) : said('edits.moveAVertexOf', name)
      )
    }

  const erase: KeyAction = () => {
    if (scene.tool) return scene.tool.back()
    if (drawing) return shapes.setDrawing({ ...drawing, points: drawing.points.slice(0, -1) })
    if (!edited || vertex === null) return shapes.remove()
    if (edited.locked) return
    // A line of one vertex is none; the whole of it is deleted on purpose, not by way of a vertex.
    const less = withoutVertex(edited.shape, vertex)
    if (!less) return
    edited.edit(less, said('edits.deleteAVertexOf', edited.shape.name))
    shapes.setVertex(null)
  }

  const addVertex: KeyAction = () => {
    if (!edited || edited.locked || vertex === null) return false
    const more = withVertexAfter(edited.shape, vertex)
    if (!more) return
    edited.edit(more, said('edits.addAVertexTo', edited.shape.name))
    shapes.setVertex(vertex + 1)
  }

  /** What is on show moves by a tenth of itself. */
  const pan =
    (dx: number, dy: number): KeyAction =>
    () => {
      const { zoom: near } = zoom.get()
      if (near === 1) return false
      zoom.pan((0.1 * dx) / near, (0.1 * dy) / near)
    }

  const draw =
    (kind: Parameters<Shapes['startDrawing']>[0]): KeyAction =>
    () =>
      scene.tool ? false : shapes.startDrawing(kind)

  useKeys({
    l: draw('line'),
    z: draw('intrusion'),
    i: draw('ignore'),
    f: () => p.toggleSizing(),
    p: () => p.toggleFills(),
    d: () => shapes.duplicate(),
    m: () => shapes.mirror(),
    x: () => shapes.split(),
    v: addVertex,
    h: () => p.hideOrLock('hidden'),
    k: () => p.hideOrLock('locked'),
    '+': () => zoom.by(1.5, vertex === null ? undefined : edited?.shape.points[vertex]),
    '=': () => zoom.by(1.5, vertex === null ? undefined : edited?.shape.points[vertex]),
    '-': () => zoom.by(1 / 1.5),
    '0': () => zoom.whole(),
    '[': () => p.chooseNext(-1),
    ']': () => p.chooseNext(1),
    Enter: () => {
      if (scene.tool) return scene.tool.keep()
      if (!drawing && moving && cell) {
        const cells = toggled(moving.cells, cell)
        if (!isEmpty(cells))
          document.edit({ ...moving, cells }, said('edits.paintCellsOf', moving.name))
        return
      }
      if (!drawing) return false
      shapes.onDrawn(drawing.points)
    },
    ' ': () => {
      if (scene.tool) return scene.tool.setPoint()
      if (!drawing) return p.playhead.toggle()
      const last = drawing.points[drawing.points.length - 1]
      if (last && last[0] === drawing.cursor[0] && last[1] === drawing.cursor[1]) return
      const points = [...drawing.points, drawing.cursor]
      if (points.length >= limitsOf(drawing.kind).most) shapes.onDrawn(points)
      else shapes.setDrawing({ ...drawing, points })
    },
    Escape: () => {
      if (scene.tool) scene.tool.leave()
      else if (drawing) shapes.setDrawing(null)
      else if (cell) p.setCell(null)
      else if (vertex !== null) shapes.setVertex(null)
      else p.leave()
    },
    Tab: ({ shiftKey }) => {
      // Within the picture, over the shape's vertices; past the last one the focus goes on as usual.
      if (drawing || !edited || edited.locked || window.document.activeElement !== p.stage.current)
        return false
      const { length } = edited.shape.points
      const next = (vertex ?? (shiftKey ? length : -1)) + (shiftKey ? -1 : 1)
      const there = next >= 0 && next < length
      shapes.setVertex(there ? next : null)
      return there
    },
    ArrowLeft: arrow(-1, 0),
    ArrowRight: arrow(1, 0),
    ArrowUp: arrow(0, -1),
    ArrowDown: arrow(0, 1),
    Backspace: erase,
    Delete: erase,
    'ctrl+ArrowLeft': pan(-1, 0),
    'ctrl+ArrowRight': pan(1, 0),
    'ctrl+ArrowUp': pan(0, -1),
    'ctrl+ArrowDown': pan(0, 1),
    ',': () => p.playhead.step(-1),
    '.': () => p.playhead.step(1),
    n: ({ shiftKey }) => p.toNearMiss(shiftKey ? -1 : 1),
    t: ({ shiftKey }) => p.toTrigger(shiftKey ? -1 : 1),
    '?': () => p.showHelp(),
    'ctrl+z': () => document.undo(),
    'ctrl+shift+z': () => document.redo()
  })
}
