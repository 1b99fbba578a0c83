import { said, type Said, type SettingName } from '../messages/said.ts'
import type { Actions } from '../formats/actions.ts'
import type { Direction } from '../detections/types.ts'
import type { DetectionNote, Severity } from '../kinds/parts.ts'
import type { TamperCause } from '../kinds/tamper/schema.ts'
import type { TargetClass } from '../targets/classes.ts'
import { NO_ACTIONS } from '../formats/noActions.ts'
import type { Detection, Schedule, TargetGated } from '../formats/plan.ts'
import { sizeLimits } from '../kinds/sizeLimits.ts'
import type { Point } from '../geometry/shapes.ts'
import type { SceneMarks } from '../scene/marks.ts'

export type EditThing =
  'detection' | 'actions' | 'schedule' | 'scene' | 'endpoint' | 'setting' | 'camera'

/** One edit: how a thing was after it. */
export interface EditEntry {
  id: number
  /** Null: a schedule, which belongs to the site. */
  camera: string | null
  thing: EditThing
  thingId: string
  /** Null: deleted. */
  body: unknown
  label: Said | string
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

/** One thing that differs between two states. */
export interface StateDifference {
  /** Null: the scene, which has none. */
  name: string | null
  change: 'added' | 'deleted' | 'changed'
  /** Settings that differ; null where one has none. */
  settings: { setting: Said; before: Said; after: Said }[]
}

/** The settings of detections, their alarms and schedules, by their names in the data. */
const settingNames: Readonly<Record<string, SettingName>> = {
  name: 'name',
  kind: 'kind',
  enabled: 'enabled',
  parked: 'parked',
  note: 'note',
  holdOffSeconds: 'holdOff',
  schedule: 'arming',
  armInput: 'armInput',
  classes: 'classes',
  confirmSeconds: 'confirm',
  size: 'size',
  sensitivity: 'sensitivity',
  line: 'shape',
  zone: 'shape',
  direction: 'direction',
  sides: 'sides',
  dwellSeconds: 'dwell',
  graceSeconds: 'grace',
  countFirstSeenInside: 'firstSeenInside',
  atLeast: 'together',
  cells: 'cells',
  threshold: 'threshold',
  onDelaySeconds: 'onDelay',
  offDelaySeconds: 'offDelay',
  delaySeconds: 'delay',
  debounceSeconds: 'debounce',
  causes: 'causes',
  severity: 'severity',
  input: 'contact',
  normally: 'normally',
  faceMin: 'faceSize',
  mask: 'mask',
  list: 'faceList',
  faces: 'knownFaces',
  position: 'position',
  links: 'links',
  alarmSeverity: 'alarmSeverity',
  priority: 'priority',
  for: 'assigned',
  acknowledge: 'acknowledge',
  groupSeconds: 'group',
  quietSeconds: 'quiet',
  accepted: 'accepted',
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

const text = (value: unknown): Said =>
  said('values.text', typeof value === 'string' ? value : JSON.stringify(value))

const MASKS = { any: 'any', with: 'withMask', without: 'withoutMask' } as const
const FACES = { any: 'anyFace', listed: 'listedFaces', notListed: 'unlistedFaces' } as const

function shown(key: string, value: unknown, schedules: readonly Schedule[]): Said {
  if (value === undefined || value === null)
    return key === 'schedule' ? said('values.always') : said('values.notSet')
  if (typeof value === 'boolean') return value ? said('values.yes') : said('values.no')
  if (key === 'note') return text((value as DetectionNote).text)
  if (key === 'schedule') return text(schedules.find((s) => s.id === value)?.name ?? value)
  if (key === 'line' || key === 'zone') return said('values.vertices', (value as unknown[]).length)
  if (key === 'cells')
    return said('values.cells', [...(value as string[]).join('')].filter((c) => c === '1').length)
  if (key === 'position') return said('values.number', (value as number) + 1)
  if (key.endsWith('Seconds')) return said('values.seconds', value as number)
  if (key === 'sides') {
    const names = Object.values(value) as string[]
    return names.length ? said('values.list', names) : said('values.notSet')
  }
  if (key === 'size' || key === 'faceMin') return sizeOf(value)
  if (key === 'threshold') return said('values.percent', (value as number) / 100)
  if (key === 'direction') return said(`values.${value as Direction | 'both'}`)
  if (key === 'mask') return said(`values.${MASKS[value as keyof typeof MASKS]}`)
  if (key === 'list') return said(`values.${FACES[value as keyof typeof FACES]}`)
  if (key === 'classes' || key === 'causes') {
    const names = (value as TargetClass[]).map((name) =>
      key === 'classes' ? said(`classes.${name}`) : said(`causes.${name as unknown as TamperCause}`)
    )
    return names.length ? said('values.list', names) : said('values.any')
  }
  if (key === 'severity' || key === 'alarmSeverity') return said(`severities.${value as Severity}`)
  if (key === 'links') return said('values.linked', (value as unknown[]).length)
  if (key === 'for') {
    const names = value as unknown[]
    return names.length ? said('values.assigned', names.length) : said('values.everyone')
  }
  if (Array.isArray(value) && value.every((v) => typeof v === 'string'))
    return value.length ? said('values.list', value) : said('values.any')
  return typeof value === 'object' ? said('values.set') : text(value)
}

type Size = NonNullable<TargetGated['size']>

function sizeOf(size: { w: number; h: number } | Size): Said {
  if ('w' in size) return said('values.frame', size.w, size.h)
  const limits = sizeLimits(size)
  return limits.length ? said('values.all', limits) : said('values.any')
}

const isSame = (a: Said, b: Said): boolean => canonical(a) === canonical(b)

/** What of a detection stands elsewhere than among its settings. */
const NOT_SETTINGS = ['id', 'name', 'kind', 'note', 'line', 'zone', 'cells', 'enabled', 'parked']

/** All settings of a detection as they are, but for its name, its note and its shape. @param inputs contacts of the site */
export const settingsShown = (
  detection: Detection,
  schedules: readonly Schedule[],
  inputs: readonly { id: string; name: string }[]
): { setting: Said; value: Said }[] => {
  const contact = (id: string): Said => text(inputs.find((i) => i.id === id)?.name ?? id)
  return Object.entries({ schedule: undefined, ...detection })
    .filter(([key]) => !NOT_SETTINGS.includes(key))
    .map(([key, value]) => ({
      setting: settingOf(key),
      value:
        key === 'input'
          ? contact(value as string)
          : key === 'armInput' && value
            ? contact((value as unknown as { input: string }).input)
            : shown(key, value, schedules)
    }))
}

const settingOf = (key: string): Said => {
  const name = settingNames[key]
  return name ? said(`settings.${name}`) : said('settings.own', key)
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
      return {
        setting: settingOf(key),
        before: was,
        after: isSame(was, is) ? said('values.changed') : is
      }
    })
}

/**
 * What is different from one state to another: detections first, then schedules, then the scene.
 *
 * @param schedules by which arming schedules are named; left out: those of the states
 */
export function differencesBetween(
  before: CameraState,
  after: CameraState,
  schedules: readonly Schedule[] = [...after.schedules, ...before.schedules]
): StateDifference[] {
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
  const note = (setting: SettingName, was: Said, is: Said): void =>
    void settings.push({
      setting: said(`settings.${setting}`),
      before: was,
      after: isSame(was, is) ? said('values.changed') : is
    })
  const count = (areas: readonly unknown[] = []): Said => said('values.areas', areas.length)
  if (canonical(before?.ignore ?? []) !== canonical(after?.ignore ?? []))
    note('ignoreAreas', count(before?.ignore), count(after?.ignore))
  const measured = (scene: CameraState['scene']): Said =>
    !scene?.marks
      ? said('values.notCalibrated')
      : scene.marks.from === 'people'
        ? said('values.fromPeople', scene.marks.people.length)
        : said('values.fromRectangle')
  if (canonical(before?.marks ?? null) !== canonical(after?.marks ?? null))
    note('calibration', measured(before), measured(after))
  return settings.length ? [{ name: null, change: 'changed', settings }] : []
}
