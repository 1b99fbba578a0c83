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
    `${d.name}: passers-by on the clips take up to ${rounded(above.usual)} s across it, and its dwell is ${d.dwellSeconds} s: it triggers for those who only pass.`,
    edit(camera, { ...d, dwellSeconds: above.dwell }, `Set the dwell to ${above.dwell} s`)
  )
})
