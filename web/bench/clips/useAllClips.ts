import { useEffect, useMemo } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { useEvidences } from '../../api/queries.ts'
import type { Evaluations } from '../evaluation.ts'

/** All ready clips of the camera, given to the worker; those that it has, in their order, and whether that is all of them. */
export function useAllClips(clips: readonly ClipView[], evaluations: Evaluations | null, wanted: boolean): { known: readonly ClipView[]; all: boolean } {
  const ready = useMemo(() => (wanted ? clips.filter((c) => c.state === 'ready') : []), [clips, wanted])
  const evidences = useEvidences(ready)
  const there = evidences.map((e) => e !== undefined).join()
  const known = useMemo(() => ready.filter((_, i) => evidences[i] !== undefined), [ready, there]) // eslint-disable-line react-hooks/exhaustive-deps -- what is there is told by its key
  useEffect(() => {
    ready.forEach((clip, i) => evidences[i] && evaluations?.setOther(clip.id, evidences[i]))
  }, [evaluations, known]) // eslint-disable-line react-hooks/exhaustive-deps -- as above
  return { known, all: known.length === ready.length }
}
