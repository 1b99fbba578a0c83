import { App } from 'antd'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import {
  lazy,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type DragEvent,
  type ReactNode
} from 'react'
import type { BenchView, CameraSummary, ClipView, RunView } from '../../core/api.ts'
import { isNearMiss, type Ladder, type Setting, type Trigger } from '../../core/detections/index.ts'
import { isFrameKind, type Detection, type Schedule } from '../../core/formats/plan.ts'
import { frameTime, spansOf } from '../../core/targets/tracks.ts'
import { request } from '../api/client.ts'
import { useKeyed, useStable, useStableAll } from '../stable.ts'
import { benchKey, useEvidence, useRun, useSite } from '../api/queries.ts'
import { BenchBar } from './BenchBar.tsx'
import { BenchDialogs, type BenchDialog } from './BenchDialogs.tsx'
import { ClipBar } from './clips/ClipBar.tsx'
import { ClipErrors, ClipStage } from './clips/ClipStage.tsx'
import { ReferenceTool } from './clips/ReferenceTool.tsx'
import { useUpload } from './clips/upload.ts'
import { ConflictNote } from '../sync/ConflictNote.tsx'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { BenchDocument } from './document.ts'
import { Later } from './Later.tsx'
import { useEvaluation } from './evaluation.ts'
import { ChangePanel } from './inspector/ChangePanel.tsx'
import { useDeviceLimits } from './inspector/deviceLimits.ts'
import { Inspector } from './inspector/Inspector.tsx'
import { ShapeTools } from './inspector/ShapeTools.tsx'
import { useBenchKeys } from './benchKeys.ts'
import { HeardLive } from './live/HeardLive.tsx'
import { LivePicture } from './live/LivePicture.tsx'
import { useLive } from './live/useLive.ts'
import { MeasurePanel, SceneNote } from './measuring/MeasurePanel.tsx'
import { useMeasuring } from './measuring/useMeasuring.ts'
import type { Brush, Cell } from './picture/cells.ts'
import { CellTools } from './picture/CellTools.tsx'
import type { ShapesProps } from './picture/Overlay.tsx'
import { Picture } from './picture/Picture.tsx'
import { limitsOf, shapeName } from './picture/shape.ts'
import { Zoom } from './picture/zoom.ts'
import { Playhead } from './playhead.ts'
import { type UndrawnKind, newDetection } from '../kinds/newDetection.ts'
import { Rail } from './rail/Rail.tsx'
import type { Template } from './rail/templates.ts'
import { RunPanel } from './runs/RunPanel.tsx'
import { useSelection } from './selection.ts'
import { copyTo } from './shapes/copyTo.ts'
import { useShapes } from './shapes/useShapes.ts'
import { useStill } from './shapes/useStill.ts'
import { useViewPrefs } from './shapes/viewPrefs.ts'
import { Timeline } from './timeline/Timeline.tsx'
import { Transport } from './timeline/Transport.tsx'
import { letterOf } from '../kinds/words.ts'

const CurvePanel = lazy(() =>
  import('./curve/CurvePanel.tsx').then((m) => ({ default: m.CurvePanel }))
)

