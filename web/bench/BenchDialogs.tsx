import { lazy, Suspense, type ReactNode } from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import type { Setting, Trigger } from '../../core/detections/index.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import type { BenchDocument, DocumentState } from './document.ts'
import type { Evaluation } from './evaluation.ts'
import { KeysHelp } from './KeysHelp.tsx'

const AllClips = lazy(() => import('./clips/AllClips.tsx').then((m) => ({ default: m.AllClips })))
const Compare = lazy(() => import('./compare/Compare.tsx').then((m) => ({ default: m.Compare })))
const HistoryDrawer = lazy(() =>
  import('./history/HistoryDrawer.tsx').then((m) => ({ default: m.HistoryDrawer }))
)
const MakeClip = lazy(() => import('./clips/MakeClip.tsx').then((m) => ({ default: m.MakeClip })))

export type BenchDialog = 'help' | 'making' | 'comparing' | 'clips' | 'history'

export interface BenchDialogsProps {
  open: BenchDialog | null
  view: BenchView
  document: BenchDocument
  state: DocumentState
  clip: ClipView | null
  /** Of the clip, when it is on the Bench. */
  tracks: Tracks | null
  setting: Setting | null
  evaluation: Evaluation
  onClose: () => void
  onClip: (id: string) => void
  onMade: (clip: ClipView) => void
  onTrigger: (trigger: Trigger) => void
}

/** What opens over the Bench; the code of each comes when it is first wanted. */
export function BenchDialogs({
  open,
  view,
  document,
  state,
  clip,
  tracks,
  setting,
  evaluation,
  onClose,
  onClip,
  onMade,
  onTrigger
}: BenchDialogsProps): ReactNode {
  const { camera, world, clips, site } = view
  const closing =
    <T,>(act: (value: T) => void) =>
    (value: T): void => {
      onClose()
      act(value)
    }
  return (
    <>
      <Suspense fallback={null}>
        {open === 'comparing' && clip && tracks && (
          <Compare
            open
            clip={clip}
            tracks={tracks}
            placed={state.detections}
            triggers={evaluation.triggers}
            onClose={onClose}
            onTrigger={closing(onTrigger)}
          />
        )}
        {open === 'clips' && (
          <AllClips
            open
            clips={clips}
            clip={clip}
            placed={state.detections}
            setting={setting}
            evaluations={evaluation.evaluations}
            onChoose={closing(onClip)}
            onClose={onClose}
          />
        )}
        {open === 'making' && world && (
          <MakeClip open camera={camera.id} world={world} onClose={onClose} onMade={onMade} />
        )}
        {open === 'history' && (
          <HistoryDrawer
            open
            camera={camera.id}
            timeZone={site.timeZone}
            document={document}
            state={state}
            onClose={onClose}
          />
        )}
      </Suspense>
      <KeysHelp open={open === 'help'} onClose={onClose} />
    </>
  )
}
