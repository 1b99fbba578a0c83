import type {
  KeptActions,
  KeptDetection,
  KeptEndpoint,
  KeptSchedule,
  SiteActionsView
} from '../../core/api.ts'
import type { Actions, Endpoint, People } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import { canonical } from '../../core/history/states.ts'
import { request } from '../api/client.ts'
import { noteHeaders } from './note.ts'
import type { Change, StepMemory } from './steps.ts'
import { KeptThings, idOf, unlessSame, type Held, type KeepingState } from './things.ts'

/** A detection where the site as a whole is edited. */
export interface SiteDetection {
  camera: string
  detection: Detection
  position: number
}

export type SiteValue = SiteDetection | Schedule | Endpoint | Actions | People

export interface SiteState extends KeepingState<SiteValue> {
  detections: SiteDetection[]
  schedules: Schedule[]
  endpoints: Endpoint[]
  /** By camera and detection, `camera/detection`. */
  actions: ReadonlyMap<string, Actions>
  people: People
  /** Null: nothing has been said. */
  usual: Actions | null
}

export const keyOf = ({ camera, detection }: { camera: string; detection: Detection }): string =>
  `${camera}/${detection.id}`

const orNothing = (actions: Actions): Actions | null =>
  canonical(actions) === canonical(NO_ACTIONS) ? null : actions

function contentsOf(view: SiteActionsView): Held<SiteValue>[] {
  return [
    ...view.schedules.map(({ schedule, version }) => ({
      key: `schedule:${schedule.id}`,
      value: schedule,
      version
    })),
    ...view.endpoints.map(({ endpoint, version }) => ({
      key: `endpoint:${endpoint.id}`,
      value: endpoint,
      version
    })),
    ...view.detections.map(({ camera, detection, position, version }) => ({
      key: `detection:${camera}/${detection.id}`,
      value: { camera, detection, position },
      version
    })),
    ...view.detections.map((d) => ({
      key: `actions:${keyOf(d)}`,
      value: orNothing(d.actions.actions),
      version: d.actions.version
    })),
    { key: 'people:', value: view.people.people, version: view.people.version },
    { key: 'usual:', value: view.usual.actions, version: view.usual.version }
  ]
}

/** What is edited of a site as a whole: schedules, what can be set off, what detections set off, people. */
export class SiteDocument extends KeptThings<SiteValue, SiteState> {
  // What others name comes first; a schedule that nobody uses any more goes last, by the retry.
  protected readonly savedFirst = [
    'schedule',
    'people',
    'endpoint',
    'detection',
    'actions',
    'usual'
  ]
  private readonly site: string

  constructor(view: SiteActionsView, memory: StepMemory<SiteValue> | null = null) {
    super(memory)
    this.site = view.site.id
    this.begin(contentsOf(view))
  }

  adopt(view: SiteActionsView): void {
    this.adoptAll(contentsOf(view))
  }

  actionsOf(key: string): Actions {
    return (this.values.get(`actions:${key}`) as Actions | undefined) ?? NO_ACTIONS
  }

  /** Several things as one step; a value of null deletes. */
  edit(label: string, ...things: [key: string, value: SiteValue | null][]): void {
    this.apply({
      label,
      changes: things.map(([key, value]): Change<SiteValue> => this.change(key, value))
    })
  }

  editSchedule(schedule: Schedule, label: string): void {
    this.edit(label, [`schedule:${schedule.id}`, schedule])
  }

  /** Shows a schedule as it would be while it is dragged. */
  showSchedule(schedule: Schedule): void {
    this.showValue(`schedule:${schedule.id}`, schedule)
  }

  editEndpoint(endpoint: Endpoint, label: string): void {
    this.edit(label, [`endpoint:${endpoint.id}`, endpoint])
  }

  /** Takes an endpoint out, with all its links. */
  removeEndpoint({ id, name }: Endpoint): void {
    this.apply({
      label: `Delete ${name}`,
      changes: [
        ...this.state.detections.flatMap((d) => {
          const actions = this.actionsOf(keyOf(d))
          return actions.links.includes(id)
            ? [
                this.change(
                  `actions:${keyOf(d)}`,
                  orNothing({ ...actions, links: actions.links.filter((link) => link !== id) })
                )
              ]
            : []
        }),
        this.change(`endpoint:${id}`, null)
      ]
    })
  }

  setActions(keys: readonly string[], change: (actions: Actions) => Actions, label: string): void {
    this.apply({
      label,
      changes: keys.map((key) =>
        this.change(`actions:${key}`, orNothing(change(this.actionsOf(key))))
      )
    })
  }

