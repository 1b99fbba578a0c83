import { useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import type { LookBackSettings, LookBackSettingsView } from '../../core/lookBack/settings.ts'
import { request } from './client.ts'

const PATH = '/settings/look-back'
const KEY = ['look-back-settings']
/** How analyses go is asked again while somebody looks. */
const AGAIN_MS = 3000

/** What the site keeps of what its cameras report, and a way to change it. */
export function useLookBackSettings(): {
  view: UseQueryResult<LookBackSettingsView>
  /** @throws ApiError; what is there now is read again then */
  save: (lookBack: LookBackSettings, version: number) => Promise<void>
} {
  const queries = useQueryClient()
  const view = useQuery({
    queryKey: KEY,
    queryFn: () => request<LookBackSettingsView>('GET', PATH),
    refetchInterval: ({ state }) => (state.data?.analyses.length ? AGAIN_MS : false)
  })
  const save = async (lookBack: LookBackSettings, version: number): Promise<void> => {
    try {
      const saved = await request<LookBackSettingsView>('PUT', PATH, { version, lookBack })
      queries.setQueryData(KEY, saved)
    } catch (problem) {
      await queries.invalidateQueries({ queryKey: KEY })
      throw problem
    }
  }
  return { view, save }
}
