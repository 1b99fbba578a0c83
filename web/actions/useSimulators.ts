import { useQuery } from '@tanstack/react-query'
import type { SimulatorsView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'

/** The simulators that run beside the server; null: none do. */
export const useSimulators = (): SimulatorsView['running'] =>
  useQuery({
    queryKey: ['simulators'],
    queryFn: () => request<SimulatorsView>('GET', '/simulators'),
    staleTime: Infinity
  }).data?.running ?? null
