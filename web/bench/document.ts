import { ApiError, type BenchView, type KeptDetection, type KeptEmail, type KeptSchedule } from '../../core/api.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'

/** One thing that is edited and kept on its own. */
export interface Placed {
  detection: Detection
  position: number
}
type Values = { detection: Placed; schedule: Schedule; email: string }
type Kind = keyof Values
export type Value = Values[Kind]
type Key = `${Kind}:${string}`

/** Where edits are kept; each call names the version it saves over. A call must outlive the page. */
export interface Keeper {
  saveDetection(value: Placed, version: number): Promise<KeptDetection>
  deleteDetection(id: string, version: number): Promise<{ version: number }>
  saveSchedule(schedule: Schedule, version: number): Promise<KeptSchedule>
  saveEmail(detection: string, to: string | null, version: number): Promise<KeptEmail>
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
  keeping: 'kept' | 'keeping' | 'waiting'
  /** Why it could not be kept. */
  trouble: string | null
  conflict: Conflict | null
  undo: string | null
  redo: string | null
}

interface Change {
  key: Key
  before: Value | null
  after: Value | null
}

interface Step {
  label: string
  changes: Change[]
}

const SAVE_AFTER_MS = 250
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
  private readonly listeners = new Set<() => void>()
  private undoable: Step[] = []
  private redoable: Step[] = []
  /** The value before a drag that is still going on. */
  private preview: Change | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving = false
  private trouble: string | null = null
  private state: DocumentState

  constructor(view: BenchView, keeper: Keeper) {
    this.keeper = keeper
    this.take(view)
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

  add(detection: Detection): void {
    const position = Math.max(-1, ...this.state.detections.map((p) => p.position)) + 1
    this.apply({ label: `Draw ${detection.name}`, changes: [this.change(`detection:${detection.id}`, { detection, position })] })
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
    if (!old) return
    this.preview ??= { key, before: old, after: null }
    this.values.set(key, { ...old, detection })
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
    this.redoable.push(step)
    for (const { key, before } of [...step.changes].reverse()) this.put(key, before)
    this.tell()
  }

  redo(): void {
    const step = this.redoable.pop()
    if (!step) return
    this.undoable.push(step)
    for (const { key, after } of step.changes) this.put(key, after)
    this.tell()
  }

  /** Settles the conflict on show: mine is saved over theirs, or theirs is taken and mine stays one undo away. */
  settleConflict(whose: 'mine' | 'theirs'): void {
    const { conflict } = this.state
    if (!conflict) return
    this.conflicts.delete(conflict.key)
    this.versions.set(conflict.key, conflict.version)
    if (whose === 'mine') this.touch(conflict.key)
    else {
      const change = this.change(conflict.key, conflict.theirs)
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
    step.changes = step.changes.filter(({ before, after }) => JSON.stringify(before) !== JSON.stringify(after))
    if (step.changes.length) {
      this.undoable.push(step)
      this.redoable = []
      for (const { key, after } of step.changes) this.put(key, after)
    }
    this.tell()
  }

  private put(key: Key, value: Value | null): void {
    this.set(key, value)
    this.touch(key)
  }

  private set(key: Key, value: Value | null): void {
    if (value === null) this.values.delete(key)
    else this.values.set(key, value)
  }

  private touch(key: Key): void {
    this.dirty.add(key)
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.saveAll(), SAVE_AFTER_MS)
  }

  private async saveAll(): Promise<void> {
    if (this.saving) return
    this.saving = true
    this.tell()
    let retry = false
    try {
      // Schedules first: a detection may name one that is new.
      for (const kind of ['schedule:', 'detection:', 'email:'])
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
    if (key.startsWith('schedule:')) return value ? (await this.keeper.saveSchedule(value as Schedule, version)).version : version
    if (key.startsWith('email:')) return this.values.has(`detection:${id}`) ? (await this.keeper.saveEmail(id, value as string | null, version)).version : version
    if (value) return (await this.keeper.saveDetection(value as Placed, version)).version
    return version > 0 ? (await this.keeper.deleteDetection(id, version)).version : version
  }

  private conflictOf(key: Key, mine: Value | null, current: unknown): Conflict {
    const { version, changedAt } = current as { version: number; changedAt: number }
    let theirs: Value | null = null
    if (key.startsWith('schedule:')) theirs = (current as KeptSchedule).schedule
    else if (key.startsWith('email:')) theirs = (current as KeptEmail).to
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
      else emails.set(idOf(key), value as string)
    }
    detections.sort((a, b) => a.position - b.position || a.detection.id.localeCompare(b.detection.id))
    const open = [...this.dirty].some((key) => !this.conflicts.has(key))
    return {
      detections,
      schedules,
      emails,
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
    for (const listener of this.listeners) listener()
  }
}

const idOf = (key: Key): string => key.slice(key.indexOf(':') + 1)

const nameOf = (value: Value | null): string | null => {
  if (value === null || typeof value === 'string') return value
  return 'detection' in value ? value.detection.name : value.name
}

function contentsOf(view: BenchView): { key: Key; value: Value | null; version: number }[] {
  return [
    ...view.schedules.map(({ schedule, version }) => ({ key: `schedule:${schedule.id}` as const, value: schedule, version })),
    ...view.detections.map(({ detection, position, version }) => ({ key: `detection:${detection.id}` as const, value: { detection, position }, version })),
    ...view.detections.map(({ detection, email }) => ({ key: `email:${detection.id}` as const, value: email.to, version: email.version }))
  ]
}
