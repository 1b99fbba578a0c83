import { said, type Said } from '../messages/said.ts'
import { PRIORITIES, type Actions, type Priority } from '../formats/actions.ts'

export type AlarmState = 'waiting' | 'acknowledged' | 'closed'

/** Whether a trigger joins an alarm that is there already, rather than being one of its own. */
export const joins = (
  alarm: { state: AlarmState; lastAt: number },
  instant: number,
  { groupSeconds }: Actions
): boolean =>
  alarm.state === 'waiting' &&
  groupSeconds > 0 &&
  Math.abs(instant - alarm.lastAt) <= groupSeconds * 1000

/** What still has to be given before an alarm can be acknowledged; null: nothing. */
export function acknowledgeLacks(
  { comment, confirm }: Actions['acknowledge'],
  given: { comment: string; confirmed: boolean }
): Said | null {
  if (comment && !given.comment.trim()) return said('alarms.needsComment')
  if (confirm && !given.confirmed) return said('alarms.needsConfirmation')
  return null
}

/** Alarms in the order in which they wait: the highest priority first, of the same the newest. */
export const byPriority = (
  a: { priority: Priority; lastAt: number },
  b: { priority: Priority; lastAt: number }
): number => PRIORITIES.indexOf(b.priority) - PRIORITIES.indexOf(a.priority) || b.lastAt - a.lastAt
