import { queryOptions, useQueries, useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { ClipView } from '../../core/api.ts'
import type { Evidence } from '../../core/detections/index.ts'
import { readFaces } from '../../core/formats/faces.ts'
import { readMot } from '../../core/formats/mot.ts'
import { readMeasures } from '../../core/measures/measures.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import { request, requestBytes } from './client.ts'

/** What detections are evaluated on, of a ready clip. It does not change while the clip stays as it is. */
const evidenceOf = (clip: ClipView | null) =>
  queryOptions({
    queryKey: ['evidence', clip?.id, clip?.rows, clip?.learnAnewAt.join()],
    queryFn: async () => {
      const path = `/clips/${clip!.id}`
      const [tracks, faces, measures] = await Promise.all([
        request<string>('GET', `${path}/tracks`),
        request<string>('GET', `${path}/faces`),
        clip!.reported ? null : requestBytes(`${path}/measures`)
      ])
      return {
        tracks: { ...readMot(tracks, clip!.fps, clip!), faces: readFaces(faces, clip!) },
        measures: measures && readMeasures(measures)
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
