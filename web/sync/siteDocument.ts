import { type Said, said } from '../../core/messages/said.ts'
import type { SiteActionsView } from '../../core/api.ts'
import type { Actions, Endpoint, People } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { Change, StepMemory } from './steps.ts'
import { SyncedDocument, idOf, unlessSame, type SyncState, type Versioned } from './document.ts'
import {
  actions,
  detections,
  endpoints,
  orNothing,
  people,
  placedId,
  schedules,
  usual,
  type Placed
} from './kinds.ts'

export type SiteValue = Placed | Schedule | Endpoint | Actions | People

export interface SiteState extends SyncState<SiteValue> {
  detections: Placed[]
  schedules: Schedule[]
  endpoints: Endpoint[]
  /** By camera and detection, `camera/detection`. */
  actions: ReadonlyMap<string, Actions>
  people: People
  /** Null: not set. */
  usual: Actions | null
}

export const keyOf = ({ camera, detection }: { camera: string; detection: Detection }): string =>
  placedId(camera, detection.id)

function contentsOf(view: SiteActionsView): Versioned<SiteValue>[] {
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

/** What is edited of a site as a whole: schedules, actions, links of detections, people. */
export class SiteDocument extends SyncedDocument<SiteValue, SiteState> {
  constructor(view: SiteActionsView, memory: StepMemory<SiteValue> | null = null) {
    super(
      {
        // What others name comes first; a schedule that nobody uses any more goes last, by the retry.
        schedule: schedules(true),
        people,
        endpoint: endpoints,
        detection: detections,
        actions,
        usual
      },
      memory
    )
    this.begin(contentsOf(view))
  }

  adopt(view: SiteActionsView): void {
    this.adoptAll(contentsOf(view))
  }

  actionsOf(key: string): Actions {
    return (this.values.get(`actions:${key}`) as Actions | undefined) ?? NO_ACTIONS
  }

  /** Several things as one step; a value of null deletes. */
  edit(label: Said, ...things: [key: string, value: SiteValue | null][]): void {
    this.apply({
      label,
      changes: things.map(([key, value]): Change<SiteValue> => this.change(key, value))
    })
  }

  editSchedule(schedule: Schedule, label: Said): void {
    this.edit(label, [`schedule:${schedule.id}`, schedule])
  }

  /** Shows a schedule as it would be while it is dragged. */
  showSchedule(schedule: Schedule): void {
    this.showValue(`schedule:${schedule.id}`, schedule)
  }

  editEndpoint(endpoint: Endpoint, label: Said): void {
    this.edit(label, [`endpoint:${endpoint.id}`, endpoint])
  }

  /** Takes an endpoint out, with all its links. */
  removeEndpoint({ id, name }: Endpoint): void {
    this.apply({
      label: said('edits.delete', name),
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

  setActions(keys: readonly string[], change: (actions: Actions) => Actions, label: Said): void {
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
    label: Said
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

  protected makeState(sync: SyncState<SiteValue>): SiteState {
    const of = <T extends SiteValue>(kind: string): T[] =>
      [...this.values].flatMap(([key, value]) => (key.startsWith(`${kind}:`) ? [value as T] : []))
    const before = this.state as SiteState | undefined
    const linked = new Map(
      [...this.values].flatMap(([key, value]) =>
        key.startsWith('actions:') ? [[idOf(key), value as Actions] as const] : []
      )
    )
    return {
      ...sync,
      detections: unlessSame(before?.detections, of<Placed>('detection')),
      schedules: unlessSame(
        before?.schedules,
        of<Schedule>('schedule').sort(
          (a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id)
        )
      ),
      endpoints: unlessSame(before?.endpoints, of<Endpoint>('endpoint')),
      actions:
        before?.actions.size === linked.size &&
        [...linked].every(([id, a]) => before.actions.get(id) === a)
          ? before.actions
          : linked,
      people: (this.values.get('people:') as People | undefined) ?? { people: [], groups: [] },
      usual: (this.values.get('usual:') as Actions | undefined) ?? null
    }
  }
}
