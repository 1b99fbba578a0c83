import { queryOptions, useQueries, useQuery, type UseQueryResult } from '@tanstack/react-query'
import type {
  BenchView,
  ClipView,
  MailSummary,
  MailView,
  RunView,
  SiteView
} from '../../core/api.ts'
import { readFaces } from '../../core/formats/faces.ts'
import { readMot } from '../../core/formats/mot.ts'
import { readMeasures } from '../../core/measures/measures.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import {
  stateOf,
  type CameraState,
  type EditEntry,
  type HistoryView
} from '../../core/history/states.ts'
import type { Evidence } from '../../core/detections/index.ts'
import { afterLeaving } from '../sync/leaving.ts'
import { request, requestBytes } from './client.ts'
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

/** What detections are evaluated on, of a ready clip. It does not change while the clip stays as it is. */
const evidenceOf = (clip: ClipView | null) =>
  queryOptions({
    queryKey: ['evidence', clip?.id, clip?.rows, clip?.learnAnewAt.join()],
    queryFn: async () => {
      const path = `/clips/${clip!.id}`
      const [tracks, faces, measures] = await Promise.all([
        request<string>('GET', `${path}/tracks`),
        request<string>('GET', `${path}/faces`),
        requestBytes(`${path}/measures`)
      ])
      return {
        tracks: { ...readMot(tracks, clip!.fps, clip!), faces: readFaces(faces, clip!) },
        measures: readMeasures(measures)
      }
    },
    enabled: clip?.state === 'ready',
    staleTime: Infinity,
    structuralSharing: false
  })

export const useEvidence = (clip: ClipView | null): UseQueryResult<Evidence> =>
  useQuery(evidenceOf(clip))

/** The same of several clips, each as soon as it is there. */
export const useEvidences = (clips: readonly ClipView[]): (Evidence | undefined)[] =>
  useQueries({ queries: clips.map(evidenceOf) }).map(({ data }) => data)

/** What is truly in a clip that was made from a script. */
export const useTruth = (clip: ClipView | null): UseQueryResult<Tracks> =>
  useQuery({
    queryKey: ['truth', clip?.id],
    queryFn: async () =>
      readMot(await request<string>('GET', `/clips/${clip!.id}/truth`), clip!.fps, clip!),
    enabled: clip?.state === 'ready' && clip.made,
    staleTime: Infinity,
    structuralSharing: false
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
