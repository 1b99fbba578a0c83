import type { Said } from '../../core/messages/said.ts'
import { kinds as msg } from '../../core/messages/en/sync.ts'
import type {
  SavedActions,
  SavedDetection,
  SavedEndpoint,
  SavedScene,
  SavedSchedule,
  SiteActionsView
} from '../../core/api.ts'
import type { Actions, Endpoint, People } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import { canonical } from '../../core/history/states.ts'
import type { Saver } from './saver.ts'

/** A kind of thing that is edited, and saved on its own. Its key is `kind:id`. */
export interface SyncedKind<V> {
  /**
   * Saves one over the version named; null: it was taken away.
   *
   * @param has whether there is something under a key
   * @returns its new version
   */
  save(
    saver: Saver,
    id: string,
    value: V | null,
    version: number,
    label: Said,
    has: (key: string) => boolean
  ): Promise<number>
  /** What the server holds, of its answer to a conflict. */
  read(current: object, id: string): V
  /** What people call it. */
  label(value: V): string
  /** Whether one that the server holds no more was deleted elsewhere; others always are there. */
  canVanish: boolean
}

/** A detection in its place among those of its camera. */
export interface Placed {
  camera: string
  detection: Detection
  position: number
}
/** What the camera looks at: where nothing counts, and what it was measured from. */
export type Scene = Pick<SavedScene, 'ignore' | 'marks'>

/** The id of a detection, or of its actions: `camera/detection`. */
export const placedId = (camera: string, detection: string): string => `${camera}/${detection}`

const path = (...parts: string[]): string => `/${parts.map(encodeURIComponent).join('/')}`
const detectionPath = (id: string): string => {
  const [camera = '', detection = ''] = id.split('/')
  return path('cameras', camera, 'detections', detection)
}

export const detections: SyncedKind<Placed> = {
  save: async (saver, id, value, version, label) =>
    value
      ? saver.put(
          detectionPath(id),
          { detection: value.detection, position: value.position },
          version,
          label
        )
      : version > 0
        ? saver.remove(detectionPath(id), version, label)
        : version,
  read: (current, id) => {
    const { detection, position } = current as SavedDetection
    return { camera: id.slice(0, id.indexOf('/')), detection, position }
  },
  label: ({ detection }) => detection.name,
  canVanish: true
}

/** Actions at their defaults count as none. */
export const orNothing = (actions: Actions): Actions | null =>
  canonical(actions) === canonical(NO_ACTIONS) ? null : actions

/** Actions of detections. */
export const actions: SyncedKind<Actions> = {
  // A link outlives its deleted detection; the server has let go of it with the detection.
  save: async (saver, id, value, version, label, has) =>
    has(`detection:${id}`)
      ? saver.put(`${detectionPath(id)}/actions`, { actions: value ?? NO_ACTIONS }, version, label)
      : version,
  read: (current) => (current as SavedActions).actions,
  label: () => msg.actions,
  canVanish: false
}

/**
 * Schedules of the site.
 *
 * @param deletes whether one that is taken away here is deleted; others may use it
 */
export const schedules = (deletes: boolean): SyncedKind<Schedule> => ({
  save: async (saver, id, value, version, label) =>
    value
      ? saver.put(path('schedules', id), { schedule: value }, version, label)
      : deletes && version > 0
        ? saver.remove(path('schedules', id), version, label)
        : version,
  read: (current) => (current as SavedSchedule).schedule,
  label: ({ name }) => name,
  canVanish: deletes
})

export const endpoints: SyncedKind<Endpoint> = {
  save: async (saver, id, value, version, label) =>
    value
      ? saver.put(path('endpoints', id), { endpoint: value }, version, label)
      : version > 0
        ? saver.remove(path('endpoints', id), version, label)
        : version,
  read: (current) => (current as SavedEndpoint).endpoint,
  label: ({ name }) => name,
  canVanish: true
}

export const scenes: SyncedKind<Scene> = {
  save: (saver, camera, value, version, label) =>
    saver.put(path('cameras', camera, 'scene'), value ?? {}, version, label),
  read: (current) => sceneOf(current as SavedScene),
  label: () => msg.theScene,
  canVanish: false
}
export const sceneOf = ({ ignore, marks }: SavedScene): Scene => ({ ignore, marks })

export const people: SyncedKind<People> = {
  save: (saver, _, value, version, label) =>
    saver.put('/settings/people', { people: value }, version, label),
  read: (current) => (current as SiteActionsView['people']).people,
  label: () => msg.people,
  canVanish: false
}

/** Default actions. */
export const usual: SyncedKind<Actions> = {
  save: (saver, _, value, version, label) =>
    saver.put('/settings/usual', { actions: value ?? NO_ACTIONS }, version, label),
  // They may not be set yet.
  read: (current) => (current as SiteActionsView['usual']).actions ?? NO_ACTIONS,
  label: () => msg.actions,
  canVanish: false
}
