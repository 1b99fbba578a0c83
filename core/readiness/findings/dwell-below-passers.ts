import { said } from '../../messages/said.ts'
import { dwellAbovePassers, staysIn } from '../../tuning/stays.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'
import { pathsOn, rounded } from '../seen.ts'

export const dwellBelowPassers = perDetection('dwell-below-passers', (d, camera) => {
  if (!('dwellSeconds' in d) || d.dwellSeconds === 0) return []
  const above = dwellAbovePassers(
    camera.clips.flatMap((clip) => staysIn(d, clip.tracks, pathsOn(clip)))
  )
  if (!above || d.dwellSeconds > above.usual) return []
  return ofDetection(
    'hint',
    'drawn',
    camera,
    d,
    said('readiness.dwellBelowPassers', d.name, rounded(above.usual), d.dwellSeconds),
    edit(camera, { ...d, dwellSeconds: above.dwell }, said('readiness.setDwell', above.dwell))
  )
})
