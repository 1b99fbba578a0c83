import './bench.css'
import { Suspense, type ReactNode } from 'react'
import type { ClipView } from '../../core/api.ts'
import type { Setting, Trigger } from '../../core/detections/index.ts'
import { useContents, useEvaluated, useOnShow } from './contexts.ts'
import type { DocumentState } from './document.ts'
import { KeysHelp } from './KeysHelp.tsx'
import { lazyPart } from '../lazyPart.tsx'

const AllClips = lazyPart(() => import('./clips/AllClips.tsx'), 'AllClips')
const Compare = lazyPart(() => import('./compare/Compare.tsx'), 'Compare')
const HistoryDrawer = lazyPart(() => import('./history/HistoryDrawer.tsx'), 'HistoryDrawer')
const MakeClip = lazyPart(() => import('./clips/MakeClip.tsx'), 'MakeClip')

export type BenchDialog = 'help' | 'making' | 'comparing' | 'clips' | 'history'

export interface BenchDialogsProps {
  open: BenchDialog | null
  state: DocumentState
  setting: Setting | null
  onClose: () => void
  onClip: (id: string) => void
  onMade: (clip: ClipView) => void
  onTrigger: (trigger: Trigger) => void
}

/** What opens over the Bench; the code of each comes when it is first wanted. */
export function BenchDialogs({
  open,
  state,
  setting,
  onClose,
  onClip,
  onMade,
  onTrigger
}: BenchDialogsProps): ReactNode {
  const { view, document } = useContents()
  const { clip, ready, tracks } = useOnShow()
  const evaluation = useEvaluated()
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
        {open === 'comparing' && ready && clip && tracks && (
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
