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

/** The newest walk test of a camera; null: there was none. */
export const useWalk = (camera: string): UseQueryResult<WalkTestView | null> =>
  useQuery({
    queryKey: ['walk', camera],
    queryFn: () =>
      request<WalkTestView | null>('GET', `/cameras/${encodeURIComponent(camera)}/walk`),
    refetchInterval: ({ state: { data } }) => (isRunning(data) ? GOING_MS : QUIET_MS)
  })

/** Begins a walk test, ends it with or without a result. */
export function useWalkDoes(camera: string): {
  start: (check: Check) => Promise<void>
  stop: () => Promise<void>
  finish: () => Promise<void>
} {
  const queries = useQueryClient()
  const refresh = useRefresh()
  const path = `/cameras/${encodeURIComponent(camera)}/walk`
  const take = async (work: Promise<WalkTestView>): Promise<void> => {
    const view = await work
    queries.setQueryData(['walk', camera], view)
    await refresh()
  }
  return {
    start: (check) =>
      take(request('POST', path, { check }, { headers: noteHeaders(said('edits.walkTest')) })),
    stop: () => take(request('DELETE', path)),
    finish: () => take(request('POST', `${path}/finish`))
  }
}
