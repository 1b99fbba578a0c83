import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { SiteView } from '../../core/api.ts'
import { stepsOfTab } from '../sync/stepsOfTab.ts'
import { useFlushed } from '../sync/useFlushed.ts'
import { useUndoKeys } from '../sync/useUndoKeys.ts'
import { CamerasDocument, type CamerasState } from './camerasDocument.ts'

/** The site and its cameras while they are edited; what has been saved is read again everywhere. */
export function useCamerasDocument(view: SiteView): {
  document: CamerasDocument
  state: CamerasState
} {
  const queries = useQueryClient()
  const [document] = useState(() => new CamerasDocument(view, stepsOfTab('cameras')))
  useEffect(() => document.adopt(view), [document, view])
  useFlushed(document)
  useUndoKeys(document)
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const before = useRef(state.status)
  useEffect(() => {
    const wasSaved = before.current === 'saved'
    before.current = state.status
    if (wasSaved || state.status !== 'saved') return
    for (const key of ['site', 'actions', 'devices', 'readiness', 'watch'])
      void queries.invalidateQueries({ queryKey: [key] })
  }, [queries, state.status])
  return { document, state }
}
