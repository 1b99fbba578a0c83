import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { ClipView } from '../../../core/api.ts'
import type { Evidence } from '../../../core/detections/index.ts'
import { LOOK_BACK_FPS, TEN_MINUTES } from '../../../core/lookBack/rows.ts'
import { readTracks } from '../../../core/lookBack/tracksBytes.ts'
import type { PicturesView, StripView } from '../../../core/lookBack/views.ts'
import { request, requestBytes } from '../../api/client.ts'
import type { Range } from '../selection.ts'

/** What is being written is asked for again after this. */
const AGAIN_MS = 60_000
/** While there is nothing yet. */
const SOON_MS = 5000
const DAY_MS = 86_400_000

const camerasPath = (camera: string): string => `/cameras/${encodeURIComponent(camera)}/look-back`

/** How far the strip goes back, days. */
export const STRIP_DAYS = 14

/** Targets and gaps of the last days. */
export const useStrip = (camera: string, on: boolean): UseQueryResult<StripView> =>
  useQuery({
    queryKey: ['strip', camera],
    queryFn: () => {
      const to = Math.ceil(Date.now() / TEN_MINUTES) * TEN_MINUTES
      return request<StripView>(
        'GET',
        `${camerasPath(camera)}?from=${to - STRIP_DAYS * DAY_MS}&to=${to}`
      )
    },
    enabled: on,
    refetchInterval: ({ state }) => (state.data?.heard.length ? AGAIN_MS : SOON_MS)
  })

/** What the camera reported in a range, as a clip without a picture. */
export interface LookedBack {
  clip: ClipView
  evidence: Evidence | null
  error: unknown
}

/** A stretch without length, while no range is chosen. */
export const blankOf = (camera: string): ClipView => clipOf(camera, { from: 0, to: 100 }, null)

const WIDTH = 1600
const HEIGHT = 900

const clipOf = (camera: string, { from, to }: Range, evidence: Evidence | null): ClipView => ({
  id: `look-back-${from}-${to}`,
  camera,
  name: msg.name,
  state: evidence ? 'ready' : 'stopped',
  start: from,
  fps: LOOK_BACK_FPS,
  // Its picture says how large it is once it is there.
  width: WIDTH,
  height: HEIGHT,
  frames: Math.round(((to - from) / 1000) * LOOK_BACK_FPS),
  targets: 0,
  rows: evidence?.tracks.length ?? 0,
  bytes: 0,
  made: false,
  reported: true,
  inputs: {},
  learnAnewAt: [],
  progress: null,
  error: null
})

export function useLookedBack(camera: string, range: Range | null): LookedBack | null {
  const { data, error } = useQuery({
    queryKey: ['look-back', camera, range?.from, range?.to],
    queryFn: async (): Promise<Evidence> => ({
      tracks: readTracks(
        await requestBytes(`${camerasPath(camera)}/tracks?from=${range!.from}&to=${range!.to}`)
      ),
      measures: null
    }),
    enabled: range !== null,
    staleTime: Infinity,
    gcTime: AGAIN_MS,
    structuralSharing: false
  })
  return useMemo(() => {
    if (!range) return null
    const evidence = data ?? null
    return { evidence, error, clip: clipOf(camera, range, evidence) }
  }, [camera, range, data, error])
}

const NONE: readonly number[] = []

/** The instants of which there are pictures in what is looked back at, in order. */
export function usePictures({ camera, start, frames, fps }: ClipView): readonly number[] {
  const [from, to] = [Math.floor(start ?? 0), Math.ceil((start ?? 0) + (1000 * frames) / fps)]
  const { data } = useQuery({
    queryKey: ['look-back-pictures', camera, from, to],
    queryFn: () =>
      request<PicturesView>('GET', `${camerasPath(camera)}/pictures?from=${from}&to=${to}`),
    enabled: frames > 0,
    // Of what is going on there are more soon.
    refetchInterval: () => (to > Date.now() - AGAIN_MS ? AGAIN_MS : false),
    staleTime: AGAIN_MS
  })
  return data?.at ?? NONE
}

/** Where a picture is, as `atSite` takes it. */
export const pictureAt = (camera: string, at: number): string =>
  `${camerasPath(camera)}/pictures/${at}`
