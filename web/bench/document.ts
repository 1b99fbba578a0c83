import { ApiError, type BenchView, type KeptDetection, type KeptEmail, type KeptScene, type KeptSchedule } from '../../core/api.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import { canonical, type CameraState } from '../../core/history/states.ts'
import { contentsOf, idOf, nameOf, sceneOf, type Key, type Placed, type Scene, type Value } from './contents.ts'
import { stepsThatFit, type Change, type Step, type StepMemory } from './steps.ts'

export type { Placed, Scene, Value } from './contents.ts'
export type { Step, StepMemory } from './steps.ts'

/** Where edits are kept; each call names the version it saves over. A call must outlive the page. */
export interface Keeper {
  saveDetection(value: Placed, version: number, label: string): Promise<KeptDetection>
  deleteDetection(id: string, version: number, label: string): Promise<{ version: number }>
  saveSchedule(schedule: Schedule, version: number, label: string): Promise<KeptSchedule>
  saveEmail(detection: string, to: string | null, version: number, label: string): Promise<KeptEmail>
  saveScene(scene: Scene, version: number, label: string): Promise<KeptScene>
}

export interface Conflict {
  key: Key
  name: string
  mine: Value | null
  theirs: Value | null
  version: number
  changedAt: number
}

export interface DocumentState {
  detections: Placed[]
  schedules: Schedule[]
  emails: ReadonlyMap<string, string>
  scene: Scene
  /** Something is being dragged: it is shown as it would be, and not a step yet. */
  previewing: boolean
  keeping: 'kept' | 'keeping' | 'waiting'
  /** Why it could not be kept. */
  trouble: string | null
  conflict: Conflict | null
  undo: string | null
  redo: string | null
}

const SAVE_AFTER_MS = 250
const MOST_STEPS = 200
const RETRY_MS = 3000

/**
 * What is edited on one camera's Bench: detections, schedules and e-mail links, with undo, and kept as it is made.
 * Every thing has a version; a save over a newer one becomes a conflict that a person settles, and nothing is lost.
 */
export class BenchDocument {
  private readonly values = new Map<Key, Value>()
  private readonly versions = new Map<Key, number>()
  private readonly dirty = new Set<Key>()
  private readonly conflicts = new Map<Key, Conflict>()
  private readonly keeper: Keeper
  private readonly memory: StepMemory | null
  /** What the last edit of a thing was called; said with its save. */
  private readonly labels = new Map<Key, string>()
  private readonly sceneKey: Key
  private readonly listeners = new Set<() => void>()
  private undoable: Step[] = []
  private redoable: Step[] = []
  private stepsChanged = false
  /** The value before a drag that is still going on. */
  private preview: Change | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving = false
  private trouble: string | null = null
  private state: DocumentState

