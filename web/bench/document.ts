import type {
  BenchView,
  KeptActions,
  KeptDetection,
  KeptScene,
  KeptSchedule
} from '../../core/api.ts'
import type { Actions } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { CameraState } from '../../core/history/states.ts'
import type { StepMemory } from '../kept/steps.ts'
import { KeptThings, idOf, unlessSame, type KeepingState } from '../kept/things.ts'
import {
  contentsOf,
  nameOf,
  orNothing,
  sceneOf,
  type Placed,
  type Scene,
  type Value
} from './contents.ts'

export type { Placed, Scene, Value } from './contents.ts'

/** Where edits are kept; each call names the version it saves over. A call must outlive the page. */
export interface Keeper {
  saveDetection(value: Placed, version: number, label: string): Promise<KeptDetection>
  deleteDetection(id: string, version: number, label: string): Promise<{ version: number }>
  saveSchedule(schedule: Schedule, version: number, label: string): Promise<KeptSchedule>
  saveActions(
    detection: string,
    actions: Actions,
    version: number,
    label: string
  ): Promise<KeptActions>
  saveScene(scene: Scene, version: number, label: string): Promise<KeptScene>
}

export interface DocumentState extends KeepingState<Value> {
  detections: Placed[]
  schedules: Schedule[]
  /** By detection; left out: nothing has been said yet. */
  actions: ReadonlyMap<string, Actions>
  scene: Scene
}

/** What is edited on one camera's Bench: detections, what they set off, schedules and the scene. */
export class BenchDocument extends KeptThings<Value, DocumentState> {
  // Schedules and the scene first: a detection may name one that is new, or need that it is measured.
  protected readonly savedFirst = ['schedule', 'scene', 'detection', 'actions']
  private readonly keeper: Keeper
  private readonly sceneKey: string

  constructor(view: BenchView, keeper: Keeper, memory: StepMemory<Value> | null = null) {
    super(memory)
    this.keeper = keeper
    this.sceneKey = `scene:${view.camera.id}`
    this.begin(contentsOf(view))
  }

  detection(id: string): Detection | undefined {
    return (this.values.get(`detection:${id}`) as Placed | undefined)?.detection
  }

  /** New detections, with schedules that they bring along, as one step. */
  add(detections: readonly Detection[], schedules: readonly Schedule[] = []): void {
    const position = Math.max(-1, ...this.state.detections.map((p) => p.position)) + 1
    this.apply({
      label: `Draw ${detections.map(({ name }) => name).join(', ')}`,
      changes: [
        ...schedules.map((s) => this.change(`schedule:${s.id}`, s)),
        ...detections.map((detection, i) =>
          this.change(`detection:${detection.id}`, { detection, position: position + i })
        )
      ]
    })
  }

  /** Several things at once, as one step: detections by what they become, or null to delete them. */
  editAll(changes: readonly { id: string; detection: Detection | null }[], label: string): void {
    let position = Math.max(-1, ...this.state.detections.map((p) => p.position))
    this.apply({
      label,
      changes: changes.map(({ id, detection }) => {
        const key = `detection:${id}`
        const old = this.values.get(key) as Placed | undefined
        return this.change(key, detection && { position: old?.position ?? ++position, detection })
      })
    })
  }

  /** The detections in another order. */
  order(ids: readonly string[], label: string): void {
    this.apply({
      label,
      changes: ids.flatMap((id, position) => {
        const key = `detection:${id}`
        const old = this.values.get(key) as Placed | undefined
        return old ? [this.change(key, { ...old, position })] : []
      })
    })
  }

  scene(): Scene {
    return this.values.get(this.sceneKey) as Scene
  }

  editScene(scene: Scene, label: string): void {
    this.apply({ label, changes: [this.change(this.sceneKey, scene)] })
  }

  actions(detection: string): Actions {
    return (this.values.get(`actions:${detection}`) as Actions | undefined) ?? NO_ACTIONS
  }

  setActions(detection: string, actions: Actions, label: string): void {
    this.apply({ label, changes: [this.change(`actions:${detection}`, orNothing(actions))] })
  }

  /** Links or unlinks an endpoint of several detections, as one step. */
  link(detections: readonly string[], endpoint: string, linked: boolean, label: string): void {
    this.apply({
      label,
      changes: detections.map((id) => {
        const actions = this.actions(id)
        const links = actions.links.filter((link) => link !== endpoint)
        return this.change(
          `actions:${id}`,
          orNothing({ ...actions, links: linked ? [...links, endpoint] : links })
        )
      })
    })
  }

