import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import type { AlarmView, AttemptView } from '../../core/api.ts'
import { request } from '../api/client.ts'

export interface AlarmsView {
  alarms: AlarmView[]
  more: boolean
  /** How many wait, of all. */
  waiting: number
}

/** In case the telling of changes was cut off. */
const READ_MS = 5000

/** The newest alarms with their deliveries; told of changes by `Operators`. */
export const useAlarms = (): UseQueryResult<AlarmsView> => useQuery({ queryKey: ['alarms'], queryFn: () => request<AlarmsView>('GET', '/api/alarms'), refetchInterval: READ_MS })

export const useAttempts = (delivery: number, open: boolean): UseQueryResult<AttemptView[]> => useQuery({ queryKey: ['attempts', delivery], queryFn: () => request<AttemptView[]>('GET', `/api/deliveries/${delivery}/attempts`), enabled: open, refetchInterval: 2000 })
