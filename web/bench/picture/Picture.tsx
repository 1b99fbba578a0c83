import type Konva from 'konva'
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { Circle, Layer, Line, Stage } from 'react-konva'
import type { Trigger } from '../../../core/detections/index.ts'
import type { ClipView } from '../../../core/api.ts'
import type { ClassMotionDetection, FaceDetection, MotionDetection } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import type { Measures } from '../../../core/measures/measures.ts'
import type { Faces } from '../../../core/targets/faces.ts'
import type { TargetRow, Tracks } from '../../../core/targets/tracks.ts'
import type { BenchDocument, Placed } from '../document.ts'
import { useFrame, type Playhead } from '../playhead.ts'
import { letterOf } from '../words.ts'
import { isEmpty, type Brush, type Cell } from './cells.ts'
import { CellsLayer } from './CellsLayer.tsx'
import { FaceLayer } from './FaceLayer.tsx'
import { pointOf, toPixels } from './geometry.ts'
import { LineShape } from './LineShape.tsx'
import { crossingEdges, isZone, limitsOf, type DrawnDetection, type DrawnKind } from './shape.ts'
import { RUST, Vertices, type ShapeProps } from './shapeParts.tsx'
import { TargetBrackets, rowsOfFrame } from './TargetBrackets.tsx'
import { ZoneShape } from './ZoneShape.tsx'

/** A shape that is being drawn: its vertices so far, and where the next one would be. */
export interface Drawing {
  kind: DrawnKind
  points: Point[]
  cursor: Point
}

/** What is over the picture, whatever the picture is of. */
export interface ShapesProps {
  document: BenchDocument
  placed: Placed[]
  detection: string | null
  target: number | null
  vertex: number | null
  drawing: Drawing | null
  brush: Brush
  cell: Cell | null
  onDetection: (id: string | null) => void
  onTarget: (id: number) => void
  onVertex: (index: number | null) => void
  onDrawing: (drawing: Drawing | null) => void
  onDrawn: (points: Point[]) => void
  /** A drag has ended; what it has made of a shape is kept, or refused. */
  onSettle: (label: string) => void
}

export interface PictureProps extends ShapesProps {
  clip: ClipView
  tracks: Tracks | null
  measures: Measures | null
  playhead: Playhead
  triggers: Trigger[]
}

/** How long a trigger stays on show, in seconds of the clip. */
const SHOWN_SECONDS = 0.8

/** The clip's picture with the shapes and the targets over it. */
export function Picture({ clip, tracks, measures, playhead, triggers, ...shapes }: PictureProps): ReactNode {
  const video = useRef<HTMLVideoElement>(null)
  useEffect(() => {
    playhead.attach(video.current)
    playhead.setClip(clip.frames / clip.fps, clip.fps)
    return () => playhead.attach(null)
  }, [playhead, clip.id, clip.frames, clip.fps])
  return (
    <Fitted width={clip.width} height={clip.height} media={<video key={clip.id} ref={video} src={`/api/clips/${clip.id}/video`} muted playsInline preload="auto" tabIndex={-1} aria-label={`Clip ${clip.name}`} />}>
      {(width, height) => <AtMoment {...shapes} {...{ clip, tracks, measures, playhead, triggers, width, height }} />}
    </Fitted>
  )
}

/** What there is at the moment on show; only this is drawn again while a clip plays. */
function AtMoment({ clip, tracks, playhead, triggers, ...rest }: PictureProps & { width: number; height: number }): ReactNode {
  const frame = useFrame(playhead, clip.fps)
  const rows = useMemo(() => (tracks ? rowsOfFrame(tracks, frame) : []), [tracks, frame])
  const shown = triggers.filter((t) => t.frame <= frame && frame - t.frame < SHOWN_SECONDS * clip.fps)
  return <Overlay {...rest} frame={frame} rows={rows} shown={shown} faces={tracks?.faces} />
}

