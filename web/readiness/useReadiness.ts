import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { ReadinessView } from '../../core/readiness/index.ts'
import { request } from '../api/client.ts'

const READ_MS = 5000

/** What is still missing on the site; read again while it is looked at. */
export const useReadiness = (): UseQueryResult<ReadinessView> =>
  useQuery({
    queryKey: ['readiness'],
    queryFn: () => request<ReadinessView>('GET', '/readiness'),
    refetchInterval: READ_MS
  })