  constructor(view: BenchView, keeper: Keeper, memory: StepMemory | null = null) {
    this.keeper = keeper
    this.memory = memory
    this.sceneKey = `scene:${view.camera.id}`
    this.take(view)
    const held = memory?.load()
    if (held) ({ undoable: this.undoable, redoable: this.redoable } = stepsThatFit(held, this.values))
    this.state = this.makeState()
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  getState = (): DocumentState => this.state

  detection(id: string): Detection | undefined {
    return (this.values.get(`detection:${id}`) as Placed | undefined)?.detection
  }

  /** New detections, with schedules that they bring along, as one step. */
  add(detections: readonly Detection[], schedules: readonly Schedule[] = []): void {
    const position = Math.max(-1, ...this.state.detections.map((p) => p.position)) + 1
    this.apply({
      label: `Draw ${detections.map(({ name }) => name).join(', ')}`,
      changes: [...schedules.map((s) => this.change(`schedule:${s.id}`, s)), ...detections.map((detection, i) => this.change(`detection:${detection.id}`, { detection, position: position + i }))]
    })
  }

  /** Several things at once, as one step: detections by what they become, or null to delete them. */
  editAll(changes: readonly { id: string; detection: Detection | null }[], label: string): void {
    let position = Math.max(-1, ...this.state.detections.map((p) => p.position))
    this.apply({
      label,
      changes: changes.map(({ id, detection }) => {
        const key: Key = `detection:${id}`
        const old = this.values.get(key) as Placed | undefined
        return this.change(key, detection && { position: old?.position ?? ++position, detection })
      })
    })
  }

  /** The detections in another order. */
  order(ids: readonly string[], label: string): void {
    this.apply({ label, changes: ids.flatMap((id, position) => {
      const key: Key = `detection:${id}`
      const old = this.values.get(key) as Placed | undefined
      return old ? [this.change(key, { ...old, position })] : []
    }) })
  }

  scene(): Scene {
    return this.values.get(this.sceneKey) as Scene
  }

  editScene(scene: Scene, label: string): void {
    this.apply({ label, changes: [this.change(this.sceneKey, scene)] })
  }

  /** Links or unlinks several detections, as one step. */
  setEmails(detections: readonly string[], to: string | null): void {
    this.apply({ label: to ? `E-mail to ${to}` : 'No e-mail', changes: detections.map((id) => this.change(`email:${id}`, to)) })
  }

  /** As the camera was at another moment, as one step that can be undone. Schedules that were deleted stay as they are. */
  goTo(state: CameraState, label: string): void {
    const changes = [
      ...state.schedules.map((s) => this.change(`schedule:${s.id}`, s)),
      ...state.detections.map((placed) => this.change(`detection:${placed.detection.id}`, placed)),
      ...this.state.detections.filter(({ detection }) => !state.detections.some((p) => p.detection.id === detection.id)).map(({ detection }) => this.change(`detection:${detection.id}`, null)),
      ...state.detections.map(({ detection }) => this.change(`email:${detection.id}`, state.emails.get(detection.id) ?? null)),
      ...(state.scene ? [this.change(this.sceneKey, state.scene)] : [])
    ]
    this.apply({ label, changes })
  }

  edit(detection: Detection, label: string): void {
    const key: Key = `detection:${detection.id}`
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
    const key: Key = `detection:${detection.id}`
    const old = this.values.get(key) as Placed
    this.apply({
      label: `New hours ${schedule.name}`,
      changes: [this.change(`schedule:${schedule.id}`, schedule), this.change(key, { ...old, detection: { ...detection, schedule: schedule.id } })]
    })
  }

  setEmail(detection: string, to: string | null): void {
    this.apply({ label: to ? `E-mail to ${to}` : 'No e-mail', changes: [this.change(`email:${detection}`, to)] })
  }

  /** Shows a detection as it would be, while it is dragged; neither kept nor undone by itself. */
  show(detection: Detection): void {
    const key: Key = `detection:${detection.id}`
    const old = this.values.get(key) as Placed | undefined
    if (old) this.showValue(key, old, { ...old, detection })
  }

  showScene(scene: Scene): void {
    this.showValue(this.sceneKey, this.scene(), scene)
  }

  private showValue(key: Key, old: Value, value: Value): void {
    this.preview ??= { key, before: old, after: null }
    this.values.set(key, value)
    this.tell()
  }

  /** The drag has ended: what is shown becomes one step. */
  settle(label: string): void {
    const { preview } = this
    if (!preview) return
    this.preview = null
    const after = this.values.get(preview.key) ?? null
    if (preview.before === null) this.values.delete(preview.key)
    else this.values.set(preview.key, preview.before)
    this.apply({ label, changes: [this.change(preview.key, after)] })
  }

  /** The drag has ended in something that cannot be: it is as it was before. */
  forget(): void {
    const { preview } = this
    if (!preview) return
    this.preview = null
    this.set(preview.key, preview.before)
    this.tell()
  }

  undo(): void {
    const step = this.undoable.pop()
    if (!step) return
    this.stepsChanged = true
    this.redoable.push(step)
    for (const { key, before } of [...step.changes].reverse()) this.put(key, before, `Undo: ${step.label}`)
    this.tell()
  }

  redo(): void {
    const step = this.redoable.pop()
    if (!step) return
    this.stepsChanged = true
    this.undoable.push(step)
    for (const { key, after } of step.changes) this.put(key, after, step.label)
    this.tell()
  }

  /** Settles the conflict on show: mine is saved over theirs, or theirs is taken and mine stays one undo away. */
  settleConflict(whose: 'mine' | 'theirs'): void {
    const { conflict } = this.state
    if (!conflict) return
    this.conflicts.delete(conflict.key)
    this.versions.set(conflict.key, conflict.version)
    if (whose === 'mine') this.touch(conflict.key, `Mine of ${conflict.name}`)
    else {
      const change = this.change(conflict.key, conflict.theirs)
      this.stepsChanged = true
      this.undoable.push({ label: `Theirs of ${conflict.name}`, changes: [change] })
      this.redoable = []
      this.set(conflict.key, conflict.theirs)
      this.dirty.delete(conflict.key)
    }
    this.tell()
  }

  /** Takes in what the server holds now, for everything that is not being edited here. */
  adopt(view: BenchView): void {
    const held = new Map<Key, number>()
    for (const { key, version } of contentsOf(view)) held.set(key, version)
    const stale = new Set<Key>()
    for (const { key, value, version } of contentsOf(view))
      if (!this.isBusy(key) && version > (this.versions.get(key) ?? 0)) {
        this.set(key, value)
        this.versions.set(key, version)
        stale.add(key)
      }
    for (const key of [...this.values.keys()])
      if (key.startsWith('detection:') && !held.has(key) && !this.isBusy(key) && this.versions.has(key)) {
        this.values.delete(key)
        stale.add(key)
      }
    if (!stale.size) return
    // Undoing over somebody else's newer work would lose it without a word.
    const untouched = (step: Step): boolean => !step.changes.some(({ key }) => stale.has(key))
    this.stepsChanged = true
    this.undoable = this.undoable.filter(untouched)
    this.redoable = this.redoable.filter(untouched)
    this.tell()
  }

  /** The page is going away: what is not kept yet is sent at once. */
  flush(): void {
    clearTimeout(this.timer)
    for (const key of [...this.dirty]) if (!this.conflicts.has(key)) void this.save(key).catch(() => {})
  }

  private take(view: BenchView): void {
    for (const { key, value, version } of contentsOf(view)) {
      this.set(key, value)
      this.versions.set(key, version)
    }
  }

  private isBusy(key: Key): boolean {
    return this.dirty.has(key) || this.conflicts.has(key) || this.preview?.key === key || this.saving
  }

  private change(key: Key, after: Value | null): Change {
    return { key, before: this.values.get(key) ?? null, after }
  }

  private apply(step: Step): void {
    step.changes = step.changes.filter(({ before, after }) => canonical(before) !== canonical(after))
    if (step.changes.length) {
      this.stepsChanged = true
      this.undoable = [...this.undoable.slice(1 - MOST_STEPS), step]
      this.redoable = []
      for (const { key, after } of step.changes) this.put(key, after, step.label)
    }
    this.tell()
  }

  private put(key: Key, value: Value | null, label: string): void {
    this.set(key, value)
    this.touch(key, label)
  }

  private set(key: Key, value: Value | null): void {
    if (value === null) this.values.delete(key)
    else this.values.set(key, value)
  }

  private touch(key: Key, label: string): void {
    this.dirty.add(key)
    this.labels.set(key, label)
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.saveAll(), SAVE_AFTER_MS)
  }

