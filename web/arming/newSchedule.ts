import type { Schedule } from '../../core/formats/plan.ts'
import { scheduleList as msg } from '../../core/messages/en/arming.ts'
import { newId } from '../sync/newId.ts'

/** A schedule of a week under the first name that is free: `Schedule 1`, `Schedule 2` … */
export function newSchedule(schedules: readonly Schedule[], week: Schedule['week']): Schedule {
  const taken = new Set(schedules.map(({ name }) => name))
  let n = 1
  while (taken.has(msg.schedule(n))) n++
  return { id: newId('hours'), name: msg.schedule(n), week, exceptions: [] }
}
