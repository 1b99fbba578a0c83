import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

export const neverProven = perDetection('never-proven', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.checks)
    return ofDetection('warning', 'proven', camera, d, said('readiness.noChecks', d.name), {
      does: 'go',
      words: said('readiness.seeProposed'),
      to: `/prove?camera=${camera.id}&detection=${d.id}`
    })
  const run = {
    does: 'prove',
    words: said('readiness.runChecks'),
    camera: camera.id,
    detection: d.id
  } as const
  if (proof.outdated)
    return ofDetection(
      'warning',
      'proven',
      camera,
      d,
      said('readiness.outdated', d.name, proof.outdated),
      run
    )
  if (proof.passed + proof.failed === 0)
    return ofDetection('warning', 'proven', camera, d, said('readiness.neverRun', d.name), run)
  return []
})
