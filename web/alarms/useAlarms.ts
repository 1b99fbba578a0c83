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

/** All alarms that wait, and the newest of the others, with their deliveries; told of changes by `Operators`. */
export const useAlarms = (): UseQueryResult<AlarmsView> =>
  useQuery({
    queryKey: ['alarms'],
    queryFn: async () => {
      // Asked for by themselves: among the newest of any state, those that wait for long would not be found.
      const [waiting, newest] = await Promise.all([
        request<AlarmsView>('GET', '/alarms?state=waiting'),
        request<AlarmsView>('GET', '/alarms')
      ])
      const known = new Set(waiting.alarms.map((a) => a.id))
      return {
        ...newest,
        waiting: waiting.waiting,
        alarms: [...waiting.alarms, ...newest.alarms.filter((a) => !known.has(a.id))]
      }
    },
    refetchInterval: READ_MS
  })

/** One alarm, of those that are no longer among the newest. */
export const useAlarm = (id: string | null): UseQueryResult<AlarmView> =>
  useQuery({
    queryKey: ['alarms', id],
    queryFn: () => request<AlarmView>('GET', `/alarms/${id}`),
    enabled: id !== null
  })

export const useAttempts = (delivery: number, open: boolean): UseQueryResult<AttemptView[]> =>
  useQuery({
    queryKey: ['attempts', delivery],
    queryFn: () => request<AttemptView[]>('GET', `/deliveries/${delivery}/attempts`),
    enabled: open,
    refetchInterval: 2000
  })
