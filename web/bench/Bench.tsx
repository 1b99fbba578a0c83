import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore, type DragEvent, type ReactNode } from 'react'
import type { BenchView, ClipView, RunView } from '../../core/api.ts'
import { isNearMiss, type Setting, type Trigger } from '../../core/detections/index.ts'
import { isFrameKind } from '../../core/formats/plan.ts'
import type { Point } from '../../core/geometry/shapes.ts'
import { frameTime, spansOf } from '../../core/targets/tracks.ts'
import { request } from '../api/client.ts'
import { benchKey, useEvidence, useRun } from '../api/queries.ts'
import { BenchBar } from './BenchBar.tsx'
import { ClipBar } from './clips/ClipBar.tsx'
import { ClipErrors, ClipStage } from './clips/ClipStage.tsx'
import { MakeClip } from './clips/MakeClip.tsx'
import { useUpload } from './clips/upload.ts'
import { Compare } from './compare/Compare.tsx'
import { CurvePanel } from './curve/CurvePanel.tsx'
import { ConflictNote } from './ConflictNote.tsx'
import type { BenchDocument } from './document.ts'
import { useEvaluation } from './evaluation.ts'
import { Inspector } from './inspector/Inspector.tsx'
import { KeysHelp } from './KeysHelp.tsx'
import { useBenchKeys } from './benchKeys.ts'
import type { Brush, Cell } from './picture/cells.ts'
import { CellTools } from './picture/CellTools.tsx'
import { HeardLive } from './live/HeardLive.tsx'
import { LivePicture } from './live/LivePicture.tsx'
import { useLive } from './live/useLive.ts'
import { Picture, type Drawing, type ShapesProps } from './picture/Picture.tsx'
import { isDrawn, limitsOf, pointsOf, shapeFault, shapeName, type DrawnKind } from './picture/shape.ts'
import { Playhead } from './playhead.ts'
import { newDetection, newDrawn, type UNDRAWN_KINDS } from './rail/newDetection.ts'
import { Rail } from './rail/Rail.tsx'
import { RunPanel } from './runs/RunPanel.tsx'
import { ReferenceTool } from './clips/ReferenceTool.tsx'
import { useSelection } from './selection.ts'
import { Timeline } from './timeline/Timeline.tsx'
import { Transport } from './timeline/Transport.tsx'
import { letterOf } from './words.ts'

