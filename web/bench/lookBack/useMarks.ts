import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { MarkView } from '../../../core/marks/views.ts'
import type { MarkKind, MarkReason } from '../../../core/marks/marks.ts'
import { request } from '../../api/client.ts'

/** What is marked on a camera, and how to mark more. */
export function useMarks(camera: string): {
  marks: readonly MarkView[]
  mark: (mark: {
    detection: string
    clip: string | null
    target: number | null
    at: number
    mark: MarkKind
    reason: MarkReason | null
  }) => Promise<void>
  forget: (id: number) => Promise<void>
} {
  const queries = useQueryClient()
  const key = ['marks', camera]
  const path = `/cameras/${encodeURIComponent(camera)}/marks`
  const { data } = useQuery({ queryKey: key, queryFn: () => request<MarkView[]>('GET', path) })
  return {
    marks: data ?? [],
    mark: async (mark) => {
      queries.setQueryData(key, await request<MarkView[]>('POST', path, mark))
    },
    forget: async (id) => {
      queries.setQueryData(key, await request<MarkView[]>('DELETE', `${path}/${id}`))
    }
  }
}
