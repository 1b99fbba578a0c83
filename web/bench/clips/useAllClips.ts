import { useEffect, useMemo } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { useEvidences } from '../../api/evidence.ts'
import { useSame } from '../../stable.ts'
import type { Evaluations } from '../evaluation.ts'

/**
 * All ready clips of the camera, given to the worker; those that it has, in their order, and
 * whether that is all of them.
 */
export function useAllClips(
  clips: readonly ClipView[],
  evaluations: Evaluations,
  wanted: boolean
): { known: readonly ClipView[]; all: boolean } {
  const ready = useMemo(
    () => (wanted ? clips.filter((c) => c.state === 'ready') : []),
    [clips, wanted]
  )
  const evidences = useEvidences(ready)
  const readings = useSame(evidences)
  const known = useMemo(() => ready.filter((_, i) => readings[i] !== undefined), [ready, readings])
  useEffect(() => {
    ready.forEach((clip, i) => readings[i] && evaluations.setOther(clip.id, readings[i]))
  }, [evaluations, ready, readings])
  return { known, all: known.length === ready.length }
}
