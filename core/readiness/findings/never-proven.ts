import { ofDetection, perDetection } from '../facts.ts'

export const neverProven = perDetection('never-proven', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.checks)
    return ofDetection(
      'warning',
      'proven',
      camera,
      d,
      `Nobody knows whether ${d.name} triggers when it must: it has no check yet.`,
      {
        does: 'go',
        words: 'See the checks proposed',
        to: `/prove?camera=${camera.id}&detection=${d.id}`
      }
    )
  const run = {
    does: 'prove',
    words: 'Run its checks',
    camera: camera.id,
    detection: d.id
  } as const
  if (proof.outdated)
    return ofDetection(
      'warning',
      'proven',
      camera,
      d,
      `${d.name}, or what it depends on, was changed since ${proof.outdated === 1 ? 'one of its checks was' : `${proof.outdated} of its checks were`} run: they prove nothing any more.`,
      run
    )
  if (proof.passed + proof.failed === 0)
    return ofDetection(
      'warning',
      'proven',
      camera,
      d,
      `No check of ${d.name} has ever been run.`,
      run
    )
  return []
})
