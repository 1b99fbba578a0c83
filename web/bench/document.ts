import { type Said, said } from '../../core/messages/said.ts'
import type { BenchView } from '../../core/api.ts'
import type { Actions } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { CameraState } from '../../core/history/states.ts'
import type { StepMemory } from '../sync/steps.ts'
import { SyncedDocument, unlessSame, type SyncState } from '../sync/document.ts'
import {
  actions,
  detections,
  orNothing,
  placedId,
  scenes,
  schedules,
  type Placed,
  type Scene
} from '../sync/kinds.ts'
import type { Saver } from '../sync/saver.ts'
import { contentsOf, type Value } from './contents.ts'

export type { Placed, Scene } from '../sync/kinds.ts'
export type { Value } from './contents.ts'

export interface DocumentState extends SyncState<Value> {
  detections: Placed[]
  schedules: Schedule[]
  /** By detection; left out: not set. */
  actions: ReadonlyMap<string, Actions>
  scene: Scene
}

/** What is edited on one camera's Bench: detections, their actions, schedules and the scene. */
export class BenchDocument extends SyncedDocument<Value, DocumentState> {
  private readonly camera: string
  private readonly sceneKey: string

  constructor(view: BenchView, memory: StepMemory<Value> | null = null, saver?: Saver) {
    super(
      {
        // Schedules and the scene first: a detection may name one that is new, or need that it is measured.
        schedule: schedules(false),
        scene: scenes,
        detection: detections,
        actions
      },
      memory,
      saver
    )
    this.camera = view.camera.id
    this.sceneKey = `scene:${this.camera}`
    this.begin(contentsOf(view))
  }

  detection(id: string): Detection | undefined {
    return (this.values.get(this.detectionKey(id)) as Placed | undefined)?.detection
  }

  /** New detections, with schedules that they bring along, as one step. */
  add(detections: readonly Detection[], schedules: readonly Schedule[] = []): void {
    const position = Math.max(-1, ...this.state.detections.map((p) => p.position)) + 1
    this.apply({
      label: said('edits.draw', detections.map(({ name }) => name).join(', ')),
      changes: [
        ...schedules.map((s) => this.change(`schedule:${s.id}`, s)),
        ...detections.map((detection, i) =>
          this.change(this.detectionKey(detection.id), {
            camera: this.camera,
            detection,
            position: position + i
          })
        )
      ]
    })
  }

  /** Several things at once, as one step: detections by what they become, or null to delete them. */
  editAll(changes: readonly { id: string; detection: Detection | null }[], label: Said): void {
    let position = Math.max(-1, ...this.state.detections.map((p) => p.position))
    this.apply({
      label,
      changes: changes.map(({ id, detection }) => {
        const key = this.detectionKey(id)
        const old = this.values.get(key) as Placed | undefined
        return this.change(
          key,
          detection && {
            camera: this.camera,
            detection,
            position: old?.position ?? ++position
          }
        )
      })
    })
  }

  /** The detections in another order. */
  order(ids: readonly string[], label: Said): void {
    this.apply({
      label,
      changes: ids.flatMap((id, position) => {
        const key = this.detectionKey(id)
        const old = this.values.get(key) as Placed | undefined
        return old ? [this.change(key, { ...old, position })] : []
      })
    })
  }

  scene(): Scene {
    return this.values.get(this.sceneKey) as Scene
  }

  editScene(scene: Scene, label: Said): void {
    this.apply({ label, changes: [this.change(this.sceneKey, scene)] })
  }

  actions(detection: string): Actions {
    return (this.values.get(this.actionsKey(detection)) as Actions | undefined) ?? NO_ACTIONS
  }

  setActions(detection: string, actions: Actions, label: Said): void {
    this.apply({ label, changes: [this.change(this.actionsKey(detection), orNothing(actions))] })
  }

  /** Links or unlinks an endpoint of several detections, as one step. */
  link(detections: readonly string[], endpoint: string, linked: boolean, label: Said): void {
    this.apply({
      label,
      changes: detections.map((id) => {
        const actions = this.actions(id)
        const links = actions.links.filter((link) => link !== endpoint)
        return this.change(
          this.actionsKey(id),
          orNothing({ ...actions, links: linked ? [...links, endpoint] : links })
        )
      })
    })
  }

