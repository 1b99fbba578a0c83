import { ofDetection, perDetection } from '../facts.ts'

const MAX_NAMED = 3

export const checkFailed = perDetection('check-failed', (d, camera) => {
  const proof = camera.proofs.get(d.id)
  if (!proof?.failed) return []
  const named = proof.failing.slice(0, MAX_NAMED).join('; ')
  const more =
    proof.failing.length > MAX_NAMED ? `; and ${proof.failing.length - MAX_NAMED} more` : ''
  return ofDetection(
    'blocking',
    'proven',
    camera,
    d,
    `${d.name} did not do what ${proof.failed === 1 ? 'a check' : `${proof.failed} checks`} of it expected: ${named}${more}.`,
    { does: 'go', words: 'See why', to: `/prove?camera=${camera.id}&detection=${d.id}&show=failed` }
  )
})
