import type { Role } from '../../core/accounts/accounts.ts'
import type { Findable } from '../../core/find/rank.ts'
import { kindNames } from '../../core/kinds/names.ts'
import { findDialog as msg } from '../../core/messages/en/find.ts'
import { useAlarms } from '../alarms/useAlarms.ts'
import { useSite } from '../api/queries.ts'
import { useDevices } from '../devices/useDevices.ts'
import { placesOf } from '../shell/places.ts'
import { useSiteActions } from '../sync/useSiteDocument.ts'
import { useClock } from '../words/useClock.ts'

/** Something that can be opened from the top bar. */
export interface Target extends Findable {
  key: string
  kind: keyof typeof msg.kinds
  to: string
}

const COMMANDS: readonly [keyof typeof msg.commands, string][] = [
  ['findDevices', '/devices?add=1'],
  ['runChecks', '/prove'],
  ['walk', '/prove/walk'],
  ['isItArmed', '/arming'],
  ['makeRecord', '/handover']
]

/** All that somebody of a role can be led to. What is not known yet follows. */
export function useFindables(role: Role): Target[] {
  const installs = role === 'installer'
  const clock = useClock()
  const site = useSite()
  const alarms = useAlarms()
  const devices = useDevices(installs)
  const actions = useSiteActions(installs)
  const target = (
    kind: Target['kind'],
    id: string,
    name: string,
    to: string,
    more = ''
  ): Target => ({ key: `${kind} ${id}`, kind, name, to, more: `${msg.kinds[kind]} ${more}` })
  const found: Target[] = placesOf(role).map(({ name, path }) => target('place', path, name, path))
  found.push(target('command', 'alarms', msg.commands.allAlarms, '/watch/search'))
  if (installs) {
    found.push(...COMMANDS.map(([id, to]) => target('command', id, msg.commands[id], to)))
    for (const { id, name } of site.data?.cameras ?? [])
      found.push(target('camera', id, name, `/bench/${id}`))
  }
  if (actions.data) {
    const { detections, endpoints, schedules, people } = actions.data
    for (const { camera, cameraName, detection: d } of detections)
      found.push(
        target(
          'detection',
          `${camera} ${d.id}`,
          d.name,
          `/bench/${camera}?detection=${d.id}`,
          `${cameraName} ${kindNames[d.kind]}`
        )
      )
    for (const { endpoint } of endpoints)
      found.push(target('action', endpoint.id, endpoint.name, `/actions?endpoint=${endpoint.id}`))
    for (const { schedule } of schedules)
      found.push(target('schedule', schedule.id, schedule.name, `/arming/${schedule.id}`))
    for (const person of people.people.people)
      found.push(target('person', person.id, person.name, '/actions/mail', person.email))
  }
  for (const { id, name } of devices.data ?? [])
    found.push(target('device', id, name, `/devices?device=${id}`))
  for (const { id, name, cameraName, lastAt } of alarms.data?.alarms ?? [])
    found.push(
      target(
        'alarm',
        String(id),
        msg.alarmAt(name, clock.dateAndTime(lastAt)),
        `/watch?alarm=${id}`,
        cameraName
      )
    )
  return found
}
