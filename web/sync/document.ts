import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { document as msg } from '../../core/messages/en/sync.ts'
import { ApiError, mayPass } from '../../core/apiError.ts'
import { canonical } from '../../core/history/states.ts'
import type { SyncedKind } from './kinds.ts'
import { noteLeaving } from './leaving.ts'
import { atServer, type Saver } from './saver.ts'
import { stepsThatFit, type Change, type Step, type StepMemory } from './steps.ts'

export interface Conflict<V = unknown> {
  key: string
  name: string
  mine: V | null
  theirs: V | null
  version: number
  changedAt: number
}

/** How far what is edited has been saved. */
export interface SyncState<V = unknown> {
  /** Something is being dragged: it is shown as it would be, and not a step yet. */
  previewing: boolean
  status: 'saved' | 'saving' | 'waiting'
  /** Why it could not be saved. */
  error: string | null
  conflict: Conflict<V> | null
  undo: Said | null
  redo: Said | null
}

/** A thing as the server holds it; a value of null: deleted, or not set. */
export interface Versioned<V> {
  key: string
  value: V | null
  version: number
}

const SAVE_DELAY_MS = 250
const MAX_STEPS = 200
const RETRY_MS = 3000

/**
 * Things that are edited, each with a version of its own: undo, and kept as they are made. A save over a newer version
 * becomes a conflict that a person settles, and nothing is lost. What the things are is said by who extends this.
 */
export abstract class SyncedDocument<V, S extends SyncState<V>> {
  protected readonly values = new Map<string, V>()
  protected state!: S
  private readonly versions = new Map<string, number>()
  private readonly dirty = new Set<string>()
  private readonly conflicts = new Map<string, Conflict<V>>()
  private readonly kinds: Readonly<Record<string, SyncedKind<V>>>
  private readonly memory: StepMemory<V> | null
  private readonly saver: Saver
  /** What the last edit of a thing was called; said with its save. */
  private readonly labels = new Map<string, Said>()
  private readonly listeners = new Set<() => void>()
  private undoable: Step<V>[] = []
  private redoable: Step<V>[] = []
  private stepsChanged = false
  /** The value before a drag that is still going on. */
  private preview: Change<V> | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving = false
  private error: string | null = null

  /**
   * @param kinds of things by their name, in the order in which they must be saved
   * @param memory of the steps that can be undone
   */
  constructor(
    kinds: Readonly<Record<string, SyncedKind<V>>>,
    memory: StepMemory<V> | null,
    saver: Saver = atServer
  ) {
    this.kinds = kinds
    this.memory = memory
    this.saver = saver
  }

  protected abstract makeState(sync: SyncState<V>): S

  /** Takes what the server holds; said once, when everything is made. */
  protected begin(contents: readonly Versioned<V>[]): void {
    for (const { key, value, version } of contents) {
      this.set(key, value)
      this.versions.set(key, version)
    }
    const held = this.memory?.load()
    if (held)
      ({ undoable: this.undoable, redoable: this.redoable } = stepsThatFit(held, this.values))
    this.state = this.makeState(this.syncState())
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  getState = (): S => this.state

  /** Shows a thing as it would be, while it is dragged; neither kept nor undone by itself. */
  protected showValue(key: string, value: V): void {
    const before = this.values.get(key) ?? null
    this.preview ??= { key, before, after: null }
    this.values.set(key, value)
    this.notify()
  }

  /** The drag has ended: what is shown becomes one step. */
  commitDrag(label: Said): void {
    const { preview } = this
    if (!preview) return
    this.preview = null
    const after = this.values.get(preview.key) ?? null
    this.set(preview.key, preview.before)
    this.apply({ label, changes: [this.change(preview.key, after)] })
  }

  /** The drag has ended in something that cannot be: it is as it was before. */
  cancelDrag(): void {
    const { preview } = this
    if (!preview) return
    this.preview = null
    this.set(preview.key, preview.before)
    this.notify()
  }

  undo(): void {
    const step = this.undoable.pop()
    if (!step) return
    this.stepsChanged = true
    this.redoable.push(step)
    for (const { key, before } of [...step.changes].reverse())
      this.put(key, before, said('edits.undo', step.label))
    this.notify()
  }

  redo(): void {
    const step = this.redoable.pop()
    if (!step) return
    this.stepsChanged = true
    this.undoable.push(step)
    for (const { key, after } of step.changes) this.put(key, after, step.label)
    this.notify()
  }

  /** Settles the conflict on show: mine is saved over theirs, or theirs is taken and mine stays one undo away. */
  resolveConflict(whose: 'mine' | 'theirs'): void {
    const { conflict } = this.state
    if (!conflict) return
    this.conflicts.delete(conflict.key)
    this.versions.set(conflict.key, conflict.version)
    if (whose === 'mine') this.touch(conflict.key, said('edits.mineOf', conflict.name))
    else {
      const change = this.change(conflict.key, conflict.theirs)
      this.stepsChanged = true
      this.undoable.push({ label: said('edits.theirsOf', conflict.name), changes: [change] })
      this.redoable = []
      this.set(conflict.key, conflict.theirs)
      this.dirty.delete(conflict.key)
    }
    this.notify()
  }

  /** Takes in what the server holds now, for everything that is not being edited here. */
  protected adoptAll(contents: readonly Versioned<V>[]): void {
    const held = new Map(contents.map(({ key, version }) => [key, version]))
    const stale = new Set<string>()
    for (const { key, value, version } of contents)
      if (!this.isBusy(key) && version > (this.versions.get(key) ?? 0)) {
        this.set(key, value)
        this.versions.set(key, version)
        stale.add(key)
      }
    for (const key of [...this.values.keys()])
      if (
        this.kindOf(key).canVanish &&
        !held.has(key) &&
        !this.isBusy(key) &&
        this.versions.has(key)
      ) {
        this.values.delete(key)
        stale.add(key)
      }
    if (!stale.size) return
    // Undoing over somebody else's newer work would lose it without a word.
    const untouched = (step: Step<V>): boolean => !step.changes.some(({ key }) => stale.has(key))
    this.stepsChanged = true
    this.undoable = this.undoable.filter(untouched)
    this.redoable = this.redoable.filter(untouched)
    this.notify()
  }

  /** The page is going away: what is not kept yet is sent at once. */
  flush(): void {
    clearTimeout(this.timer)
    const open = [...this.dirty].filter((key) => !this.conflicts.has(key))
    if (open.length || this.saving) noteLeaving()
    for (const key of open) void this.save(key).catch(() => {})
  }

  protected change(key: string, after: V | null): Change<V> {
    return { key, before: this.values.get(key) ?? null, after }
  }

  protected apply(step: Step<V>): void {
    step.changes = step.changes.filter(
      ({ before, after }) => canonical(before) !== canonical(after)
    )
    if (step.changes.length) {
      this.stepsChanged = true
      this.undoable = [...this.undoable.slice(1 - MAX_STEPS), step]
      this.redoable = []
      for (const { key, after } of step.changes) this.put(key, after, step.label)
    }
    this.notify()
  }

  private isBusy(key: string): boolean {
    return (
      this.dirty.has(key) || this.conflicts.has(key) || this.preview?.key === key || this.saving
    )
  }

  private put(key: string, value: V | null, label: Said): void {
    this.set(key, value)
    this.touch(key, label)
  }

  private set(key: string, value: V | null): void {
    if (value === null) this.values.delete(key)
    else this.values.set(key, value)
  }

  private touch(key: string, label: Said): void {
    this.dirty.add(key)
    this.labels.set(key, label)
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.saveAll(), SAVE_DELAY_MS)
  }

