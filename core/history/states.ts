import type { Actions } from '../formats/actions.ts'
import { NO_ACTIONS } from '../formats/noActions.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { Point } from '../geometry/shapes.ts'
import type { SceneMarks } from '../scene/marks.ts'

export type EditThing = 'detection' | 'actions' | 'schedule' | 'scene' | 'endpoint' | 'setting'

/** One edit: how a thing was after it. */
export interface EditEntry {
  id: number
  /** Null: a schedule, which belongs to the site. */
  camera: string | null
  thing: EditThing
  thingId: string
  /** Null: deleted. */
  body: unknown
  label: string
  by: string
  /** Milliseconds of UTC. */
  at: number
}

export interface HistoryView {
  /** Newest first. */
  entries: EditEntry[]
  /** Older ones are there. */
  more: boolean
}

/** All that is edited on one camera, as it was at a moment. */
export interface CameraState {
  detections: { detection: Detection; position: number }[]
  schedules: Schedule[]
  /** By id of the detection. */
  actions: ReadonlyMap<string, Actions>
  scene: { ignore: Point[][]; marks: SceneMarks | null } | null
}

/** The state that edits left, of each thing its last one (as `readStateAt` gives them). */
export function stateOf(edits: readonly EditEntry[]): CameraState {
  const bodies = <T>(thing: EditThing): T[] =>
    edits.filter((e) => e.thing === thing && e.body !== null).map((e) => e.body as T)
  return {
    detections: bodies<CameraState['detections'][number]>('detection').sort(
      (a, b) => a.position - b.position || a.detection.id.localeCompare(b.detection.id)
    ),
    schedules: bodies('schedule'),
    actions: new Map(
      edits
        .filter((e) => e.thing === 'actions' && e.body !== null)
        .map((e) => [e.thingId, e.body as Actions])
    ),
    scene: bodies<NonNullable<CameraState['scene']>>('scene')[0] ?? null
  }
}

/** One thing that differs between two states, in words. */
export interface StateDifference {
  name: string
  change: 'added' | 'deleted' | 'changed'
  /** Settings that differ; null where one has none. */
  settings: { setting: string; before: string; after: string }[]
}

const settingNames: Record<string, string> = {
  name: 'name',
  kind: 'kind',
  enabled: 'in use',
  parked: 'parked',
  holdOffSeconds: 'hold-off',
  schedule: 'arming hours',
  armInput: 'arm input',
  classes: 'classes',
  confirmSeconds: 'confirm time',
  size: 'size frames',
  sensitivity: 'sensitivity',
  line: 'shape',
  zone: 'shape',
  direction: 'direction',
  sides: 'names of the sides',
  dwellSeconds: 'dwell',
  graceSeconds: 'grace',
  countFirstSeenInside: 'counts who is first seen inside',
  atLeast: 'how many together',
  cells: 'cells',
  threshold: 'share of the cells',
  onDelaySeconds: 'on-delay',
  offDelaySeconds: 'off-delay',
  delaySeconds: 'delay',
  debounceSeconds: 'debounce',
  causes: 'causes',
  severity: 'severity',
  input: 'contact',
  normally: 'contact at rest',
  faceMin: 'smallest face frame',
  mask: 'mask',
  list: 'list of faces',
  faces: 'known faces',
  position: 'place in the list',
  links: 'actions',
  alarmSeverity: 'severity of the alarm',
  priority: 'priority',
  for: 'whose alarm it is',
  acknowledge: 'acknowledging',
  groupSeconds: 'one alarm within',
  quietSeconds: 'quiet after actions',
  week: 'week',
  exceptions: 'exceptions'
}

/** JSON with the keys in order: equal exactly when the values are. */
export const canonical = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v
  ) ?? 'null'

const shown = (key: string, value: unknown, schedules: readonly Schedule[]): string => {
  if (value === undefined || value === null) return key === 'schedule' ? 'always' : 'not set'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (key === 'schedule') return schedules.find((s) => s.id === value)?.name ?? textOf(value)
  if (key === 'line' || key === 'zone') return `${(value as unknown[]).length} vertices`
  if (key === 'cells')
    return `${[...(value as string[]).join('')].filter((c) => c === '1').length} cells`
  if (key === 'position') return String((value as number) + 1)
  if (key.endsWith('Seconds')) return `${value as number} s`
  if (key === 'sides') return Object.values(value).join(' and ') || 'not set'
  if (key === 'size' || key === 'faceMin') return frames(value as Record<string, unknown>)
  if (key === 'links') return `${(value as unknown[]).length} linked`
  if (key === 'for')
    return (value as unknown[]).length ? `${(value as unknown[]).length} named` : 'everybody'
  if (Array.isArray(value) && value.every((v) => typeof v === 'string'))
    return value.join(', ') || 'any'
  return typeof value === 'object' ? 'set' : textOf(value)
}

