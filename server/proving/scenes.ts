import { said, type Said } from '../../core/messages/said.ts'
import { conflict } from '../errors.ts'

/** A scene that is painted for the first time is ready after so long. */
const READY_WITHIN_MS = 180_000

/** Scenes of simulated cameras, in which somebody can be made to walk. */
export interface Scenes {
  /** @returns when the walk began, milliseconds of UTC @throws ApiError when the scene cannot walk it now */
  walk(camera: string, order: object): Promise<number>
  end(camera: string): Promise<void>
}

/** Scenes that another process operates over HTTP. @param address of its pages */
export function scenesAt(address: string): Scenes {
  const operate = async (camera: string, does: string, order?: object): Promise<number> => {
    const answer = await fetch(`${address}/scenes/${encodeURIComponent(camera)}/${does}`, {
      method: 'POST',
      body: order ? JSON.stringify(order) : '',
      signal: AbortSignal.timeout(READY_WITHIN_MS)
    })
    const body = (await answer.json()) as { began?: number; said?: Said | string }
    if (!answer.ok) throw conflict(body.said ?? said('proving.sceneAnswers', answer.status))
    return body.began ?? 0
  }
  return {
    walk: (camera, order) => operate(camera, 'walk', order),
    end: async (camera) => void (await operate(camera, 'end'))
  }
}
