import { said } from '../../../core/messages/said.ts'
import { useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import type { Check } from '../../../core/formats/check.ts'
import type { WalkTestView } from '../../../core/proving/live.ts'
import { request } from '../../api/client.ts'
import { noteHeaders } from '../../api/note.ts'
import { useRefresh } from '../useProving.ts'

const GOING_MS = 250
const QUIET_MS = 3000

export const isRunning = (view: WalkTestView | null | undefined): boolean =>
  view?.state === 'preparing' || view?.state === 'walking' || view?.state === 'settling'

/** Where the server has the walk tests of a camera. */
export const walkOf = (camera: string): string => `/cameras/${encodeURIComponent(camera)}/walk`

/** The newest walk test of a camera; null: there was none. @param path `walkOf` it, or a phone's own */
export const useWalk = (path: string): UseQueryResult<WalkTestView | null> =>
  useQuery({
    queryKey: ['walk', path],
    queryFn: () => request<WalkTestView | null>('GET', path),
    refetchInterval: ({ state: { data } }) => (isRunning(data) ? GOING_MS : QUIET_MS)
  })

/** What begins a walk test and ends it, with or without a result. */
export interface WalkDoes {
  start: (check: Check) => Promise<void>
  stop: () => Promise<void>
  finish: () => Promise<void>
}

/** @param path `walkOf` a camera, or a phone's own */
export function useWalkDoes(path: string): WalkDoes {
  const queries = useQueryClient()
  const refresh = useRefresh()
  const take = async (work: Promise<WalkTestView>): Promise<void> => {
    const view = await work
    queries.setQueryData(['walk', path], view)
    await refresh()
  }
  return {
    start: (check) =>
      take(request('POST', path, { check }, { headers: noteHeaders(said('edits.walkTest')) })),
    stop: () => take(request('DELETE', path)),
    finish: () => take(request('POST', `${path}/finish`))
  }
}
