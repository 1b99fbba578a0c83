import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { BenchView, ClipView, MailSummary, MailView, RunView, SiteView } from '../../core/api.ts'
import { readMot } from '../../core/formats/mot.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import { request } from './client.ts'

/** How often work that goes on is asked after. */
const WATCH_MS = 500

export const useSite = (): UseQueryResult<SiteView> => useQuery({ queryKey: ['site'], queryFn: () => request<SiteView>('GET', '/api/site') })

export const benchKey = (camera: string): string[] => ['bench', camera]

/** A camera's Bench; asked for again while a clip is being analysed, and when the window is looked at again. */
export const useBench = (camera: string | undefined): UseQueryResult<BenchView> =>
  useQuery({
    queryKey: benchKey(camera ?? ''),
    queryFn: () => request<BenchView>('GET', `/api/cameras/${encodeURIComponent(camera!)}`),
    enabled: camera !== undefined,
    refetchInterval: ({ state }) => (state.data?.clips.some((clip) => clip.state === 'analysing') ? WATCH_MS : false),
    refetchOnWindowFocus: 'always'
  })

/** The targets of a ready clip. They never change while the clip stays as it is. */
export const useTracks = (clip: ClipView | null): UseQueryResult<Tracks> =>
  useQuery({
    queryKey: ['tracks', clip?.id, clip?.rows],
    queryFn: async () => readMot(await request<string>('GET', `/api/clips/${clip!.id}/tracks`), clip!.fps, clip!),
    enabled: clip?.state === 'ready',
    staleTime: Infinity,
    structuralSharing: false
  })

export const useRun = (id: string | null): UseQueryResult<RunView> =>
  useQuery({
    queryKey: ['run', id],
    queryFn: () => request<RunView>('GET', `/api/runs/${id}`),
    enabled: id !== null,
    refetchInterval: ({ state: { data } }) => (data?.state === 'running' || data?.triggers.some((t) => t.deliveries.some((d) => d.state === 'pending')) ? WATCH_MS : false)
  })

export const useMails = (): UseQueryResult<MailSummary[]> => useQuery({ queryKey: ['mails'], queryFn: () => request<MailSummary[]>('GET', '/api/mailbox/'), refetchInterval: 3000 })

export const useMail = (id: string | undefined): UseQueryResult<MailView> =>
  useQuery({ queryKey: ['mail', id], queryFn: () => request<MailView>('GET', `/api/mailbox/${encodeURIComponent(id!)}`), enabled: id !== undefined, staleTime: Infinity })