  private async saveAll(): Promise<void> {
    if (this.saving) return
    this.saving = true
    this.notify()
    let retry = false
    try {
      for (const kind of Object.keys(this.kinds))
        for (const key of [...this.dirty].filter(
          (k) => k.startsWith(`${kind}:`) && !this.conflicts.has(k)
        ))
          await this.save(key)
      this.error = null
    } catch (error) {
      this.error = problemWords(error)
      retry = mayPass(error)
    } finally {
      this.saving = false
    }
    const left = [...this.dirty].some((key) => !this.conflicts.has(key))
    if (left && (retry || !this.error)) {
      clearTimeout(this.timer)
      this.timer = setTimeout(() => void this.saveAll(), retry ? RETRY_MS : SAVE_DELAY_MS)
    }
    this.notify()
  }

  private async save(key: string): Promise<void> {
    const value = this.values.get(key) ?? null
    this.dirty.delete(key)
    try {
      this.versions.set(
        key,
        await this.kindOf(key).save(
          this.saver,
          idOf(key),
          value,
          this.versions.get(key) ?? 0,
          this.labels.get(key) ?? said('edits.any'),
          (other) => this.values.has(other)
        )
      )
    } catch (error) {
      this.dirty.add(key)
      if (!(error instanceof ApiError) || error.view.code !== 'conflict') throw error
      const { version, changedAt } = error.view.current as { version: number; changedAt: number }
      const current = error.view.current as object
      const kind = this.kindOf(key)
      const theirs = 'deleted' in current ? null : kind.read(current, idOf(key))
      const named = value ?? theirs
      this.conflicts.set(key, {
        key,
        name: named ? kind.label(named) : msg.yourChange,
        mine: value,
        theirs,
        version,
        changedAt
      })
    }
  }

  private kindOf(key: string): SyncedKind<V> {
    const kind = this.kinds[key.slice(0, key.indexOf(':'))]
    if (!kind) throw new TypeError(msg.cannotBeEditedHere(key))
    return kind
  }

  private syncState(): SyncState<V> {
    const open = [...this.dirty].some((key) => !this.conflicts.has(key))
    return {
      previewing: this.preview !== null,
      // While somebody has to decide, nothing may look as if all were kept.
      status:
        (this.error && open) || this.conflicts.size
          ? 'waiting'
          : open || this.saving || this.preview
            ? 'saving'
            : 'saved',
      error: open ? this.error : null,
      conflict: this.conflicts.values().next().value ?? null,
      undo: this.undoable[this.undoable.length - 1]?.label ?? null,
      redo: this.redoable[this.redoable.length - 1]?.label ?? null
    }
  }

  protected notify(): void {
    this.state = this.makeState(this.syncState())
    if (this.stepsChanged && !this.preview) {
      this.stepsChanged = false
      this.memory?.save({ undoable: this.undoable, redoable: this.redoable })
    }
    for (const listener of this.listeners) listener()
  }
}

/** The list from before, if it has the same things in it: whoever shows it need not look again. */
export const unlessSame = <T>(before: T[] | undefined, now: T[]): T[] =>
  before?.length === now.length && now.every((thing, i) => thing === before[i]) ? before : now

/** What stands after the colon of a key. */
export const idOf = (key: string): string => key.slice(key.indexOf(':') + 1)
