import { hasShape } from '../../kinds/schemas.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

/** Above and below these a body share is hardly ever meant. Common practice, no source. */
const MOST = 90
const LEAST = 10

export const sensitivityExtreme = perDetection('sensitivity-extreme', (d, camera) => {
  if (!('sensitivity' in d) || (d.sensitivity <= MOST && d.sensitivity >= LEAST)) return []
  const what = hasShape(d)
    ? d.sensitivity > MOST
      ? 'a hand over it is enough'
      : 'nearly the whole body must be over it'
    : d.sensitivity > MOST
      ? 'noise and light set it off'
      : 'little is seen by it'
  return ofDetection(
    'hint',
    'drawn',
    camera,
    d,
    `${d.name} has a sensitivity of ${d.sensitivity}: ${what}.`,
    edit(camera, { ...d, sensitivity: 50 }, 'Set it to 50')
  )
})
