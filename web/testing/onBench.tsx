import { useState, useSyncExternalStore, type ReactNode } from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import { evaluate, explainAll, type Setting } from '../../core/detections/index.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { spansOf, type Tracks } from '../../core/targets/tracks.ts'
import { BenchDocument } from '../bench/document.ts'
import type { Evaluation } from '../bench/evaluation.ts'
import { Playhead } from '../bench/playhead.ts'
import type { Selection } from '../bench/selection.ts'
import { Shared } from '../bench/Shared.tsx'
import type { Saver } from '../sync/saver.ts'
import { bareView } from './bareView.ts'

/** Takes every save, as a server on which nobody else works. */
const takes: Saver = {
  put: (_path, _body, version) => Promise.resolve(version + 1),
  remove: (_path, version) => Promise.resolve(version + 1)
}

const kept = { version: 1, changedAt: 0 }

/** A camera with these detections, as the Bench is given it. */
export const benchView = (
  detections: readonly Detection[],
  more: Partial<BenchView> = {}
): BenchView => ({
  ...bareView(),
  detections: detections.map((detection, position) => ({
    camera: 'c',
    detection,
    position,
    ...kept,
    actions: { actions: NO_ACTIONS, version: 0, changedAt: 0 }
  })),
  ...more
})

export const benchDocument = (view: BenchView): BenchDocument =>
  new BenchDocument(view, null, takes)

const NOTHING: Selection = {
  clip: null,
  detection: null,
  area: null,
  target: null,
  frame: null,
  live: false,
  back: false,
  range: null
}

/** A clip of ten frames a second with these targets. */
const clipOf = (tracks: Tracks): ClipView =>
  ({
    id: 'clip',
    name: 'Clip',
    state: 'ready',
    frames: Math.max(0, ...tracks.frame),
    fps: 10,
    start: 0,
    inputs: {}
  }) as unknown as ClipView

export const settingOf = (detections: readonly Detection[]): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: { ignore: [], detections: [...detections] },
  fps: 10,
  start: 0
})

/** A part of the Bench in its place: what is evaluated, the engine itself has evaluated; what is chosen, stays chosen. */
export function OnBench({
  view,
  document,
  tracks,
  chosen,
  children
}: {
  view: BenchView
  document: BenchDocument
  tracks: Tracks | null
  chosen?: Partial<Selection>
  children: ReactNode
}): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const [selection, setSelection] = useState<Selection>({ ...NOTHING, ...chosen })
  const [marks, setMarks] = useState<{ hidden: string[]; locked: string[] }>({
    hidden: [],
    locked: []
  })
  const [playhead] = useState(() => new Playhead())
  const detections = state.detections.map((p) => p.detection)
  const setting = settingOf(detections)
  const triggers = tracks ? evaluate(setting, tracks) : []
  const ladders =
    tracks && selection.detection !== null ? explainAll(setting, tracks, selection.detection) : []
  const evaluation = {
    triggers,
    triggersOf: new Map(
      detections.map(({ id }) => [id, triggers.filter((t) => t.detection === id)])
    ),
    took: null,
    ladders,
    ladder: ladders.find((l) => l.target === selection.target) ?? null,
    frames: null,
    stays: null,
    sizes: null,
    timed: new Map(),
    failure: null
  } as unknown as Evaluation
  return (
    <Shared
      contents={{
        view,
        document,
        placed: state.detections,
        schedules: state.schedules,
        scene: state.scene,
        measured: false,
        prefs: {
          hidden: new Set(marks.hidden),
          locked: new Set(marks.locked),
          toggle: (what, id) =>
            setMarks((old) => ({
              ...old,
              [what]: old[what].includes(id)
                ? old[what].filter((other) => other !== id)
                : [...old[what], id]
            }))
        }
      }}
      onShow={{
        clip: tracks && clipOf(tracks),
        ready: tracks !== null,
        live: false,
        back: false,
        hasPicture: tracks !== null,
        tracks,
        spans: tracks ? spansOf(tracks) : [],
        playhead
      }}
      choice={{
        selection,
        chooseDetection: (detection) => setSelection((old) => ({ ...old, detection, area: null })),
        chooseArea: (area) => setSelection((old) => ({ ...old, area, detection: null })),
        showMoment: (detection, target, frame) =>
          setSelection((old) => ({ ...old, detection, target, frame }))
      }}
      evaluation={evaluation}
    >
      {children}
    </Shared>
  )
}
