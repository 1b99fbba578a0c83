import { targetWords } from './targetWords.ts'
import { said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { inspector as msg } from '../../../core/messages/en/bench/inspector.ts'
import './inspector.css'
import '../bench.css'
import { DeleteOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import { memo, type ReactNode } from 'react'
import type { Ladder } from '../../../core/detections/index.ts'
import { isFrameKind, type Detection } from '../../../core/formats/plan.ts'
import { useStable } from '../../stable.ts'
import { kindNames } from '../../../core/kinds/names.ts'
import { useChoice, useContents, useEvaluated, useOnShow } from '../contexts.ts'
import type { BenchDocument } from '../document.ts'
import { DeviceLimitsContext, type DeviceLimits } from './deviceLimits.ts'
import { LadderView } from '../../scene/LadderView.tsx'
import { NoteEditor } from './NoteEditor.tsx'
import { NearMisses } from './NearMisses.tsx'
import { Sentence, type SentenceProps } from '../../kinds/Sentence.tsx'
import { ruleTypeOf } from '../../../core/kinds/rules.ts'

export interface InspectorProps extends Pick<SentenceProps, 'links' | 'users'> {
  detection: Detection | null
  letter: string
  limits: DeviceLimits | null
  onRemove: () => void
  /** Controls of the selected kind that belong to the clip, not to the detection. */
  tools: ReactNode
  /** What can be done with the selected shape. */
  shapeTools: ReactNode
  /** Of the ladder: what would have to change. */
  changes: ReactNode
  /** How often it would trigger. */
  often: ReactNode
  /** What the last days say of its settings. */
  tuning: ReactNode
  /** Of the camera, while no detection is selected. */
  scenePart: ReactNode
}

/** What is selected: the sentence with every part editable, then the ladder of conditions of the selected target or moment. */
export function Inspector({
  detection,
  letter,
  limits,
  links,
  users,
  onRemove,
  tools,
  shapeTools,
  changes,
  often,
  tuning,
  scenePart
}: InspectorProps): ReactNode {
  const { view, document, schedules, scene, measured } = useContents()
  const { selection, showMoment } = useChoice()
  const { spans, back, clip } = useOnShow()
  const start = back ? (clip?.start ?? null) : null
  const { timeZone } = view.site
  const { ladder, ladders, frames, stays, sizes } = useEvaluated()
  const showNearMiss = useStable((l: Ladder) => showMoment(l.detection, l.target, l.frame))
  const area =
    selection.area !== null && scene.ignore[selection.area] !== undefined ? selection.area : null
  const heading = detection
    ? `${letter} · ${kindNames[detection.kind]}`
    : area !== null
      ? msg.ignoreArea(area + 1)
      : msg.nothingSelected
  const deleteName = detection?.name ?? (area !== null ? msg.ignoreArea2(area + 1) : null)
  return (
    <aside className="inspector" aria-label={msg.inspector}>
      <header>
        <h2>{heading}</h2>
        {deleteName && (
          <Tooltip
            title={
              <>
                {common.delete} <kbd>{msg.del}</kbd>
              </>
            }
          >
            <Button
              type="text"
              size="small"
              icon={<DeleteOutlined aria-hidden />}
              aria-label={msg.delete2(deleteName)}
              onClick={onRemove}
            />
          </Tooltip>
        )}
      </header>
      {!detection && area === null && <p className="quiet">{msg.selectADetectionTo}</p>}
      {!detection && area !== null && <p>{msg.targetsStandingInThis}</p>}
      {!detection && shapeTools}
      {!detection && scenePart}
      {detection && (
        <DeviceLimitsContext value={limits}>
          <Sentence
            document={document}
            detection={detection}
            schedules={schedules}
            inputs={view.site.inputs}
            endpoints={view.endpoints}
            links={links}
            users={users}
            stays={stays}
            sizes={sizes}
            measured={measured}
          />
          {often}
          <NoteEditor key={detection.id} detection={detection} document={document} />
          {shapeTools}
          {tools}
          {!detection.enabled && <p className="off-note">{msg.switchedOffItTriggers}</p>}
          {ruleTypeOf(detection.kind) !== undefined && (
            <Parking detection={detection} document={document} />
          )}
          {frames?.detection === detection.id && isFrameKind(detection) ? (
            <LadderView ladder={frames.ladder} who={detection.name} />
          ) : ladder ? (
            <>
              <LadderView
                ladder={ladder}
                who={targetWords(spans, ladder.target)}
                start={start}
                timeZone={timeZone}
              />
              {changes}
            </>
          ) : (
            <>
              <p className="quiet ladder-hint">{detection.enabled ? msg.selectATriggerOr : ''}</p>
              {tuning}
              <NearMisses
                ladders={ladders}
                spans={spans}
                start={start}
                timeZone={timeZone}
                onChoose={showNearMiss}
              />
            </>
          )}
        </DeviceLimitsContext>
      )}
    </aside>
  )
}

/** Keeps a detection's place on a device that would switch the kind on again by itself; it watches nothing. */
const Parking = memo(function Parking({
  detection,
  document
}: {
  detection: Detection
  document: BenchDocument
}): ReactNode {
  if (!detection.enabled) return null
  const park = (parked: boolean): void =>
    document.edit(
      { ...detection, parked: parked || undefined },
      said('edits.parkUse', parked, detection.name)
    )
  if (!detection.parked)
    return (
      <Tooltip title={msg.forDevicesThatSwitchThis}>
        <Button type="text" size="small" className="park" onClick={() => park(true)}>
          {msg.parkIt}
        </Button>
      </Tooltip>
    )
  return (
    <p className="off-note">
      {msg.parkedOnItsDeviceIt}{' '}
      <Button size="small" onClick={() => park(false)}>
        {msg.unpark}
      </Button>
    </p>
  )
})