  private async saveAll(): Promise<void> {
    if (this.saving) return
    this.saving = true
    this.tell()
    let retry = false
    try {
      // Schedules and the scene first: a detection may name one that is new, or need that it is measured.
      for (const kind of ['schedule:', 'scene:', 'detection:', 'email:'])
        for (const key of [...this.dirty].filter((k) => k.startsWith(kind) && !this.conflicts.has(k))) await this.save(key)
      this.trouble = null
    } catch (error) {
      this.trouble = (error as Error).message
      retry = !(error instanceof ApiError) || error.status === 0 || error.status >= 500
    } finally {
      this.saving = false
    }
    const left = [...this.dirty].some((key) => !this.conflicts.has(key))
    if (left && (retry || !this.trouble)) {
      clearTimeout(this.timer)
      this.timer = setTimeout(() => void this.saveAll(), retry ? RETRY_MS : SAVE_AFTER_MS)
    }
    this.tell()
  }

  private async save(key: Key): Promise<void> {
    const value = this.values.get(key) ?? null
    this.dirty.delete(key)
    try {
      const version = await this.send(key, value, this.versions.get(key) ?? 0)
      this.versions.set(key, version)
    } catch (error) {
      this.dirty.add(key)
      if (!(error instanceof ApiError) || error.view.code !== 'conflict') throw error
      this.conflicts.set(key, this.conflictOf(key, value, error.view.current))
    }
  }