/** A picture as large as there is room, with what is drawn over it. */
export function Fitted({ width: ownWidth, height: ownHeight, media, children }: { width: number; height: number; media: ReactNode; children: (width: number, height: number) => ReactNode }): ReactNode {
  const frame = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState({ width: 0, height: 0 })
  useLayoutEffect(() => {
    const element = frame.current
    if (!element) return
    const measure = (): void => setRoom({ width: element.clientWidth, height: element.clientHeight })
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const scale = Math.min(room.width / ownWidth, room.height / ownHeight)
  const width = Math.floor(ownWidth * scale)
  const height = Math.floor(ownHeight * scale)
  return (
    <div className="picture-room" ref={frame}>
      <div className="picture" style={{ width, height }}>
        {media}
        {width > 0 && children(width, height)}
      </div>
    </div>
  )
}

export interface OverlayProps extends ShapesProps {
  width: number
  height: number
  /** The moment: its frame, its targets, and the triggers that are on show. */
  frame: number
  rows: readonly TargetRow[]
  shown: readonly Pick<Trigger, 'detection' | 'target'>[]
  faces?: Faces
  measures: Measures | null
}

export function Overlay({ width, height, frame, rows, shown, faces, ...props }: OverlayProps): ReactNode {
  const { measures, document, placed, detection, target, vertex, drawing, brush, cell } = props
  const { onDetection, onTarget, onVertex, onDrawing, onDrawn, onSettle } = props
  const chosen = placed.find((p) => p.detection.id === detection)?.detection

  const cursorAt = (event: Konva.KonvaEventObject<MouseEvent>): Point | null => {
    const at = event.target.getStage()?.getPointerPosition()
    return at ? pointOf(at.x / width, at.y / height) : null
  }
  const onClick = (event: Konva.KonvaEventObject<MouseEvent>): void => {
    const point = cursorAt(event)
    if (!drawing || !point || event.evt.detail > 1) return
    const last = drawing.points[drawing.points.length - 1]
    if (last && last[0] === point[0] && last[1] === point[1]) return
    const points = [...drawing.points, point]
    if (points.length >= limitsOf(drawing.kind).most) onDrawn(points)
    else onDrawing({ ...drawing, points, cursor: point })
  }

  const shapeProps = (d: DrawnDetection, index: number): Omit<ShapeProps, 'shape'> => ({
    letter: letterOf(index),
    width,
    height,
    selected: d.id === detection,
    triggered: shown.some((t) => t.detection === d.id),
    vertex: d.id === detection ? vertex : null,
    passive: drawing !== null,
    onSelect: () => onDetection(d.id),
    onVertex,
    onShow: (shape) => document.show(shape),
    onSettle,
    onEdit: (shape, label) => document.edit(shape, label)
  })

  return (
    <Stage
      width={width}
      height={height}
      className={drawing ? 'stage drawing' : 'stage'}
      onClick={onClick}
      onDblClick={() => drawing && onDrawn(drawing.points)}
      onMouseMove={(event) => {
        const cursor = drawing && cursorAt(event)
        if (drawing && cursor) onDrawing({ ...drawing, cursor })
      }}
      onMouseDown={(event) => {
        if (!drawing && event.target === event.target.getStage()) {
          onVertex(null)
          onDetection(null)
        }
      }}
    >
      <Layer>
        {placed.map(({ detection: d }, index) => isZone(d) && <ZoneShape key={d.id} {...shapeProps(d, index)} shape={d} />)}
        {rows.map((row) => (
          <TargetBrackets
            key={row.id}
            row={row}
            width={width}
            height={height}
            selected={row.id === target}
            standing={{ passes: !chosen || !('classes' in chosen) || !chosen.classes.length || chosen.classes.includes(row.cls), triggered: shown.some((t) => t.target === row.id) }}
            onSelect={() => !drawing && onTarget(row.id)}
          />
        ))}
        {placed.map(({ detection: d }, index) => d.kind === 'line' && <LineShape key={d.id} {...shapeProps(d, index)} shape={d} />)}
        {chosen && !drawing && isZone(chosen) && <Vertices {...shapeProps(chosen, 0)} shape={chosen} />}
        {chosen && !drawing && (chosen.kind === 'motion' || chosen.kind === 'classMotion') && (
          <CellsLayer
            detection={chosen}
            measures={measures}
            frame={frame}
            width={width}
            height={height}
            brush={brush}
            cursor={cell}
            onShow={(cells) => document.show({ ...chosen, cells } as MotionDetection | ClassMotionDetection)}
            onSettle={() => {
              // A detection without any cell would never fire; the last stroke is taken back.
              if (isEmpty((document.detection(chosen.id) as MotionDetection).cells)) document.show(chosen)
              document.settle(`Paint cells of ${chosen.name}`)
            }}
          />
        )}
        {chosen && !drawing && chosen.kind === 'face' && (
          <FaceLayer detection={chosen} rows={rows} faces={faces} width={width} height={height} onShow={(face: FaceDetection) => document.show(face)} onSettle={() => document.settle(`Change the smallest face of ${chosen.name}`)} />
        )}
        {drawing && <DrawnSoFar drawing={drawing} width={width} height={height} />}
      </Layer>
    </Stage>
  )
}

function DrawnSoFar({ drawing: { kind, points, cursor }, width, height }: { drawing: Drawing; width: number; height: number }): ReactNode {
  const flat = [...points, cursor].flatMap(([x, y]) => [x * width, y * height])
  const crossing = kind === 'line' ? null : crossingEdges([...points, cursor])
  const [cx, cy] = [cursor[0] * width, cursor[1] * height]
  return (
    <>
      <Line points={flat} stroke="#11161C" opacity={0.7} strokeWidth={6} lineJoin="round" listening={false} />
      {kind !== 'line' && points.length > 1 && <Line points={flat} closed fill="#FFFFFF" opacity={0.14} listening={false} />}
      <Line points={flat} closed={kind !== 'line' && points.length > 1} stroke="#FFFFFF" strokeWidth={2} dash={[6, 5]} lineJoin="round" listening={false} />
      {crossing?.map((edge, i) => <Line key={`crossing ${i}`} points={toPixels(edge, width, height).flat()} stroke={RUST} strokeWidth={4} dash={[4, 7]} listening={false} />)}
      {points.map(([x, y], i) => (
        <Circle key={i} x={x * width} y={y * height} radius={5.5} fill="#1F6F5C" stroke="#FFFFFF" strokeWidth={2} listening={false} />
      ))}
      {[
        [cx - 12, cy, cx - 4, cy],
        [cx + 4, cy, cx + 12, cy],
        [cx, cy - 12, cx, cy - 4],
        [cx, cy + 4, cx, cy + 12]
      ].map((arm, i) => (
        <Line key={i} points={arm} stroke="#FFFFFF" strokeWidth={2} shadowColor="#11161C" shadowBlur={2} listening={false} />
      ))}
    </>
  )
}
