import { said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { rail as msg } from '../../../core/messages/en/bench/rail.ts'
import './rail.css'
import '../bench.css'
import { Button } from 'antd'
import { memo, useState, type DragEvent, type ReactNode } from 'react'
import { isNearMiss } from '../../../core/detections/index.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import { useChoice, useContents, useEvaluated, useOnShow } from '../contexts.ts'
import type { Finding } from '../../../core/readiness/index.ts'
import { useReadiness } from '../../readiness/useReadiness.ts'
import type { DrawnKind } from '../picture/shape.ts'
import { lazyPart } from '../../lazyPart.tsx'
import { Later } from '../Later.tsx'
import type { UndrawnKind } from '../../kinds/newDetection.ts'
import { NewButtons } from './NewButtons.tsx'
import { useStableAll } from '../../stable.ts'
import { RailItem, type RailActions } from './RailItem.tsx'
import { RailReadiness } from './RailReadiness.tsx'
import type { Template } from './templates.ts'
import { CloseOutlined, StopOutlined } from '@ant-design/icons'

const BulkPanel = lazyPart(() => import('./BulkPanel.tsx'), 'BulkPanel')

/** Handlers are the same from one rendering to the next. */
export interface RailProps {
  onDraw: (kind: DrawnKind) => void
  onNew: (kind: UndrawnKind) => void
  onTemplate: (template: Template) => void
  onDuplicate: (detection: Detection) => void
}

/** The camera's detections, each as a short sentence, and its ignore areas. */
export const Rail = memo(function Rail({
  onDraw,
  onNew,
  onTemplate,
  onDuplicate
}: RailProps): ReactNode {
  const { view, document, placed, schedules, scene, prefs } = useContents()
  const { ready, hasPicture } = useOnShow()
  const { selection, chooseDetection, chooseArea } = useChoice()
  const { triggersOf, ladders } = useEvaluated()
  const selected = selection.detection
  const found = useReadiness().data?.findings
  const issuesOf = (id: string): Finding[] =>
    found?.filter((f) => f.camera === view.camera.id && f.detection === id) ?? []
  const { inputs } = view.site
  const [marked, setMarked] = useState<ReadonlySet<string> | null>(null)
  const [dragged, setDragged] = useState<string | null>(null)
  const ids = placed.map(({ detection }) => detection.id)
  const moveTo = (id: string, to: number): void => {
    const others = ids.filter((other) => other !== id)
    document.order([...others.slice(0, to), id, ...others.slice(to)], said('edits.changeTheOrder'))
  }
  const act = useStableAll<RailActions>({
    select: chooseDetection,
    mark: (id, on) =>
      setMarked(
        new Set(on ? [...(marked ?? []), id] : [...(marked ?? [])].filter((other) => other !== id))
      ),
    use: (detection, enabled) =>
      document.edit({ ...detection, enabled }, said('edits.useSwitchOff', enabled, detection.name)),
    move: (id, by) => moveTo(id, ids.indexOf(id) + by),
    duplicate: onDuplicate,
    hide: (id) => prefs.toggle('hidden', id),
    lock: (id) => prefs.toggle('locked', id),
    remove: (id) => {
      document.remove(id)
      if (id === selected) chooseDetection(null)
    }
  })
  const onDrop =
    (to: number) =>
    (event: DragEvent): void => {
      event.preventDefault()
      if (dragged) moveTo(dragged, to)
      setDragged(null)
    }
  return (
    <aside className="rail" aria-label={msg.detections}>
      <header className="row">
        <h2>{placed.length === 0 ? msg.noDetections : msg.detectionDetections(placed.length)}</h2>
        {placed.length > 1 && (
          <Button
            size="small"
            type="text"
            aria-pressed={marked !== null}
            onClick={() => setMarked(marked ? null : new Set())}
          >
            {msg.several}
          </Button>
        )}
      </header>
      {placed.length === 0 && <p className="quiet">{msg.drawALineOr}</p>}
      <ul aria-label={msg.detections}>
        {placed.map(({ detection }, index) => (
          <li
            key={detection.id}
            className={`rail-item${detection.id === selected ? ' chosen' : ''}${detection.enabled ? '' : ' off'}`}
            draggable
            onDragStart={() => setDragged(detection.id)}
            onDragOver={(event) => dragged && event.preventDefault()}
            onDrop={onDrop(index)}
            onDragEnd={() => setDragged(null)}
          >
            <RailItem
              detection={detection}
              index={index}
              last={index === placed.length - 1}
              schedules={schedules}
              inputs={inputs}
              chosen={detection.id === selected}
              triggers={ready ? (triggersOf.get(detection.id)?.length ?? 0) : null}
              issues={issuesOf(detection.id).length}
              blocked={issuesOf(detection.id).some((f) => f.severity === 'blocking')}
              near={detection.id === selected ? ladders.filter(isNearMiss).length : 0}
              hidden={prefs.hidden.has(detection.id)}
              locked={prefs.locked.has(detection.id)}
              marked={marked && marked.has(detection.id)}
              act={act}
            />
          </li>
        ))}
      </ul>
      {marked && (
        <Later>
          <BulkPanel
            document={document}
            marked={placed.map((x) => x.detection).filter((d) => marked.has(d.id))}
            schedules={schedules}
            endpoints={view.endpoints}
            onAll={() => setMarked(new Set(ids))}
            onDone={() => setMarked(null)}
          />
        </Later>
      )}
      <NewButtons
        hasPicture={hasPicture}
        hasInputs={inputs.length > 0}
        onDraw={onDraw}
        onNew={onNew}
        onTemplate={onTemplate}
      />
      {scene.ignore.length > 0 && (
        <ul className="areas" aria-label={common.ignoreAreas}>
          {scene.ignore.map((area, index) => (
            <li key={index}>
              <button
                type="button"
                className="area"
                aria-pressed={index === selection.area}
                onClick={() => chooseArea(index)}
              >
                <StopOutlined aria-hidden /> {msg.ignoreArea(index + 1)}
              </button>
              <Button
                size="small"
                type="text"
                aria-label={msg.deleteIgnoreArea(index + 1)}
                onClick={() =>
                  document.editScene(
                    { ...scene, ignore: scene.ignore.filter((a) => a !== area) },
                    said('edits.deleteIgnoreArea', index + 1)
                  )
                }
              >
                <CloseOutlined aria-hidden />
              </Button>
            </li>
          ))}
        </ul>
      )}
      <RailReadiness camera={view.camera.id} selected={selected} document={document} />
    </aside>
  )
})