const textOf = (value: unknown): string =>
  typeof value === 'string' ? value : JSON.stringify(value)

const frames = (size: Record<string, unknown>): string => {
  const percent = (f: unknown): string =>
    `${Math.round((f as { w: number }).w * 1000) / 10} × ${Math.round((f as { h: number }).h * 1000) / 10} %`
  if ('w' in size) return percent(size)
  const parts = [
    size.min && `larger than ${percent(size.min)}`,
    size.max && `at most ${percent(size.max)}`,
    size.minMetres !== undefined && `at least ${textOf(size.minMetres)} m`,
    size.maxMetres !== undefined && `at most ${textOf(size.maxMetres)} m`
  ]
  return parts.filter(Boolean).join(', ') || 'any'
}

function settingsOf(
  before: object,
  after: object,
  schedules: readonly Schedule[]
): StateDifference['settings'] {
  const [a, b] = [before as Record<string, unknown>, after as Record<string, unknown>]
  return [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((key) => key !== 'id' && canonical(a[key] ?? null) !== canonical(b[key] ?? null))
    .map((key) => {
      const [was, is] = [shown(key, a[key], schedules), shown(key, b[key], schedules)]
      return { setting: settingNames[key] ?? key, before: was, after: was === is ? 'changed' : is }
    })
}

/** What is different from one state to another: detections first, then schedules, then the scene. */
export function differencesBetween(before: CameraState, after: CameraState): StateDifference[] {
  const schedules = [...after.schedules, ...before.schedules]
  // A tamper detection has a severity of its own.
  const actionsOf = ({ severity, ...rest }: Actions): object => ({
    ...rest,
    alarmSeverity: severity
  })
  const flat = (state: CameraState): Map<string, object & { name: string }> =>
    new Map(
      state.detections.map(({ detection, position }) => [
        detection.id,
        { ...detection, position, ...actionsOf(state.actions.get(detection.id) ?? NO_ACTIONS) }
      ])
    )
  const named = (state: CameraState): Map<string, object & { name: string }> =>
    new Map(state.schedules.map((s) => [s.id, s]))
  const compare = (
    a: Map<string, object & { name: string }>,
    b: Map<string, object & { name: string }>
  ): StateDifference[] =>
    [...new Set([...a.keys(), ...b.keys()])].flatMap((id): StateDifference[] => {
      const [was, is] = [a.get(id), b.get(id)]
      if (!was) return [{ name: is!.name, change: 'added', settings: [] }]
      if (!is) return [{ name: was.name, change: 'deleted', settings: [] }]
      const settings = settingsOf(was, is, schedules)
      return settings.length ? [{ name: is.name, change: 'changed', settings }] : []
    })
  return [
    ...compare(flat(before), flat(after)),
    ...compare(named(before), named(after)),
    ...sceneDifference(before.scene, after.scene)
  ]
}

function sceneDifference(
  before: CameraState['scene'],
  after: CameraState['scene']
): StateDifference[] {
  const settings: StateDifference['settings'] = []
  const count = (areas: readonly unknown[] = []): string =>
    `${areas.length} ${areas.length === 1 ? 'area' : 'areas'}`
  if (canonical(before?.ignore ?? []) !== canonical(after?.ignore ?? []))
    settings.push({
      setting: 'ignore areas',
      before: count(before?.ignore),
      after: count(before?.ignore) === count(after?.ignore) ? 'changed' : count(after?.ignore)
    })
  const measured = (scene: CameraState['scene']): string =>
    scene?.marks
      ? `from ${scene.marks.from === 'people' ? `${scene.marks.people.length} people` : 'a rectangle'}`
      : 'not measured'
  if (canonical(before?.marks ?? null) !== canonical(after?.marks ?? null))
    settings.push({
      setting: 'measured',
      before: measured(before),
      after: measured(before) === measured(after) ? 'changed' : measured(after)
    })
  return settings.length ? [{ name: 'The scene', change: 'changed', settings }] : []
}
