import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { ShiftView } from '../../core/watch/shift.ts'
import { request } from '../api/client.ts'

const LOOK_MS = 15_000
export const SHIFT_KEY = ['shift']

export const useShift = (): UseQueryResult<ShiftView> =>
  useQuery({
    queryKey: SHIFT_KEY,
    queryFn: () => request<ShiftView>('GET', '/shift'),
    refetchInterval: LOOK_MS
  })