  private async send(key: Key, value: Value | null, version: number): Promise<number> {
    const id = idOf(key)
    const label = this.labels.get(key) ?? 'Edit'
    if (key.startsWith('schedule:')) return value ? (await this.keeper.saveSchedule(value as Schedule, version, label)).version : version
    if (key.startsWith('scene:')) return (await this.keeper.saveScene(value as Scene, version, label)).version
    if (key.startsWith('email:')) return this.values.has(`detection:${id}`) ? (await this.keeper.saveEmail(id, value as string | null, version, label)).version : version
    if (value) return (await this.keeper.saveDetection(value as Placed, version, label)).version
    return version > 0 ? (await this.keeper.deleteDetection(id, version, label)).version : version
  }

  private conflictOf(key: Key, mine: Value | null, current: unknown): Conflict {
    const { version, changedAt } = current as { version: number; changedAt: number }
    let theirs: Value | null = null
    if (key.startsWith('schedule:')) theirs = (current as KeptSchedule).schedule
    else if (key.startsWith('email:')) theirs = (current as KeptEmail).to
    else if (key.startsWith('scene:')) theirs = sceneOf(current as KeptScene)
    else if (!('deleted' in (current as object))) theirs = { detection: (current as KeptDetection).detection, position: (current as KeptDetection).position }
    return { key, name: nameOf(mine) ?? nameOf(theirs) ?? 'E-mail', mine, theirs, version, changedAt }
  }

  private makeState(): DocumentState {
    const detections: Placed[] = []
    const schedules: Schedule[] = []
    const emails = new Map<string, string>()
    for (const [key, value] of this.values) {
      if (key.startsWith('detection:')) detections.push(value as Placed)
      else if (key.startsWith('schedule:')) schedules.push(value as Schedule)
      else if (key.startsWith('email:')) emails.set(idOf(key), value as string)
    }
    detections.sort((a, b) => a.position - b.position || a.detection.id.localeCompare(b.detection.id))
    const open = [...this.dirty].some((key) => !this.conflicts.has(key))
    const before = this.state as DocumentState | undefined
    return {
      detections: unlessSame(before?.detections, detections),
      schedules: unlessSame(before?.schedules, schedules),
      emails: before?.emails.size === emails.size && [...emails].every(([id, to]) => before.emails.get(id) === to) ? before.emails : emails,
      scene: this.scene(),
      previewing: this.preview !== null,
      // While somebody has to decide, nothing may look as if all were kept.
      keeping: (this.trouble && open) || this.conflicts.size ? 'waiting' : open || this.saving || this.preview ? 'keeping' : 'kept',
      trouble: open ? this.trouble : null,
      conflict: this.conflicts.values().next().value ?? null,
      undo: this.undoable[this.undoable.length - 1]?.label ?? null,
      redo: this.redoable[this.redoable.length - 1]?.label ?? null
    }
  }

  private tell(): void {
    this.state = this.makeState()
    if (this.stepsChanged && !this.preview) {
      this.stepsChanged = false
      this.memory?.save({ undoable: this.undoable, redoable: this.redoable })
    }
    for (const listener of this.listeners) listener()
  }
}

/** The list from before, if it has the same things in it: whoever shows it need not look again. */
const unlessSame = <T>(before: T[] | undefined, now: T[]): T[] => (before?.length === now.length && now.every((thing, i) => thing === before[i]) ? before : now)
