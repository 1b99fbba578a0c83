import { said } from '../../messages/said.ts'
import { hasShape } from '../../kinds/schemas.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

/** An overlap above or below these is hardly ever meant. Common practice, no source. */
const MOST = 90
const LEAST = 10

export const sensitivityExtreme = perDetection('sensitivity-extreme', (d, camera) => {
  if (!('sensitivity' in d) || (d.sensitivity <= MOST && d.sensitivity >= LEAST)) return []
  const what = hasShape(d)
    ? d.sensitivity > MOST
      ? said('readiness.handTriggers')
      : said('readiness.needsWholeBody')
    : d.sensitivity > MOST
      ? said('readiness.noiseTriggers')
      : said('readiness.missesMuch')
  return ofDetection(
    'hint',
    'drawn',
    camera,
    d,
    said('readiness.sensitivityExtreme', d.name, d.sensitivity, what),
    edit(camera, { ...d, sensitivity: 50 }, said('readiness.setTo50'))
  )
})
