import type { KeptDetection, KeptEmail, KeptSchedule } from '../../core/api.ts'
import { request } from '../api/client.ts'
import type { Keeper } from './document.ts'

/** Keeps edits at the server. The requests go on when the page is closed (`keepalive`). */
export function serverKeeper(site: string, camera: string): Keeper {
  const detection = (id: string): string => `/api/cameras/${encodeURIComponent(camera)}/detections/${encodeURIComponent(id)}`
  return {
    saveDetection: (value, version) => request<KeptDetection>('PUT', detection(value.detection.id), { ...value, version }, true),
    deleteDetection: (id, version) => request<{ version: number }>('DELETE', `${detection(id)}?version=${version}`, undefined, true),
    saveSchedule: (schedule, version) => request<KeptSchedule>('PUT', `/api/sites/${encodeURIComponent(site)}/schedules/${encodeURIComponent(schedule.id)}`, { schedule, version }, true),
    saveEmail: (id, to, version) => request<KeptEmail>('PUT', `${detection(id)}/email`, { to, version }, true)
  }
}
