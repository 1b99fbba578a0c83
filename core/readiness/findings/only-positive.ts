import { ofDetection, perDetection } from '../facts.ts'

export const onlyPositive = perDetection('only-positive', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.checks || proof.silences) return []
  return ofDetection(
    'hint',
    'proven',
    camera,
    d,
    `No check of ${d.name} expects silence: that it keeps quiet for a passer-by is not known.`,
    { does: 'go', words: 'Add one', to: `/prove?camera=${camera.id}&detection=${d.id}` }
  )
})
