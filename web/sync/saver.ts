import type { Said } from '../../core/messages/said.ts'
import { request } from '../api/client.ts'
import { noteHeaders } from '../api/note.ts'

/** Saves over a version that is named; `label` is what the history calls it. */
export interface Saver {
  /** @returns the new version @throws ApiError, with what there is now where somebody else was first */
  put(path: string, body: object, version: number, label: Said): Promise<number>
  remove(path: string, version: number, label: Said): Promise<number>
}

/** Saves at the server. The requests go on when the page is closed (`keepalive`). */
export const atServer: Saver = {
  put: async (path, body, version, label) =>
    (
      await request<{ version: number }>(
        'PUT',
        path,
        { ...body, version },
        { keepalive: true, headers: noteHeaders(label) }
      )
    ).version,
  remove: async (path, version, label) =>
    (
      await request<{ version: number }>('DELETE', `${path}?version=${version}`, undefined, {
        keepalive: true,
        headers: noteHeaders(label)
      })
    ).version
}