  /**
   * As the camera was at another moment, as one step that can be undone. Schedules that were
   * deleted stay as they are.
   */
  goTo(state: CameraState, label: string): void {
    const changes = [
      ...state.schedules.map((s) => this.change(`schedule:${s.id}`, s)),
      ...state.detections.map((placed) => this.change(`detection:${placed.detection.id}`, placed)),
      ...this.state.detections
        .filter(({ detection }) => !state.detections.some((p) => p.detection.id === detection.id))
        .map(({ detection }) => this.change(`detection:${detection.id}`, null)),
      ...state.detections.map(({ detection }) =>
        this.change(
          `actions:${detection.id}`,
          orNothing(state.actions.get(detection.id) ?? NO_ACTIONS)
        )
      ),
      ...(state.scene ? [this.change(this.sceneKey, state.scene)] : [])
    ]
    this.apply({ label, changes })
  }

  edit(detection: Detection, label: string): void {
    const key = `detection:${detection.id}`
    const old = this.values.get(key) as Placed | undefined
    if (old) this.apply({ label, changes: [this.change(key, { ...old, detection })] })
  }

  remove(id: string): void {
    const name = this.detection(id)?.name ?? ''
    this.apply({ label: `Delete ${name}`, changes: [this.change(`detection:${id}`, null)] })
  }

  editSchedule(schedule: Schedule, label: string): void {
    this.apply({ label, changes: [this.change(`schedule:${schedule.id}`, schedule)] })
  }

  /** Makes a schedule and gives it to a detection, as one step. */
  addSchedule(schedule: Schedule, detection: Detection): void {
    const key = `detection:${detection.id}`
    const old = this.values.get(key) as Placed
    this.apply({
      label: `New hours ${schedule.name}`,
      changes: [
        this.change(`schedule:${schedule.id}`, schedule),
        this.change(key, { ...old, detection: { ...detection, schedule: schedule.id } })
      ]
    })
  }

  /** Shows a detection as it would be, while it is dragged; neither kept nor undone by itself. */
  show(detection: Detection): void {
    const key = `detection:${detection.id}`
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

  protected goes(key: string): boolean {
    return key.startsWith('detection:')
  }

  protected nameOf(value: Value | null): string | null {
    return nameOf(value)
  }

  protected async send(
    key: string,
    value: Value | null,
    version: number,
    label: string
  ): Promise<number> {
    const id = idOf(key)
    if (key.startsWith('schedule:'))
      return value
        ? (await this.keeper.saveSchedule(value as Schedule, version, label)).version
        : version
    if (key.startsWith('scene:'))
      return (await this.keeper.saveScene(value as Scene, version, label)).version
    if (key.startsWith('actions:'))
      return this.values.has(`detection:${id}`)
        ? (
            await this.keeper.saveActions(
              id,
              (value as Actions | null) ?? NO_ACTIONS,
              version,
              label
            )
          ).version
        : version
    if (value) return (await this.keeper.saveDetection(value as Placed, version, label)).version
    return version > 0 ? (await this.keeper.deleteDetection(id, version, label)).version : version
  }

  protected theirs(key: string, current: object): Value | null {
    if (key.startsWith('schedule:')) return (current as KeptSchedule).schedule
    if (key.startsWith('actions:')) return (current as KeptActions).actions
    if (key.startsWith('scene:')) return sceneOf(current as KeptScene)
    return 'deleted' in current
      ? null
      : {
          detection: (current as KeptDetection).detection,
          position: (current as KeptDetection).position
        }
  }

  protected makeState(keeping: KeepingState<Value>): DocumentState {
    const detections: Placed[] = []
    const schedules: Schedule[] = []
    const actions = new Map<string, Actions>()
    for (const [key, value] of this.values) {
      if (key.startsWith('detection:')) detections.push(value as Placed)
      else if (key.startsWith('schedule:')) schedules.push(value as Schedule)
      else if (key.startsWith('actions:')) actions.set(idOf(key), value as Actions)
    }
    detections.sort(
      (a, b) => a.position - b.position || a.detection.id.localeCompare(b.detection.id)
    )
    const before = this.state as DocumentState | undefined
    return {
      ...keeping,
      detections: unlessSame(before?.detections, detections),
      schedules: unlessSame(before?.schedules, schedules),
      actions:
        before?.actions.size === actions.size &&
        [...actions].every(([id, a]) => before.actions.get(id) === a)
          ? before.actions
          : actions,
      scene: this.scene()
    }
  }
}
