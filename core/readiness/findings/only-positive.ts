import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

export const onlyPositive = perDetection('only-positive', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.checks || proof.silences) return []
  return ofDetection('hint', 'proven', camera, d, said('readiness.onlyPositive', d.name), {
    does: 'go',
    words: said('readiness.addCheck'),
    to: `/prove?camera=${camera.id}&detection=${d.id}`
  })
})
