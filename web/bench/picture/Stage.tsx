import { lookBack } from '../../../core/messages/en/bench/lookBack.ts'
import { stage as msg } from '../../../core/messages/en/bench/picture.ts'
import './picture.css'
import '../bench.css'
import type { DragEvent, ReactNode, RefObject } from 'react'
import type { BenchView, ClipView } from '../../../core/api.ts'
import type { ClassMotionDetection, MotionDetection } from '../../../core/formats/plan.ts'
import type { Measures } from '../../../core/measures/measures.ts'
import { lazyPart } from '../../lazyPart.tsx'
import { Later } from '../Later.tsx'
import type { Brush } from './cells.ts'
import { AnalysisStrip, ClipStage } from '../clips/ClipStage.tsx'
import { useContents, useEvaluated, useOnShow } from '../contexts.ts'
import type { DensityChoice } from '../lookBack/DensityLayer.tsx'
import { LookBackPicture } from '../lookBack/LookBackPicture.tsx'
import { blankOf } from '../lookBack/useLookBack.ts'
import { LivePicture } from '../live/LivePicture.tsx'
import type { Live } from '../live/useLive.ts'
import type { PictureShapes } from './Overlay.tsx'
import { Picture } from './Picture.tsx'
import { limitsOf, shapeName, type PictureShape } from './shape.ts'

const CellTools = lazyPart(() => import('./CellTools.tsx'), 'CellTools')

export interface StageProps {
  stage: RefObject<HTMLDivElement | null>
  shapes: PictureShapes
  /** The selected shape, for those who hear the screen. */
  shape: PictureShape | null
  live: Live
  /** Where targets walked, laid over the picture of the past; null: it is not. */
  density: DensityChoice | null
  measures: Measures | null
  /** The selected motion detection, whose cells are painted. */
  moving: MotionDetection | ClassMotionDetection | null
  onBrush: (brush: Brush) => void
  onFile: (file: File) => void
  onMake: (() => void) | null
  onLive: (() => void) | null
  /** A clip that is being analysed while the live picture is shown. */
  analysing: ClipView | null
  onChanged: () => void
}

/** The picture with the shapes on it, or what to do while there is none. */
export function Stage({
  stage,
  shapes,
  shape,
  live,
  density,
  measures,
  moving,
  onBrush,
  onFile,
  onMake,
  onLive,
  analysing,
  onChanged
}: StageProps): ReactNode {
  const { view, document } = useContents()
  const show = useOnShow()
  const { triggers, timed } = useEvaluated()
  const { drawing } = shapes
  const onDrop = (event: DragEvent): void => {
    const [file] = event.dataTransfer.files
    if (!file) return
    event.preventDefault()
    onFile(file)
  }
  return (
    <div
      className="stage-area"
      ref={stage}
      tabIndex={0}
      role="application"
      aria-label={labelOf(shapes, shape)}
      onDragOver={(e) => e.preventDefault()}
      onDrop={onDrop}
    >
      {show.live ? (
        <LivePicture
          camera={view.camera.id}
          heard={live.heard}
          frames={live.frames}
          trouble={live.trouble}
          shapes={shapes}
        />
      ) : show.back ? (
        <LookBackPicture
          key={show.clip?.id}
          clip={show.clip ?? blankOf(view.camera.id)}
          tracks={show.ready ? show.tracks : null}
          measures={null}
          still={stillOf(view)}
          density={density}
          playhead={show.playhead}
          triggers={triggers}
          timed={timed}
          shapes={shapes}
        />
      ) : show.ready && show.clip ? (
        <>
          <Picture
            clip={show.clip}
            tracks={show.tracks}
            measures={measures}
            playhead={show.playhead}
            triggers={triggers}
            timed={timed}
            shapes={shapes}
          />
          {show.clip.reported && <p className="look-back-hint">{lookBack.reportedClip}</p>}
        </>
      ) : (
        <ClipStage
          clip={show.clip}
          onChanged={onChanged}
          onFile={() =>
            window.document.querySelector<HTMLInputElement>('input[type=file]')?.click()
          }
          onMake={onMake}
          onLive={onLive}
        />
      )}
      {analysing && <AnalysisStrip clip={analysing} onChanged={onChanged} />}
      {show.hasPicture && moving && !drawing && (
        <Later>
          <CellTools
            key={moving.id}
            detection={moving}
            document={document}
            brush={shapes.brush}
            onBrush={onBrush}
          />
        </Later>
      )}
      {drawing && (
        <p className="drawing-hint">
          {drawing.template && <strong>{drawing.template.name}: </strong>}
          {drawing.points.length < limitsOf(drawing.kind).least
            ? msg.clickWhereTheGoes(shapeName(drawing.kind))
            : msg.enterOrADoubleClick(shapeName(drawing.kind))}{' '}
          <kbd>{msg.esc}</kbd> {msg.cancels}
        </p>
      )}
    </div>
  )
}

/** A picture to draw on, of now or of a clip; null: there is none. */
const stillOf = ({ camera, live, clips }: BenchView): string | null => {
  if (live) return `/cameras/${encodeURIComponent(camera.id)}/live.jpg`
  const clip = clips.find(({ state }) => state === 'ready')
  return clip ? `/clips/${encodeURIComponent(clip.id)}/picture` : null
}

const labelOf = (
  { drawing, measuring, vertex }: PictureShapes,
  shape: PictureShape | null
): string => {
  if (drawing) {
    const name = shapeName(drawing.kind)
    return msg.pictureDrawingAnA(/^[aeiou]/.test(name), name, drawing.points.length)
  }
  if (measuring) return msg.pictureCalibration
  if (!shape) return msg.picture
  return msg.pictureOf(shape.name, vertex === null ? null : vertex + 1, shape.points.length)
}
