import { useMemo } from 'react'
import type { BenchView } from '../../../core/api.ts'
import type { Evidence } from '../../../core/detections/index.ts'
import { spansOf } from '../../../core/targets/tracks.ts'
import { useEvidence } from '../../api/evidence.ts'
import type { OnShow } from '../contexts.ts'
import { useLookedBack } from '../lookBack/useLookBack.ts'
import type { Selection } from '../selection.ts'

export interface ClipOnShow extends Omit<OnShow, 'playhead'> {
  evidence: Evidence | null
  /** Why what the camera reported could not be read. */
  failed: unknown
}

/** The clip that is selected, or else the first that can be evaluated, with what was found in it. */
export function useClipOnShow(
  view: BenchView,
  { clip: id, live: asked, back, range }: Selection
): ClipOnShow {
  const clip =
    view.clips.find((c) => c.id === id) ??
    view.clips.find((c) => c.state === 'ready') ??
    view.clips[0] ??
    null
  // Drawing does not wait for a clip: until there is one to look at, the live picture is shown.
  const looked = useLookedBack(view.camera.id, back ? range : null)
  const own = useEvidence(back ? null : clip).data ?? null
  const waits = !back && (clip === null || clip.state === 'analysing')
  const live = asked || (view.live && waits)
  const shown = back ? (looked?.clip ?? null) : clip
  const ready = shown?.state === 'ready' && !live
  const evidence = back ? (looked?.evidence ?? null) : own
  const tracks = evidence?.tracks ?? null
  const spans = useMemo(() => (tracks ? spansOf(tracks) : []), [tracks])
  return {
    clip: shown,
    ready,
    live,
    back,
    hasPicture: ready || live || back,
    evidence,
    tracks,
    spans,
    failed: back ? (looked?.error ?? null) : null
  }
}