  /**
   * As the camera was at another moment, as one step that can be undone. Schedules that were
   * deleted stay as they are.
   */
  goTo(state: CameraState, label: Said): void {
    const changes = [
      ...state.schedules.map((s) => this.change(`schedule:${s.id}`, s)),
      ...state.detections.map((placed) =>
        this.change(this.detectionKey(placed.detection.id), { ...placed, camera: this.camera })
      ),
      ...this.state.detections
        .filter(({ detection }) => !state.detections.some((p) => p.detection.id === detection.id))
        .map(({ detection }) => this.change(this.detectionKey(detection.id), null)),
      ...state.detections.map(({ detection }) =>
        this.change(
          this.actionsKey(detection.id),
          orNothing(state.actions.get(detection.id) ?? NO_ACTIONS)
        )
      ),
      ...(state.scene ? [this.change(this.sceneKey, state.scene)] : [])
    ]
    this.apply({ label, changes })
  }

  edit(detection: Detection, label: Said): void {
    const key = this.detectionKey(detection.id)
    const old = this.values.get(key) as Placed | undefined
    if (old) this.apply({ label, changes: [this.change(key, { ...old, detection })] })
  }

  /** A detection with other settings and the scene about it, as one step. */
  retune(detection: Detection, scene: Scene, label: Said): void {
    const key = this.detectionKey(detection.id)
    const old = this.values.get(key) as Placed | undefined
    if (!old) return
    const same = JSON.stringify(scene) === JSON.stringify(this.scene())
    this.apply({
      label,
      changes: [
        this.change(key, { ...old, detection }),
        ...(same ? [] : [this.change(this.sceneKey, scene)])
      ]
    })
  }

  remove(id: string): void {
    const name = this.detection(id)?.name ?? ''
    this.apply({
      label: said('edits.delete', name),
      changes: [this.change(this.detectionKey(id), null)]
    })
  }

  editSchedule(schedule: Schedule, label: Said): void {
    this.apply({ label, changes: [this.change(`schedule:${schedule.id}`, schedule)] })
  }

  /** Makes a schedule and gives it to a detection, as one step. */
  addSchedule(schedule: Schedule, detection: Detection): void {
    const key = this.detectionKey(detection.id)
    const old = this.values.get(key) as Placed
    this.apply({
      label: said('edits.newHours', schedule.name),
      changes: [
        this.change(`schedule:${schedule.id}`, schedule),
        this.change(key, { ...old, detection: { ...detection, schedule: schedule.id } })
      ]
    })
  }

  /** Shows a detection as it would be, while it is dragged; neither kept nor undone by itself. */
  show(detection: Detection): void {
    const key = this.detectionKey(detection.id)
    const old = this.values.get(key) as Placed | undefined
    if (old) this.showValue(key, { ...old, detection })
  }

  showScene(scene: Scene): void {
    this.showValue(this.sceneKey, scene)
  }

  /** Takes in what the server holds now, for everything that is not being edited here. */
  adopt(view: BenchView): void {
    this.adoptAll(contentsOf(view))
  }

  private detectionKey(id: string): string {
    return `detection:${placedId(this.camera, id)}`
  }

  private actionsKey(id: string): string {
    return `actions:${placedId(this.camera, id)}`
  }

  protected makeState(sync: SyncState<Value>): DocumentState {
    const detections: Placed[] = []
    const schedules: Schedule[] = []
    const linked = new Map<string, Actions>()
    for (const [key, value] of this.values) {
      if (key.startsWith('detection:')) detections.push(value as Placed)
      else if (key.startsWith('schedule:')) schedules.push(value as Schedule)
      else if (key.startsWith('actions:'))
        linked.set(key.slice(this.actionsKey('').length), value as Actions)
    }
    detections.sort(
      (a, b) => a.position - b.position || a.detection.id.localeCompare(b.detection.id)
    )
    const before = this.state as DocumentState | undefined
    return {
      ...sync,
      detections: unlessSame(before?.detections, detections),
      schedules: unlessSame(before?.schedules, schedules),
      actions:
        before?.actions.size === linked.size &&
        [...linked].every(([id, a]) => before.actions.get(id) === a)
          ? before.actions
          : linked,
      scene: this.scene()
    }
  }
}
