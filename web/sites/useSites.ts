import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { SiteSummary } from '../../core/sites/views.ts'
import { request } from '../api/client.ts'

export const sitesKey = ['sites']

/** The sites that whoever is signed in has to do with. */
export const useSites = (enabled = true): UseQueryResult<SiteSummary[]> =>
  useQuery({
    queryKey: sitesKey,
    queryFn: () => request<SiteSummary[]>('GET', '/api/sites'),
    enabled
  })
