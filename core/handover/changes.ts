import { canonical, differencesBetween, type CameraState } from '../history/states.ts'
import type { Endpoint } from '../formats/actions.ts'
import { changeWords as msg } from '../messages/en/handover.ts'
import { surroundings } from '../messages/en/site.ts'
import { list } from '../messages/format.ts'
import { wordsOf } from '../messages/words.ts'
import type { SiteArchive } from '../sites/archive.ts'
import { endpointSettings } from './endpointSettings.ts'
import type { Change, CheckRecord, DeviceRecord, RecordedState } from './record.ts'

/** What has changed from one recorded state of a site to another, setting by setting. */

type Settings = Change['settings']
type Area = Change['area']

/** A thing by its settings in words; what is equal in words but not in data is told apart by `data`. */
interface Thing {
  name: string | null
  where: string | null
  settings: readonly { setting: string; value: string; data?: unknown }[]
}

function settingsBetween(before: Thing, after: Thing): Settings {
  const names = [...before.settings, ...after.settings].map(({ setting }) => setting)
  return [...new Set(names)].flatMap((setting) => {
    const of = ({ settings }: Thing) => settings.find((s) => s.setting === setting)
    const [was, is] = [of(before), of(after)]
    const [a, b] = [was?.value ?? msg.none, is?.value ?? msg.none]
    if (a === b && canonical(was?.data ?? null) === canonical(is?.data ?? null)) return []
    return [{ setting, before: a, after: a === b ? msg.otherwise : b }]
  })
}

function between(
  area: Area,
  before: ReadonlyMap<string, Thing>,
  after: ReadonlyMap<string, Thing>
): Change[] {
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((key): Change[] => {
    const [was, is] = [before.get(key), after.get(key)]
    const { name, where } = (is ?? was)!
    const of = { area, name, where }
    if (!was) return [{ ...of, change: 'added', settings: [] }]
    if (!is) return [{ ...of, change: 'deleted', settings: [] }]
    const settings = settingsBetween(was, is)
    return settings.length ? [{ ...of, change: 'changed', settings }] : []
  })
}

const mapOf = <T>(
  things: readonly T[],
  key: (thing: T) => string,
  shown: (thing: T) => Thing
): Map<string, Thing> => new Map(things.map((thing) => [key(thing), shown(thing)]))

function siteThing({ site, inputs, voices, mail, usual }: SiteArchive): Thing {
  const { position } = site
  return {
    name: site.name,
    where: null,
    settings: [
      { setting: msg.name, value: site.name },
      { setting: msg.timeZone, value: site.timeZone },
      {
        setting: msg.position,
        value: position ? `${position.latitude}, ${position.longitude}` : msg.none
      },
      { setting: msg.surroundings, value: surroundings[site.surroundings] },
      { setting: msg.contacts, value: list(inputs.map((i) => i.name)) || msg.none, data: inputs },
      { setting: msg.voices, value: list(voices.map((v) => v.name)) || msg.none, data: voices },
      { setting: msg.mailServer, value: mail ? `${mail.host}:${mail.port}` : msg.none, data: mail },
      { setting: msg.defaultActions, value: usual ? msg.otherwise : msg.none, data: usual }
    ]
  }
}

/** Cameras' own settings; their detections, scenes and schedules are compared elsewhere. */
const camerasOf = ({ cameras }: SiteArchive): Map<string, Thing> =>
  new Map(
    cameras.map((camera, order) => [
      camera.id,
      {
        name: null,
        where: camera.name,
        settings: [
          { setting: msg.name, value: camera.name },
          {
            setting: msg.surroundings,
            value: camera.surroundings ? surroundings[camera.surroundings] : msg.none
          },
          { setting: msg.order, value: String(order + 1) }
        ]
      }
    ])
  )

