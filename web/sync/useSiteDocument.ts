import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import { useEffect, useState, useSyncExternalStore } from 'react'
import type { SiteActionsView } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { afterLeaving } from './leaving.ts'
import { SiteDocument, type SiteState } from './siteDocument.ts'
import { stepsOfTab } from './stepsOfTab.ts'
import { useFlushed } from './useFlushed.ts'
import { useUndoKeys } from './useUndoKeys.ts'

const READ_MS = 4000

/** @param enabled whether whoever asks may see them */
export const useSiteActions = (enabled = true): UseQueryResult<SiteActionsView> =>
  useQuery({
    queryKey: ['actions'],
    queryFn: async () => {
      await afterLeaving()
      return request<SiteActionsView>('GET', '/actions')
    },
    enabled,
    refetchInterval: READ_MS
  })

/**
 * What is edited of the site, for as long as a place is open; later readings are taken in. Undo
 * goes over both places.
 */
export function useSiteDocument(view: SiteActionsView): {
  document: SiteDocument
  state: SiteState
} {
  const [document] = useState(() => new SiteDocument(view, stepsOfTab('site')))
  useEffect(() => document.adopt(view), [document, view])
  useFlushed(document)
  useUndoKeys(document)
  return { document, state: useSyncExternalStore(document.subscribe, document.getState) }
}
