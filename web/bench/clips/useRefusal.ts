import { wordsOf } from '../../../core/messages/words.ts'
import { useEffect } from 'react'
import { useQuery } from '@tanstack/react-query'
import type { ClipView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'

/** Why a clip that was just sent has been refused; it is no longer among the camera's clips then. */
export function useRefusal(id: string | null, onEnd: () => void): string | null {
  const watched = useQuery({
    queryKey: ['clip', id],
    queryFn: () => request<ClipView>('GET', `/clips/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state }) => (!state.data || state.data.state === 'analysing' ? 500 : false)
  }).data
  useEffect(() => {
    if (watched && watched.state !== 'analysing') onEnd()
  }, [watched, onEnd])
  return watched?.state === 'refused' ? watched.error && wordsOf(watched.error) : null
}
