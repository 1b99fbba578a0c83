import { useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import { useCallback } from 'react'
import type { ProofResultView, ProvingView } from '../../core/proving/views.ts'
import { request } from '../api/client.ts'

const RUNNING_MS = 400
const QUIET_MS = 5000

/** All checks with what became of them; read again more often while some are being worked out or run. */
export const useProving = (): UseQueryResult<ProvingView> =>
  useQuery({
    queryKey: ['proving'],
    queryFn: async () => {
      const view = await request<ProvingView>('GET', '/proving')
      // To work out what to check takes processes of the server: it is asked for, not a part of looking.
      return view.unasked > 0 ? request<ProvingView>('POST', '/proving/propose') : view
    },
    refetchInterval: ({ state: { data } }) =>
      data && (data.proposing > 0 || data.run?.state === 'running') ? RUNNING_MS : QUIET_MS
  })

/** @param at when the result was made: another one is asked for again */
export const useResult = (
  camera: string,
  check: string,
  at: number | null
): UseQueryResult<ProofResultView> =>
  useQuery({
    queryKey: ['proof', camera, check, at],
    queryFn: () =>
      request<ProofResultView>(
        'GET',
        `/cameras/${encodeURIComponent(camera)}/checks/${encodeURIComponent(check)}/result`
      ),
    enabled: at !== null,
    staleTime: Infinity
  })

export function useRefresh(): () => Promise<void> {
  const queries = useQueryClient()
  return useCallback(async () => {
    await Promise.all([
      queries.invalidateQueries({ queryKey: ['proving'] }),
      queries.invalidateQueries({ queryKey: ['readiness'] })
    ])
  }, [queries])
}
