import { total } from '../../arming/hours.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

export const neverArmed = perDetection('never-armed', (d, camera, { schedules, hours }) => {
  if (d.schedule === undefined || total(hours.hours(d.schedule)) > 0) return []
  const name = schedules.find((s) => s.id === d.schedule)?.name ?? 'its hours'
  return ofDetection(
    'blocking',
    'armed',
    camera,
    d,
    `${d.name} never fires: ${name} has no minute in the year.`,
    edit(camera, { ...d, schedule: undefined }, 'Arm it always')
  )
})
