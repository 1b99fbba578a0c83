import type { KeptActions, KeptDetection, KeptScene, KeptSchedule } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { noteHeaders as note } from '../kept/note.ts'
import type { Keeper } from './document.ts'

/** Keeps edits at the server. The requests go on when the page is closed (`keepalive`). */
export function serverKeeper(site: string, camera: string): Keeper {
  const detection = (id: string): string =>
    `/api/cameras/${encodeURIComponent(camera)}/detections/${encodeURIComponent(id)}`
  return {
    saveDetection: (value, version, label) =>
      request<KeptDetection>(
        'PUT',
        detection(value.detection.id),
        { ...value, version },
        { keepalive: true, headers: note(label) }
      ),
    deleteDetection: (id, version, label) =>
      request<{ version: number }>('DELETE', `${detection(id)}?version=${version}`, undefined, {
        keepalive: true,
        headers: note(label)
      }),
    saveSchedule: (schedule, version, label) =>
      request<KeptSchedule>(
        'PUT',
        `/api/sites/${encodeURIComponent(site)}/schedules/${encodeURIComponent(schedule.id)}`,
        { schedule, version },
        { keepalive: true, headers: note(label) }
      ),
    saveActions: (id, actions, version, label) =>
      request<KeptActions>(
        'PUT',
        `${detection(id)}/actions`,
        { actions, version },
        { keepalive: true, headers: note(label) }
      ),
    saveScene: (scene, version, label) =>
      request<KeptScene>(
        'PUT',
        `/api/cameras/${encodeURIComponent(camera)}/scene`,
        { ...scene, version },
        { keepalive: true, headers: note(label) }
      )
  }
}
