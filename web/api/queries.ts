import { queryOptions, useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { BenchView, MailSummary, MailView, RunView, SiteView } from '../../core/api.ts'
import {
  stateOf,
  type CameraState,
  type EditEntry,
  type HistoryView
} from '../../core/history/states.ts'
import { afterLeaving } from '../sync/leaving.ts'
import { request } from './client.ts'
import { here } from './here.ts'

/** How often work that goes on is asked after. */
const WATCH_MS = 500

export const siteQuery = queryOptions({
  queryKey: ['site'],
  queryFn: () => request<SiteView>('GET', '/site')
})

export const useSite = (): UseQueryResult<SiteView> =>
  useQuery({ ...siteQuery, enabled: here() !== null })

export const benchKey = (camera: string): string[] => ['bench', camera]

export const benchOf = (camera: string) =>
  queryOptions({
    queryKey: benchKey(camera),
    queryFn: async () => {
      await afterLeaving()
      return request<BenchView>('GET', `/cameras/${encodeURIComponent(camera)}`)
    }
  })

/** A camera's Bench; asked for again while a clip is being analysed, and when the window is looked at again. */
export const useBench = (camera: string | undefined): UseQueryResult<BenchView> =>
  useQuery({
    ...benchOf(camera ?? ''),
    enabled: camera !== undefined,
    refetchInterval: ({ state }) =>
      state.data?.clips.some((clip) => clip.state === 'analysing') ? WATCH_MS : false,
    refetchOnWindowFocus: 'always'
  })

/** Who changed what on a camera, newest first; earlier pages follow on request. */
export const useHistory = (
  camera: string,
  open: boolean,
  before: number | null
): UseQueryResult<HistoryView> =>
  useQuery({
    queryKey: ['history', camera, before],
    queryFn: () =>
      request<HistoryView>(
        'GET',
        `/cameras/${encodeURIComponent(camera)}/history${before === null ? '' : `?before=${before}`}`
      ),
    enabled: open,
    refetchInterval: before === null ? 2000 : false
  })

/** All that is edited on a camera, as an entry of its history left it. It does not change. */
export const useStateAt = (camera: string, entry: number | null): UseQueryResult<CameraState> =>
  useQuery({
    queryKey: ['historyState', camera, entry],
    queryFn: async () =>
      stateOf(
        await request<EditEntry[]>('GET', `/cameras/${encodeURIComponent(camera)}/history/${entry}`)
      ),
    enabled: entry !== null,
    staleTime: Infinity,
    structuralSharing: false
  })

export const useRun = (id: string | null): UseQueryResult<RunView> =>
  useQuery({
    queryKey: ['run', id],
    queryFn: () => request<RunView>('GET', `/runs/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state: { data } }) =>
      data?.state === 'running' ||
      data?.triggers.some((t) => t.deliveries.some((d) => d.state === 'pending'))
        ? WATCH_MS
        : false
  })

export const useMails = (): UseQueryResult<MailSummary[]> =>
  useQuery({
    queryKey: ['mails'],
    queryFn: () => request<MailSummary[]>('GET', '/mailbox/'),
    refetchInterval: 3000
  })

export const useMail = (id: string | undefined): UseQueryResult<MailView> =>
  useQuery({
    queryKey: ['mail', id],
    queryFn: () => request<MailView>('GET', `/mailbox/${encodeURIComponent(id!)}`),
    enabled: id !== undefined,
    staleTime: Infinity
  })
