import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { DeviceEventView, DeviceView, SendingView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'

const LIST_MS = 5000
const EVENTS_MS = 2000
const SENDING_MS = 300

/** @param enabled whether whoever asks may see them */
export const useDevices = (enabled = true): UseQueryResult<DeviceView[]> =>
  useQuery({
    queryKey: ['devices'],
    queryFn: () => request<DeviceView[]>('GET', '/devices'),
    enabled,
    refetchInterval: LIST_MS
  })

export const useDeviceEvents = (id: string): UseQueryResult<DeviceEventView[]> =>
  useQuery({
    queryKey: ['device-events', id],
    queryFn: () => request<DeviceEventView[]>('GET', `/devices/${id}/events`),
    refetchInterval: EVENTS_MS
  })

/** A sending, asked after until it has ended. */
export const useSending = (id: string | null): UseQueryResult<SendingView> =>
  useQuery({
    queryKey: ['sending', id],
    queryFn: () => request<SendingView>('GET', `/sendings/${id}`),
    enabled: id !== null,
    retry: false,
    refetchInterval: ({ state }) => (state.data?.finished || state.error ? false : SENDING_MS)
  })
