import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

/** Mean and spread of luma, of 255, below which little is left that a cover or a defocus could take away. */
const DARK = 40
const UNIFORM = 14

export const tamperDarkView = perDetection('tamper-dark-view', (d, camera) => {
  if (d.kind !== 'tamper') return []
  const clip = camera.clips.find(
    ({ look }) => look && (look.luma < DARK || look.contrast < UNIFORM)
  )
  if (!clip?.look) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.tamperDarkView', d.name, clip.look.luma < DARK, clip.name)
  )
})