const stateOf = (a: SiteArchive, camera: string): CameraState => {
  const found = a.cameras.find(({ id }) => id === camera)
  return {
    detections: (found?.detections ?? []).map(({ detection }, position) => ({
      detection,
      position
    })),
    // Those of the site are compared once.
    schedules: [],
    actions: new Map((found?.detections ?? []).map((d) => [d.detection.id, d.actions])),
    scene: found ? { ignore: found.ignore, marks: found.marks } : null
  }
}

const inWords = (
  area: Area,
  where: string | null,
  differences: ReturnType<typeof differencesBetween>
): Change[] =>
  differences.map(({ name, change, settings }) => ({
    area,
    where,
    name,
    change,
    settings: settings.map(({ setting, before, after }) => ({
      setting: wordsOf(setting),
      before: wordsOf(before),
      after: wordsOf(after)
    }))
  }))

function planChanges(a: SiteArchive, b: SiteArchive): Change[] {
  const both = b.cameras.filter(({ id }) => a.cameras.some((c) => c.id === id))
  const schedulesAlone = ({ schedules }: SiteArchive): CameraState => ({
    detections: [],
    schedules,
    actions: new Map(),
    scene: null
  })
  // A schedule is named where a detection of a camera uses another one.
  const known = [...b.schedules, ...a.schedules]
  return [
    ...between('site', new Map([['', siteThing(a)]]), new Map([['', siteThing(b)]])),
    ...between('camera', camerasOf(a), camerasOf(b)),
    ...both.flatMap((camera) =>
      inWords(
        'camera',
        camera.name,
        differencesBetween(stateOf(a, camera.id), stateOf(b, camera.id), known)
      )
    ),
    ...inWords('schedule', null, differencesBetween(schedulesAlone(a), schedulesAlone(b))),
    ...between('action', endpointsOf(a), endpointsOf(b)),
    ...between('people', peopleOf(a), peopleOf(b))
  ]
}

const endpointsOf = (a: SiteArchive): Map<string, Thing> =>
  mapOf(
    a.endpoints,
    (e: Endpoint) => e.id,
    (e) => ({
      name: e.name,
      where: null,
      settings: [{ setting: msg.name, value: e.name }, ...endpointSettings(e, a)]
    })
  )

function peopleOf({ people }: SiteArchive): Map<string, Thing> {
  const nameOf = (id: string): string => people.people.find((p) => p.id === id)?.name ?? id
  return new Map([
    ...mapOf(
      people.people,
      (p) => `person ${p.id}`,
      (p) => ({
        name: msg.person(p.name),
        where: null,
        settings: [
          { setting: msg.name, value: p.name },
          { setting: msg.eMail, value: p.email ?? msg.none }
        ]
      })
    ),
    ...mapOf(
      people.groups,
      (g) => `group ${g.id}`,
      (g) => ({
        name: msg.group(g.name),
        where: null,
        settings: [
          { setting: msg.name, value: g.name },
          { setting: msg.members, value: list(g.members.map(nameOf)) || msg.none, data: g.members }
        ]
      })
    )
  ])
}

/** Simulators get other ports at each start; they stay the same ones. */
const settledAddress = (address: string): string =>
  address.replace(/^(https?:\/\/(?:127\.[\d.]+|localhost|\[::1\])):\d+/, '$1')

const deviceThing =
  ({ cameras }: SiteArchive, others: readonly DeviceRecord[]) =>
  (d: DeviceRecord): Thing => ({
    name: null,
    where: d.name,
    settings: [
      { setting: msg.name, value: d.name },
      {
        setting: msg.model,
        value: [d.manufacturer, d.model].filter(Boolean).join(' ') || msg.none
      },
      { setting: msg.firmware, value: d.firmware ?? msg.none },
      { setting: msg.serial, value: d.serial ?? msg.none },
      { setting: msg.address, value: settledAddress(d.address) },
      { setting: msg.account, value: d.account ?? msg.none },
      // Known only where the device was asked both times.
      ...(d.accounts && others.find(({ id }) => id === d.id)?.accounts
        ? [{ setting: msg.accounts, value: list(d.accounts) || msg.none }]
        : []),
      { setting: msg.certificate, value: d.certificate ?? msg.none },
      ...d.channels.flatMap((c) => [
        {
          setting: `${c.name}: ${msg.shows}`,
          value: cameras.find(({ id }) => id === c.camera)?.name ?? msg.none
        },
        { setting: `${c.name}: ${msg.sentHere}`, value: c.used ? msg.yes : msg.no }
      ])
    ]
  })

