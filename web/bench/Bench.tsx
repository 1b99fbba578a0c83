import { bench as msg } from '../../core/messages/en/bench/bench.ts'
import './bench.css'
import { useQueryClient } from '@tanstack/react-query'
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type ReactNode
} from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import { isNearMiss, type Trigger } from '../../core/detections/index.ts'
import { isFrameKind, type Detection, type Schedule } from '../../core/formats/plan.ts'
import { frameTime } from '../../core/targets/tracks.ts'
import { useStable, useStableAll } from '../stable.ts'
import { benchKey } from '../api/queries.ts'
import { BenchBar } from './BenchBar.tsx'
import { BenchDialogs, type BenchDialog } from './BenchDialogs.tsx'
import { useBenchKeys } from './benchKeys.ts'
import { ClipBar } from './clips/ClipBar.tsx'
import { ClipErrors } from './clips/ClipStage.tsx'
import { useUpload } from './clips/upload.ts'
import { useClipOnShow } from './clips/useClipOnShow.ts'
import { useRefusal } from './clips/useRefusal.ts'
import type { Choice, Contents, OnShow } from './contexts.ts'
import type { BenchDocument } from './document.ts'
import { useEvaluation } from './evaluation.ts'
import { BenchInspector } from './inspector/BenchInspector.tsx'
import { Later } from './Later.tsx'
import { HeardLive } from './live/HeardLive.tsx'
import { useLive } from './live/useLive.ts'
import type { DensityChoice } from './lookBack/DensityLayer.tsx'
import { LookBackStrip } from './lookBack/LookBackStrip.tsx'
import { problemWords } from '../../core/messages/errorWords.ts'
import { useMeasuring } from './measuring/useMeasuring.ts'
import type { Brush, Cell } from './picture/cells.ts'
import type { PictureShapes } from './picture/Overlay.tsx'
import { Stage } from './picture/Stage.tsx'
import { Zoom } from './picture/zoom.ts'
import { Playhead } from './playhead.ts'
import { type UndrawnKind, newDetection } from '../kinds/newDetection.ts'
import { ConflictNote } from '../sync/ConflictNote.tsx'
import { Rail } from './rail/Rail.tsx'
import type { Template } from './rail/templates.ts'
import { useRunAsLive } from './runs/useRunAsLive.ts'
import { useSelection, type Range } from './selection.ts'
import { Shared } from './Shared.tsx'
import { useCopyTo } from './shapes/useCopyTo.tsx'
import { useShapes } from './shapes/useShapes.ts'
import { useStill } from './shapes/useStill.ts'
import { useViewPrefs } from './shapes/viewPrefs.ts'
import { Timeline } from './timeline/Timeline.tsx'
import { Transport } from './timeline/Transport.tsx'
import { useDrawnSetting, useSetting } from './useSetting.ts'
import { lazyPart } from '../lazyPart.tsx'

const RealActions = lazyPart(() => import('./runs/RealActions.tsx'), 'RealActions')
const RunPanel = lazyPart(() => import('./runs/RunPanel.tsx'), 'RunPanel')
const CurvePanel = lazyPart(() => import('./curve/CurvePanel.tsx'), 'CurvePanel')

