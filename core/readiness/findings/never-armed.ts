import { said } from '../../messages/said.ts'
import { total } from '../../arming/hours.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

export const neverArmed = perDetection('never-armed', (d, camera, { schedules, hours }) => {
  if (d.schedule === undefined || total(hours.hours(d.schedule)) > 0) return []
  const name = schedules.find((s) => s.id === d.schedule)?.name ?? said('readiness.itsSchedule')
  return ofDetection(
    'blocking',
    'armed',
    camera,
    d,
    said('readiness.neverArmed', d.name, name),
    edit(camera, { ...d, schedule: undefined }, said('readiness.armAlways'))
  )
})
