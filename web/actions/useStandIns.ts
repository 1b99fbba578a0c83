import { useQuery } from '@tanstack/react-query'
import { request } from '../api/client.ts'

/** The address of the stand-ins' pages; null: there are none. */
export const useStandIns = (): string | null =>
  useQuery({
    queryKey: ['stand-ins'],
    queryFn: () => request<{ pages: string | null }>('GET', '/api/stand-ins'),
    staleTime: Infinity
  }).data?.pages ?? null