/** Draw and verify on one screen: rail, picture, timeline, inspector. */
export function Bench({ view, document }: { view: BenchView; document: BenchDocument }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const [selection, select] = useSelection()
  const [open, setOpen] = useState<BenchDialog | null>(null)
  const [brush, setBrush] = useState<Brush>({ on: true, shape: 'free' })
  const [cell, setCell] = useState<Cell | null>(null)
  const [sizing, setSizing] = useState(false)
  const [fills, setFills] = useState(false)
  const [density, setDensity] = useState<DensityChoice | null>(null)
  const [watched, setWatched] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const playhead = useMemo(() => new Playhead(), [])
  const zoom = useMemo(() => new Zoom(), [])
  const queries = useQueryClient()
  const stage = useRef<HTMLDivElement>(null)
  const prefs = useViewPrefs(view.camera.id)
  const refresh = useCallback(
    () => void queries.invalidateQueries({ queryKey: benchKey(view.camera.id) }),
    [queries, view.camera.id]
  )

  const { clip, ready, live, back, hasPicture, evidence, tracks, spans, failed } = useClipOnShow(
    view,
    selection
  )
  const readyClip = ready ? clip : null

  const onSent = useCallback(
    (sent: ClipView) => {
      setWatched(sent.id)
      select({ clip: sent.id, target: null, frame: null })
      refresh()
    },
    [select, refresh]
  )
  const upload = useUpload(view.camera.id, onSent)
  const refused = useRefusal(watched, refresh)

  const { detections: placed, schedules, conflict } = state
  const still = useStill(placed, state.previewing)
  const chosen = placed.find((p) => p.detection.id === selection.detection)?.detection ?? null
  const moving = chosen && 'cells' in chosen ? chosen : null
  const scene = useMeasuring(document, state.scene, readyClip, ready ? tracks : null)
  const shapes = useShapes({
    document,
    state,
    selection,
    select,
    prefs,
    hasPicture,
    hasPosition: view.site.position !== null,
    surroundings: view.surroundings,
    say: setProblem,
    begin: () => {
      playhead.pause()
      stage.current?.focus()
    }
  })
  const { drawing } = shapes
  const { setVertex } = shapes.act

  const drawn = useDrawnSetting(view, state, scene.pose)
  const setting = useSetting(drawn, clip)
  const evaluation = useEvaluation({
    evidence: ready ? evidence : null,
    setting,
    detection: chosen?.enabled ? chosen.id : null,
    target: selection.target,
    at: selection.frame
  })

  // A moment in the address is shown when the page is opened or reloaded.
  const first = useRef(true)
  useEffect(() => {
    if (!first.current || !ready || !clip) return
    first.current = false
    if (selection.frame !== null) playhead.seek(frameTime(selection.frame, clip.fps))
  }, [ready, clip, selection.frame, playhead])

  const chooseDetection = useCallback(
    (id: string | null) => {
      setVertex(null)
      setCell(null)
      select({ detection: id, area: null, ...(id === null && { target: null, frame: null }) })
    },
    [select, setVertex]
  )
  const showMoment = useStable(
    (detection: string | null, target: number | null, frame: number | null): void => {
      setVertex(null)
      select({ detection, area: null, target, frame })
      playhead.pause()
      const at = frame ?? tracks?.frame[spans.find((s) => s.id === target)?.rows[0] ?? 0]
      if (at && clip) playhead.seek(frameTime(at, clip.fps))
    }
  )
  const showTrigger = (t: Trigger): void => showMoment(t.detection, t.target ?? null, t.frame)
  const make = (made: readonly Detection[], added: readonly Schedule[] = []): void => {
    document.add(made, added)
    select({ detection: made[0]!.id, area: null, target: null, frame: null })
  }
  /** The next of some moments after (or before) the one on show, around the ends. */
  const next = <T extends { time: number }>(moments: readonly T[], by: -1 | 1): T | undefined => {
    const ordered = [...moments].sort((a, b) => by * (a.time - b.time))
    return ordered.find(({ time }) => by * (time - playhead.time) > 1e-3) ?? ordered[0]
  }
  const running = useRunAsLive(clip, playhead, setProblem)
  const copy = useCopyTo(chosen, scene.pose, setProblem)

  useBenchKeys({
    document,
    shapes,
    scene,
    zoom,
    moving,
    cell,
    setCell,
    playhead,
    toTrigger: (by) => {
      const t = next(
        chosen
          ? evaluation.triggers.filter(({ detection }) => detection === chosen.id)
          : evaluation.triggers,
        by
      )
      if (t) showTrigger(t)
    },
    toNearMiss: (by) => {
      const l = next(evaluation.ladders.filter(isNearMiss), by)
      if (l) showMoment(l.detection, l.target, l.frame)
    },
    chooseNext: (by) => {
      const at = placed.findIndex((p) => p.detection.id === chosen?.id)
      const to = placed[(at + by + placed.length) % placed.length] ?? placed[0]
      if (to) chooseDetection(to.detection.id)
    },
    toggleSizing: () => setSizing(!sizing),
    toggleFills: () => setFills(!fills),
    hideOrLock: (what) => chosen && prefs.toggle(what, chosen.id),
    showHelp: () => setOpen('help'),
    stage,
    leave: () =>
      selection.target !== null ? select({ target: null, frame: null }) : chooseDetection(null)
  })

  const errors = [
    upload.error,
    refused,
    problem,
    evaluation.failure,
    failed === null ? null : problemWords(failed)
  ].filter((e) => e !== null)
  const act = useStableAll({
    compare: () => setOpen('comparing'),
    history: () => setOpen('history'),
    help: () => setOpen('help'),
    make: () => setOpen('making'),
    allClips: () => setOpen('clips'),
    chooseClip: (id: string) =>
      select({ clip: id, target: null, frame: null, live: false, back: false }),
    recorded: (id: string) => {
      setWatched(id)
      select({ clip: id, target: null, frame: null, live: false, back: false })
      refresh()
    },
    goLive: (on: boolean) => select({ live: on, target: null, frame: null }),
    lookBack: (on: boolean) => select({ back: on, live: false, target: null, frame: null }),
    chooseRange: (range: Range) => select({ range, target: null, frame: null }),
    newKind: (kind: UndrawnKind) => make([newDetection(kind, placed, view.site.inputs)]),
    template: (template: Template) => {
      if (template.shape) return shapes.startDrawing(template.shape, template)
      const made = template.make([], {
        placed,
        schedules,
        hasPosition: view.site.position !== null,
        surroundings: view.surroundings
      })
      make(made.detections, made.schedules)
    },
    live: () => select({ live: true })
  })
  const onMake = view.world ? act.make : null
  const overlay: PictureShapes = {
    document,
    zoom,
    placed,
    scene: state.scene,
    detection: selection.detection,
    area: selection.area,
    target: selection.target,
    vertex: shapes.vertex,
    drawing,
    brush,
    cell,
    hidden: prefs.hidden,
    locked: prefs.locked,
    sizing,
    measuring: scene.measuring,
    shownScene: scene.shown,
    onDetection: chooseDetection,
    onArea: shapes.chooseArea,
    onTarget: (id) => (live ? select({ target: id }) : showMoment(selection.detection, id, null)),
    onVertex: setVertex,
    onDrawing: shapes.setDrawing,
    onDrawn: shapes.onDrawn,
    onSettle: shapes.onSettle
  }
  const liveNow = useLive(live ? view.camera.id : null)
  const contents = useMemo<Contents>(
    () => ({
      view,
      document,
      placed: still,
      schedules,
      scene: state.scene,
      measured: scene.pose !== null,
      prefs
    }),
    [view, document, still, schedules, state.scene, scene.pose, prefs]
  )
  const onShow = useMemo<OnShow>(
    () => ({ clip, ready, live, back, hasPicture, tracks, spans, playhead }),
    [clip, ready, live, back, hasPicture, tracks, spans, playhead]
  )
  const { chooseArea } = shapes.act
  const choice = useMemo<Choice>(
    () => ({ selection, chooseDetection, chooseArea, showMoment }),
    [selection, chooseDetection, chooseArea, showMoment]
  )

  return (
    <main className="bench">
      <BenchBar
        document={document}
        status={state.status}
        error={state.error}
        undo={state.undo}
        redo={state.redo}
        camera={view.camera}
        ready={ready}
        replays={ready && !back}
        onCompare={act.compare}
        onRun={running.run}
        onHistory={act.history}
        onHelp={act.help}
        fills={fills}
        onFills={setFills}
      />
      {conflict && <ConflictNote conflict={conflict} document={document} />}
      <ClipErrors
        messages={errors}
        onClose={() => {
          upload.forget()
          setWatched(null)
          setProblem(null)
        }}
      />
      <Shared {...{ contents, onShow, choice, evaluation }}>
        <div className={fills ? 'bench-body fills' : 'bench-body'}>
          <Rail
            onDraw={shapes.act.startDrawing}
            onNew={act.newKind}
            onTemplate={act.template}
            onDuplicate={shapes.act.duplicate}
          />
          <div className="bench-middle">
            <Stage
              stage={stage}
              shapes={overlay}
              shape={shapes.edited?.shape ?? null}
              live={liveNow}
              density={back ? density : null}
              measures={evidence?.measures ?? null}
              moving={moving}
              onBrush={setBrush}
              onFile={upload.send}
              onMake={onMake}
              onLive={view.live ? act.live : null}
              analysing={live && clip?.state === 'analysing' ? clip : null}
              onChanged={refresh}
            />
            <div className="transport-bar">
              <Transport
                playhead={playhead}
                disabled={!ready}
                start={back ? (clip?.start ?? null) : null}
                timeZone={view.site.timeZone}
              />
              <ClipBar
                clips={view.clips}
                clip={clip}
                timeZone={view.site.timeZone}
                upload={upload}
                onChoose={act.chooseClip}
                live={live}
                onLive={act.goLive}
                back={back}
                onBack={act.lookBack}
                range={selection.range}
                onChanged={refresh}
                onMake={onMake}
                onAll={act.allClips}
                recordable={view.live ? view.camera.id : null}
                onRecorded={act.recorded}
              />
            </div>
            {back && (
              <LookBackStrip
                range={selection.range}
                schedule={chosen?.schedule ?? null}
                onRange={act.chooseRange}
                density={density}
                onDensity={setDensity}
              />
            )}
            {/* Its room is there before it is: what comes later moves nothing from under a pointer. */}
            {readyClip && chosen?.enabled && isFrameKind(chosen) && evaluation.frames !== null && (
              <div className="curve-room">
                {evaluation.frames?.detection === chosen.id && (
                  <Later>
                    <CurvePanel
                      trace={evaluation.frames}
                      seconds={readyClip.frames / readyClip.fps}
                      playhead={playhead}
                    />
                  </Later>
                )}
              </div>
            )}
            {live ? (
              <HeardLive
                key={view.camera.id}
                heard={liveNow.heard}
                frames={liveNow.frames}
                setting={drawn}
                placed={placed}
              />
            ) : readyClip ? (
              <Timeline clip={readyClip} dragging={state.previewing} />
            ) : (
              <section className="timeline" aria-label={msg.timeline} />
            )}
            {running.asking && (
              <Later>
                <RealActions asking={running.asking} onAnswer={running.answer} />
              </Later>
            )}
            {running.view && (
              <Later>
                <RunPanel
                  run={running.view}
                  detections={placed.map((p) => p.detection)}
                  onClose={running.close}
                  onTrigger={showTrigger}
                />
              </Later>
            )}
          </div>
          <BenchInspector
            state={state}
            chosen={chosen}
            shapes={shapes}
            scene={scene}
            setting={setting}
            onCopyTo={copy}
            onChanged={refresh}
          />
        </div>
        <BenchDialogs
          open={open}
          state={state}
          setting={setting}
          onClose={() => setOpen(null)}
          onClip={act.chooseClip}
          onMade={onSent}
          onTrigger={showTrigger}
        />
      </Shared>
    </main>
  )
}
