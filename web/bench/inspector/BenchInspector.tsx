import { useMemo, type ReactNode } from 'react'
import type { CameraSummary } from '../../../core/api.ts'
import type { Setting } from '../../../core/detections/index.ts'
import { isFrameKind, type Detection } from '../../../core/formats/plan.ts'
import { NO_ACTIONS } from '../../../core/formats/noActions.ts'
import { useSite } from '../../api/queries.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { useStable } from '../../stable.ts'
import { ReferenceTool } from '../clips/ReferenceTool.tsx'
import { useChoice, useContents, useEvaluated, useOnShow } from '../contexts.ts'
import type { DocumentState } from '../document.ts'
import { Later } from '../Later.tsx'
import { Marking } from '../lookBack/Marking.tsx'
import { SeenThen } from '../lookBack/SeenThen.tsx'
import { SceneNote } from '../measuring/SceneNote.tsx'
import type { SceneOnBench } from '../measuring/useMeasuring.ts'
import type { Shapes } from '../shapes/useShapes.ts'
import { ChangePanel } from './ChangePanel.tsx'
import { useDeviceLimits } from './deviceLimits.ts'
import { Inspector } from './Inspector.tsx'
import { ShapeTools } from './ShapeTools.tsx'
import { lazyPart } from '../../lazyPart.tsx'

/** The library of distributions in it is heavy. */
const HowOften = lazyPart(() => import('../lookBack/HowOften.tsx'), 'HowOften')
const TunePanel = lazyPart(() => import('../lookBack/TunePanel.tsx'), 'TunePanel')
const MeasurePanel = lazyPart(() => import('../measuring/MeasurePanel.tsx'), 'MeasurePanel')

export interface BenchInspectorProps {
  state: DocumentState
  /** The selected detection as it is now, also while its shape is dragged. */
  chosen: Detection | null
  shapes: Shapes
  scene: SceneOnBench
  setting: Setting | null
  onCopyTo: (camera: CameraSummary) => void
  onChanged: () => void
}

/** On the right of the Bench: the marks while the scene is measured, else what is selected. */
export function BenchInspector({
  state,
  chosen,
  shapes,
  scene,
  setting,
  onCopyTo,
  onChanged
}: BenchInspectorProps): ReactNode {
  const { view, placed, prefs } = useContents()
  const { clip, ready, playhead } = useOnShow()
  const { selection } = useChoice()
  const limits = useDeviceLimits(view.camera.id, chosen)
  const cameras = useSite().data?.cameras
  const others = useMemo(
    () => cameras?.filter(({ id }) => id !== view.camera.id) ?? [],
    [cameras, view.camera.id]
  )
  const users = useStable(
    (schedule: string) => state.detections.filter((p) => p.detection.schedule === schedule).length
  )
  // Not while it is dragged: the days are asked when the shape is let go.
  const settled = placed.find((p) => p.detection.id === selection.detection)?.detection ?? null
  if (scene.tool)
    return (
      <Later>
        <MeasurePanel tool={scene.tool} bands={scene.bands} setBands={scene.setBands} />
      </Later>
    )
  return (
    <Inspector
      detection={settled}
      letter={letterOf(state.detections.findIndex((p) => p.detection.id === chosen?.id))}
      links={(chosen && state.actions.get(chosen.id)?.links) ?? NO_ACTIONS.links}
      users={users}
      limits={limits}
      tools={
        chosen &&
        'causes' in chosen &&
        ready &&
        clip &&
        !clip.reported && <ReferenceTool clip={clip} playhead={playhead} onChanged={onChanged} />
      }
      shapeTools={
        (chosen || shapes.edited) && (
          <ShapeTools
            act={shapes.act}
            prefs={prefs}
            hasShape={shapes.edited !== null}
            detection={chosen?.id ?? null}
            isLine={!!chosen && 'line' in chosen}
            others={others}
            onCopyTo={onCopyTo}
          />
        )
      }
      changes={<Changes setting={setting} chosen={chosen} />}
      often={
        settled &&
        !isFrameKind(settled) && (
          <Later>
            <HowOften detection={settled} />
          </Later>
        )
      }
      tuning={
        settled &&
        !isFrameKind(settled) && (
          <Later>
            <TunePanel key={settled.id} detection={settled} />
          </Later>
        )
      }
      scenePart={
        <SceneNote
          pose={scene.pose}
          open={scene.open}
          grid={scene.grid}
          bands={scene.bands}
          setGrid={scene.setGrid}
          setBands={scene.setBands}
          canMeasure={ready}
        />
      }
      onRemove={shapes.act.remove}
    />
  )
}

/** Of the target that is selected: what would have to change. */
function Changes({ setting, chosen }: Pick<BenchInspectorProps, 'setting' | 'chosen'>): ReactNode {
  const { view, document } = useContents()
  const { clip, ready, back } = useOnShow()
  const { ladder, triggers, evaluations } = useEvaluated()
  if (!ready || !clip || !setting || !chosen || !ladder) return null
  const fired = triggers.some(
    (t) =>
      t.detection === chosen.id &&
      (t.target === ladder.target || t.targets?.includes(ladder.target))
  )
  return (
    <>
      {back && ladder.target !== null && <SeenThen target={ladder.target} time={ladder.time} />}
      <Marking detection={chosen.id} target={ladder.target} time={ladder.time} fired={fired} />
      <ChangePanel
        key={`${chosen.id} ${ladder.target}`}
        document={document}
        evaluations={evaluations}
        setting={setting}
        clips={view.clips}
        clip={clip}
        detection={chosen.id}
        target={ladder.target}
        fired={fired}
      />
    </>
  )
}