  /** Links or unlinks crossings of detections and endpoints, as one step. */
  link(
    crossings: readonly { key: string; endpoint: string }[],
    linked: boolean,
    label: string
  ): void {
    const byKey = new Map<string, Set<string>>()
    for (const { key, endpoint } of crossings)
      byKey.set(key, (byKey.get(key) ?? new Set()).add(endpoint))
    this.apply({
      label,
      changes: [...byKey].map(([key, endpoints]) => {
        const actions = this.actionsOf(key)
        const others = actions.links.filter((link) => !endpoints.has(link))
        return this.change(
          `actions:${key}`,
          orNothing({
            ...actions,
            links: linked
              ? [...actions.links, ...[...endpoints].filter((e) => !actions.links.includes(e))]
              : others
          })
        )
      })
    })
  }

  protected goes(key: string): boolean {
    return /^(schedule|endpoint|detection):/.test(key)
  }

  protected nameOf(value: SiteValue | null): string | null {
    if (value === null) return null
    return 'detection' in value
      ? value.detection.name
      : 'name' in value
        ? value.name
        : 'links' in value
          ? 'What it sets off'
          : 'The people of the site'
  }

  protected theirs(key: string, current: object): SiteValue | null {
    if ('deleted' in current) return null
    if (key.startsWith('schedule:')) return (current as KeptSchedule).schedule
    if (key.startsWith('endpoint:')) return (current as KeptEndpoint).endpoint
    if (key.startsWith('actions:')) return (current as KeptActions).actions
    if (key === 'people:') return (current as SiteActionsView['people']).people
    if (key === 'usual:') return (current as SiteActionsView['usual']).actions
    return {
      camera: idOf(key).split('/')[0],
      detection: (current as KeptDetection).detection,
      position: (current as KeptDetection).position
    }
  }

  protected async send(
    key: string,
    value: SiteValue | null,
    version: number,
    label: string
  ): Promise<number> {
    const id = idOf(key)
    const put = async (path: string, body: object): Promise<number> =>
      (
        await request<{ version: number }>(
          'PUT',
          path,
          { ...body, version },
          { keepalive: true, headers: noteHeaders(label) }
        )
      ).version
    const remove = async (path: string): Promise<number> =>
      version > 0
        ? (
            await request<{ version: number }>('DELETE', `${path}?version=${version}`, undefined, {
              keepalive: true,
              headers: noteHeaders(label)
            })
          ).version
        : version
    const [camera, detection] = id.split('/').map(encodeURIComponent)
    switch (key.slice(0, key.indexOf(':'))) {
      case 'schedule':
        return value
          ? put(`/api/sites/${encodeURIComponent(this.site)}/schedules/${encodeURIComponent(id)}`, {
              schedule: value
            })
          : remove(`/api/schedules/${encodeURIComponent(id)}`)
      case 'endpoint':
        return value
          ? put(`/api/endpoints/${encodeURIComponent(id)}`, { endpoint: value })
          : remove(`/api/endpoints/${encodeURIComponent(id)}`)
      case 'detection': {
        const { detection: body, position } = value as SiteDetection
        return put(`/api/cameras/${camera}/detections/${detection}`, { detection: body, position })
      }
      case 'actions':
        return put(`/api/cameras/${camera}/detections/${detection}/actions`, {
          actions: value ?? NO_ACTIONS
        })
      case 'people':
        return put('/api/settings/people', { people: value })
      default:
        return put('/api/settings/usual', { actions: value ?? NO_ACTIONS })
    }
  }

  protected makeState(keeping: KeepingState<SiteValue>): SiteState {
    const of = <T extends SiteValue>(kind: string): T[] =>
      [...this.values].flatMap(([key, value]) => (key.startsWith(`${kind}:`) ? [value as T] : []))
    const before = this.state as SiteState | undefined
    const actions = new Map(
      [...this.values].flatMap(([key, value]) =>
        key.startsWith('actions:') ? [[idOf(key), value as Actions] as const] : []
      )
    )
    return {
      ...keeping,
      detections: unlessSame(before?.detections, of<SiteDetection>('detection')),
      schedules: unlessSame(
        before?.schedules,
        of<Schedule>('schedule').sort(
          (a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id)
        )
      ),
      endpoints: unlessSame(before?.endpoints, of<Endpoint>('endpoint')),
      actions:
        before?.actions.size === actions.size &&
        [...actions].every(([id, a]) => before.actions.get(id) === a)
          ? before.actions
          : actions,
      people: (this.values.get('people:') as People | undefined) ?? { people: [], groups: [] },
      usual: (this.values.get('usual:') as Actions | undefined) ?? null
    }
  }
}
