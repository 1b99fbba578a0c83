import { said, type Said } from '../../../core/messages/said.ts'
import './picture.css'
import type Konva from 'konva'
import { useRef, useState, type ReactNode } from 'react'
import { Layer, Stage } from './konva.ts'
import type { Trigger } from '../../../core/detections/index.ts'
import type { FaceDetection, MotionDetection } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import type { Measures } from '../../../core/measures/measures.ts'
import type { Faces } from '../../../core/targets/faces.ts'
import type { TargetRow } from '../../../core/targets/tracks.ts'
import { useStable, useStableAll } from '../../stable.ts'
import type { BenchDocument, Placed, Scene } from '../document.ts'
import { MeasuringLayer, type Measuring } from '../measuring/MeasuringLayer.tsx'
import { SceneLayer, type SceneShown } from '../measuring/SceneLayer.tsx'
import { AreaShape } from './AreaShape.tsx'
import { isEmpty, type Brush, type Cell } from './cells.ts'
import { CellsLayer } from './CellsLayer.tsx'
import {
  DetectionShape,
  propsOf,
  type DetectionShapeProps,
  type ShapeHandlers
} from './DetectionShape.tsx'
import { DrawnSoFar, type Drawing } from './DrawnSoFar.tsx'
import { FaceLayer } from '../../kinds/face/FaceLayer.tsx'
import type { Frame } from './Fitted.tsx'
import { FramesLayer } from './FramesLayer.tsx'
import { snapped } from './geometry.ts'
import { Magnifier } from './Magnifier.tsx'
import { areaShape, isZone, limitsOf, shapeOf, shapesAt, withPoints } from './shape.ts'
import { Vertices, isDouble, pointerPlace, type EditProps } from './shapeParts.tsx'
import { TargetBrackets } from './TargetBrackets.tsx'
import type { Zoom } from './zoom.ts'
import { hasShape, type ShapeDetection } from '../../../core/kinds/schemas.ts'

/** What is over the picture, whatever the picture is of. */
export interface PictureShapes {
  document: BenchDocument
  zoom: Zoom
  placed: Placed[]
  scene: Scene
  detection: string | null
  /** Index of the selected ignore area. */
  area: number | null
  target: number | null
  vertex: number | null
  drawing: Drawing | null
  brush: Brush
  cell: Cell | null
  /** Detections that are not shown, and that are only looked at. */
  hidden: ReadonlySet<string>
  locked: ReadonlySet<string>
  /** The size limits of the selected detection are on the picture. */
  sizing: boolean
  measuring: Measuring | null
  shownScene: SceneShown | null
  onDetection: (id: string | null) => void
  onArea: (index: number) => void
  onTarget: (id: number) => void
  onVertex: (index: number | null) => void
  onDrawing: (drawing: Drawing | null) => void
  onDrawn: (points: Point[]) => void
  /** A drag has ended; what it has made of a shape is kept, or refused. */
  onSettle: (label: Said) => void
}

export interface OverlayProps {
  shapes: PictureShapes
  place: Frame
  /** The moment: its frame, its targets, and the triggers that are on show. */
  frame: number
  rows: readonly TargetRow[]
  shown: readonly Pick<Trigger, 'detection' | 'target'>[]
  /** Share of the dwell that is done, of detections that are timing a target. */
  dwelling: ReadonlyMap<string, number>
  faces?: Faces
  measures: Measures | null
}

const NEAR_PIXELS = 10

