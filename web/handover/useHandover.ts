import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { ChangesView, HandoverView, RecordsView } from '../../core/handover/views.ts'
import { request } from '../api/client.ts'

const LOOK_MS = 5000
const MAKING_MS = 400

export const HANDOVER = ['handover']
export const RECORDS = ['records']

/** Records, and what stands in the way of the next one; asked for often while one is being made. */
export const useHandover = (): UseQueryResult<HandoverView> =>
  useQuery({
    queryKey: HANDOVER,
    queryFn: () => request<HandoverView>('GET', '/handover'),
    refetchInterval: ({ state }) => (state.data?.job?.state === 'running' ? MAKING_MS : LOOK_MS)
  })

/** What those see who may only read records. */
export const useRecords = (): UseQueryResult<RecordsView> =>
  useQuery({
    queryKey: RECORDS,
    queryFn: () => request<RecordsView>('GET', '/records'),
    refetchInterval: LOOK_MS
  })

/** What is not as it was when a record was made. */
export const useChangesSince = (number: number): UseQueryResult<ChangesView> =>
  useQuery({
    queryKey: ['changes-since', number],
    queryFn: () => request<ChangesView>('GET', `/records/${number}/changes`)
  })