/** Draw and verify on one screen: rail, picture, timeline, inspector. */
export function Bench({ view, document }: { view: BenchView; document: BenchDocument }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const [selection, select] = useSelection()
  const [vertex, setVertex] = useState<number | null>(null)
  const [drawing, setDrawing] = useState<Drawing | null>(null)
  const [help, setHelp] = useState(false)
  const [making, setMaking] = useState(false)
  const [comparing, setComparing] = useState(false)
  const [brush, setBrush] = useState<Brush>({ on: true, shape: 'free' })
  const [cell, setCell] = useState<Cell | null>(null)
  const [runId, setRunId] = useState<string | null>(null)
  const [watched, setWatched] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const playhead = useMemo(() => new Playhead(), [])
  const queries = useQueryClient()
  const stage = useRef<HTMLDivElement>(null)
  const refresh = useCallback(() => void queries.invalidateQueries({ queryKey: benchKey(view.camera.id) }), [queries, view.camera.id])

  const clip = view.clips.find((c) => c.id === selection.clip) ?? view.clips.find((c) => c.state === 'ready') ?? view.clips[0] ?? null
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

  const { detections: placed, schedules, emails, conflict } = state
  const chosen = placed.find((p) => p.detection.id === selection.detection)?.detection ?? null
  const drawn = chosen && isDrawn(chosen) ? chosen : null
  const moving = chosen?.kind === 'motion' || chosen?.kind === 'classMotion' ? chosen : null

  const setting = useMemo<Setting | null>(
    () =>
      clip && {
        plan: { schedules, timeZone: view.site.timeZone, ...(view.site.position && { position: view.site.position }) },
        camera: { ignore: view.camera.ignore, detections: placed.map((p) => p.detection) },
        fps: clip.fps,
        start: clip.start,
        inputs: clip.inputs
      },
    [clip?.fps, clip?.start, clip?.id, clip?.inputs, placed, schedules, view.site.timeZone, view.site.position, view.camera.ignore] // eslint-disable-line react-hooks/exhaustive-deps -- not the clip's progress
  )
  const evaluation = useEvaluation({ evidence: ready ? evidence : null, setting, detection: chosen?.enabled ? chosen.id : null, target: selection.target, at: selection.frame })

  // A moment in the address is shown when the page is opened or reloaded.
  const first = useRef(true)
  useEffect(() => {
    if (!first.current || !ready) return
    first.current = false
    if (selection.frame !== null) playhead.seek(frameTime(selection.frame, clip.fps))
  }, [ready, clip, selection.frame, playhead])

  const chooseDetection = useCallback((id: string | null) => {
    setVertex(null)
    setCell(null)
    select({ detection: id, ...(id === null && { target: null, frame: null }) })
  }, [select])
  const showMoment = (detection: string | null, target: number | null, frame: number | null): void => {
    setVertex(null)
    select({ detection, target, frame })
    playhead.pause()
    const at = frame ?? tracks?.frame[spans.find((s) => s.id === target)?.rows[0] ?? 0]
    if (at && clip) playhead.seek(frameTime(at, clip.fps))
  }
  const showTrigger = (t: Trigger): void => showMoment(t.detection, t.target ?? null, t.frame)
  const startDrawing = (kind: DrawnKind): void => {
    if (!hasPicture) return
    playhead.pause()
    setVertex(null)
    setProblem(null)
    setDrawing({ kind, points: [], cursor: [0.5, 0.5] })
    stage.current?.focus()
  }
  const refuse = (kind: DrawnKind, why: string): void => setProblem(`The ${shapeName(kind)} ${why}.`)
  const onDrawn = (points: Point[]): void => {
    if (!drawing || points.length < limitsOf(drawing.kind).least) return
    const fault = shapeFault(drawing.kind, points)
    if (fault) return refuse(drawing.kind, fault)
    setDrawing(null)
    setProblem(null)
    const made = newDrawn(drawing.kind, points, placed)
    document.add(made)
    select({ detection: made.id, target: null, frame: null })
  }
  const onSettle = (label: string): void => {
    const shape = chosen && document.detection(chosen.id)
    setProblem(null)
    if (!shape || !isDrawn(shape)) return document.settle(label)
    const fault = shapeFault(shape.kind, pointsOf(shape))
    if (!fault) return document.settle(label)
    document.forget()
    refuse(shape.kind, `${fault}; it is left as it was`)
  }
  const addKind = (kind: (typeof UNDRAWN_KINDS)[number]): void => {
    const made = newDetection(kind, placed, view.site.inputs)
    document.add(made)
    select({ detection: made.id, target: null, frame: null })
  }
  const remove = (): void => {
    if (!chosen) return
    document.remove(chosen.id)
    chooseDetection(null)
  }
  const nextNearMiss = (): void => {
    const near = evaluation.ladders.filter(isNearMiss).sort((a, b) => a.time - b.time)
    const next = near.find((l) => l.time > playhead.time + 1e-3) ?? near[0]
    if (next) showMoment(next.detection, next.target, next.frame)
  }
  const run = async (speed: number): Promise<void> => {
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
  }
  const runView = useRun(runId).data ?? null

  useBenchKeys({ document, drawn, refuse, moving, cell, setCell, vertex, setVertex, drawing, setDrawing, onDrawn, startDrawing, remove, playhead, nextNearMiss, showHelp: () => setHelp(true), stage, leave: () => (selection.target !== null ? select({ target: null, frame: null }) : chooseDetection(null)) })

  const onDrop = (event: DragEvent): void => {
    event.preventDefault()
    const [file] = event.dataTransfer.files
    if (file) upload.send(file)
  }
  const errors = [upload.error, refused, problem, evaluation.failure].filter((e) => e !== null)
  const chooseFile = (): void => window.document.querySelector<HTMLInputElement>('input[type=file]')?.click()
  const shapes: ShapesProps = { document, placed, detection: selection.detection, target: selection.target, vertex, drawing, brush, cell, onDetection: chooseDetection, onTarget: (id) => (live ? select({ target: id }) : showMoment(selection.detection, id, null)), onVertex: setVertex, onDrawing: setDrawing, onDrawn, onSettle }
  const { frames, heard, trouble: liveTrouble } = useLive(live ? view.camera.id : null)
  const targetClass = spans.find((s) => s.id === evaluation.ladder?.target)?.cls ?? 'target'

  return (
    <main className="bench">
      <BenchBar document={document} state={state} camera={view.camera} ready={ready} onCompare={() => setComparing(true)} onRun={(speed) => void run(speed)} onHelp={() => setHelp(true)} />
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
        <Rail document={document} placed={placed} schedules={schedules} triggers={evaluation.triggers} ladders={evaluation.ladders} hasClip={ready} hasPicture={hasPicture} selected={selection.detection} inputs={view.site.inputs} onSelect={chooseDetection} onDraw={startDrawing} onNew={addKind} camera={view.camera.id} />
        <div className="bench-middle">
          <div className="stage-area" ref={stage} tabIndex={0} role="application" aria-label={drawing ? `Picture: drawing a ${shapeName(drawing.kind)}` : 'Picture'} onDragOver={(e) => e.preventDefault()} onDrop={onDrop}>
            {live ? (
              <LivePicture camera={view.camera.id} heard={heard} frames={frames} trouble={liveTrouble} shapes={shapes} />
            ) : ready ? (
              <Picture clip={clip} tracks={tracks} measures={evidence?.measures ?? null} playhead={playhead} triggers={evaluation.triggers} {...shapes} />
            ) : (
              <ClipStage clip={clip} onChanged={refresh} onFile={chooseFile} onMake={view.world ? () => setMaking(true) : null} onLive={() => select({ live: true })} />
            )}
            {hasPicture && moving && !drawing && <CellTools key={moving.id} detection={moving} document={document} brush={brush} onBrush={setBrush} />}
            {drawing && (
              <p className="drawing-hint">
                {drawing.points.length < limitsOf(drawing.kind).least ? `Click where the ${shapeName(drawing.kind)} goes.` : `Enter or a double click finishes the ${shapeName(drawing.kind)}.`} <kbd>Esc</kbd> leaves.
              </p>
            )}
          </div>
          <div className="transport-bar">
            <Transport playhead={playhead} disabled={!ready} />
            <ClipBar clips={view.clips} clip={clip} timeZone={view.site.timeZone} upload={upload} onChoose={(id) => select({ clip: id, target: null, frame: null, live: false })} live={live} onLive={(on) => select({ live: on, target: null, frame: null })} onChanged={refresh} onMake={view.world ? () => setMaking(true) : null} />
          </div>
          {ready && chosen && isFrameKind(chosen) && evaluation.frames?.detection === chosen.id && <CurvePanel trace={evaluation.frames} seconds={clip.frames / clip.fps} playhead={playhead} />}
          {live ? (
            <HeardLive heard={heard} placed={placed} />
          ) : ready ? (
            <Timeline clip={clip} site={view.site} playhead={playhead} placed={placed} schedules={schedules} spans={spans} triggers={evaluation.triggers} ladders={evaluation.ladders} detection={selection.detection} target={selection.target} at={selection.frame} onDetection={chooseDetection} onMoment={showMoment} />
          ) : (
            <section className="timeline" aria-label="Timeline" />
          )}
          {runView && <RunPanel run={runView} detections={placed.map((p) => p.detection)} onClose={() => setRunId(null)} onTrigger={showTrigger} />}
        </div>
        <Inspector
          document={document}
          detection={chosen}
          letter={letterOf(placed.findIndex((p) => p.detection.id === chosen?.id))}
          schedules={schedules}
          inputs={view.site.inputs}
          email={(chosen && emails.get(chosen.id)) ?? null}
          users={(id) => placed.filter((p) => p.detection.schedule === id).length}
          ladder={evaluation.ladder}
          frames={evaluation.frames?.detection === chosen?.id ? evaluation.frames : null}
          stays={evaluation.stays}
          tools={chosen?.kind === 'tamper' && ready && <ReferenceTool clip={clip} playhead={playhead} onChanged={refresh} />}
          targetClass={targetClass}
          onRemove={remove}
        />
      </div>
      {ready && tracks && <Compare open={comparing} clip={clip} tracks={tracks} placed={placed} triggers={evaluation.triggers} onClose={() => setComparing(false)} onTrigger={(t) => { setComparing(false); showTrigger(t) }} />}
      {view.world && <MakeClip open={making} camera={view.camera.id} world={view.world} onClose={() => setMaking(false)} onMade={onSent} />}
      <KeysHelp open={help} onClose={() => setHelp(false)} />
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
