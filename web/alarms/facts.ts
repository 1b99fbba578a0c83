import { alarm as msg } from '../../core/messages/en/alarms.ts'
import { severities } from '../../core/messages/en/codes/names.ts'
import type { AlarmView } from '../../core/api.ts'
import type { Clock } from '../words/useClock.ts'

/** What an alarm is and whose, as short parts of one line. */
export const alarmFacts = (a: AlarmView, clock: Clock): string[] =>
  [
    a.cameraName,
    clock.dateAndSecond(a.firstAt),
    a.triggers > 1 && msg.last(a.triggers, clock.time(a.lastAt)),
    severityOf(a),
    a.forNames.length > 0 && msg.forPeople(a.forNames.join(', ')),
    a.assignee && msg.assignedTo(a.assignee),
    a.run !== null && msg.fromAClip
  ].filter((fact) => fact !== false && fact !== null)

export const severityOf = ({ severity, priority }: AlarmView): string =>
  msg.severity(severities[severity], priority === 'normal' ? null : msg.priorities[priority])