/**
 * Rules by the name of their detection, as each device held them. Those that the plan explains are left out: what it
 * was changed to is told once, and a rule that went with its detection went rightly.
 */
function rulesOf({ site, devices }: RecordedState, now: RecordedState): Map<string, Thing> {
  const isExplained = (device: string, token: string, rule: string): boolean => {
    const channel = now.devices
      .find(({ id }) => id === device)
      ?.channels.find((c) => c.token === token)
    if (!channel) return true
    const holding = channel.holdings.find(({ detection }) => detection === rule)
    if (holding) return holding.state === 'same' || holding.state === 'off'
    return !channel.rules.some(({ name }) => name === rule)
  }
  const nameOf = (camera: string | null, id: string): string =>
    site.cameras
      .find((c) => c.id === camera)
      ?.detections.find(({ detection }) => detection.id === id)?.detection.name ?? id
  return new Map(
    devices.flatMap((d) =>
      d.channels.flatMap((c) =>
        c.rules
          .filter(({ name }) => !isExplained(d.id, c.token, name))
          .map((rule): [string, Thing] => [
            `${d.id} ${c.token} ${rule.name}`,
            {
              name: msg.onDevice(nameOf(c.camera, rule.name)),
              where: d.name,
              settings: [
                ...Object.entries(rule.simple).map(([setting, value]) => ({ setting, value })),
                { setting: msg.shape, value: String(rule.points.length), data: rule.points }
              ]
            }
          ])
      )
    )
  )
}

const outcome = ({ result }: CheckRecord): string =>
  result === null ? msg.notRun : result.passed ? msg.passed : msg.failed

const checksOf = ({ site, checks }: RecordedState): Map<string, Thing> =>
  mapOf(
    checks,
    (c) => `${c.camera} ${c.id}`,
    (c) => ({
      name: c.name,
      where: site.cameras.find(({ id }) => id === c.camera)?.name ?? c.camera,
      settings: [{ setting: msg.result, value: outcome(c) }]
    })
  )

/** Tests of actions that are the same on both sides: one that was changed was not tested since, of course. */
function testsOf({ site, endpoints }: RecordedState, other: RecordedState): Map<string, Thing> {
  const settingOf = (of: SiteArchive, id: string): string =>
    canonical(of.endpoints.find((e) => e.id === id) ?? null)
  return mapOf(
    endpoints.filter(
      ({ id }) =>
        other.endpoints.some((e) => e.id === id) &&
        settingOf(site, id) === settingOf(other.site, id)
    ),
    ({ id }) => id,
    ({ id, testedAt, error }) => ({
      name: site.endpoints.find((e) => e.id === id)?.name ?? id,
      where: null,
      settings: [
        {
          setting: msg.test,
          value: testedAt === null ? msg.notTested : error ? msg.testFailed : msg.testPassed
        }
      ]
    })
  )
}

/**
 * What is not as it was recorded: plan, devices with what they hold, people, and results. A device that could not be read
 * is compared by what it said last.
 */
export function changesSince(before: RecordedState, now: RecordedState): Change[] {
  return [
    ...planChanges(before.site, now.site),
    ...between(
      'device',
      mapOf(before.devices, (d) => d.id, deviceThing(before.site, now.devices)),
      mapOf(now.devices, (d) => d.id, deviceThing(now.site, before.devices))
    ),
    ...between('device', rulesOf(before, now), rulesOf(now, now)),
    ...between('check', checksOf(before), checksOf(now)),
    ...between('action', testsOf(before, now), testsOf(now, before))
  ]
}