export function Overlay({
  shapes,
  place,
  frame,
  rows,
  shown,
  dwelling,
  faces,
  measures
}: OverlayProps): ReactNode {
  const {
    document,
    placed,
    scene,
    detection,
    area,
    target,
    vertex,
    drawing,
    brush,
    cell,
    hidden,
    locked,
    sizing,
    measuring,
    shownScene,
    zoom
  } = shapes
  const { onDetection, onArea, onTarget, onVertex, onDrawing, onDrawn, onSettle } = shapes
  const { width, height } = place
  const chosen = placed.find((p) => p.detection.id === detection)?.detection
  const [dragged, setDragged] = useState(false)
  const panning = useRef<{ x: number; y: number } | null>(null)
  const busy = drawing !== null || measuring !== null

  const cursorAt = (event: Konva.KonvaEventObject<MouseEvent>): Point | null => {
    const at = pointerPlace(event, width, height)
    const last = drawing?.points[drawing.points.length - 1]
    return at && last && event.evt.shiftKey ? snapped(last, at, width / height) : at
  }
  const onClick = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    if (event.evt.detail > 1 || event.evt.button !== 0) return
    const point = cursorAt(event)
    if (!point) return
    if (measuring) return measuring.onPoint(point)
    if (!drawing) return
    const last = drawing.points[drawing.points.length - 1]
    if (last && last[0] === point[0] && last[1] === point[1]) return
    const points = [...drawing.points, point]
    if (points.length >= limitsOf(drawing.kind).most) onDrawn(points)
    else onDrawing({ ...drawing, points, cursor: point })
  }
  /** The next of the shapes that lie over one another at the pointer. */
  const selectThrough = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    const at = pointerPlace(event, width, height)
    if (!at) return
    const seen = placed
      .map((p) => p.detection)
      .filter((d): d is ShapeDetection => hasShape(d) && !hidden.has(d.id))
    const shapes = [...seen.map(shapeOf), ...scene.ignore.map(areaShape)]
    const under = shapesAt(shapes, at, NEAR_PIXELS / width, width / height)
    if (!under.length) return
    const now = area !== null ? seen.length + area : seen.findIndex((d) => d.id === detection)
    const next = under[(under.indexOf(now) + 1) % under.length]!
    if (next < seen.length) onDetection(seen[next]!.id)
    else onArea(next - seen.length)
  }
  const onDown = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    if (busy || event.evt.button !== 0) return
    if (event.evt.altKey) return selectThrough(event)
    if (event.target !== event.target.getStage()) return
    panning.current = { x: event.evt.clientX, y: event.evt.clientY }
    onVertex(null)
    onDetection(null)
  }
  const onMove = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    if (panning.current && event.evt.buttons === 1) {
      const { x, y } = panning.current
      zoom.pan((x - event.evt.clientX) / width, (y - event.evt.clientY) / height)
      panning.current = { x: event.evt.clientX, y: event.evt.clientY }
    } else panning.current = null
    const cursor = busy && cursorAt(event)
    if (drawing && cursor) onDrawing({ ...drawing, cursor })
    if (measuring && cursor) measuring.onCursor(cursor)
  }

  // Pointers move more often than pictures are shown: of the moves in between only the last one matters.
  const soon = useRef<{ frame: number; show: () => void } | null>(null)
  const showSoon = (show: () => void): void => {
    if (soon.current) soon.current.show = show
    else
      soon.current = {
        show,
        frame: requestAnimationFrame(() => {
          const waiting = soon.current
          soon.current = null
          waiting?.show()
        })
      }
  }
  const settle = (label: Said): void => {
    if (soon.current) {
      cancelAnimationFrame(soon.current.frame)
      soon.current.show()
      soon.current = null
    }
    setDragged(false)
    onSettle(label)
  }
  const act = useStableAll<ShapeHandlers>({
    select: (id, event) => {
      if (!event.evt.altKey && event.evt.button === 0) onDetection(id)
    },
    vertex: onVertex,
    show: (d, points) => {
      setDragged(true)
      showSoon(() => document.show(withPoints(d, points)))
    },
    settle,
    edit: (d, points, label) => document.edit(withPoints(d, points), label)
  })
  const shapeProps = (d: ShapeDetection, index: number): DetectionShapeProps => ({
    detection: d,
    index,
    width,
    height,
    selected: d.id === detection,
    locked: locked.has(d.id),
    triggered: shown.some((t) => t.detection === d.id),
    timed: dwelling.get(d.id) ?? null,
    vertex: d.id === detection ? vertex : null,
    passive: busy,
    act
  })
  const withArea = (index: number, points: Point[]): Scene => ({
    ...scene,
    ignore: scene.ignore.map((a, i) => (i === index ? points : a))
  })
  const showArea = useStable((index: number, points: Point[]) => {
    setDragged(true)
    showSoon(() => document.showScene(withArea(index, points)))
  })
  const areaProps = (points: readonly Point[], index: number): EditProps => ({
    width,
    height,
    onVertex,
    onSettle: act.settle,
    shape: areaShape(points, index),
    selected: index === area,
    locked: false,
    vertex: index === area ? vertex : null,
    onSelect: (event) => {
      if (!event.evt.altKey && event.evt.button === 0) onArea(index)
    },
    onShow: (to) => showArea(index, to),
    onEdit: (to, label) => document.editScene(withArea(index, to), label)
  })

  const drawn = placed.flatMap(({ detection: d }, index): [ShapeDetection, number][] =>
    hasShape(d) && !hidden.has(d.id) ? [[d, index]] : []
  )
  const zonesFirst = [...drawn.filter(([d]) => isZone(d)), ...drawn.filter(([d]) => !isZone(d))]
  const edited =
    !busy && chosen && hasShape(chosen) && !hidden.has(chosen.id)
      ? propsOf(shapeProps(chosen, 0))
      : !busy && area !== null && scene.ignore[area]
        ? areaProps(scene.ignore[area], area)
        : null
  const enlarged = drawing
    ? drawing.cursor
    : (measuring?.cursor ??
      (dragged && edited && vertex !== null ? edited.shape.points[vertex] : null))
  return (
    <>
      <Stage
        width={place.roomWidth}
        height={place.roomHeight}
        className={busy ? 'stage drawing' : 'stage'}
        onClick={onClick}
        onDblClick={(event) => drawing && isDouble(event) && onDrawn(drawing.points)}
        onMouseMove={onMove}
        onMouseDown={onDown}
        onMouseUp={() => (panning.current = null)}
      >
        {/* What is dragged is alone on its layer: the others need not be drawn again with it. */}
        <Layer x={-place.offsetX} y={-place.offsetY}>
          {shownScene && <SceneLayer shown={shownScene} width={width} height={height} />}
          {scene.ignore.map(
            (points, index) =>
              index !== area && (
                <AreaShape key={`area ${index}`} {...areaProps(points, index)} passive={busy} />
              )
          )}
          {zonesFirst.map(
            ([d, index]) =>
              d.id !== detection && <DetectionShape key={d.id} {...shapeProps(d, index)} />
          )}
        </Layer>
        <Layer x={-place.offsetX} y={-place.offsetY}>
          {area !== null && scene.ignore[area] && (
            <AreaShape {...areaProps(scene.ignore[area], area)} passive={busy} />
          )}
          {zonesFirst.map(
            ([d, index]) =>
              d.id === detection &&
              isZone(d) && <DetectionShape key={d.id} {...shapeProps(d, index)} />
          )}
        </Layer>
        <Layer x={-place.offsetX} y={-place.offsetY}>
          {rows.map((row) => (
            <TargetBrackets
              key={row.id}
              row={row}
              width={width}
              height={height}
              selected={row.id === target}
              pose={shownScene?.pose ?? null}
              standing={{
                passes:
                  !chosen ||
                  !('classes' in chosen) ||
                  !chosen.classes.length ||
                  chosen.classes.includes(row.cls),
                triggered: shown.some((t) => t.target === row.id)
              }}
              onSelect={() => !busy && onTarget(row.id)}
            />
          ))}
        </Layer>
        <Layer x={-place.offsetX} y={-place.offsetY}>
          {zonesFirst.map(
            ([d, index]) =>
              d.id === detection &&
              !isZone(d) && <DetectionShape key={d.id} {...shapeProps(d, index)} />
          )}
          {edited && <Vertices {...edited} />}
          {chosen && !busy && sizing && 'classes' in chosen && (
            <FramesLayer
              detection={chosen}
              width={width}
              height={height}
              onShow={(d) => document.show(d)}
              onSettle={act.settle}
            />
          )}
          {chosen && !busy && 'cells' in chosen && (
            <CellsLayer
              detection={chosen}
              measures={measures}
              frame={frame}
              width={width}
              height={height}
              brush={brush}
              cursor={cell}
              onShow={(cells) => document.show({ ...chosen, cells })}
              onSettle={() => {
                // A detection without any cell would never fire; the last stroke is taken back.
                if (isEmpty((document.detection(chosen.id) as MotionDetection).cells))
                  document.show(chosen)
                document.commitDrag(said('edits.paintCellsOf', chosen.name))
              }}
            />
          )}
          {chosen && !busy && 'faceMin' in chosen && (
            <FaceLayer
              detection={chosen}
              rows={rows}
              faces={faces}
              width={width}
              height={height}
              onShow={(face: FaceDetection) => document.show(face)}
              onSettle={() =>
                document.commitDrag(said('edits.changeTheSmallestFaceOf', chosen.name))
              }
            />
          )}
          {drawing && <DrawnSoFar drawing={drawing} width={width} height={height} />}
          {measuring && <MeasuringLayer measuring={measuring} width={width} height={height} />}
        </Layer>
      </Stage>
      {enlarged && <Magnifier at={enlarged} frame={place} />}
    </>
  )
}