/** Draw and verify on one screen: rail, picture, timeline, inspector. */
export function Bench({ view, document }: { view: BenchView; document: BenchDocument }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const [selection, select] = useSelection()
  const [open, setOpen] = useState<BenchDialog | null>(null)
  const [brush, setBrush] = useState<Brush>({ on: true, shape: 'free' })
  const [cell, setCell] = useState<Cell | null>(null)
  const [sizing, setSizing] = useState(false)
  const [runId, setRunId] = useState<string | null>(null)
  const [watched, setWatched] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const playhead = useMemo(() => new Playhead(), [])
  const zoom = useMemo(() => new Zoom(), [])
  const queries = useQueryClient()
  const { notification } = App.useApp()
  const stage = useRef<HTMLDivElement>(null)
  const prefs = useViewPrefs(view.camera.id)
  const site = useSite().data
  const refresh = useCallback(
    () => void queries.invalidateQueries({ queryKey: benchKey(view.camera.id) }),
    [queries, view.camera.id]
  )

  const clip =
    view.clips.find((c) => c.id === selection.clip) ??
    view.clips.find((c) => c.state === 'ready') ??
    view.clips[0] ??
    null
  const live = selection.live
  const ready = clip?.state === 'ready' && !live
  const hasPicture = ready || live
  const evidence = useEvidence(clip).data ?? null
  const tracks = evidence?.tracks ?? null
  const spans = useMemo(() => (tracks ? spansOf(tracks) : []), [tracks])

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

  const { detections: placed, schedules, actions, conflict } = state
  const still = useStill(placed, state.previewing)
  const chosen = placed.find((p) => p.detection.id === selection.detection)?.detection ?? null
  const moving = chosen && 'cells' in chosen ? chosen : null
  const limits = useDeviceLimits(view.camera.id, chosen)
  const scene = useMeasuring(document, state.scene, ready ? clip : null, ready ? tracks : null)
  const shapes = useShapes({
    document,
    state,
    selection,
    select,
    prefs,
    hasPicture,
    hasPosition: view.site.position !== null,
    say: setProblem,
    begin: () => {
      playhead.pause()
      stage.current?.focus()
    }
  })
  const { drawing } = shapes
  const { setVertex } = shapes.act

  // Of the clip what is judged by, not how far its analysis is.
  const clipSetting = useKeyed(
    JSON.stringify(clip && [clip.id, clip.fps, clip.start, clip.inputs]),
    clip && { fps: clip.fps, start: clip.start, inputs: clip.inputs }
  )
  const { timeZone, position } = view.site
  const setting = useMemo<Setting | null>(
    () =>
      clipSetting && {
        plan: { schedules, timeZone, ...(position && { position }) },
        camera: {
          ignore: state.scene.ignore,
          ...(scene.pose && { scene: scene.pose }),
          detections: placed.map((p) => p.detection)
        },
        ...clipSetting
      },
    [clipSetting, placed, schedules, timeZone, position, state.scene.ignore, scene.pose]
  )
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
    if (!first.current || !ready) return
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
  const run = useStable(async (speed: number): Promise<void> => {
    if (!clip) return
    try {
      const started = await request<RunView>('POST', `/api/clips/${clip.id}/runs`, { speed })
      setProblem(null)
      setRunId(started.id)
      if (speed === 1) {
        playhead.seek(0)
        if (!playhead.playing) playhead.toggle()
      }
    } catch (error) {
      setProblem((error as Error).message)
    }
  })
  const copy = useStable(async (camera: CameraSummary): Promise<void> => {
    if (!chosen) return
    try {
      const { said, takeBack } = await copyTo(camera, chosen, scene.pose)
      notification.success({
        title: `${said}.`,
        actions: (
          <button
            type="button"
            className="link-button"
            onClick={() =>
              void takeBack().then(
                () => notification.success({ title: 'Taken back.' }),
                (error: Error) => setProblem(error.message)
              )
            }
          >
            Take it back
          </button>
        )
      })
    } catch (error) {
      setProblem((error as Error).message)
    }
  })
  const runView = useRun(runId).data ?? null

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
    hideOrLock: (what) => chosen && prefs.toggle(what, chosen.id),
    showHelp: () => setOpen('help'),
    stage,
    leave: () =>
      selection.target !== null ? select({ target: null, frame: null }) : chooseDetection(null)
  })

  const { edited, vertex } = shapes
  const pictureLabel = drawing
    ? `Picture: drawing ${/^[aeiou]/.test(shapeName(drawing.kind)) ? 'an' : 'a'} ${shapeName(drawing.kind)}, ${drawing.points.length} vertices so far`
    : scene.tool
      ? 'Picture: measuring the scene'
      : edited
        ? `Picture: ${edited.shape.name}${vertex === null ? '' : `, vertex ${vertex + 1} of ${edited.shape.points.length}`}`
        : 'Picture'
  const onDrop = (event: DragEvent): void => {
    const [file] = event.dataTransfer.files
    if (!file) return
    event.preventDefault()
    upload.send(file)
  }
  const errors = [upload.error, refused, problem, evaluation.failure].filter((e) => e !== null)
  const chooseFile = (): void =>
    window.document.querySelector<HTMLInputElement>('input[type=file]')?.click()
  const act = useStableAll({
    compare: () => setOpen('comparing'),
    history: () => setOpen('history'),
    help: () => setOpen('help'),
    make: () => setOpen('making'),
    allClips: () => setOpen('clips'),
    run: (speed: number) => void run(speed),
    copy: (camera: CameraSummary) => void copy(camera),
    chooseClip: (id: string) => select({ clip: id, target: null, frame: null, live: false }),
    goLive: (on: boolean) => select({ live: on, target: null, frame: null }),
    newKind: (kind: UndrawnKind) => make([newDetection(kind, placed, view.site.inputs)]),
    template: (template: Template) => {
      if (template.shape) return shapes.startDrawing(template.shape, template)
      const made = template.make([], {
        placed,
        schedules,
        hasPosition: view.site.position !== null
      })
      make(made.detections, made.schedules)
    },
    users: (id: string) => placed.filter((p) => p.detection.schedule === id).length,
    nearMiss: (l: Ladder) => showMoment(l.detection, l.target, l.frame)
  })
  const onMake = view.world ? act.make : null
  const others = useMemo(
    () => site?.cameras.filter(({ id }) => id !== view.camera.id) ?? [],
    [site, view.camera.id]
  )
  const spoken = still.find((p) => p.detection.id === selection.detection)?.detection ?? null
  const overlay: ShapesProps = {
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
  const { frames, heard, trouble: liveTrouble } = useLive(live ? view.camera.id : null)

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
        onCompare={act.compare}
        onRun={act.run}
        onHistory={act.history}
        onHelp={act.help}
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
      <div className="bench-body">
        <Rail
          document={document}
          placed={still}
          schedules={schedules}
          scene={state.scene}
          triggersOf={evaluation.triggersOf}
          ladders={evaluation.ladders}
          hasClip={ready}
          hasPicture={hasPicture}
          selected={selection.detection}
          area={selection.area}
          prefs={prefs}
          inputs={view.site.inputs}
          endpoints={view.endpoints}
          onSelect={chooseDetection}
          onArea={shapes.act.chooseArea}
          onDraw={shapes.act.startDrawing}
          onNew={act.newKind}
          onTemplate={act.template}
          onDuplicate={shapes.act.duplicate}
          camera={view.camera.id}
        />
        <div className="bench-middle">
          <div
            className="stage-area"
            ref={stage}
            tabIndex={0}
            role="application"
            aria-label={pictureLabel}
            onDragOver={(e) => e.preventDefault()}
            onDrop={onDrop}
          >
            {live ? (
              <LivePicture
                camera={view.camera.id}
                heard={heard}
                frames={frames}
                trouble={liveTrouble}
                shapes={overlay}
              />
            ) : ready ? (
              <Picture
                clip={clip}
                tracks={tracks}
                measures={evidence?.measures ?? null}
                playhead={playhead}
                triggers={evaluation.triggers}
                timed={evaluation.timed}
                {...overlay}
              />
            ) : (
              <ClipStage
                clip={clip}
                onChanged={refresh}
                onFile={chooseFile}
                onMake={onMake}
                onLive={() => select({ live: true })}
              />
            )}
            {hasPicture && moving && !drawing && (
              <CellTools
                key={moving.id}
                detection={moving}
                document={document}
                brush={brush}
                onBrush={setBrush}
              />
            )}
            {drawing && (
              <p className="drawing-hint">
                {drawing.template && <strong>{drawing.template.name}: </strong>}
                {drawing.points.length < limitsOf(drawing.kind).least
                  ? `Click where the ${shapeName(drawing.kind)} goes.`
                  : `Enter or a double click finishes the ${shapeName(drawing.kind)}.`}{' '}
                <kbd>Esc</kbd> leaves.
              </p>
            )}
          </div>
          <div className="transport-bar">
            <Transport playhead={playhead} disabled={!ready} />
            <ClipBar
              clips={view.clips}
              clip={clip}
              timeZone={view.site.timeZone}
              upload={upload}
              onChoose={act.chooseClip}
              live={live}
              onLive={act.goLive}
              onChanged={refresh}
              onMake={onMake}
              onAll={act.allClips}
            />
          </div>
          {ready && chosen && isFrameKind(chosen) && evaluation.frames?.detection === chosen.id && (
            <Later>
              <CurvePanel
                trace={evaluation.frames}
                seconds={clip.frames / clip.fps}
                playhead={playhead}
              />
            </Later>
          )}
          {live ? (
            <HeardLive heard={heard} placed={placed} />
          ) : ready ? (
            <Timeline
              clip={clip}
              site={view.site}
              playhead={playhead}
              placed={still}
              schedules={schedules}
              spans={spans}
              triggersOf={evaluation.triggersOf}
              ladders={evaluation.ladders}
              timed={evaluation.timed}
              detection={selection.detection}
              dragging={state.previewing}
              target={selection.target}
              at={selection.frame}
              onDetection={chooseDetection}
              onMoment={showMoment}
            />
          ) : (
            <section className="timeline" aria-label="Timeline" />
          )}
          {runView && (
            <RunPanel
              run={runView}
              detections={placed.map((p) => p.detection)}
              onClose={() => setRunId(null)}
              onTrigger={showTrigger}
            />
          )}
        </div>
        {scene.tool ? (
          <MeasurePanel tool={scene.tool} bands={scene.bands} setBands={scene.setBands} />
        ) : (
          <Inspector
            document={document}
            detection={spoken}
            area={
              selection.area !== null && state.scene.ignore[selection.area] ? selection.area : null
            }
            letter={letterOf(placed.findIndex((p) => p.detection.id === chosen?.id))}
            schedules={schedules}
            inputs={view.site.inputs}
            endpoints={view.endpoints}
            links={(chosen && actions.get(chosen.id)?.links) ?? NO_ACTIONS.links}
            users={act.users}
            ladder={evaluation.ladder}
            ladders={evaluation.ladders}
            spans={spans}
            frames={evaluation.frames?.detection === chosen?.id ? evaluation.frames : null}
            stays={evaluation.stays}
            sizes={evaluation.sizes}
            measured={scene.pose !== null}
            limits={limits}
            tools={
              chosen &&
              'causes' in chosen &&
              ready && <ReferenceTool clip={clip} playhead={playhead} onChanged={refresh} />
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
                  onCopyTo={act.copy}
                />
              )
            }
            changes={
              ready &&
              setting &&
              chosen &&
              evaluation.ladder && (
                <ChangePanel
                  key={`${chosen.id} ${evaluation.ladder.target}`}
                  document={document}
                  evaluations={evaluation.evaluations}
                  setting={setting}
                  clips={view.clips}
                  clip={clip}
                  detection={chosen.id}
                  target={evaluation.ladder.target}
                  fired={evaluation.triggers.some(
                    (t) =>
                      t.detection === chosen.id &&
                      (t.target === evaluation.ladder!.target ||
                        t.targets?.includes(evaluation.ladder!.target))
                  )}
                />
              )
            }
            scene={
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
            onNearMiss={act.nearMiss}
          />
        )}
      </div>
      <BenchDialogs
        open={open}
        view={view}
        document={document}
        state={state}
        clip={clip}
        tracks={ready ? tracks : null}
        setting={setting}
        evaluation={evaluation}
        onClose={() => setOpen(null)}
        onClip={(id) => select({ clip: id, target: null, frame: null, live: false })}
        onMade={onSent}
        onTrigger={showTrigger}
      />
    </main>
  )
}

/** Why a clip that was just sent has been refused; it is no longer among the camera's clips then. */
function useRefusal(id: string | null, onEnd: () => void): string | null {
  const watched = useQuery({
    queryKey: ['clip', id],
    queryFn: () => request<ClipView>('GET', `/api/clips/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state }) => (!state.data || state.data.state === 'analysing' ? 500 : false)
  }).data
  useEffect(() => {
    if (watched && watched.state !== 'analysing') onEnd()
  }, [watched, onEnd])
  return watched?.state === 'refused' ? watched.error : null
}
