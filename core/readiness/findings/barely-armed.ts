import { said } from '../../messages/said.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

/** Less than this a week is more likely a mistake than intended. From `docs/readiness.md`. */
const MINUTES = 15

export const barelyArmed = perDetection('barely-armed', (d, camera, { schedules, hours }) => {
  const { armed } = hours.coverage(d.schedule, undefined)
  if (armed === 0 || armed >= MINUTES) return []
  const name = schedules.find((s) => s.id === d.schedule)?.name ?? said('readiness.itsSchedule')
  return ofDetection(
    'warning',
    'armed',
    camera,
    d,
    said('readiness.barelyArmed', d.name, Math.max(1, Math.round(armed)), name),
    edit(camera, { ...d, parked: true }, said('readiness.parkIt'))
  )
})
