import { said, type Said } from '../../core/messages/said.ts'
import { kinds as msg } from '../../core/messages/en/sync.ts'
import type { SiteView } from '../../core/api.ts'
import type { CameraSettings, SiteSettings } from '../../core/sites/settings.ts'
import { SyncedDocument, type SyncState, type Versioned } from '../sync/document.ts'
import type { SyncedKind } from '../sync/kinds.ts'
import { newId } from '../sync/newId.ts'
import type { StepMemory } from '../sync/steps.ts'

type Value = CameraSettings | SiteSettings

export interface PlacedCamera {
  id: string
  settings: CameraSettings
}

export interface CamerasState extends SyncState<Value> {
  settings: SiteSettings
  /** In their order. */
  cameras: PlacedCamera[]
}

const path = (id: string): string => `/cameras/${encodeURIComponent(id)}/settings`

const cameras: SyncedKind<CameraSettings> = {
  save: async (saver, id, value, version, label) =>
    value
      ? saver.put(path(id), { settings: value }, version, label)
      : version > 0
        ? saver.remove(path(id), version, label)
        : version,
  read: (current) => (current as { settings: CameraSettings }).settings,
  label: ({ name }) => name,
  canVanish: true
}

const site: SyncedKind<SiteSettings> = {
  save: (saver, _, value, version, label) =>
    saver.put('/site', { settings: value }, version, label),
  read: (current) => (current as { settings: SiteSettings }).settings,
  label: () => msg.site,
  canVanish: false
}

const contentsOf = (view: SiteView): Versioned<Value>[] => [
  {
    key: 'site:',
    value: {
      name: view.name,
      timeZone: view.timeZone,
      position: view.position,
      surroundings: view.surroundings
    },
    version: view.version
  },
  ...view.cameras.map(({ id, name, order, surroundings, version }) => ({
    key: `camera:${id}`,
    value: { name, order, surroundings },
    version
  })),
  // Undo brings one back also after the page was loaded again.
  ...view.deletedCameras.map(({ id, version }) => ({ key: `camera:${id}`, value: null, version }))
]

/** What the site is called and where it is, and its cameras: each edit is one step that can be undone. */
export class CamerasDocument extends SyncedDocument<Value, CamerasState> {
  constructor(view: SiteView, memory: StepMemory<Value> | null = null) {
    super({ site, camera: cameras }, memory)
    this.begin(contentsOf(view))
  }

  adopt(view: SiteView): void {
    this.adoptAll(contentsOf(view))
  }

  setSite(settings: SiteSettings): void {
    this.apply({ label: said('edits.site'), changes: [this.change('site:', settings)] })
  }

  /** At the end of the others. @returns its id */
  add(settings: Omit<CameraSettings, 'order'>): string {
    const id = newId('camera')
    const order = Math.max(-1, ...this.state.cameras.map((c) => c.settings.order)) + 1
    this.step(id, { ...settings, order }, said('edits.addCamera', settings.name))
    return id
  }

  edit(id: string, settings: CameraSettings): void {
    this.step(id, settings, said('edits.edit', settings.name))
  }

  remove({ id, settings }: PlacedCamera): void {
    this.step(id, null, said('edits.delete', settings.name))
  }

  /** One place earlier or later among the others. */
  move(id: string, by: 1 | -1): void {
    const all = [...this.state.cameras]
    const from = all.findIndex((c) => c.id === id)
    const to = from + by
    if (from < 0 || to < 0 || to >= all.length) return
    const [moved] = all.splice(from, 1)
    all.splice(to, 0, moved!)
    this.apply({
      label: said('edits.reorderCameras'),
      changes: all.flatMap((c, order) =>
        c.settings.order === order ? [] : [this.change(`camera:${c.id}`, { ...c.settings, order })]
      )
    })
  }

  private step(id: string, value: CameraSettings | null, label: Said): void {
    this.apply({ label, changes: [this.change(`camera:${id}`, value)] })
  }

  protected makeState(sync: SyncState<Value>): CamerasState {
    const all = [...this.values].flatMap(([key, value]) =>
      key.startsWith('camera:')
        ? [{ id: key.slice('camera:'.length), settings: value as CameraSettings }]
        : []
    )
    return {
      ...sync,
      settings: this.values.get('site:') as SiteSettings,
      cameras: all.sort((a, b) => a.settings.order - b.settings.order || a.id.localeCompare(b.id))
    }
  }
}
