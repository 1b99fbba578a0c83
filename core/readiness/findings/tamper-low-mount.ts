import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { rounded } from '../seen.ts'

/** Within reach of a hand. Common practice, no source. */
const METRES = 2.5

export const tamperLowMount = perDetection('tamper-low-mount', (d, camera) => {
  const { pose } = camera
  if (d.kind !== 'tamper' || !pose || pose.height >= METRES) return []
  return ofDetection(
    'hint',
    'drawn',
    camera,
    d,
    said('readiness.tamperLowMount', camera.name, rounded(pose.height), d.name)
  )
})
