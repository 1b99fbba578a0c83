import { edit, ofDetection, perDetection } from '../facts.ts'

/** Less than this a week is rather a mistake than hours. From `docs/readiness.md`. */
const MINUTES = 15

export const barelyArmed = perDetection('barely-armed', (d, camera, { schedules, hours }) => {
  const { armed } = hours.coverage(d.schedule, undefined)
  if (armed === 0 || armed >= MINUTES) return []
  const name = schedules.find((s) => s.id === d.schedule)?.name ?? 'its hours'
  return ofDetection(
    'warning',
    'armed',
    camera,
    d,
    `${d.name} is armed for ${Math.max(1, Math.round(armed))} min a week: ${name} has hardly any hours. If it is only to keep a device quiet, park it.`,
    edit(camera, { ...d, parked: true }, 'Park it')
  )
})
